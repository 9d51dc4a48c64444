import { POUR_STEP } from '../job/bill.ts';
import { stationOf } from '../job/stations.ts';
import { AT } from '../job/ticket.ts';
import { byDue, waitingWork, type TicketOnLine, type WaitingWork } from './waiting.ts';

/** The one next thing to do, and on which ticket. */
export interface NextThing {
  what: 'take out' | 'pour on' | 'pour' | 'take' | 'step' | 'close';
  ticketId: string | null;
  pourId: string | null;
  /** Of a load that is to be taken out. */
  runId: string | null;
  /** Of the line where it is done. */
  station: string;
  /** Of the ticket's route; null where it is none. */
  step: string | null;
  count: number;
}

const none = { ticketId: null, pourId: null, runId: null, step: null, count: 0 };

/** A load of the oven that is over: which run, and how many heads. */
interface DoneLoad {
  runId: string;
  count: number;
}

/** Steps with heads that can be worked on now, the nearest to done first, of their equals what is due first. */
const workable = (tickets: readonly TicketOnLine[], now: number): WaitingWork[] => {
  const toGo = ({ ticketId, step }: WaitingWork) => {
    const { steps } = tickets.find(({ id }) => id === ticketId)!.state;
    return steps.length - steps.findIndex(({ key }) => key === step.key);
  };
  return waitingWork(tickets, now)
    .filter(({ free, readyAt, takes }) => free > 0 && readyAt === null && !takes)
    .sort((a, b) => toGo(a) - toGo(b));
};

/** A plan's order of work: tickets by the step that is done, the pour by its own name. */
export type PlannedOrder = readonly { ticketId: string; step: string }[];

/** The first thing of a plan that can be done now. */
function planned(order: PlannedOrder, sorted: readonly TicketOnLine[], open: readonly WaitingWork[]): NextThing | null {
  for (const { ticketId, step } of order) {
    const ticket = sorted.find(({ id }) => id === ticketId);
    if (step === POUR_STEP && ticket && ticket.toCast > 0 && ticket.state.at !== AT.take) {
      return { ...none, what: 'pour', ticketId, station: 'pour', count: ticket.toCast };
    }
    const here = open.find((each) => each.ticketId === ticketId && each.step.key === step);
    if (here) {
      return { ...none, what: 'step', ticketId, station: here.step.station, step, count: here.free };
    }
  }
  return null;
}

/**
 * What to do next: heads whose bake is over first, then a pour that is going on, then what can be closed, then the step
 * nearest to done, of its equals the ticket that is due first; heads off the shelf and a new pour last. Heads that
 * still dry or set are left alone. Where a plan is followed, its order goes before the nearest to done. Null when
 * nothing waits.
 * @example nextThing([], null, [], 0) // null
 */
export function nextThing(
  tickets: readonly TicketOnLine[],
  openPourId: string | null,
  baked: readonly DoneLoad[],
  now: number,
  order: PlannedOrder = [],
): NextThing | null {
  const sorted = [...tickets].sort(byDue);
  const [done] = baked;
  if (done) return { ...none, what: 'take out', runId: done.runId, station: 'bake', count: done.count };
  if (openPourId) return { ...none, what: 'pour on', pourId: openPourId, station: 'pour' };
  const closing = sorted.find(({ state }) => state.at === AT.close);
  if (closing) {
    const station = closing.state.steps.at(-1)?.station ?? 'finish';
    return { ...none, what: 'close', ticketId: closing.id, station, count: closing.state.good };
  }
  const open = workable(sorted, now);
  const byPlan = planned(order, sorted, open);
  if (byPlan) return byPlan;
  const [first] = open;
  if (first) {
    const { key, station } = first.step;
    return { ...none, what: 'step', ticketId: first.ticketId, station, step: key, count: first.free };
  }
  const waiting = sorted.find(({ state, toCast }) => state.at === AT.take || toCast > 0);
  if (!waiting) return null;
  const takes = waiting.state.at === AT.take;
  const station = takes ? (waiting.state.steps[0]?.station ?? 'trim') : 'pour';
  const count = takes ? waiting.quantity - waiting.poured : waiting.toCast;
  return { ...none, what: takes ? 'take' : 'pour', ticketId: waiting.id, station, count };
}

/** The verb of a station as a thing to do. @example toDo('trim') // 'to trim' */
export const toDo = (station: string): string => stationOf(station).verb;
