import { jStat } from 'jstat';
import { chance } from '@schmelz/worlds';
import { binomialAtLeast, lnGamma, logFactorial } from './binomial.ts';
import { castsFor } from './casts-for.ts';
import { wilson } from './wilson.ts';
import { eveningSpread, USUAL_EVENING_SPREAD, yieldEstimate, yieldTonight, type Evening } from './yield.ts';

describe('counting, against npm jstat', () => {
  test('binomial tails', () => {
    for (const n of [5, 40, 300]) {
      for (const p of [0.5, 0.9, 0.94, 0.99]) {
        for (const k of [1, Math.floor(n * 0.8), Math.floor(n * 0.95), n]) {
          expect(binomialAtLeast({ n, mean: p, atLeast: k })).toBeCloseTo(1 - jStat.binomial.cdf(k - 1, n, p), 8);
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
      const n = castsFor(good, { mean: y });
      expect(1 - jStat.binomial.cdf(good - 1, n, y)).toBeGreaterThanOrEqual(0.95);
      expect(n === good || 1 - jStat.binomial.cdf(good - 1, n - 1, y) < 0.95).toBe(true);
    }
  });

  test('certain yields and empty wishes', () => {
    expect(castsFor(60, { mean: 1 })).toBe(60);
    expect(castsFor(0, { mean: 0.9 })).toBe(0);
    expect(() => castsFor(10, { mean: 0 })).toThrow(/yield is 0/);
    expect(() => castsFor(1e9, { mean: 0.9 })).toThrow(/good heads is 1000000000/);
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

/** Values of a beta distribution as the mean of order statistics would be: by jstat's own quantile. */
const shares = (mean: number, sure: number, count: number) =>
  Array.from({ length: count }, (_, i) => jStat.beta.inv((i + 0.5) / count, mean * sure, (1 - mean) * sure) as number);

describe('yields that are unsure, and evenings that differ', () => {
  test('the gamma function, against npm jstat', () => {
    for (const x of [0.1, 0.5, 1, 2.5, 17.2, 240]) expect(lnGamma(x)).toBeCloseTo(jStat.gammaln(x), 9);
  });
  test('beta-binomial tails are binomial ones over the shares that may be (npm jstat)', () => {
    for (const [n, mean, sure, atLeast] of [
      [20, 0.9, 30, 18],
      [60, 0.94, 28, 55],
      [120, 0.8, 12, 70],
      [40, 0.6, 300, 30],
    ] as const) {
      const many = shares(mean, sure, 4000);
      const plain = many.reduce((sum, p) => sum + 1 - jStat.binomial.cdf(atLeast - 1, n, p), 0) / many.length;
      expect(binomialAtLeast({ n, mean, sure, atLeast })).toBeCloseTo(plain, 3);
    }
    // A coin that is all heads or all tails: U-shaped, both tails rise outwards.
    expect(binomialAtLeast({ n: 10, mean: 0.5, sure: 1e-6, atLeast: 10 })).toBeCloseTo(0.5, 4);
  });
  test('the surer, the fewer; certain is the binomial', () => {
    const casts = [5, 20, 100, 1e4, Infinity].map((sure) => castsFor(60, { mean: 0.94, sure }));
    expect(casts).toEqual([...casts].sort((a, b) => b - a));
    expect(casts.at(-1)).toBe(67);
    // What cannot be had with any number ends at ten times.
    expect(castsFor(10, { mean: 0.02, sure: 1 })).toBe(5000);
  });

  /** Evenings of one hand as they may really be: a yield whose logit moves about, which no beta is. */
  const evenings = (of: { logit: number; sd: number; count: number; casts: number; seed: number }): Evening[] => {
    const { uniform, normal } = chance(of.seed);
    return Array.from({ length: of.count }, () => {
      const p = 1 / (1 + Math.exp(-(of.logit + normal(of.sd))));
      const good = Array.from({ length: of.casts }, () => uniform() < p).filter(Boolean).length;
      return { good, casts: of.casts };
    });
  };
  test('evenings that are alike have no spread, evenings that differ theirs; few of them leave it as usual', () => {
    const alike = evenings({ logit: 2.2, sd: 0, count: 80, casts: 60, seed: 5 });
    const differ = evenings({ logit: 2.2, sd: 0.8, count: 80, casts: 60, seed: 5 });
    expect(eveningSpread(alike)).toBeLessThan(0.012);
    // Variance of the evenings' own shares over p(1 - p), by plain sampling of the logit: about 0.056.
    expect(eveningSpread(differ)).toBeGreaterThan(0.035);
    expect(eveningSpread(differ)).toBeLessThan(0.085);
    for (const few of [[], alike.slice(0, 1), [{ good: 3, casts: 3 }]])
      expect(eveningSpread(few)).toBe(USUAL_EVENING_SPREAD);
  });
  test('doubt by hand: 40 casts of belief, and evenings on top', () => {
    expect(yieldTonight({ mean: 0.94, casts: 0, spread: 0 }).sure).toBeCloseTo(40, 9);
    expect(yieldTonight({ mean: 0.94, casts: 1e9, spread: 0.05 }).sure).toBeCloseTo(19, 5);
  });
  // What a provision says of itself: nineteen evenings in twenty give enough, and never fewer than 94 in a hundred: the
  // makers differ more than their evenings do.
  test.each([
    { sd: 0.3, nights: 4 },
    { sd: 0.5, nights: 12 },
    { sd: 0.7, nights: 30 },
  ])('nineteen evenings in twenty give enough: %o', ({ sd, nights }) => {
    let [enough, all] = [0, 0];
    for (let maker = 0; maker < 120; maker++) {
      const { normal } = chance(977 + maker);
      const logit = 2.5 + normal(0.6);
      const records = evenings({ logit, sd, count: nights, casts: 50, seed: 1 + maker });
      const sum = (what: 'good' | 'casts') => records.reduce((total, each) => total + each[what], 0);
      const { mean } = yieldEstimate(sum('good'), sum('casts'));
      const tonight = yieldTonight({ mean, casts: sum('casts'), spread: eveningSpread(records) });
      const casts = castsFor(40, tonight);
      for (const { good } of evenings({ logit, sd, count: 25, casts, seed: 5000 + maker })) {
        all += 1;
        if (good >= 40) enough += 1;
      }
    }
    expect(enough / all).toBeGreaterThan(0.94);
    // And not by casting twice what it takes.
    expect(enough / all).toBeLessThan(0.995);
  });
});
