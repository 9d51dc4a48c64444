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

/** What has become otherwise since the plan was taken to work: heads to be cast again, and what is new. */
export function changedSince(plan: Followed, asked: TonightAsked): string[] {
  return headsOf(asked).flatMap(({ orderId, productId, name, toCast, onTheWay }) => {
    const then = plan.heads.find((each) => each.orderId === orderId && each.productId === productId);
    if (!then) return [`${name} is new`];
    const poured = onTheWay > then.onTheWay && toCast > 0;
    return poured ? [`${name}: ${toCast} must be cast again`] : [];
  });
}
