import type { Ticket } from '@schmelz/contract';
import {
  nextUndo,
  ticketState,
  type CountStation,
  type StationState,
  type TicketEntry,
  type TicketState,
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
  reject(cause: string): void;
  /** The hook of the last reject cannot be used again. */
  hookLost(): void;
  togglePause(): void;
  load(count: number, program: { setC: number; seconds: number; preheated: boolean }): void;
  unload(): void;
  undo(): void;
}

/** A ticket at one of the counting stations: its state from the log, and everything that can be said. */
export function useTicketBench(ticket: Ticket, station: CountStation): TicketBench | null {
  const { entries, unsaved, say } = useRunLog<TicketEntry>(`/tickets/${ticket.id}`, ticket.log);
  return useMemo(() => {
    const { route, poured, pourClosed } = ticket;
    const state = ticketState({ route, poured, pourClosed }, entries);
    const here = state.stations[station];
    if (!here) return null;
    // Only what was said here is taken back here.
    const last = nextUndo<TicketEntry>(entries.filter((entry) => entry.kind === 'undo' || entry.station === station));
    return {
      state,
      here,
      unsaved,
      last,
      good(count) {
        sound(SOUNDS.tap);
        say({ kind: 'good', station, count });
      },
      reject(cause) {
        sound(SOUNDS.reject);
        say({ kind: 'reject', station, cause, count: 1 });
      },
      hookLost() {
        if (last?.kind !== 'reject' || last.hookLost) return;
        say({ kind: 'undo', target: last.id });
        say({ kind: 'reject', station, cause: last.cause, count: last.count, hookLost: true });
      },
      togglePause: () => void say({ kind: here.status === 'paused' ? 'resume' : 'pause', station }),
      load: (count, program) => void say({ kind: 'load', station: 'bake', count, ...program }),
      unload: () => void say({ kind: 'unload', station: 'bake' }),
      undo: () => {
        if (last) say({ kind: 'undo', target: last.id });
      },
    };
  }, [entries, say, station, ticket, unsaved]);
}
