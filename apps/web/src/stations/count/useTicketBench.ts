import type { Ticket } from '@schmelz/contract';
import {
  bakeCounts,
  nextUndo,
  stepIn,
  stepState,
  ticketRefusal,
  ticketState,
  usualDisposition,
  type DispositionId,
  type RejectedEntry,
  type StepState,
  type TicketEntry,
  type TicketState,
  type UndoEntry,
} from '@schmelz/core';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { useRunLog } from '../../api/outbox.ts';
import { sound, SOUNDS } from '../../shell/clock.ts';
import { setupOf } from '../../shell/line-state.ts';

type Program = Omit<Extract<TicketEntry, { kind: 'load' }>, 'id' | 'at' | 'kind' | 'step' | 'count'>;

export interface TicketBench {
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
  togglePause(): void;
  load(count: number, program: Program): void;
  /** The metal is at the oven's heat. */
  warm(by: 'probe' | 'model' | 'hand'): void;
  door(open: boolean): void;
  /** A coat of liquid paint is on. */
  coat(coat: number, paint: string, dryS: number): void;
  /** Cut-off sprues on the scale, kg. */
  sprue(massKg: number): void;
  /** Out; so many seconds until they are fit to handle. */
  unload(coolS: number): void;
  /** Heads taken off the shelf. */
  take(count: number): void;
  undo(): void;
}

/** Warm metal says itself as long as it is warm: taking that back would only have it said again. */
const saidItself = (entry: TicketEntry) => entry.kind === 'warm' && entry.by !== 'hand';

/**
 * A ticket at one of its steps: its state from the log, and everything that can be said. Null where it has no such
 * step.
 */
export function useTicketBench(ticket: Ticket, step: string): TicketBench | null {
  const { entries, unsaved, say, next } = useRunLog<TicketEntry>(`/tickets/${ticket.id}`, ticket.log);
  return useMemo(() => {
    const setup = setupOf(ticket);
    const state = ticketState(setup, entries);
    const here = stepState(state, step);
    if (!here) return null;
    const isFirst = ticket.route[0]?.key === step;
    /** Only what was said here is taken back here; what was taken off the shelf belongs to the first step. */
    const ofHere = (entry: TicketEntry) =>
      entry.kind === 'take' ? isFirst : stepIn(entry) === step && !saidItself(entry);
    const lastOf = (log: (TicketEntry | UndoEntry)[]) =>
      nextUndo<TicketEntry>(log.filter((entry) => entry.kind === 'undo' || ofHere(entry)));
    const last = lastOf(entries);
    /** Says a count as the log stands when the key comes through; one that cannot be is said so, and not sent. */
    const count = (said: (log: (TicketEntry | UndoEntry)[]) => TicketEntry | null, heard: keyof typeof SOUNDS) =>
      next((log) => {
        const entry = said(log);
        if (!entry) return;
        const why = ticketRefusal(setup, log, entry);
        if (why) {
          toast.error(why);
          return;
        }
        sound(SOUNDS[heard]);
        const { id: _id, at: _at, ...rest } = entry;
        say(rest);
      });
    const unsaid = { id: '', at: 0 };
    return {
      state,
      here,
      unsaved,
      last,
      good: (n) => count(() => ({ ...unsaid, kind: 'good', step, count: n }), 'tap'),
      goodRest: () =>
        count((log) => {
          const now = ticketState(setup, log);
          const rest = here.station === 'bake' ? bakeCounts(now, step).toInspect : (stepState(now, step)?.left ?? 0);
          return rest > 0 ? { ...unsaid, kind: 'good', step, count: rest } : null;
        }, 'tap'),
      reject: (cause) => {
        const goes = usualDisposition(here.station, cause);
        count(() => ({ ...unsaid, kind: 'reject', step, cause, count: 1, goes }), 'reject');
      },
      goes: (where) =>
        next((log) => {
          const reject = lastOf(log);
          if (reject?.kind !== 'reject') return;
          const usual = usualDisposition(here.station, reject.cause);
          const goes = reject.goes === where ? usual : where;
          if (goes === reject.goes) return;
          const again: Omit<RejectedEntry, 'id' | 'at'> = {
            kind: 'reject',
            step,
            cause: reject.cause,
            count: reject.count,
            goes,
          };
          say({ kind: 'undo', target: reject.id });
          say(again);
        }),
      togglePause: () => say({ kind: here.status === 'paused' ? 'resume' : 'pause', step }),
      load: (n, program) => say({ kind: 'load', step, count: n, ...program }),
      warm: (by) => say({ kind: 'warm', step, by }),
      door: (open) => say({ kind: 'door', step, open }),
      coat: (coat, paint, dryS) => say({ kind: 'coat', step, coat, paint, dryS }),
      sprue: (massKg) => say({ kind: 'sprue', step, massKg }),
      unload: (coolS) => say({ kind: 'unload', step, coolS: Math.round(coolS) }),
      take: (n) => say({ kind: 'take', count: n }),
      undo: () =>
        next((log) => {
          const newest = lastOf(log);
          if (newest) say({ kind: 'undo', target: newest.id });
        }),
    };
  }, [entries, next, say, step, ticket, unsaved]);
}
