import { stepStations } from '../job/stations.ts';
import { AT, bakeCounts, type StepState, type TicketState } from '../job/ticket.ts';

/** A ticket as far as it must be known to say what of it waits where. */
export interface TicketOnLine {
  id: string;
  number: number;
  dueOn: string | null;
  quantity: number;
  /** Good heads cast so far, and what is to be cast for it still; see headsOwed. */
  poured: number;
  toCast: number;
  state: TicketState;
}

/** Heads of one ticket that wait at one of its steps. */
export interface WaitingWork {
  ticketId: string;
  step: StepState;
  /** Heads that are here: in the oven or not, ready or not. */
  heads: number;
  /** Of those, heads that can be worked on: not in the oven. */
  free: number;
  /** Of those, at a bake, heads that are out of the oven and not looked at yet: they are not baked again. */
  toLook: number;
  /** They dry, set or cool until then, ms; null where they can be worked on. */
  readyAt: number | null;
  /** They lie on the shelf still, and are taken off it for this step. */
  takes: boolean;
}

/** The ticket that is due first, of its equals the older one. @example [b, a].sort(byDue) // [a, b] */
export const byDue = (a: Pick<TicketOnLine, 'dueOn' | 'number'>, b: Pick<TicketOnLine, 'dueOn' | 'number'>): number =>
  (a.dueOn ?? '9999').localeCompare(b.dueOn ?? '9999') || a.number - b.number;

/**
 * What waits where, over all tickets: what can be worked on now before what dries or hangs in the oven, of its equals
 * the ticket that is due first.
 * @param now ms
 * @example waitingWork([], 0) // []
 */
export function waitingWork(tickets: readonly TicketOnLine[], now: number): WaitingWork[] {
  const all = [...tickets].sort(byDue).flatMap(({ id: ticketId, state, quantity }): WaitingWork[] => {
    const [first] = state.steps;
    const onShelf = state.at === AT.take && first ? quantity - state.taken : 0;
    const taken: WaitingWork[] =
      onShelf > 0
        ? [{ ticketId, step: first!, heads: onShelf, free: onShelf, toLook: 0, readyAt: null, takes: true }]
        : [];
    const here = state.steps.flatMap((step): WaitingWork[] => {
      if (step.left <= 0) return [];
      const toLook = step.station === 'bake' ? bakeCounts(state, step.key).toInspect : 0;
      const readyAt = step.readyAt !== null && step.readyAt > now ? step.readyAt : null;
      return [{ ticketId, step, heads: step.left, free: step.left - step.inOven, toLook, readyAt, takes: false }];
    });
    return [...taken, ...here];
  });
  const later = ({ free, readyAt }: WaitingWork) => (free > 0 ? (readyAt ?? 0) : Infinity);
  return all.sort((a, b) => later(a) - later(b) || 0);
}

/**
 * Heads that wait at each station, over all tickets: at the pot those that are to be cast.
 * @example waitingByStation([], 0).trim // 0
 */
export function waitingByStation(tickets: readonly TicketOnLine[], now: number): Record<string, number> {
  const waiting: Record<string, number> = { pour: tickets.reduce((sum, { toCast }) => sum + toCast, 0) };
  for (const { id } of stepStations()) waiting[id] = 0;
  for (const { step, heads } of waitingWork(tickets, now)) waiting[step.station] = (waiting[step.station] ?? 0) + heads;
  return waiting;
}

/**
 * Heads of a ticket that still come through each of its steps from where they are now, by step: what hangs in the oven
 * or is just out of it is baked, and stands at what comes after.
 * @param onShelf heads that are still to be taken off the shelf for it
 * @example headsToCome(ticketState(twoSteps, []), 0) // { trim: 6 }
 */
export function headsToCome(state: TicketState, onShelf: number): Record<string, number> {
  const left: Record<string, number> = {};
  let comes = Math.max(0, onShelf);
  for (const step of state.steps) {
    const { toLoad } = step.station === 'bake' ? bakeCounts(state, step.key) : { toLoad: step.left };
    const heads = Math.max(0, comes + toLoad);
    comes = Math.max(0, step.left - toLoad);
    if (heads > 0) left[step.key] = heads;
  }
  return left;
}
