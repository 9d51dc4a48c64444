import { inRange, QuantityError } from '../quantity/check.ts';

/**
 * Mean moving range of two over the standard deviation, and the upper limit of a range: Shewhart's constants for n =
 * 2.
 */
const D2 = 1.128;
const D4 = 3.267;
/** So many in a row on one side of the mean are no chance: the run rule of the Western Electric handbook, 1956. */
export const RUN_LENGTH = 8;

export type Signal = { index: number; rule: 'beyond the limits' | 'a jump' | 'a run on one side' };

export interface Individuals {
  mean: number;
  /** Mean of the moving ranges of two. */
  meanRange: number;
  lower: number;
  upper: number;
  rangeUpper: number;
  ranges: number[];
  signals: Signal[];
}

/**
 * Individuals and moving-range chart: limits at the mean ± 3 mean range / 1.128, ranges up to 3.267 times their mean.
 * Limits may be taken from the first `baseline` values, so that a later drift does not widen them. Range: 2 to 10 000
 * values. Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2.
 * @throws QuantityError with fewer than two values
 * @example individuals([49.6, 47.6, 49.9, 51.3]).mean // 49.6
 */
export function individuals(values: readonly number[], baseline = values.length): Individuals {
  if (values.length < 2) throw new QuantityError('weighings', values.length, '', 'two or more');
  values.forEach((value) => inRange('value', value, '', -1e9, 1e9));
  const base = values.slice(0, Math.max(2, baseline));
  const rangesOf = (of: readonly number[]) => of.slice(1).map((value, i) => Math.abs(value - of[i]!));
  const meanOf = (of: readonly number[]) => of.reduce((sum, each) => sum + each, 0) / of.length;
  const mean = meanOf(base);
  const meanRange = meanOf(rangesOf(base));
  const [lower, upper, rangeUpper] = [mean - (3 * meanRange) / D2, mean + (3 * meanRange) / D2, D4 * meanRange];
  const ranges = rangesOf(values);
  const signals: Signal[] = [];
  let run = 0;
  values.forEach((value, index) => {
    if (value > upper || value < lower) signals.push({ index, rule: 'beyond the limits' });
    else if (index > 0 && ranges[index - 1]! > rangeUpper) signals.push({ index, rule: 'a jump' });
    const side = Math.sign(value - mean);
    run = side !== 0 && side === Math.sign(run) ? run + side : side;
    if (Math.abs(run) === RUN_LENGTH) signals.push({ index, rule: 'a run on one side' });
  });
  return { mean, meanRange, lower, upper, rangeUpper, ranges, signals };
}
