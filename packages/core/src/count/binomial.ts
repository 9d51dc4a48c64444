import { countInRange, inRange } from '../quantity/check.ts';

/**
 * ln(n!) by Stirling's series (Abramowitz & Stegun 6.1.41), exact products below 20; relative error under 1e-12.
 * @example logFactorial(5) // 4.787
 */
export function logFactorial(n: number): number {
  if (n < 20) {
    let product = 1;
    for (let i = 2; i <= n; i++) product *= i;
    return Math.log(product);
  }
  const x = n + 1;
  const x2 = x * x;
  return (x - 0.5) * Math.log(x) - x + 0.5 * Math.log(2 * Math.PI) + (1 - (1 / 30 - 1 / (105 * x2)) / x2) / (12 * x);
}

/**
 * P(X >= atLeast) for X ~ Bin(n, p), summed from the nearer tail.
 * @example binomialAtLeast(10, 0.5, 5) // 0.623
 */
export function binomialAtLeast(n: number, p: number, atLeast: number): number {
  countInRange('n', n, 0, 1e7);
  inRange('p', p, '', 0, 1);
  if (atLeast <= 0) return 1;
  if (atLeast > n) return 0;
  if (p === 0) return 0;
  if (p === 1) return 1;
  const logTerm = (k: number) =>
    logFactorial(n) - logFactorial(k) - logFactorial(n - k) + k * Math.log(p) + (n - k) * Math.log1p(-p);
  const odds = p / (1 - p);
  const upper = atLeast > n * p;
  let term = Math.exp(logTerm(upper ? atLeast : atLeast - 1));
  let sum = 0;
  if (upper) {
    for (let k = atLeast; k <= n && term > sum * 1e-17; k++) {
      sum += term;
      term *= ((n - k) / (k + 1)) * odds;
    }
    return Math.min(1, sum);
  }
  for (let k = atLeast - 1; k >= 0 && term > sum * 1e-17; k--) {
    sum += term;
    term *= k / ((n - k + 1) * odds);
  }
  return Math.max(0, 1 - sum);
}

/**
 * Casts to plan for `good` heads at yield `yieldShare`: the smallest n with P(Bin(n, y) >= good) >= `confidence`.
 * Range: good 0 to 100 000, yield 0.02 to 1.
 * @example castsFor(60, 0.94) // 67
 */
export function castsFor(good: number, yieldShare: number, confidence = 0.95): number {
  countInRange('good heads', good, 0, 100_000);
  inRange('yield', yieldShare, '', 0.02, 1);
  inRange('confidence', confidence, '', 0.5, 0.9999);
  if (good === 0) return 0;
  let low = good;
  let high = good;
  while (binomialAtLeast(high, yieldShare, good) < confidence) {
    low = high + 1;
    high = Math.ceil(high * 1.25) + 1;
  }
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (binomialAtLeast(middle, yieldShare, good) >= confidence) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** A yield and what it rests on. */
export interface YieldEstimate {
  mean: number;
  low: number;
  high: number;
  casts: number;
}

/**
 * What a practised hand gets before there are records: 94 % from 40 casts' worth of belief. Common practice, no
 * source.
 */
const PRIOR_GOOD = 37.6;
const PRIOR_BAD = 2.4;

/**
 * Yield from records with a beta prior; low and high are the Wilson score interval (z = 1.96) of the prior and the
 * records taken together.
 * @example yieldEstimate(90, 100).mean // 0.9114
 */
export function yieldEstimate(good: number, casts: number): YieldEstimate {
  countInRange('casts', casts, 0, 1e9);
  countInRange('good casts', good, 0, casts);
  const n = casts + PRIOR_GOOD + PRIOR_BAD;
  const mean = (good + PRIOR_GOOD) / n;
  return { mean, casts, ...wilson(mean, n) };
}

/**
 * Wilson score interval for a share seen in n trials (Wilson 1927), z = 1.96 by default.
 * @example wilson(0.8, 10) // { low: 0.4902, high: 0.9433 }
 */
export function wilson(share: number, n: number, z = 1.96): { low: number; high: number } {
  inRange('share', share, '', 0, 1);
  inRange('trials', n, '', 1, 1e12);
  const z2 = z * z;
  const middle = (share + z2 / (2 * n)) / (1 + z2 / n);
  const half = (z / (1 + z2 / n)) * Math.sqrt((share * (1 - share)) / n + z2 / (4 * n * n));
  return { low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}
