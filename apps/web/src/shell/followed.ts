import type { PlannedOrder, TonightAsked, TonightPlan } from '@schmelz/core';
import { moment } from '../units/dates.ts';

const KEY = 'schmelz.followed';
/** A plan is for its evening: the next day the line goes by itself again. */
const HOLDS_MS = 18 * 3600_000;
const MS = 1000;

/** The heads of one product of one order, as they stood when the plan was taken to work. */
interface FollowedHeads {
  orderId: string;
  productId: string;
  name: string;
  toCast: number;
  onTheWay: number;
}

/** A plan that was taken to work, as this device keeps it. */
export interface Followed {
  madeMs: number;
  endMs: number;
  order: { orderId: string; productId: string; step: string }[];
  heads: FollowedHeads[];
}

const headsOf = (asked: TonightAsked): FollowedHeads[] =>
  asked.wanted.map(({ orderId, product, name, heads, left }) => ({
    ...{ orderId, productId: product.id, name, toCast: heads },
    onTheWay: Object.values(left).reduce((sum, each) => sum + each, 0),
  }));

/** Keeps the plan's order: the line's next thing goes by it. */
export function follow(asked: TonightAsked, { tasks, schedule, startMs }: TonightPlan): void {
  const places = tasks.map((_, at) => at).sort((a, b) => schedule.placed[a]!.startS - schedule.placed[b]!.startS);
  const order = places.flatMap((at) => {
    const { step, works } = tasks[at]!;
    if (step === undefined) return [];
    return works.flatMap((id) => {
      const wanted = asked.wanted.find((each) => each.id === id);
      return wanted ? [{ orderId: wanted.orderId, productId: wanted.product.id, step }] : [];
    });
  });
  const followed: Followed = {
    ...{ madeMs: moment(), endMs: startMs + MS * schedule.endS, order, heads: headsOf(asked) },
  };
  localStorage.setItem(KEY, JSON.stringify(followed));
}

/** The plan that is followed on this device; null when none is, or when its evening is over. */
export function followed(): Followed | null {
  const kept = localStorage.getItem(KEY);
  if (kept === null) return null;
  const plan = JSON.parse(kept) as Followed;
  return moment() - plan.madeMs < HOLDS_MS ? plan : null;
}

/** The followed order by the tickets that its orders have become. */
export const orderFollowed = (
  plan: Followed | null,
  tickets: readonly { id: string; orderId: string; productId: string }[],
): PlannedOrder =>
  (plan?.order ?? []).flatMap(({ orderId, productId, step }) =>
    tickets
      .filter((ticket) => ticket.orderId === orderId && ticket.productId === productId)
      .map(({ id }) => ({ ticketId: id, step })),
  );

/** What has become otherwise since the plan was taken to work: heads that the pot still owes, and what is new. */
export function changedSince(plan: Followed, asked: TonightAsked): string[] {
  const thenOf = ({ orderId, productId }: FollowedHeads) =>
    plan.heads.find((each) => each.orderId === orderId && each.productId === productId);
  const now = headsOf(asked);
  // Once something has come from the pot, what it still owes is a thing to know.
  const poured = now.some((each) => each.onTheWay > (thenOf(each)?.onTheWay ?? Infinity));
  return now.flatMap((each) => {
    if (!thenOf(each)) return [`${each.name} is new`];
    return poured && each.toCast > 0 ? [`${each.name}: ${each.toCast} still to cast`] : [];
  });
}
