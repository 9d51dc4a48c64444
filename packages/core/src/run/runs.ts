import type { TicketEntry } from '../job/ticket-log.ts';
import type { Clock } from './clock.ts';
import type { Around, SharedEntry } from './heads-in-run.ts';
import type { Entry, UndoEntry } from '../log/log.ts';
import { ovenRefusal, ovenShares, ovenState, type OvenEntry, type OvenLog } from './oven.ts';
import { sessionRefusal, sessionShares, sessionState, type SessionEntry, type SessionLog } from './session.ts';

/** Everything that is done for several tickets at once, beside the pour, which has a setup of its own. */
export type RunKindId = 'oven' | 'dip' | 'glue';

export type RunEntry = OvenEntry | SessionEntry;
export type RunLog = readonly (RunEntry | UndoEntry)[];

/** A run on record. */
export interface Run {
  id: string;
  kind: RunKindId;
  number: number;
  log: RunLog;
}

/** What a kind of run knows of itself. A new kind is a new row of {@link RUN_KINDS}. */
interface RunKind {
  id: RunKindId;
  /** One of them, as it is said. */
  name: string;
  /** Where on the line it is done. */
  station: string;
  /** Whether it is over, so that it needs no more looking after. Null while nothing was said that stands. */
  closedAt(log: RunLog): number | null;
  /** Tickets and steps that it was begun with. */
  heads(log: RunLog): { ticketId: string; step: string; count: number }[];
  /** What may not be said, in words; null when it may. */
  refusal(log: RunLog, entry: RunEntry | UndoEntry, around: Around): string | null;
  /** What it says to its tickets. */
  shares(log: RunLog): SharedEntry[];
  /** Waits that run by themselves. */
  waits(run: Run, now: number): Clock[];
}

const session = (id: 'dip' | 'glue', name: string, station: string): RunKind => ({
  id,
  name,
  station,
  closedAt: (log) => sessionState(log as SessionLog).endedAt,
  heads: (log) => sessionState(log as SessionLog).heads,
  refusal: (log, entry, around) =>
    sessionRefusal(log as SessionLog, entry as SessionEntry | UndoEntry, station, around),
  shares: (log) => sessionShares(log as SessionLog),
  waits({ id: runId, number, log }, now) {
    const { phase, name: glue, beganAt, workableUntil, setAt, endedAt } = sessionState(log as SessionLog);
    const to = { station, id: runId, step: null, run: id };
    const clocks: Clock[] = [];
    if (workableUntil !== null && phase === 'going' && workableUntil > now) {
      const says = `${glue} can be worked, mix ${number}`;
      clocks.push({ id: `mix ${runId}`, body: 'wait', name: says, startedAt: beganAt, endsAt: workableUntil, to });
    }
    if (setAt !== null && phase === 'over' && setAt > now) {
      const startedAt = endedAt ?? beganAt;
      clocks.push({
        id: `set ${runId}`,
        body: 'wait',
        name: `${glue} sets, mix ${number}`,
        startedAt,
        endsAt: setAt,
        to,
      });
    }
    return clocks;
  },
});

const oven: RunKind = {
  id: 'oven',
  name: 'oven load',
  station: 'bake',
  closedAt: (log) => ovenState(log as OvenLog).unloadedAt,
  heads: (log) => ovenState(log as OvenLog).heads,
  refusal: (log, entry, around) => ovenRefusal(log as OvenLog, entry as OvenEntry | UndoEntry, around),
  shares: (log) => ovenShares(log as OvenLog),
  waits({ id, number, log }, now) {
    const { phase, loadedAt, endsAt, unloadedAt, coolS } = ovenState(log as OvenLog);
    const to = { station: 'bake', id, step: null, run: 'oven' };
    if (phase === 'baking') {
      return [{ id: `oven ${id}`, body: 'oven', name: `Bake, load ${number}`, startedAt: loadedAt, endsAt, to }];
    }
    const cooledAt = (unloadedAt ?? 0) + coolS * 1000;
    if (phase !== 'out' || cooledAt <= now) return [];
    return [
      { id: `cool ${id}`, body: 'cool', name: `Hot, load ${number}`, startedAt: unloadedAt!, endsAt: cooledAt, to },
    ];
  },
};

/** The registry of runs: fold, refusal, waits and shares of each kind. */
export const RUN_KINDS: Record<RunKindId, RunKind> = {
  oven,
  dip: session('dip', 'dip session', 'paint'),
  glue: session('glue', 'glue mix', 'finish'),
};

/**
 * Whether a run has anything that stands: one that was taken back as a whole is none.
 * @example hasBegun({ kind: 'oven', log: [] }) // false
 */
export const hasBegun = (run: Pick<Run, 'kind' | 'log'>): boolean => RUN_KINDS[run.kind].heads(run.log).length > 0;

/**
 * A ticket's log with what its runs say of it: what {@link ticketState} is folded from.
 * @example withShares('a', [], []) // []
 */
export function withShares<E extends Entry>(
  ticketId: string,
  own: readonly (E | UndoEntry)[],
  runs: readonly Pick<Run, 'kind' | 'log'>[],
): (E | TicketEntry | UndoEntry)[] {
  if (runs.length === 0) return [...own];
  const shared = runs
    .flatMap(({ kind, log }) => RUN_KINDS[kind].shares(log))
    .filter((each) => each.ticketId === ticketId)
    .map((each) => each.entry);
  return [...own, ...shared];
}
