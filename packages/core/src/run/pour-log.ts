import type { Alloy } from '../metal/alloy.ts';
import type { PotWay } from '../pot/way.ts';
import type { MoldBlock } from '../mold/block.ts';
import type { DispositionId } from '../job/dispositions.ts';
import type { Entry, UndoEntry } from '../log/log.ts';

/** What may become of a bad head at the pot: its lead never leaves it, unless the head is kept. */
export const POUR_DISPOSITIONS = [
  'melt',
  'hook lost',
  'parts back',
  'second grade',
] as const satisfies readonly DispositionId[];
export type PourDisposition = (typeof POUR_DISPOSITIONS)[number];

/** Where a head is short, as it is looked at. */
export const SHORT_WHERE = ['barb', 'shank', 'nose'] as const;
export type ShortWhere = (typeof SHORT_WHERE)[number];

/** What is laid into a cavity beside its hook, in the order of laying in. */
/** Small things that are cast in, or that keep a hole open. */
export type Insert =
  'base-hole pin' | 'shortened pin' | 'keeper' | 'wire guard' | 'pull-out rod' | 'swivel eyelet' | 'spinner wire';

/** What stands in a cavity for this run. Several tickets that want the same blank wait in a row. */
export interface CavityLoad {
  moldId: string;
  position: number;
  cavityId: string;
  /** Tickets that take heads from this cavity, first served first; empty: the cavity is not used. */
  ticketIds: string[];
  hookMaterialId: string | null;
  /** Pieces beside the hook that are cast in and counted out like it; left out: none. */
  castIn?: { materialId: string; quantity: number }[];
  inserts: Insert[];
  leadKg: number;
  /** The hook and what is cast in with it: a head on the scale weighs both. */
  hookKg: number;
  sprueKg: number;
  yieldShare: number;
  /** How sure that is for one evening; left out in old pours. */
  yieldSure?: number;
}

/** A mold of this run, with its times. */
export interface MoldSetup {
  moldId: string;
  plannedBlanks: number;
  /** Shots that are expected; in pours of before those that were laid out for. */
  plannedShots: number;
  /** Seconds until the slowest cavity may be opened. */
  openS: number;
  /** Until its last head is solid; not kept by pours of before. */
  solidS?: number;
  /** When a pull-out rod in it is moved, s after the pour; left out: none in it. */
  rodS?: { fromS: number; toS: number };
  /** How long after opening the bends of its hooks may be held, s; left out: they never get too hot. */
  hookHeldS?: number;
  /** Seconds to take out and look, and to load, a cavity. */
  inspectS: number;
  loadS: number;
  /** Open cavities that no ticket uses, without a pin: they may be filled to keep the heat; left out: none. */
  idle?: number[];
}

export interface PourSetup {
  /** In the order in which they come to the pot. */
  molds: MoldSetup[];
  /** How many of them are poured in turn. */
  atOnce: number;
  /** What a head weighs in this metal against soft lead; left out: 1. */
  metalShare?: number;
  loads: CavityLoad[];
  /** Good heads wanted by ticket. */
  needs: Record<string, number>;
  /** Hooks and other pieces that are cast in, as many as were counted out, by material. */
  hooksOut: Record<string, number>;
  /** Base-hole pins to lay out: one a good head where they stay in it, and one load; left out: a load. */
  pinsOut?: number;
  /** What the pot holds; not kept by pours of before. */
  potHoldsKg?: number;
  /** Hooks that are bent before they are laid in, and how; left out: none. */
  bent?: { materialId: string; says: string }[];
}

/** What the plan said of a pour, with the heat and the pot of that day. */
export interface PourPlanned {
  meltS: number;
  chargeKg: number;
  /** Melting, blank shots and shots. */
  plannedS: number;
  /** How the maker's hands differ from the ways, as it was reckoned with; left out: as the ways. */
  pace?: number;
  /** Of the metal in the pot. */
  pourC: number;
  /** What was poured; left out: soft lead. */
  alloy?: Alloy;
  /** How it was poured; left out: by a bottom spout. */
  potWay?: PotWay;
  roomC: number;
  potPowerW: number;
  potLossWPerK: number;
  /** Not kept by pours of before. */
  potCrucibleJPerK?: number;
  /** Its molds as they were known that day; not kept by pours of before. */
  blocks?: Record<string, MoldBlock>;
}

/** What is tried against shorts, beside smoking the mold: said, so that it is known later what it did. */
export const TRIED_AT_POT = [
  'injected',
  'tilted',
  'first cavity low',
  'last cavity low',
  'spout reamed',
  'metal hotter',
  'hooks warmed',
] as const;
export type TriedAtPot = (typeof TRIED_AT_POT)[number];

/** Small jobs at the pot: those that the coach asks for and that end their asking, and what is tried against shorts. */
export const ROUTINE_WORK = ['skimmed', 'stream looked at', 'pot off', ...TRIED_AT_POT] as const;
export type RoutineWork = (typeof ROUTINE_WORK)[number];

/** What became of one bad head of a shot. */
export interface RejectEntry extends Entry {
  kind: 'reject';
  shotId: string;
  position: number;
  /** Of the causes of the pour station. */
  cause: string;
  /** Where it was short. */
  where?: ShortWhere;
  /** Kept as second grade it is no reject for the pot, and no head for its ticket. */
  goes: PourDisposition;
}

export type PourEntry =
  | (Entry & { kind: 'charge'; massKg: number; potC: number })
  | (Entry & { kind: 'feed'; massKg: number })
  | (Entry & { kind: 'blank'; moldId: string })
  /** `filled`: cavities without a hook that were filled too, to keep the heat. */
  | (Entry & { kind: 'shot'; moldId: string; positions: number[]; filled?: number[] })
  | RejectEntry
  | (Entry & { kind: 'smoked'; moldId: string })
  | (Entry & { kind: 'blocked'; moldId: string; position: number })
  /** A mold is put away, or comes to the pot after all. */
  | (Entry & { kind: 'mold'; moldId: string; away: boolean })
  /** Hooks of a kind that are left to load, as counted now. */
  | (Entry & { kind: 'hooks'; materialId: string; left: number })
  | (Entry & { kind: 'weighed'; moldId: string; position: number; massKg: number })
  | (Entry & { kind: 'checked'; items: string[] })
  | (Entry & { kind: 'done'; what: RoutineWork })
  | (Entry & { kind: 'pause' })
  | (Entry & { kind: 'resume' })
  | (Entry & { kind: 'close'; sprueBackKg: number; rejectsBackKg: number; drossKg: number; heelKg: number });

export type PourLog = readonly (PourEntry | UndoEntry)[];
