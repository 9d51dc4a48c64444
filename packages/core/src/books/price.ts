import { wearMinor, type ToolCost } from '../plan/cost.ts';
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
 * stock is used up head by head, so it is in the cost of a head and not counted again. Source: physics.md 9.
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

/** Money of one month: out for tools and packs bought whole, in for what was sold or did not have to be bought. */
export interface CashMonth {
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
