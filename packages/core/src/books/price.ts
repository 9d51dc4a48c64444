import { wearMinor } from '../plan/cost.ts';
import type { ToolCost } from '../plan/types.ts';
import { inRange } from '../quantity/check.ts';

/** What is put on a price: a share of it (a tax, a market's part), or of the cost. */
export interface PriceLine {
  name: string;
  share: number;
  of: 'price' | 'cost';
}

const shareOf = (lines: readonly PriceLine[], of: PriceLine['of']) =>
  lines.reduce((sum, line) => sum + (line.of === of ? inRange(line.name, line.share, '', 0, 1) : 0), 0);

/**
 * What stays of a price after the cost and all that is put on it, minor units a head.
 * @example leftOfPrice({ priceMinor: 200, costMinor: 100, lines: [{ name: 'tax', share: 0.2, of: 'price' }] }) // 60
 */
export const leftOfPrice = ({
  priceMinor,
  costMinor,
  lines,
}: {
  priceMinor: number;
  costMinor: number;
  lines: readonly PriceLine[];
}): number => priceMinor * (1 - shareOf(lines, 'price')) - costMinor * (1 + shareOf(lines, 'cost'));

/**
 * The price that leaves a margin: price (1 - shares of it - margin) = cost (1 + shares of that).
 * @param margin of the price, 0 up to 1
 * @returns minor units, not rounded; null where what is put on it leaves no room for the margin
 * @throws QuantityError for a share or margin out of range
 * @example priceFor({ costMinor: 100, margin: 0.5, lines: [] }) // 200
 */
export function priceFor({
  costMinor,
  margin,
  lines,
}: {
  costMinor: number;
  margin: number;
  lines: readonly PriceLine[];
}): number | null {
  inRange('margin', margin, '', 0, 0.99);
  const room = 1 - shareOf(lines, 'price') - margin;
  return room > 1e-9 ? (costMinor * (1 + shareOf(lines, 'cost'))) / room : null;
}

/**
 * What a maker asks of a shop, and what it stands there for: the price that leaves the margin, and so much more that
 * the shop keeps its own share of what it asks.
 * @param shopShare what the shop keeps of its price, 0 up to 0.95
 * @returns minor units, not rounded; null where no price leaves the margin
 * @throws QuantityError for a share or margin out of range
 * @example tradePrice({ costMinor: 100, margin: 0.5, lines: [], shopShare: 0.6 })
 *   // { tradeMinor: 200, shelfMinor: 500 }
 */
export function tradePrice({
  shopShare,
  ...of
}: Parameters<typeof priceFor>[0] & { shopShare: number }): { tradeMinor: number; shelfMinor: number } | null {
  inRange('shop', shopShare, '', 0, 0.95);
  const tradeMinor = priceFor(of);
  return tradeMinor === null ? null : { tradeMinor, shelfMinor: tradeMinor / (1 - shopShare) };
}

/** Nobody orders more than that of one head at once; a smaller order that pays is sought up to it. */
const MOST_ORDERED = 2000;

/**
 * The smallest order that leaves the margin at a price: warming, melting and a load of the oven are shared by its
 * heads, so that a small one costs more a head. Found by halving, as a cost falls with the number, but for a new load.
 * @param costAt cost of a head, minor units, of so many at once
 * @returns heads; null: no order up to 2,000 does
 * @throws QuantityError for a share or margin out of range
 * @example smallestOrder({ costAt: (heads) => 50 + 1000 / heads, priceMinor: 200, margin: 0.5, lines: [] }) // 20
 */
export function smallestOrder({
  costAt,
  priceMinor,
  margin,
  lines,
}: {
  costAt: (heads: number) => number;
  priceMinor: number;
  margin: number;
  lines: readonly PriceLine[];
}): number | null {
  inRange('margin', margin, '', 0, 0.99);
  const leaves = (heads: number) =>
    leftOfPrice({ priceMinor, costMinor: costAt(heads), lines }) >= margin * priceMinor - 1e-9;
  if (leaves(1)) return 1;
  let few = 1;
  let enough = 2;
  while (!leaves(enough)) {
    if (enough >= MOST_ORDERED) return null;
    [few, enough] = [enough, Math.min(MOST_ORDERED, 2 * enough)];
  }
  while (enough - few > 1) {
    const half = Math.floor((few + enough) / 2);
    if (leaves(half)) enough = half;
    else few = half;
  }
  return enough;
}

/**
 * What a head saves that is made instead of bought, minor units: the shop's price less its cost and the wear of tools.
 * @example savedMinor({ shopMinor: 190, costMinor: 62, tools: [{ priceMinor: 20000, lifeHeads: 20000 }] }) // 127
 */
export const savedMinor = ({
  shopMinor,
  costMinor,
  tools,
}: {
  shopMinor: number;
  costMinor: number;
  tools: readonly ToolCost[];
}): number => shopMinor - costMinor - wearMinor(tools);

/**
 * Heads until the tools are paid: their price over what each head saves or leaves, never over the price. The first
 * stock is used up head by head, so it is in the cost of a head and not counted again. Source: the definition of a
 * break-even point.
 * @param sharedBy products that the tools serve alike, 1 or more
 * @returns whole heads; null: never, as a head saves nothing
 * @throws QuantityError for money below zero
 * @example breakEvenHeads({ toolsMinor: 30000, savedMinor: 150, sharedBy: 1 }) // 200
 */
export function breakEvenHeads({
  toolsMinor,
  savedMinor,
  sharedBy = 1,
}: {
  toolsMinor: number;
  savedMinor: number;
  sharedBy?: number;
}): number | null {
  inRange('tools', toolsMinor, '', 0, 1e10);
  inRange('products', sharedBy, '', 1, 1000);
  return savedMinor > 0 ? Math.max(0, Math.ceil(toolsMinor / sharedBy / savedMinor - 1e-9)) : null;
}

/** Heads of a month that tools have served, and what they left or saved: their price less what they cost. */
interface ServedMonth {
  month: string;
  heads: number;
  leftMinor: number;
}

/**
 * What all heads of a month left that some tools have served: what they are worth less what they cost.
 * @param priceOf minor units a head of a product
 * @example servedMonths([{ productId: 'a', month: '2026-01', heads: 10, costMinor: 600 }],
 *   () => 200)[0].leftMinor // 1400
 */
export function servedMonths(
  served: readonly { productId: string; month: string; heads: number; costMinor: number }[],
  priceOf: (productId: string) => number,
): ServedMonth[] {
  const months = new Map<string, ServedMonth>();
  for (const { month, productId, heads, costMinor } of served) {
    const own = months.get(month) ?? { month, heads: 0, leftMinor: 0 };
    own.heads += heads;
    own.leftMinor += heads * priceOf(productId) - costMinor;
    months.set(month, own);
  }
  return [...months.values()];
}

/** A forecast goes by so many months, the last ones. Common practice, no source. */
const LATELY = 12;
/** Further off nobody plans. */
const MOST_MONTHS = 600;

/**
 * The month in which tools are paid by what their heads have left, month after month; where they are not yet, the month
 * in which they will be, if it goes on as in the last twelve.
 * @param months oldest first, each once; months without heads may be left out
 * @param now the month that it is, as 2026-05
 * @returns null where they never are
 * @throws QuantityError for money below zero
 * @example paidIn({ toolsMinor: 500, now: '2026-03', months: [{ month: '2026-01', heads: 9, leftMinor: 300 },
 *   { month: '2026-02', heads: 9, leftMinor: 300 }] }) // { month: '2026-02', paid: true }
 */
export function paidIn({
  toolsMinor,
  months,
  now,
}: {
  toolsMinor: number;
  months: readonly ServedMonth[];
  now: string;
}): { month: string; paid: boolean } | null {
  inRange('tools', toolsMinor, '', 0, 1e10);
  let left = 0;
  for (const { month, leftMinor } of months) {
    left += leftMinor;
    if (left >= toolsMinor) return { month, paid: true };
  }
  const since = monthsLater(now, -LATELY);
  const lately = months.filter(({ month }) => month > since);
  const began = months[0]?.month ?? now;
  const over = Math.min(LATELY, Math.max(1, monthsBetween(began, now) + 1));
  const aMonth = lately.reduce((sum, each) => sum + each.leftMinor, 0) / over;
  if (aMonth <= 0) return null;
  const wait = Math.ceil((toolsMinor - left) / aMonth);
  return wait > MOST_MONTHS ? null : { month: monthsLater(now, wait), paid: false };
}

const numberOfMonth = (month: string) => 12 * Number(month.slice(0, 4)) + Number(month.slice(5, 7)) - 1;
const monthsBetween = (from: string, to: string) => numberOfMonth(to) - numberOfMonth(from);
function monthsLater(month: string, more: number): string {
  const number = numberOfMonth(month) + more;
  return `${Math.floor(number / 12)}-${String((number % 12) + 1).padStart(2, '0')}`;
}

/** Money of one month: out for tools and packs bought whole, in for what was sold or did not have to be bought. */
interface CashMonth {
  month: string;
  toolsMinor: number;
  boughtMinor: number;
  inMinor: number;
}

/**
 * The other honest view: money out against money in, month by month, packs bought whole and bought again.
 * @returns each month with what stands at its end, and the month from which on it stays above nothing; null: not yet
 * @example cashView([{ month: '2026-01', toolsMinor: 500, boughtMinor: 100, inMinor: 700 }]).reached // '2026-01'
 */
export function cashView(months: readonly CashMonth[]): {
  months: (CashMonth & { standsMinor: number })[];
  reached: string | null;
} {
  let standsMinor = 0;
  const all = months.map((month) => {
    standsMinor += month.inMinor - month.boughtMinor - month.toolsMinor;
    return { ...month, standsMinor };
  });
  const last = all.findLastIndex((month) => month.standsMinor < 0);
  const reached = all[last + 1]?.month ?? null;
  return { months: all, reached };
}
