import { quantityText, rangeText } from './said.ts';

/** A value that the core refuses: it says which quantity, what was given, its unit and what is allowed. */
export class QuantityError extends RangeError {
  readonly quantity: string;
  readonly given: unknown;
  readonly unit: string;
  readonly allowed: string;

  constructor(quantity: string, given: unknown, unit: string, allowed: string) {
    super(`${quantity} is ${quantityText(given, unit)}; allowed: ${allowed}`);
    this.name = 'QuantityError';
    this.quantity = quantity;
    this.given = given;
    this.unit = unit;
    this.allowed = allowed;
  }
}

/** Quantities closer than this are equal: a tenth of a milligram of metal or powder. */
export const QUANTITY_TOLERANCE = 1e-7;

/** Share of a range's larger end by which its ends may be missed. */
const ROUNDING = 1e-12;

/**
 * Returns `value` when it is a finite number in [min, max], else throws a {@link QuantityError} that names it.
 * @example inRange('headMassKg', 0.01, 'kg', 0.0001, 1) // 0.01
 */
export function inRange(quantity: string, value: number, unit: string, min: number, max: number): number {
  // What was worked out may miss an end by the last digits of the machine: 2.0000000000000004 kg are 2 kg.
  const slack = ROUNDING * Math.max(Math.abs(min), Math.abs(max));
  if (!Number.isFinite(value) || value < min - slack || value > max + slack) {
    throw new QuantityError(quantity, value, unit, rangeText(min, max, unit));
  }
  return Math.min(max, Math.max(min, value));
}

/**
 * Like {@link inRange}, for a count of things.
 * @example countInRange('shots', 3, 0, 10) // 3
 */
export function countInRange(quantity: string, value: number, min: number, max: number): number {
  if (!Number.isInteger(value) || value < min || value > max) {
    throw new QuantityError(quantity, value, '', `a whole number from ${min} to ${max}`);
  }
  return value;
}
