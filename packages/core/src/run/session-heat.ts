import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import type { MoldBlock } from '../mold/block.ts';
import { moldSession, type MoldStep } from '../mold/session.ts';
import type { StyleId } from '../geometry/styles.ts';
import { workingBlock, type WorkedMold } from '../freeze/opening.ts';
import { blockThen, cavityShotKg, fullShotKg } from '../mold/known-mold.ts';
import { BAR_KG } from '../mold/warm-up.ts';
import type { WarmSchool } from '../mold/warm-plan.ts';
import { DRY_KG, simulatePot, type PotBody, type PotEvent } from '../pot/simulate.ts';
import { standing } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';

/** A mold as heat sees it. */
export interface SessionMold {
  moldId: string;
  block: MoldBlock;
  /** Every open cavity filled, heads and sprues. */
  fullShotKg: number;
  /** What a blank shot weighs beyond that; left out: as usual. */
  barKg?: number;
  /** Head and sprue of a cavity that casts for no ticket, by position. */
  otherKg?: Record<number, number>;
  warmed: WarmSchool;
  openS: number;
}
/** A mold on record, as far as its heat goes. */
interface MoldOnRecord extends WorkedMold {
  id: string;
  barKg?: number | null;
  warmSchool?: WarmSchool;
  cavities: readonly { position: number; style: StyleId; nominalMassKg: number; condition: string }[];
}

/**
 * A mold in a pour: its block as it was known when that was begun, or as it is known now where that was not kept.
 * @example sessionMold(smallMold, pour.setup).warmed // 'blank shots'
 */
export function sessionMold(mold: MoldOnRecord, setup: PourSetup, blocks?: Record<string, MoldBlock>): SessionMold {
  const { openS } = setup.molds.find(({ moldId }) => moldId === mold.id)!;
  const then = blocks?.[mold.id];
  return {
    moldId: mold.id,
    block: then ? blockThen(then) : workingBlock(mold).block,
    fullShotKg: fullShotKg(mold.cavities),
    barKg: mold.barKg ?? undefined,
    otherKg: Object.fromEntries(mold.cavities.map((cavity) => [cavity.position, cavityShotKg(cavity)])),
    warmed: mold.warmSchool ?? 'blank shots',
    openS,
  };
}

/** A pour as heat sees it. */
interface SessionInput {
  setup: PourSetup;
  log: PourLog;
  molds: readonly SessionMold[];
  pot: PotBody;
  /** Of the metal as it reaches the molds, and in the pot; the same where nothing is said. */
  metalC: number;
  pourC?: number;
  /** What is poured; left out: soft lead. */
  alloy?: Alloy;
  roomC: number;
  now: number;
}
interface SessionPoint {
  /** ms since 1970 */
  at: number;
  temperatureC: number;
}
export interface SessionHeat {
  molds: Record<string, SessionPoint[]>;
  pot: (SessionPoint & { leadKg: number })[];
  /** Now, by the model, by mold; empty before the pot was on. */
  moldC: Record<string, number>;
  /** Null before the pot was on. */
  potC: number | null;
  potKg: number;
}

/** A mold on the rim while the pot melts: what it lies on, on average. Common practice, no source. */
const RIM_C = 240;
/** Sprues and blank shots go back while they are warm. */
const BACK_C = 60;
const LONGEST_S = 86_400;

type Poured = Extract<PourEntry, { kind: 'shot' | 'blank' }>;

/** What a shot takes out of the pot and leaves in its mold, kg. */
function shotKg(setup: PourSetup, mold: SessionMold, entry: Poured): number {
  if (entry.kind === 'blank') return mold.fullShotKg + (mold.barKg ?? BAR_KG);
  const loaded = setup.loads.filter((load) => load.moldId === mold.moldId);
  return [...entry.positions, ...(entry.filled ?? [])].reduce((sum, position) => {
    const load = loaded.find((each) => each.position === position);
    return sum + (load ? load.leadKg + load.sprueKg : (mold.otherKg?.[position] ?? 0));
  }, 0);
}

/**
 * What a mold lives through in a pour: warmed, then shut until it may be opened and open until the next shot.
 * @example moldSteps({ setup: pour.setup, metalC: 371 }, sessionMold(smallMold, pour.setup), [], 0,
 *   60).steps.length // 1
 */
export function moldSteps(
  { setup, metalC }: Pick<SessionInput, 'setup' | 'metalC'>,
  mold: SessionMold,
  entries: readonly PourEntry[],
  from: number,
  seconds: number,
): { steps: MoldStep[]; poured: Poured[] } {
  const since = (at: number) => Math.min(seconds, Math.max(0, (at - from) / 1000));
  const poured = entries.filter(
    (entry): entry is Poured => (entry.kind === 'shot' || entry.kind === 'blank') && entry.moldId === mold.moldId,
  );
  const firstS = poured[0] ? since(poured[0].at) : seconds;
  const steps: MoldStep[] = [
    mold.warmed === 'blank shots'
      ? { kind: 'wait', seconds: firstS, open: false }
      : { kind: 'pot top', seconds: firstS, potC: RIM_C },
    ...poured.map((entry, i): MoldStep => {
      const gap = (poured[i + 1] ? since(poured[i + 1]!.at) : seconds) - since(entry.at);
      const closedS = Math.min(mold.openS, gap);
      const blank = entry.kind === 'blank' ? { blank: true } : {};
      const kg = Math.max(0.001, shotKg(setup, mold, entry));
      return { kind: 'shot', kg, metalC, closedS, openS: gap - closedS, ...blank };
    }),
  ];
  // A gap of hours is a wait after its shot, since one cycle has its bounds.
  const walked = steps.flatMap((step): MoldStep[] =>
    step.kind === 'shot' && step.openS > 3600
      ? [
          { ...step, openS: 0 },
          { kind: 'wait', seconds: step.openS },
        ]
      : [step],
  );
  return { steps: walked, poured };
}

/** What goes into the pot and comes out of it; blank shots go back, and so does what is filled without a hook. */
function potEvents(
  input: SessionInput,
  entries: readonly PourEntry[],
  since: (at: number) => number,
  chargedKg: number,
) {
  const loadAt = new Map(input.setup.loads.map((load) => [`${load.moldId} ${load.position}`, load]));
  const shotMold = new Map(entries.flatMap((entry) => (entry.kind === 'shot' ? [[entry.id, entry.moldId]] : [])));
  const events: PotEvent[] = [];
  let leadKg = Math.max(DRY_KG, chargedKg);
  const add = (atS: number, kg: number) => {
    const fits = Math.min(kg, 50 - leadKg);
    leadKg += fits;
    events.push({ atS, kind: 'add', kg: fits, fromC: BACK_C });
  };
  for (const entry of entries) {
    const atS = since(entry.at);
    if (entry.kind === 'feed') add(atS, entry.massKg);
    if (entry.kind === 'reject' && entry.goes === 'parts back') {
      const load = loadAt.get(`${shotMold.get(entry.shotId)} ${entry.position}`);
      if (load) add(atS, load.leadKg);
    }
    if (entry.kind === 'shot') {
      const wanted = entry.positions.reduce((sum, position) => {
        const load = loadAt.get(`${entry.moldId} ${position}`);
        return sum + (load ? load.leadKg + load.sprueKg : 0);
      }, 0);
      const kg = Math.min(wanted, Math.max(0, leadKg - DRY_KG - 1e-6));
      leadKg -= kg;
      if (kg > 0) events.push({ atS, kind: 'take', kg });
    }
  }
  return events;
}

/**
 * Heat of molds and pot over a pour, from its log alone: what the bench coaches by and what the session is replayed
 * with. Shots leave their heat in their mold and their metal out of the pot. Pure: the same log gives the same curves.
 * @example sessionHeat({ setup: pour.setup, log: twoShots, molds: [sessionMold(smallMold, pour.setup)],
 *   pot: { powerW: 700, lossWPerK: 0.55 }, metalC: 371, roomC: 20, now: 1_080_000 }).potC // 367.6
 */
export function sessionHeat(input: SessionInput): SessionHeat {
  const entries = standing<PourEntry>(input.log);
  const charge = entries.find((entry) => entry.kind === 'charge');
  if (charge?.kind !== 'charge') return { molds: {}, pot: [], moldC: {}, potC: null, potKg: 0 };
  const from = charge.at;
  const end = Math.max(from, entries.some((entry) => entry.kind === 'close') ? entries.at(-1)!.at : input.now);
  const seconds = Math.min(LONGEST_S, (end - from) / 1000);
  const since = (at: number) => Math.min(seconds, Math.max(0, (at - from) / 1000));
  const at = (atS: number) => from + atS * 1000;
  const molds: SessionHeat['molds'] = {};
  const moldC: SessionHeat['moldC'] = {};
  const { alloy = SOFT_LEAD, pourC = input.metalC } = input;
  for (const mold of input.molds) {
    const { steps } = moldSteps(input, mold, entries, from, seconds);
    const { points } = moldSession({ block: mold.block, roomC: input.roomC, steps, alloy });
    molds[mold.moldId] = points.map((point) => ({ at: at(point.atS), temperatureC: point.meanC }));
    moldC[mold.moldId] = points.at(-1)!.meanC;
  }
  const trace = simulatePot({
    pot: input.pot,
    leadKg: Math.min(50, Math.max(DRY_KG, charge.massKg)),
    fromC: charge.potC,
    roomC: input.roomC,
    setC: pourC,
    alloy,
    seconds,
    events: potEvents(input, entries, since, charge.massKg),
    everyS: 15,
  });
  return {
    molds,
    moldC,
    pot: trace.points.map((point) => ({ at: at(point.atS), temperatureC: point.temperatureC, leadKg: point.leadKg })),
    potC: trace.points.at(-1)!.temperatureC,
    potKg: trace.points.at(-1)!.leadKg,
  };
}
