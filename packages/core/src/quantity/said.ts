/** Units that makers differ in: what a sentence says in them is written anew where it is read. */
const SAID_UNITS = ['kg', 'g', 'C', '°C', 'K', 'mm', 'm'] as const;
export type SaidUnit = (typeof SAID_UNITS)[number];
/**
 * Whether makers differ in this unit.
 * @example isSaid('kg') // true
 */
export const isSaid = (unit: string): unit is SaidUnit => SAID_UNITS.some((each) => each === unit);

/** Stands before the unit, so that no line breaks there, and so that nobody's own words are taken for a quantity. */
const NO_BREAK = '\u00a0';
const QUANTITY = new RegExp(`(-?\\d+(?:\\.\\d+)?(?:e-?\\d+)?)${NO_BREAK}(${SAID_UNITS.join('|')})\\b`, 'g');

/**
 * A quantity within a sentence.
 * @param unit any; those that makers differ in are found again by {@link saidAs}
 * @example quantityText(0.5, 'kg') // '0.5 kg'
 */
export const quantityText = (value: unknown, unit: string): string => {
  // What is no number has no unit: it is *not known*, and not *not known kg*.
  const written = typeof value === 'string' && Number.isNaN(Number(value)) ? '' : unit;
  return `${String(value)}${written && (isSaid(unit) ? NO_BREAK : ' ')}${written}`;
};

/**
 * What a quantity may be.
 * @example rangeText(0.1, 20, 'kg') // '0.1 kg to 20 kg'
 */
export const rangeText = (min: unknown, max: unknown, unit: string): string =>
  isSaid(unit)
    ? `${quantityText(min, unit)} to ${quantityText(max, unit)}`
    : `${String(min)} to ${quantityText(max, unit)}`;

/**
 * A sentence of the core with each of its quantities in other units.
 * @param write is given the quantity as it was said
 * @example saidAs(`It is ${quantityText(10, 'g')}.`, (value) => `${value / 1000} kilograms`) // 'It is 0.01 kilograms.'
 */
export const saidAs = (sentence: string, write: (value: number, unit: SaidUnit) => string): string =>
  sentence.replace(QUANTITY, (_, value: string, unit: SaidUnit) => write(Number(value), unit));
