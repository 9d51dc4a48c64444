import { hookMassKg } from '../geometry/hook.ts';
import { partKind } from '../job/part-kinds.ts';
import { shareMinor } from '../money/money.ts';
import { QuantityError } from '../quantity/check.ts';

/** How what is paid for the way is shared among what came with it. */
export const FREIGHT_BY = ['value', 'mass'] as const;
export type FreightBy = (typeof FREIGHT_BY)[number];

export interface ParcelLine {
  name: string;
  priceMinor: number;
  /** Of all of it; null where nobody knows it. */
  massKg: number | null;
}

/**
 * What so much of a part weighs, kg, as far as its kind says: metal and powder by themselves, hooks by their size; null
 * for others.
 * @example lineMassKg({ kind: 'lead', hook: null }, 10) // 10
 * @example lineMassKg({ kind: 'guard', hook: null }, 100) // null
 */
export function lineMassKg(
  { kind, hook }: { kind: string; hook?: Parameters<typeof hookMassKg>[0] | null },
  quantity: number,
): number | null {
  if (partKind(kind).unit === 'kg') return quantity;
  return hook ? quantity * hookMassKg(hook) : null;
}

/**
 * Freight of a parcel, line by line: by what each was worth, or by what it weighs; to the last minor unit. Lead pays
 * most of the way by mass, hooks by value: makers do either.
 * @param freightMinor whole minor units, 0 and more
 * @throws QuantityError by mass, where a line has none; it is named
 * @example freightShares([{ name: 'Lead', priceMinor: 3000, massKg: 10 }, { name: 'Hooks', priceMinor: 1000,
 *   massKg: 0.1 }], 808, 'mass') // [800, 8]
 */
export function freightShares(lines: readonly ParcelLine[], freightMinor: number, by: FreightBy): number[] {
  const weights = lines.map(({ name, priceMinor, massKg }) => {
    if (by === 'value') return priceMinor;
    if (massKg === null) throw new QuantityError(`mass of ${name}`, 'not known', 'kg', 'a mass, or freight by value');
    return massKg;
  });
  return shareMinor(freightMinor, weights);
}
