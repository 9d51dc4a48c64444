import { figure, given, type Figure, type Unit, type WhyInput } from './figure.ts';

const OWN_RECORDS = 'Your own records';

/** A number that was counted, weighed or written down, or summed from such: its why is where it was written. */
export const recordedFigure = (
  value: number,
  unit: Unit,
  rule: string,
  inputs: WhyInput[],
  formula = 'as written down',
): Figure => figure(value, unit, { rule, formula, source: OWN_RECORDS, inputs }, { basis: 'measured' });

/** A number out of a book or a rule of the trade: its why is the source, and that nobody has checked it here. */
export const bookFigure = (
  value: number,
  unit: Unit,
  rule: string,
  source: string,
  range: { low?: number; high?: number } = {},
): Figure => figure(value, unit, { rule, formula: 'as given', source, inputs: [given('Given', value, unit)] }, range);
