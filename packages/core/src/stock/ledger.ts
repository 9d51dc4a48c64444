import { inRange } from '../quantity/check.ts';

/** What is in the house of one material: kg or pieces, and what was paid for it in minor units. */
export interface Balance {
  quantity: number;
  valueMinor: number;
}

/** Quantities closer than this are equal: a tenth of a milligram of metal or powder. */
export const QUANTITY_TOLERANCE = 1e-7;

/**
 * Value of taking `quantity` out of a balance at its moving average, minor units. The last of it takes the rest, so
 * that
 * an empty shelf is worth nothing; what is taken beyond the shelf (a count was wrong) is valued at `fallbackMinor` a
 * unit.
 * @example takeValueMinor({ quantity: 4, valueMinor: 1000 }, 1) // 250
 */
export function takeValueMinor(balance: Balance, quantity: number, fallbackMinor = 0): number {
  inRange('quantity taken', quantity, '', 0, 1e9);
  if (quantity === 0) return 0;
  if (balance.quantity <= QUANTITY_TOLERANCE) return Math.round(quantity * fallbackMinor);
  if (quantity >= balance.quantity - QUANTITY_TOLERANCE) {
    return balance.valueMinor + Math.round(Math.max(0, quantity - balance.quantity) * fallbackMinor);
  }
  // To the nearest, so that the average of what stays moves by no more than half a minor unit over all of it.
  return Math.round(balance.valueMinor * (quantity / balance.quantity));
}

/**
 * Moving average in minor units a kg or a piece; null for an empty shelf.
 * @example averageMinor({ quantity: 4, valueMinor: 1000 }) // 250
 */
export function averageMinor(balance: Balance): number | null {
  return balance.quantity > QUANTITY_TOLERANCE ? balance.valueMinor / balance.quantity : null;
}
