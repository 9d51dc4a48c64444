import type { CountFrom } from '../bake/count-from.ts';
import type { DoorOpening } from '../bake/running.ts';
import { headsOf, headsRefusal, type Around, type HeadsInRun, type SharedEntry } from './heads-in-run.ts';
import { inTurn } from '../log/in-turn.ts';
import { standing, undoRefusal, type Entry, type UndoEntry } from '../log/log.ts';

/** What is said of one load of the oven. The first entry shuts the door on heads of one ticket or of several. */
export type OvenEntry =
  | (Entry & {
      kind: 'load';
      /** Null: the first oven of the house. */
      ovenId: string | null;
      heads: HeadsInRun[];
      setC: number;
      seconds: number;
      preheated: boolean;
      from?: CountFrom;
      warmS?: number;
    })
  /** The metal is at the oven's heat: a count that goes from there begins. */
  | (Entry & { kind: 'warm'; by: 'probe' | 'model' | 'hand' })
  /** The oven's door is opened, or shut again, with heads in it. */
  | (Entry & { kind: 'door'; open: boolean })
  /** All out; so many seconds until a bare hand may take a head. */
  | (Entry & { kind: 'unload'; coolS?: number });

export type OvenLog = readonly (OvenEntry | UndoEntry)[];

export interface OvenState {
  /** empty: nothing was loaded, or that was taken back. */
  phase: 'empty' | 'baking' | 'out';
  ovenId: string | null;
  heads: HeadsInRun[];
  count: number;
  setC: number;
  seconds: number;
  preheated: boolean;
  from: CountFrom;
  /** What the metal was reckoned to take to the oven's heat, s; 0 where the count goes from the door. */
  warmS: number;
  loadedAt: number;
  warmAt: number | null;
  doors: DoorOpening[];
  /** When the program is over, as far as is known now. */
  endsAt: number;
  unloadedAt: number | null;
  coolS: number;
}

const EMPTY: OvenState = {
  phase: 'empty',
  ovenId: null,
  heads: [],
  count: 0,
  setC: 0,
  seconds: 0,
  preheated: false,
  from: 'door',
  warmS: 0,
  loadedAt: 0,
  warmAt: null,
  doors: [],
  endsAt: 0,
  unloadedAt: null,
  coolS: 0,
};

function loaded(entry: Extract<OvenEntry, { kind: 'load' }>): OvenState {
  const { ovenId, heads, setC, seconds, preheated, from = 'door', at: loadedAt } = entry;
  const warmS = from === 'metal' ? (entry.warmS ?? 0) : 0;
  const endsAt = loadedAt + 1000 * (warmS + seconds);
  const program = { setC, seconds, preheated, from, warmS };
  return { ...EMPTY, ...program, phase: 'baking', ovenId, heads, count: headsOf(heads), loadedAt, endsAt, doors: [] };
}

/**
 * A load of the oven from its log: hung up, warm, its door opened, taken out.
 * @example ovenState([]).phase // 'empty'
 */
export function ovenState(log: OvenLog): OvenState {
  let state = EMPTY;
  for (const entry of inTurn<OvenEntry>(log)) {
    if (entry.kind === 'load') state = loaded(entry);
    if (state.phase !== 'baking') continue;
    if (entry.kind === 'warm' && state.warmAt === null) {
      const endsAt = state.from === 'metal' ? entry.at + 1000 * state.seconds : state.endsAt;
      state = { ...state, warmAt: entry.at, endsAt };
    }
    if (entry.kind === 'door') {
      const last = state.doors.at(-1);
      if (entry.open && last?.toAt !== null) state.doors.push({ fromAt: entry.at, toAt: null });
      if (!entry.open && last?.toAt === null) last.toAt = entry.at;
    }
    if (entry.kind === 'unload') state = { ...state, phase: 'out', unloadedAt: entry.at, coolS: entry.coolS ?? 0 };
  }
  return state;
}

/** Taking back keeps the order of a load: in the oven, then door and warmth, then out. */
function ovenUndoRefusal(log: OvenLog, entry: UndoEntry, around: Around): string | null {
  const why = undoRefusal(log, entry);
  if (why) return why;
  const before = ovenState(log);
  const kept = standing<OvenEntry>(log);
  const target = kept.find((each) => each.id === entry.target);
  if (target && target.kind !== 'unload' && before.phase === 'out') return 'Take back the taking out first.';
  if (
    target?.kind === 'load' &&
    kept.some((each) => each.kind === 'door' || (each.kind === 'warm' && each.by === 'hand'))
  ) {
    return 'Take back first what was said after the door was shut on this load.';
  }
  const after = ovenState([...log, entry]);
  if (after.phase === 'baking' && before.phase !== 'baking' && around.busy) {
    return `The oven holds ${around.busy} by now; take it out first.`;
  }
  return null;
}

/**
 * What a new entry of a load may not do, in words; null when it may. Two heats at once in one oven are refused.
 * @example ovenRefusal([], { id: 'd', at: 0, kind: 'door', open: true }, { waiting: () => 0, stationOf: () => null,
 *   busy: null }) // 'Nothing is in the oven.'
 */
export function ovenRefusal(log: OvenLog, entry: OvenEntry | UndoEntry, around: Around): string | null {
  if (entry.kind === 'undo') return ovenUndoRefusal(log, entry, around);
  const state = ovenState(log);
  if (entry.kind === 'load') {
    if (state.phase !== 'empty') return 'This load is in the oven already.';
    if (around.busy) return `The oven holds ${around.busy}; take it out first.`;
    return headsRefusal(entry.heads, 'bake', around);
  }
  if (state.phase === 'empty') return 'Nothing is in the oven.';
  if (state.phase === 'out') return 'This load is out of the oven. Undo the taking out first.';
  if (entry.kind === 'warm' && state.warmAt !== null) return 'The metal was said to be warm already.';
  if (entry.kind === 'door' && entry.open === (state.doors.at(-1)?.toAt === null)) {
    return entry.open ? 'The door is open already.' : 'The door is shut already.';
  }
  return null;
}

/**
 * What a load says to each of its tickets, as that ticket would have said it itself.
 * @example ovenShares([]) // []
 */
export function ovenShares(log: OvenLog): SharedEntry[] {
  const { heads, count } = ovenState(log);
  const entries = inTurn<OvenEntry>(log);
  const loadId = entries.find((entry) => entry.kind === 'load')?.id;
  return entries.flatMap((entry) =>
    heads.map(({ ticketId, step, count: own }): SharedEntry => {
      const of = { step, share: own / count };
      const { id, at } = entry;
      if (entry.kind !== 'load') return { ticketId, entry: { ...entry, ...of, loadId } };
      const { setC, seconds, preheated, from, warmS } = entry;
      const program = { setC, seconds, preheated, ...(from ? { from } : {}), ...(warmS ? { warmS } : {}) };
      const by = {
        ...(entry.who === undefined ? {} : { who: entry.who }),
        ...(entry.sinceS === undefined ? {} : { sinceS: entry.sinceS }),
      };
      return { ticketId, entry: { id, at, kind: 'load', ...by, ...of, count: own, ...program } };
    }),
  );
}

/**
 * Loads whose program is over, first to end first.
 * @example bakedLoads([], 0) // []
 */
export function bakedLoads(
  runs: readonly { id: string; kind: string; log: readonly (Entry | UndoEntry)[] }[],
  now: number,
): { runId: string; count: number }[] {
  return runs
    .filter((run) => run.kind === 'oven')
    .map(({ id, log }) => ({ id, state: ovenState(log as OvenLog) }))
    .filter(({ state }) => state.phase === 'baking' && state.endsAt <= now)
    .sort((a, b) => a.state.endsAt - b.state.endsAt)
    .map(({ id, state }) => ({ runId: id, count: state.count }));
}
