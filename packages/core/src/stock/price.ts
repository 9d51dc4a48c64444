import type { Offer } from './buying.ts';

/** Where a price comes from where the shelf itself says none. */
export const PRICED = ['last price', 'cheapest offer'] as const;
export type Priced = (typeof PRICED)[number];

/** A price of one unit, minor units: null where nobody knows one; marked where it is not that of the shelf. */
interface UnitPrice {
  priceMinor: number | null;
  priced?: Priced;
}

/**
 * What a unit of a part costs: the moving average of what is on the shelf; of an empty one, and of what was counted in
 * without a price, what was paid last, else what it is offered for in the cheapest pack.
 * @param shelf what is there, with what it is worth
 * @param lastMinor what was paid last for a unit; null where it was never bought
 * @example unitPrice({ quantity: 0, valueMinor: 0 }, 16, []) // { priceMinor: 16, priced: 'last price' }
 */
export function unitPrice(
  shelf: { quantity: number; valueMinor: number },
  lastMinor: number | null,
  offers: readonly Pick<Offer, 'pack' | 'prices'>[],
): UnitPrice {
  const averageMinor = shelf.quantity > 0 ? shelf.valueMinor / shelf.quantity : 0;
  if (averageMinor > 0) return { priceMinor: averageMinor };
  // What was got for nothing costs nothing, while there is some.
  if (lastMinor !== null)
    return shelf.quantity > 0 ? { priceMinor: 0 } : { priceMinor: lastMinor, priced: 'last price' };
  const offered = offers.flatMap(({ pack, prices }) => prices.map(({ minor }) => minor / pack));
  return offered.length > 0 ? { priceMinor: Math.min(...offered), priced: 'cheapest offer' } : { priceMinor: null };
}
