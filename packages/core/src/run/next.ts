import type { CountStation, Station } from './causes.ts';
import type { TicketState } from './ticket.ts';

export interface NextTicket {
  id: string;
  number: number;
  dueOn: string | null;
  quantity: number;
  /** Good heads cast so far. */
  poured: number;
  state: TicketState;
}

/** The one next thing to do, and on which ticket. */
export interface NextThing {
  what: 'take out' | 'pour on' | 'pour' | CountStation | 'close';
  ticketId: string | null;
  pourId: string | null;
  count: number;
}

const NEAREST_TO_DONE: readonly CountStation[] = ['finish', 'bake', 'paint', 'trim'];

const byDue = (a: NextTicket, b: NextTicket) =>
  (a.dueOn ?? '9999').localeCompare(b.dueOn ?? '9999') || a.number - b.number;

/**
 * What to do next: heads whose bake is over first, then a pour that is going on, then what can be closed, then the
 * ticket that is due first and, of its equals, nearest to done; a new pour last. Null when nothing waits.
 */
export function nextThing(tickets: readonly NextTicket[], openPourId: string | null, now: number): NextThing | null {
  const sorted = [...tickets].sort(byDue);
  for (const { id, state } of sorted) {
    const load = state.loads.find((each) => each.unloadedAt === null);
    if (load && load.endsAt <= now) {
      return { what: 'take out', ticketId: id, pourId: null, count: load.count };
    }
  }
  if (openPourId) return { what: 'pour on', ticketId: null, pourId: openPourId, count: 0 };
  const closing = sorted.find(({ state }) => state.at === 'close');
  if (closing) return { what: 'close', ticketId: closing.id, pourId: null, count: closing.state.good };
  for (const station of NEAREST_TO_DONE) {
    for (const { id, state } of sorted) {
      const here = state.stations[station];
      const free = here ? here.left - here.inOven : 0;
      if (free > 0) return { what: station, ticketId: id, pourId: null, count: free };
    }
  }
  const unpoured = sorted.find(({ state }) => state.at === 'pour');
  return unpoured
    ? { what: 'pour', ticketId: unpoured.id, pourId: null, count: unpoured.quantity - unpoured.poured }
    : null;
}

/** Heads that wait at each station, over all tickets. */
export function waitingByStation(tickets: readonly NextTicket[]): Record<Station, number> {
  const waiting: Record<Station, number> = { pour: 0, trim: 0, paint: 0, bake: 0, finish: 0 };
  for (const { state, quantity, poured } of tickets) {
    if (state.at === 'pour') waiting.pour += Math.max(0, quantity - poured);
    for (const [station, here] of Object.entries(state.stations)) waiting[station as CountStation] += here.left;
  }
  return waiting;
}
