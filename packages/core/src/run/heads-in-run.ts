import type { TicketEntry } from '../job/ticket-log.ts';

/** Heads of one ticket in a run that serves several: at which step of its route, and how many. */
export interface HeadsInRun {
  ticketId: string;
  step: string;
  count: number;
}

/** What a run says of one of its tickets: entries of that ticket's log, as the ticket would have said them itself. */
export interface SharedEntry {
  ticketId: string;
  entry: TicketEntry;
}

/**
 * A step of a ticket, as it is looked up in a run.
 * @example placeInRun({ ticketId: 'a', step: 'paint' }) // 'a paint'
 */
export const placeInRun = ({ ticketId, step }: Pick<HeadsInRun, 'ticketId' | 'step'>): string => `${ticketId} ${step}`;

/** All heads of a run. @example headsOf([{ ticketId: 'a', step: 'bake', count: 12 }]) // 12 */
export const headsOf = (heads: readonly HeadsInRun[]): number => heads.reduce((sum, { count }) => sum + count, 0);

/** What a run is judged by beside its own log: who waits where, and what else is going on. */
export interface Around {
  /** Heads of a ticket that wait at a step and are in no run; null where the ticket has no such step. */
  waiting(ticketId: string, step: string): number | null;
  /** The station of a ticket's step; null where it has no such step. */
  stationOf(ticketId: string, step: string): string | null;
  /** Another run that holds the same tool; null where it is free. */
  busy: string | null;
}

/**
 * Why heads cannot take part in a run at a station, in words; null when they can. Each ticket's step is named once.
 * @example headsRefusal([], 'bake', { waiting: () => 0, stationOf: () => null, busy: null }) // null
 */
export function headsRefusal(heads: readonly HeadsInRun[], station: string, around: Around): string | null {
  const seen = new Set<string>();
  for (const [index, { ticketId, step, count }] of heads.entries()) {
    const place = placeInRun({ ticketId, step });
    if (seen.has(place)) return `heads[${index}] is named twice; allowed: each step of a ticket once`;
    seen.add(place);
    if (around.stationOf(ticketId, step) !== station) {
      return `heads[${index}].step is ${JSON.stringify(step)}; allowed: a step at ${station} of that ticket`;
    }
    const free = around.waiting(ticketId, step) ?? 0;
    if (count > free) return `heads[${index}].count is ${count}; allowed: 1 to ${free}, the heads that wait there`;
  }
  return null;
}
