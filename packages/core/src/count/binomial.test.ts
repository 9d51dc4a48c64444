import { jStat } from 'jstat';
import { binomialAtLeast, castsFor, logFactorial, wilson, yieldEstimate } from './binomial.ts';

describe('counting, against npm jstat', () => {
  test('binomial tails', () => {
    for (const n of [5, 40, 300]) {
      for (const p of [0.5, 0.9, 0.94, 0.99]) {
        for (const k of [1, Math.floor(n * 0.8), Math.floor(n * 0.95), n]) {
          expect(binomialAtLeast(n, p, k)).toBeCloseTo(1 - jStat.binomial.cdf(k - 1, n, p), 8);
        }
      }
    }
  });

  test('gross-up is the smallest n that jstat agrees with', () => {
    for (const [good, y] of [
      [60, 0.94],
      [24, 0.94],
      [120, 0.88],
      [7, 0.75],
      [1, 0.5],
    ] as const) {
      const n = castsFor(good, y);
      expect(1 - jStat.binomial.cdf(good - 1, n, y)).toBeGreaterThanOrEqual(0.95);
      expect(n === good || 1 - jStat.binomial.cdf(good - 1, n - 1, y) < 0.95).toBe(true);
    }
  });

  test('certain yields and empty wishes', () => {
    expect(castsFor(60, 1)).toBe(60);
    expect(castsFor(0, 0.9)).toBe(0);
    expect(() => castsFor(10, 0)).toThrow(/yield is 0/);
    expect(() => castsFor(1e9, 0.9)).toThrow(/good heads is 1000000000/);
  });

  test('factorials against the plain sum of logarithms', () => {
    const sum = (n: number) => Array.from({ length: n }, (_, i) => Math.log(i + 1)).reduce((a, b) => a + b, 0);
    for (const n of [3, 19, 20, 21, 52, 170, 1000]) expect(logFactorial(n)).toBeCloseTo(sum(n), 8);
  });

  // Wilson 1927; worked example with 8 of 10: 0.490 to 0.943 (recomputed from the formula with jstat's normal
  // quantile).
  test('score interval', () => {
    const z = jStat.normal.inv(0.975, 0, 1);
    const { low, high } = wilson(0.8, 10, z);
    expect(low).toBeCloseTo(0.4902, 4);
    expect(high).toBeCloseTo(0.9433, 4);
  });

  test('records pull the yield from the prior, slowly at first', () => {
    expect(yieldEstimate(0, 0).mean).toBeCloseTo(0.94, 9);
    expect(yieldEstimate(3, 10).mean).toBeGreaterThan(0.75);
    expect(yieldEstimate(700, 1000).mean).toBeCloseTo(0.709, 2);
    expect(() => yieldEstimate(11, 10)).toThrow(/good casts is 11/);
  });
});
