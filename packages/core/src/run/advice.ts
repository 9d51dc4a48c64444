import type { FillCavity } from '../fill/fill-index.ts';
import type { Alloy } from '../metal/alloy.ts';
import type { MoldBlock } from '../mold/block.ts';
import type { SootSchool } from '../mold/soot.ts';
import type { PotBody } from '../pot/simulate.ts';
import type { PotWay } from '../pot/way.ts';
import type { PourLog, PourSetup } from './pour-log.ts';
import type { Handled } from './handling.ts';
import type { PourState } from './pour.ts';

/** One thing the coach says. Masses and temperatures stand apart, to be written in the maker's units. */
export interface Advice {
  kind:
    | 'dry'
    | 'cold metal'
    | 'blank'
    | 'wait'
    | 'shorts'
    | 'flash'
    | 'weight'
    | 'smoke'
    | 'feed'
    | 'stream'
    | 'skim'
    | 'dial'
    | 'go';
  says: string;
  /** What to try first, in order, with what it would bring. */
  first?: string[];
  kg?: number;
  /** Blank shots that are wanted. */
  shots?: number;
  /** Which mold it is about; null where it is about the pot or the hands. */
  moldId: string | null;
  /** stop: before the next shot; watch: soon; quiet: nothing to do. */
  weight: 'stop' | 'watch' | 'quiet';
}

/** A cavity as the coach looks at it. */
interface CoachCavity {
  position: number;
  fill: FillCavity;
  shotsSinceSmoked: number;
  everSmoked: boolean;
}

/** A mold at the pot as the coach looks at it. */
export interface CoachMold {
  moldId: string;
  name: string;
  /** By the model or, where there is one, by the probe. */
  moldC: number;
  block: MoldBlock;
  fullShotKg: number;
  barKg?: number;
  sootSchool: SootSchool;
  /** Colder than this it is too cold to go on: by its own record of shorts, or by practice. */
  coldBelowC: number;
  /** What this house knows of it; left out: nothing yet. */
  handled?: readonly Handled[];
  cavities: readonly CoachCavity[];
}

/** All that the coach goes by, at one moment. */
export interface CoachInput {
  setup: PourSetup;
  log: PourLog;
  state: PourState;
  /** Molds that are at the pot, the next one first. */
  molds: readonly CoachMold[];
  potC: number;
  potKg: number;
  pot: PotBody;
  capacityKg: number;
  /** What the pot is held at; left out: as the metal reaches the molds. */
  pourC?: number;
  /** How it is poured; left out: by a bottom spout. */
  potWay?: PotWay | undefined;
  /** What is poured; left out: soft lead. */
  alloy?: Alloy;
  /** Of the metal as it reaches the molds. */
  metalC: number;
  roomC: number;
  heelKg: number;
  now: number;
}
