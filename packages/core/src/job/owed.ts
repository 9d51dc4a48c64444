import { castsFor } from '../count/casts-for.ts';
import { eveningSpread, type Evening, type YieldTonight } from '../count/yield.ts';
import { AT, type Source, type TicketState } from './ticket.ts';

/**
 * What comes through trim, paint, bake and finish of the heads that were cast good, before there are records: 97 % from
 * 60 heads' worth of belief; tickets differ by a hundredth of p(1 - p). Common practice, no source.
 */
const PRIOR = { good: 58.2, heads: 60, spread: 0.01 };

/**
 * What the steps after the pour leave of the heads that were cast good, from tickets that are closed: how many each had
 * from the pot, and how many came out good at its end.
 * @example yieldAfterPour([]).mean // 0.97
 */
export function yieldAfterPour(closed: readonly Evening[]): Required<YieldTonight> {
  // Heads that were stripped and dipped again came more than once; none comes out that was not cast.
  const tickets = closed
    .filter(({ casts }) => casts > 0)
    .map(({ good, casts }) => ({ casts, good: Math.min(good, casts) }));
  const heads = tickets.reduce((sum, each) => sum + each.casts, 0) + PRIOR.heads;
  const mean = (tickets.reduce((sum, each) => sum + each.good, 0) + PRIOR.good) / heads;
  const spread = tickets.length > 1 ? eveningSpread(tickets) : PRIOR.spread;
  const ofMean = 1 / (heads + 1);
  return { mean, sure: 1 / (ofMean + (1 - ofMean) * spread) - 1 };
}

/** What a ticket owes its order. */
interface Owed {
  /** Heads that it is short of if all that are on the way come through. */
  missing: number;
  /** Good heads to cast for it, some of which the steps after the pour will spoil; 0 while enough are on the way. */
  toCast: number;
}

/**
 * Good heads to cast so that `heads` are good at the end: as many more as the steps after the pour spoil on average.
 * This is the one place where they are allowed for; never more than are enough nineteen times in twenty, so that a
 * single head is cast once.
 * @example headsToCast(24, { mean: 0.97, sure: 37 }) // 25
 */
export const headsToCast = (heads: number, after: YieldTonight = { mean: 1 }): number =>
  Math.min(Math.ceil(heads / after.mean - 1e-9), castsFor(heads, after));

/**
 * Heads that a ticket is short of, and what to cast for them, of which the steps after the pour will spoil some, as of
 * those that are on the way. A ticket whose heads lie on the shelf is not cast for.
 * @example headsOwed({ quantity: 24, source: 'pour' }, { steps: [], good: 0, at: 'pour' }, { mean: 1 })
 *   // { missing: 24, toCast: 24 }
 */
export function headsOwed(
  ticket: { quantity: number; source: Source },
  state: Pick<TicketState, 'steps' | 'good' | 'at'>,
  after: YieldTonight,
): Owed {
  const here = state.steps.reduce((sum, step) => sum + Math.max(0, step.left), 0);
  const onTheWay = state.at === AT.closed ? 0 : here;
  const missing = Math.max(0, ticket.quantity - state.good - onTheWay);
  if (missing === 0 || ticket.source !== 'pour') return { missing, toCast: 0 };
  const needed = headsToCast(ticket.quantity - state.good, after) - onTheWay;
  return { missing, toCast: Math.max(missing, needed) };
}
