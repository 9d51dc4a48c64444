import type { MassUnit, TemperatureUnit } from './parse.ts';
import { celsiusToFahrenheit, KG_PER_OUNCE, KG_PER_POUND, M_PER_INCH } from './units.ts';

/** Fractions of an ounce that molds are stamped with: halves down to 1/64, and the micro sizes below. */
const OUNCE_FRACTIONS = [100, 80, 64, 32, 16, 8, 4, 2, 1] as const;

const trim = (value: number, digits: number): string => {
  const text = value.toFixed(digits);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
};

/**
 * Ounces as they are stamped on a mold: the simplest fraction down to 1/64, 1/80 or 1/100 within half a percent, else
 * decimals.
 * @example ounceText(0.375) // '3/8'
 */
export function ounceText(ounces: number): string {
  const sign = ounces < 0 ? '-' : '';
  const size = Math.abs(ounces);
  for (const below of [...OUNCE_FRACTIONS].reverse()) {
    const above = Math.round(size * below);
    // Eightieths and hundredths are stamped by ones only.
    if (below > 64 && above !== 1) continue;
    if (above > 0 && Math.abs(above / below - size) <= 0.005 * size) {
      const whole = Math.floor(above / below);
      const rest = above - whole * below;
      if (rest === 0) return `${sign}${whole}`;
      return `${sign}${whole ? `${whole} ` : ''}${rest}/${below}`;
    }
  }
  return sign + trim(size, size < 1 ? 3 : 2);
}

/** What a mass is written as: figure and unit apart, so that a screen can set them in different sizes. */
export interface Written {
  figure: string;
  unit: string;
}

/**
 * A head's mass: 10 g, 0.9 g, 3/8 oz.
 * @example writeHeadMass(0.0141747615625, 'oz') // { figure: '1/2', unit: 'oz' }
 */
export function writeHeadMass(kg: number, unit: MassUnit): Written {
  if (unit === 'oz') return { figure: ounceText(kg / KG_PER_OUNCE), unit: 'oz' };
  const grams = kg * 1000;
  return { figure: trim(grams, Math.abs(grams) < 100 ? 1 : 0), unit: 'g' };
}

/**
 * A bulk mass: 31.4 kg, 640 g, 69.2 lb, 4.2 oz. Small masses keep three significant figures.
 * @example writeBulkMass(2.26796185, 'oz') // { figure: '5.0', unit: 'lb' }
 */
export function writeBulkMass(kg: number, unit: MassUnit): Written {
  const size = Math.abs(kg);
  if (unit === 'oz') {
    if (size >= KG_PER_POUND) return { figure: (kg / KG_PER_POUND).toFixed(1), unit: 'lb' };
    return { figure: trim(kg / KG_PER_OUNCE, size < 0.03 ? 3 : 1), unit: 'oz' };
  }
  if (size >= 1) return { figure: kg.toFixed(size >= 100 ? 0 : size >= 10 ? 1 : 2), unit: 'kg' };
  return { figure: trim(kg * 1000, size < 0.001 ? 3 : size < 0.1 ? 1 : 0), unit: 'g' };
}

/** Inches are written to this fraction, where it is within two percent. */
const INCH_FRACTIONS = [2, 4, 8, 16, 32, 64] as const;

/**
 * A length: 3.2 mm, 240 mm, 1.2 m; beside ounces 1/8 in, 9.4 in, 3.9 ft.
 * @example writeLength(0.003175, 'oz') // { figure: '1/8', unit: 'in' }
 */
export function writeLength(metres: number, unit: MassUnit): Written {
  const size = Math.abs(metres);
  if (unit !== 'oz') {
    if (size >= 1) return { figure: trim(metres, 2), unit: 'm' };
    return { figure: trim(metres * 1000, size < 0.1 ? 2 : 0), unit: 'mm' };
  }
  const inches = metres / M_PER_INCH;
  if (size >= 1) return { figure: trim(inches / 12, 1), unit: 'ft' };
  const below = INCH_FRACTIONS.find((each) => {
    const above = Math.round(inches * each);
    return size < 2 * M_PER_INCH && above > 0 && above % 2 === 1 && Math.abs(above / each - inches) <= 0.02 * inches;
  });
  if (below === undefined) return { figure: trim(inches, size < M_PER_INCH ? 3 : 1), unit: 'in' };
  const above = Math.round(inches * below);
  const whole = Math.floor(above / below);
  return { figure: `${whole ? `${whole} ` : ''}${above - whole * below}/${below}`, unit: 'in' };
}

/**
 * A length as it stands in a form, so that reading it gives the same again: 3.18 mm; 1/8 in, 0.1252 in.
 * @example lengthText(0.003175, 'oz') // '1/8 in'
 */
export function lengthText(metres: number, unit: MassUnit): string {
  if (unit !== 'oz') return `${trim(metres * 1000, 3)} mm`;
  const inches = metres / M_PER_INCH;
  const below = INCH_FRACTIONS.find((each) => Math.abs(Math.round(inches * each) - inches * each) < 1e-6);
  const above = below && Math.round(inches * below);
  return above && above < below ? `${above}/${below} in` : `${trim(inches, 4)} in`;
}

/**
 * Whole degrees in the maker's scale.
 * @example writeTemperature(371, 'F') // { figure: '700', unit: '°F' }
 */
export function writeTemperature(celsius: number, unit: TemperatureUnit): Written {
  return { figure: String(Math.round(unit === 'F' ? celsiusToFahrenheit(celsius) : celsius)), unit: `°${unit}` };
}

/**
 * A running clock: 9, 2:15, 1:02:40.
 * @example writeClock(135) // '2:15'
 */
export function writeClock(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds - 1e-9));
  const two = (part: number) => String(part).padStart(2, '0');
  const h = Math.floor(whole / 3600);
  const m = Math.floor((whole % 3600) / 60);
  const s = whole % 60;
  if (h) return `${h}:${two(m)}:${two(s)}`;
  return m ? `${m}:${two(s)}` : String(s);
}

/**
 * A span of work: 40 s, 6 min, 1 h 20.
 * @example writeSpan(5400) // '1 h 30'
 */
export function writeSpan(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
}

/**
 * Integer minor units as money, with `extraDigits` more places than the currency has (unit costs need them).
 * @example writeMoney(4130, 'EUR') // '€41.30'
 */
export function writeMoney(minor: number, currency: string, extraDigits = 0): string {
  const digits = currencyDigits(currency);
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: digits + extraDigits,
    maximumFractionDigits: digits + extraDigits,
  }).format(minor / 10 ** digits);
}

/**
 * How many decimal places the minor unit of a currency has (ISO 4217, as the runtime's tables give it).
 * @example currencyDigits('JPY') // 0
 */
export function currencyDigits(currency: string): number {
  return new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
}
