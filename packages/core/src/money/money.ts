import { add, dinero, toSnapshot, type DineroCurrency } from 'dinero.js';
import { inRange, QuantityError } from '../quantity/check.ts';

/** Amounts inside the core are integer minor units of one currency per workshop; the code is only for display. */
const UNIT: DineroCurrency<number> = { code: 'XXX', base: 10, exponent: 0 };
const amountOf = (minor: number) => dinero({ amount: minor, currency: UNIT });

/**
 * Throws unless `minor` is a safe integer number of minor units.
 * @example minorUnits('price', 1250) // 1250
 */
export function minorUnits(name: string, minor: number): number {
  if (!Number.isSafeInteger(minor)) throw new QuantityError(name, minor, 'minor units', 'a whole number');
  return minor;
}

/**
 * Sum of integer minor units.
 * @example sumMinor([100, 250]) // 350
 */
export function sumMinor(amounts: readonly number[]): number {
  return amounts.reduce((sum, next) => toSnapshot(add(amountOf(sum), amountOf(next))).amount, 0);
}

/**
 * Splits an amount by weights so that the parts add up to it to the last minor unit: each its exact share rounded down,
 * and what is left one by one to those that were cut most; of those alike to the first.
 * @param weights at least one, none negative; all zero splits evenly
 * @example shareMinor(100, [1, 1, 1]) // [34, 33, 33]
 * @example shareMinor(10, [1, 2, 6]) // [1, 2, 7]
 */
export function shareMinor(minor: number, weights: readonly number[]): number[] {
  minorUnits('amount', minor);
  if (weights.length === 0) throw new QuantityError('weights', 'none', '', 'at least one');
  weights.forEach((weight, at) => inRange(`weight ${at + 1}`, weight, '', 0, Number.MAX_SAFE_INTEGER));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const exact = weights.map((weight) => (total === 0 ? minor / weights.length : minor * (weight / total)));
  const parts = exact.map((share) => Math.floor(share + ROUNDING));
  const order = exact.map((share, at) => ({ at, cut: share - parts[at]! }));
  order.sort((a, b) => (Math.abs(b.cut - a.cut) < ROUNDING ? a.at - b.at : b.cut - a.cut));
  const left = minor - sumMinor(parts);
  for (const { at } of order.slice(0, left)) parts[at]! += 1;
  return parts;
}

/** Less than this of a minor unit is the computer's own. */
const ROUNDING = 1e-9;

/**
 * Price times quantity, rounded half up to whole minor units.
 * @example costOf(250, 1.5) // 375: 1.5 kg at 2.50 a kg
 */
export function costOf(minorPerUnit: number, quantity: number): number {
  inRange('quantity', quantity, '', -1e9, 1e9);
  inRange('price', minorPerUnit, 'minor units', -1e12, 1e12);
  const product = minorPerUnit * quantity;
  return Math.sign(product) * Math.round(Math.abs(product) + 1e-9) || 0;
}
