import type { Ticket } from '@schmelz/contract';
import {
  bakeCounts,
  nextUndo,
  ticketState,
  type CountStation,
  type StationState,
  type TicketEntry,
  type TicketState,
  type UndoEntry,
} from '@schmelz/core';
import { useMemo } from 'react';
import { useRunLog } from '../../api/outbox.ts';
import { sound, SOUNDS } from '../../shell/clock.ts';

export interface TicketBench {
  state: TicketState;
  here: StationState;
  unsaved: number;
  last: TicketEntry | undefined;
  good(count: number): void;
  /** All that are here and not judged yet, as the log stands when the key comes through. */
  goodRest(): void;
  reject(cause: string): void;
  /** The hook of the last reject cannot be used again. */
  hookLost(): void;
  togglePause(): void;
  load(
    count: number,
    program: Omit<Extract<TicketEntry, { kind: 'load' }>, 'id' | 'at' | 'kind' | 'station' | 'count'>,
  ): void;
  /** The metal is at the oven's heat. */
  warm(by: 'probe' | 'model' | 'hand'): void;
  door(open: boolean): void;
  /** A coat of liquid paint is on. */
  coat(coat: number, paint: string, dryS: number): void;
  /** Cut-off sprues on the scale, kg. */
  sprue(massKg: number): void;
  /** Out; so many seconds until they are fit to handle. */
  unload(coolS: number): void;
  undo(): void;
}

/** Warm metal says itself as long as it is warm: taking that back would only have it said again. */
const saidItself = (entry: TicketEntry) => entry.kind === 'warm' && entry.by !== 'hand';

/** A ticket at one of the counting stations: its state from the log, and everything that can be said. */
export function useTicketBench(ticket: Ticket, station: CountStation): TicketBench | null {
  const { entries, unsaved, say, next } = useRunLog<TicketEntry>(`/tickets/${ticket.id}`, ticket.log);
  return useMemo(() => {
    const { route, poured, pourClosed } = ticket;
    const state = ticketState({ route, poured, pourClosed }, entries);
    const here = state.stations[station];
    if (!here) return null;
    // Only what was said here is taken back here.
    const lastOf = (log: (TicketEntry | UndoEntry)[]) =>
      nextUndo<TicketEntry>(
        log.filter((entry) => entry.kind === 'undo' || (entry.station === station && !saidItself(entry))),
      );
    const last = lastOf(entries);
    return {
      state,
      here,
      unsaved,
      last,
      good(count) {
        sound(SOUNDS.tap);
        say({ kind: 'good', station, count });
      },
      goodRest: () =>
        next((log) => {
          const now = ticketState({ route, poured, pourClosed }, log);
          const count = station === 'bake' ? bakeCounts(now).toInspect : (now.stations[station]?.left ?? 0);
          if (count <= 0) return;
          sound(SOUNDS.tap);
          say({ kind: 'good', station, count });
        }),
      reject(cause) {
        sound(SOUNDS.reject);
        say({ kind: 'reject', station, cause, count: 1 });
      },
      hookLost: () =>
        next((log) => {
          const reject = lastOf(log);
          if (reject?.kind !== 'reject' || reject.hookLost) return;
          say({ kind: 'undo', target: reject.id });
          say({ kind: 'reject', station, cause: reject.cause, count: reject.count, hookLost: true });
        }),
      togglePause: () => say({ kind: here.status === 'paused' ? 'resume' : 'pause', station }),
      load: (count, program) => say({ kind: 'load', station: 'bake', count, ...program }),
      warm: (by) => say({ kind: 'warm', station: 'bake', by }),
      door: (open) => say({ kind: 'door', station: 'bake', open }),
      coat: (coat, paint, dryS) => say({ kind: 'coat', station: 'paint', coat, paint, dryS }),
      sprue: (massKg) => say({ kind: 'sprue', station: 'trim', massKg }),
      unload: (coolS) => say({ kind: 'unload', station: 'bake', coolS: Math.round(coolS) }),
      undo: () =>
        next((log) => {
          const newest = lastOf(log);
          if (newest) say({ kind: 'undo', target: newest.id });
        }),
    };
  }, [entries, next, say, station, ticket, unsaved]);
}
