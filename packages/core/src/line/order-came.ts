import { stackTotal, type CostStack } from '../plan/types.ts';

/** A ticket of an order: what was planned on the day of its release, and what came so far. */
interface PlannedAndCame {
  quantity: number;
  good: number;
  casts: { planned: number; came: number };
  workS: { planned: number; came: number };
  /** What one head costs; null while none is good. */
  stack: { planned: CostStack; came: CostStack | null };
}

/** An order over its tickets. */
interface OrderCame {
  wanted: number;
  good: number;
  casts: { planned: number; came: number };
  workS: { planned: number; came: number };
  /** Minor units a head, each ticket by its heads; null where no head is known. */
  oneMinor: { planned: number | null; came: number | null };
}

const sum = (numbers: readonly number[]) => numbers.reduce((all, each) => all + each, 0);

/** A mean over heads, not over tickets. */
function meanMinor(all: readonly { stack: CostStack | null; heads: number }[]): number | null {
  const known = all.flatMap(({ stack, heads }) => (stack && heads > 0 ? [{ minor: stackTotal(stack), heads }] : []));
  const heads = sum(known.map((each) => each.heads));
  return heads > 0 ? sum(known.map((each) => each.minor * each.heads)) / heads : null;
}

/**
 * What was planned of an order, and what came, over its tickets.
 * @example orderCame([]).oneMinor // { planned: null, came: null }
 */
export const orderCame = (tickets: readonly PlannedAndCame[]): OrderCame => {
  const both = (of: (ticket: PlannedAndCame) => { planned: number; came: number }) => ({
    planned: sum(tickets.map((ticket) => of(ticket).planned)),
    came: sum(tickets.map((ticket) => of(ticket).came)),
  });
  return {
    wanted: sum(tickets.map(({ quantity }) => quantity)),
    good: sum(tickets.map(({ good }) => good)),
    casts: both(({ casts }) => casts),
    workS: both(({ workS }) => workS),
    oneMinor: {
      planned: meanMinor(tickets.map(({ stack, quantity }) => ({ stack: stack.planned, heads: quantity }))),
      came: meanMinor(tickets.map(({ stack, good }) => ({ stack: stack.came, heads: good }))),
    },
  };
};
