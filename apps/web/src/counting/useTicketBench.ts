import type { RunView, Ticket } from '@schmelz/contract';
import {
  bakeCounts,
  nextRedo,
  nextUndo,
  partOfLog,
  stepOfEntry,
  stepState,
  ticketRefusal,
  ticketState,
  ticketUndoRefusal,
  usualDisposition,
  withShares,
  type DispositionId,
  type RejectedEntry,
  type StepState,
  type TicketEntry,
  type TicketState,
  type UndoEntry,
} from '@schmelz/core';
import { useMemo } from 'react';
import { toast } from '../design/toast.ts';
import { useRunLog } from '../api/outbox.ts';
import { useRuns } from '../api/runs.ts';
import type { TakingBack } from '../bench/undo.ts';
import { sound, SOUNDS } from '../shell/clock.ts';
import { setupOf } from '../shell/line-state.ts';
import { now } from '../units/now.ts';

export interface TicketBench extends TakingBack {
  state: TicketState;
  here: StepState;
  unsaved: number;
  last: TicketEntry | undefined;
  good(count: number): void;
  /** All that are here and not judged yet, as the log stands when the key comes through. */
  goodRest(): void;
  /** One that is not good; it goes where heads with that cause usually go. */
  reject(cause: string): void;
  /** What becomes of the last one that was not good; said twice, it goes the usual way again. */
  goes(where: DispositionId): void;
  /** Whether a part was still in the hand when the last one came apart; said twice, it is on it after all. */
  spare(partId: string): void;
  /** One of a part broke or was lost, with no head on it. */
  spoiled(partId: string): void;
  togglePause(): void;
  /** Loads of the oven that this ticket's heads are or were in, as they are known here. */
  runs: RunView[];
  /** A coat of liquid paint is on. */
  coat(coat: number, paint: string, dryS: number): void;
  /** Cut-off sprues on the scale, kg. */
  sprue(massKg: number): void;
  /** Heads taken off the shelf. */
  take(count: number): void;
}

/**
 * A ticket at one of its steps: its state from the log, and everything that can be said. Null where it has no such
 * step.
 */
export function useTicketBench(ticket: Ticket, step: string): TicketBench | null {
  const { entries, unsaved, say, next } = useRunLog<TicketEntry>(`/tickets/${ticket.id}`, ticket.log);
  const runs = useRuns(ticket.runs);
  return useMemo(() => {
    const setup = setupOf(ticket);
    /** A log with what the runs say of this ticket, as they are known here. */
    const whole = (log: readonly (TicketEntry | UndoEntry)[]) => withShares<TicketEntry>(ticket.id, log, runs);
    const state = ticketState(setup, whole(entries));
    const here = stepState(state, step);
    if (!here) return null;
    const isFirst = ticket.route[0]?.key === step;
    /** Only what was said here is taken back here; what was taken off the shelf belongs to the first step. */
    const ofHere = (entry: TicketEntry) => (entry.kind === 'take' ? isFirst : stepOfEntry(entry) === step);
    const unsaid = { id: '', at: 0 };
    const lastOf = (log: (TicketEntry | UndoEntry)[]) => nextUndo<TicketEntry>(partOfLog(log, ofHere));
    const broughtBy = (log: (TicketEntry | UndoEntry)[]) => nextRedo<TicketEntry>(partOfLog(log, ofHere));
    /** Takes back, where nothing further down the line has gone on with it. */
    const takeBack = (which: typeof lastOf | typeof broughtBy) => () =>
      next((log) => {
        const target = which(log)?.id;
        if (target === undefined) return;
        const why = ticketUndoRefusal(setup, whole(log), { ...unsaid, kind: 'undo', target });
        if (why) toast.error(why);
        else say({ kind: 'undo', target });
      });
    const last = lastOf(entries);
    /** Says a count as the log stands when the key comes through; one that cannot be is said so, and not sent. */
    const count = (said: (log: (TicketEntry | UndoEntry)[]) => TicketEntry | null, heard: keyof typeof SOUNDS) =>
      next((log) => {
        const entry = said(log);
        if (!entry) return;
        const why = ticketRefusal(setup, whole(log), { ...entry, at: now() });
        if (why) {
          toast.error(why);
          return;
        }
        sound(SOUNDS[heard]);
        const { id: _id, at: _at, ...rest } = entry;
        say(rest);
      });
    /** What was said of the last one that was not good, said anew with something else about it. */
    const sayAgain = (what: (reject: RejectedEntry) => Partial<Pick<RejectedEntry, 'goes' | 'spared'>>) =>
      next((log) => {
        const reject = lastOf(log);
        if (reject?.kind !== 'reject') return;
        const { id: target, kind, cause, count: heads, goes, to, spared } = reject;
        const said = { kind, step, cause, count: heads, goes, ...(to ? { to } : {}), ...(spared ? { spared } : {}) };
        const again = { ...said, ...what(reject) };
        if (again.goes === goes && again.spared === spared) return;
        say({ kind: 'undo', target });
        say(again);
      });
    return {
      state,
      runs,
      here,
      unsaved,
      last,
      good: (n) => count(() => ({ ...unsaid, kind: 'good', step, count: n }), 'tap'),
      goodRest: () =>
        count((log) => {
          const now = ticketState(setup, whole(log));
          const rest = here.station === 'bake' ? bakeCounts(now, step).toInspect : (stepState(now, step)?.left ?? 0);
          return rest > 0 ? { ...unsaid, kind: 'good', step, count: rest } : null;
        }, 'tap'),
      reject: (cause) => {
        const goes = usualDisposition(here.station, cause);
        count(() => ({ ...unsaid, kind: 'reject', step, cause, count: 1, goes }), 'reject');
      },
      goes: (where) =>
        sayAgain((reject) => {
          const usual = usualDisposition(here.station, reject.cause);
          return { goes: reject.goes === where ? usual : where };
        }),
      spare: (partId) =>
        sayAgain(({ spared = [] }) => ({
          spared: spared.includes(partId) ? spared.filter((each) => each !== partId) : [...spared, partId],
        })),
      spoiled: (partId) => count(() => ({ ...unsaid, kind: 'spoiled', step, partId, count: 1 }), 'reject'),
      togglePause: () => say({ kind: here.status === 'paused' ? 'resume' : 'pause', step }),
      coat: (coat, paint, dryS) => say({ kind: 'coat', step, coat, paint, dryS }),
      sprue: (massKg) => say({ kind: 'sprue', step, massKg }),
      take: (n) => say({ kind: 'take', count: n }),
      canBringBack: broughtBy(entries) !== undefined,
      undo: takeBack(lastOf),
      bringBack: takeBack(broughtBy),
    };
  }, [entries, next, runs, say, step, ticket, unsaved]);
}
