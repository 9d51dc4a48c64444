import { countInRange, inRange } from '../quantity/check.ts';
import { binomialAtLeast } from './binomial.ts';
import type { YieldTonight } from './yield.ts';

/** More casts than that are no evening's, nor a year's. */
const MOST_CASTS = 1e7;

/**
 * Casts to plan for `good` heads: the smallest n with P(X >= good) >= `confidence`. Range: good 0 to 100 000, yield
 * 0.02 to 1.
 * @example castsFor(60, { mean: 0.94 }) // 67
 * @example castsFor(60, { mean: 0.94, sure: 28 }) // 71
 */
export function castsFor(good: number, { mean, sure = Infinity }: YieldTonight, confidence = 0.95): number {
  countInRange('good heads', good, 0, 100_000);
  inRange('yield', mean, '', 0.02, 1);
  inRange('confidence', confidence, '', 0.5, 0.9999);
  if (good === 0) return 0;
  const enough = (n: number) => binomialAtLeast({ n, mean, atLeast: good, sure }) >= confidence;
  // A yield that may be next to nothing is not made up for by any number of casts: ten times that is the most.
  const most = Math.min(MOST_CASTS, Math.ceil((10 * good) / mean));
  let low = good;
  let high = good;
  while (high < most && !enough(high)) {
    low = high + 1;
    high = Math.min(most, Math.ceil(high * 1.25) + 1);
  }
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
