import { figure, given, type Figure, type Unit, type WhyInput } from './figure.ts';

const OWN_RECORDS = 'Your own records';

/**
 * A number that was counted, weighed or written down, or summed from such: its why is where it was written.
 * @example recordedFigure(3, 'count', 'Marked as short at the pot.').value // 3
 */
export const recordedFigure = (
  value: number,
  unit: Unit,
  rule: string,
  inputs: WhyInput[],
  formula = 'as written down',
): Figure => figure(value, unit, { rule, formula, source: OWN_RECORDS, inputs }, { basis: 'measured' });

/**
 * A number out of a book or a rule of the trade: its why is the source, and that nobody has checked it here.
 * @example bookFigure(11340, 'kg/m3', 'At 20 °C.', 'A handbook').why.source // 'A handbook'
 */
export const bookFigure = (
  value: number,
  unit: Unit,
  rule: string,
  source: string,
  range: { low?: number; high?: number } = {},
): Figure => figure(value, unit, { rule, formula: 'as given', source, inputs: [given('Given', value, unit)] }, range);
