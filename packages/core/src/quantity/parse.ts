import { QuantityError } from './check.ts';
import { fahrenheitToCelsius, KG_PER_OUNCE, KG_PER_POUND, M_PER_INCH } from './units.ts';

export type MassUnit = 'g' | 'oz';
export type TemperatureUnit = 'C' | 'F';

const MASS_FACTOR_KG: Record<string, number> = {
  mg: 1e-6,
  g: 1e-3,
  kg: 1,
  oz: KG_PER_OUNCE,
  ounce: KG_PER_OUNCE,
  ounces: KG_PER_OUNCE,
  lb: KG_PER_POUND,
  lbs: KG_PER_POUND,
  pound: KG_PER_POUND,
  pounds: KG_PER_POUND,
};

/**
 * Reads `3`, `2.5`, `2,5`, `3/8`, `1 1/2`; null when it is none of these.
 * @example parseNumber('1 3/8') // 1.375
 */
export function parseNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  const fraction = /^(-)?(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(plain);
  if (fraction) {
    const [, sign, whole, above, below] = fraction;
    if (Number(below) === 0) return null;
    return (sign ? -1 : 1) * (Number(whole ?? 0) + Number(above) / Number(below));
  }
  return /^-?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null;
}

/**
 * Reads a mass as a maker writes it; a bare number is in `unit`. Returns kg.
 * @example parseMass('3/8 oz', 'g') // 0.010631071171875
 * @throws QuantityError when it is no mass
 */
export function parseMass(text: string, unit: MassUnit): number {
  const match = /^([-\d.,/\s]+?)\s*([a-z]*)$/i.exec(text.trim());
  const value = match ? parseNumber(match[1] ?? '') : null;
  const factor = match ? MASS_FACTOR_KG[(match[2] || unit).toLowerCase()] : undefined;
  if (value === null || factor === undefined) {
    throw new QuantityError('mass', text, '', 'a number with g, kg, oz or lb, such as 10 g or 3/8 oz');
  }
  return value * factor;
}

/**
 * Reads `371`, `371 C` or `700 F`; a bare number is in `unit`. Returns degrees Celsius.
 * @example parseTemperature('700 F', 'C') // 371.1
 */
export function parseTemperature(text: string, unit: TemperatureUnit): number {
  const match = /^([-\d.,]+)\s*°?\s*([cf])?$/i.exec(text.trim());
  const value = match ? parseNumber(match[1] ?? '') : null;
  if (!match || value === null) {
    throw new QuantityError('temperature', text, '', 'a number with C or F, such as 370 C or 700 F');
  }
  return (match[2]?.toUpperCase() ?? unit) === 'F' ? fahrenheitToCelsius(value) : value;
}

const LENGTH_FACTOR_M: Record<string, number> = {
  mm: 1e-3,
  cm: 1e-2,
  m: 1,
  in: M_PER_INCH,
  inch: M_PER_INCH,
  inches: M_PER_INCH,
  '"': M_PER_INCH,
};

/**
 * Reads a length as a maker writes it; a bare number is in millimetres, beside ounces in inches. Returns m.
 * @example parseLength('1/8 in', 'g') // 0.003175
 * @throws QuantityError when it is no length; `field` is what the error names
 */
export function parseLength(text: string, unit: MassUnit, field = 'length'): number {
  const match = /^([-\d.,/\s]+?)\s*([a-z"]*)$/i.exec(text.trim());
  const value = match ? parseNumber(match[1] ?? '') : null;
  const factor = match ? LENGTH_FACTOR_M[(match[2] || (unit === 'oz' ? 'in' : 'mm')).toLowerCase()] : undefined;
  if (value === null || factor === undefined) {
    throw new QuantityError(field, text, '', 'a number with mm, cm, m or in, such as 3.2 mm or 1/8 in');
  }
  return value * factor;
}
