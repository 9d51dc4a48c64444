import { inRange, QUANTITY_TOLERANCE } from '../quantity/check.ts';

/** What is in the house of one material: kg or pieces, and what was paid for it in minor units. */
export interface Balance {
  quantity: number;
  valueMinor: number;
}

/**
 * Value of taking `quantity` out of a balance at its moving average, minor units. The last of it takes the rest, so
 * that an empty shelf is worth nothing; what is taken beyond the shelf (a count was wrong) is valued at `fallbackMinor`
 * a unit.
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
 * The same to fractions of a minor unit: the average of what stays is just what it was.
 * @param balance of the shelf, its value to fractions
 * @example takeExactMinor({ quantity: 1000, valueMinor: 300 }, 1) // 0.3
 */
export function takeExactMinor({ quantity: here, valueMinor }: Balance, quantity: number, fallbackMinor = 0): number {
  if (here <= QUANTITY_TOLERANCE) return quantity * fallbackMinor;
  if (quantity < here - QUANTITY_TOLERANCE) return valueMinor * (quantity / here);
  return valueMinor + Math.max(0, quantity - here) * fallbackMinor;
}

/** Less than this of a minor unit is the computer's own. */
const MINOR_TOLERANCE = 1e-6;

/**
 * What a ticket has taken of a part so far, in whole minor units: rounded once, whatever it was counted in. Half a unit
 * goes away from nothing.
 * @example wholeMinor(8 * 0.3) // 2
 * @example wholeMinor(-2.5) // -3
 */
export const wholeMinor = (exactMinor: number): number =>
  Math.sign(exactMinor) * Math.floor(Math.abs(exactMinor) + 0.5 + MINOR_TOLERANCE) || 0;

/**
 * What a shelf is worth after a purchase, to fractions of a minor unit. What was taken beyond the shelf before went at
 * the price of then; once as much has come in, what is left of the purchase is worth what it cost, and the rest settles
 * what that had been too cheap or too dear.
 * @example worthAfterPurchase({ quantity: -3, valueMinor: -1200 }, { quantity: 4, valueMinor: 3200 }) // 800
 */
export function worthAfterPurchase(before: Balance, purchase: Balance): number {
  const quantity = before.quantity + purchase.quantity;
  if (before.quantity >= -QUANTITY_TOLERANCE || quantity < -QUANTITY_TOLERANCE) {
    return before.valueMinor + purchase.valueMinor;
  }
  return quantity <= QUANTITY_TOLERANCE ? 0 : (purchase.valueMinor * quantity) / purchase.quantity;
}

/**
 * What must be added to a shelf's value, minor units, so that what is there is not worth less than nothing, and an
 * empty shelf nothing: what a bench takes back goes at what it came for, which may be more than the shelf has by then.
 * A shelf below nothing owes what was taken.
 * @example settlingMinor({ quantity: 0.5, valueMinor: -8 }) // 8
 */
export function settlingMinor({ quantity, valueMinor }: Balance): number {
  if (quantity < -QUANTITY_TOLERANCE) return 0;
  const settled = quantity <= QUANTITY_TOLERANCE ? -valueMinor : Math.max(0, -valueMinor);
  return settled === 0 ? 0 : settled;
}

/**
 * Moving average in minor units a kg or a piece; null for an empty shelf.
 * @example averageMinor({ quantity: 4, valueMinor: 1000 }) // 250
 */
export function averageMinor(balance: Balance): number | null {
  return balance.quantity > QUANTITY_TOLERANCE ? balance.valueMinor / balance.quantity : null;
}
