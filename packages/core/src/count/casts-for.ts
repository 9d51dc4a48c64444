import { countInRange, inRange } from '../quantity/check.ts';
import { binomialAtLeast } from './binomial.ts';
import type { YieldTonight } from './yield.ts';

/** More casts than that are no evening's, nor a year's. */
const MOST_CASTS = 1e7;

/**
 * The smallest n with P(X >= good) >= `confidence`: so many casts are enough, that surely. Range: good 0 to 100 000,
 * yield 0.02 to 1.
 * @example castsFor(60, { mean: 0.94 }) // 67
 * @example castsFor(60, { mean: 0.94, sure: 28 }) // 71
 */
export function castsFor(good: number, { mean, sure = Infinity }: YieldTonight, confidence = PROVISION): number {
  countInRange('good heads', good, 0, 100_000);
  inRange('yield', mean, '', 0.02, 1);
  inRange('confidence', confidence, '', 0.0001, 0.9999);
  if (good === 0) return 0;
  const enough = (n: number) => binomialAtLeast({ n, mean, atLeast: good, sure }) >= confidence;
  // A yield that may be next to nothing is not made up for by any number of casts: ten times that is the most.
  const most = Math.min(MOST_CASTS, Math.ceil((10 * good) / mean));
  // It lies about the mean, some spreads to either side: from there in strides that double.
  let high = Math.min(most, Math.max(good, Math.ceil(good / mean)));
  let low = good;
  let stride = 1 + Math.ceil(Math.sqrt(good) / mean);
  if (enough(high)) {
    for (; high - stride > good && enough(high - stride); stride *= 2) high -= stride;
    low = Math.max(good, high - stride + 1);
  } else {
    for (; high < most && !enough(high); stride *= 2) {
      low = high + 1;
      high = Math.min(most, high + stride);
    }
  }
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** A provision is enough in nineteen evenings of twenty; as few need less than the least. */
const PROVISION = 0.95;

/** Casts until enough of them are good. The two numbers are never mixed: one forecasts, the other is laid out. */
export interface Casts {
  /** On average, where casting stops as soon as enough are good: for minutes, money, energy and metal. */
  expected: number;
  /** What to lay out: nineteen evenings in twenty need no more. */
  provision: number;
  /** Nineteen evenings in twenty need no less. */
  least: number;
}
const NO_CASTS: Casts = { expected: 0, provision: 0, least: 0 };

/**
 * Casts of several together.
 * @example sumOfCasts([]).expected // 0
 */
export const sumOfCasts = (all: readonly Casts[]): Casts =>
  all.reduce(
    (sum, each) => ({
      expected: sum.expected + each.expected,
      provision: sum.provision + each.provision,
      least: sum.least + each.least,
    }),
    NO_CASTS,
  );

/** Below that many good ones of belief a yield may be next to nothing. */
const HARDLY_ANY = 2;

/**
 * Casts until `good` heads are good, on average, with a yield that is as sure as after so many draws and the same for
 * all casts of an evening: good (sure - 1) / (mean sure - 1), the mean of the beta-negative-binomial wait (Johnson,
 * Kemp and Kotz, Univariate Discrete Distributions; from memory). Where a yield may be next to nothing that mean has
 * no bound, and nobody waits for it: the provision is the most.
 * @example expectedCasts(24, { mean: 0.78, sure: 7.755 }) // 32.11
 */
export function expectedCasts(good: number, tonight: YieldTonight): number {
  const { mean, sure = Infinity } = tonight;
  countInRange('good heads', good, 0, 100_000);
  inRange('yield', mean, '', 0.02, 1);
  if (sure === Infinity) return good / mean;
  const belief = mean * sure;
  const waits = belief > 1 ? (good * (sure - 1)) / (belief - 1) : Infinity;
  return belief > HARDLY_ANY ? waits : Math.min(waits, castsFor(good, tonight));
}

/**
 * Casts until `good` heads are good: how many are expected, and how many are laid out for.
 * @example castsUntil(24, { mean: 0.78, sure: 7.755 }) // { expected: 32.11, provision: 48, least: 24 }
 */
export const castsUntil = (good: number, tonight: YieldTonight): Casts => ({
  expected: expectedCasts(good, tonight),
  provision: castsFor(good, tonight),
  least: castsFor(good, tonight, 1 - PROVISION),
});

/**
 * Casts that are expected as they are said and planned: the nearest whole number, and one where there is any.
 * @example wholeCasts(32.11) // 32
 */
export const wholeCasts = (expected: number): number => (expected > 0 ? Math.max(1, Math.round(expected)) : 0);

/**
 * Part of the casts of a whole, such as of one mold of two: what is laid out for it in whole pieces.
 * @example partOf({ expected: 33.4, provision: 50, least: 26 }, 0.5) // { expected: 16.7, provision: 25, least: 13 }
 */
export const partOf = ({ expected, provision, least }: Casts, part: number): Casts => ({
  expected: part * expected,
  provision: Math.ceil(part * provision - 1e-6),
  least: Math.floor(part * least + 1e-6),
});

/**
 * Casts as they are said everywhere: what is expected, and what is laid out for.
 * @example castsSay({ expected: 33.4, provision: 50 }) // 'about 33 casts, up to 50'
 */
export function castsSay({ expected, provision }: Pick<Casts, 'expected' | 'provision'>): string {
  const whole = wholeCasts(expected);
  const said = `${whole} ${whole === 1 ? 'cast' : 'casts'}`;
  return provision > whole ? `about ${said}, up to ${provision}` : said;
}
