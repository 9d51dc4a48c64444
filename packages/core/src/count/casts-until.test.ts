import { chance } from '@schmelz/worlds';
import { headsToCast } from '../job/owed.ts';
import { castsFor, castsSay, castsUntil, expectedCasts, partOf, wholeCasts } from './casts-for.ts';
import { yieldTonight } from './yield.ts';

/** A yield that one evening misses by so much: the beta distribution's m (1 - m) / (sd sd) - 1. */
const offBy = (mean: number, sd: number) => ({ mean, sure: (mean * (1 - mean)) / sd ** 2 - 1 });

/** Marsaglia and Tsang (2000): a gamma deviate, for a beta one as the share of two. */
function gamma(shape: number, { uniform, normal }: ReturnType<typeof chance>): number {
  if (shape < 1) return gamma(shape + 1, { uniform, normal }) * uniform() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal(1);
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(uniform()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** An evening at the pot: a yield is drawn, and it is cast until enough are good. */
function castUntilEnough(
  good: number,
  { mean, sure }: { mean: number; sure: number },
  random: ReturnType<typeof chance>,
) {
  const [a, b] = [gamma(mean * sure, random), gamma((1 - mean) * sure, random)];
  const share = a / (a + b);
  let [casts, here] = [0, 0];
  while (here < good && casts < 1e5) {
    casts += 1;
    if (random.uniform() < share) here += 1;
  }
  return casts;
}

describe('casting stops when enough are good', () => {
  // What the issue of the two numbers asks: expected within 2 %, and the provision enough in 94 to 97 evenings of 100.
  test.each([
    [24, 0.78, 0.14],
    [60, 0.94, 0.05],
    [116, 0.9, 0.06],
    [60, 0.7, 0.14],
    [12, 0.7, 0.1],
    [300, 0.85, 0.14],
  ])('%d good ones at a yield of %d that evenings miss by %d', (good, mean, sd) => {
    const tonight = offBy(mean, sd);
    const { expected, provision, least } = castsUntil(good, tonight);
    const random = chance(1000 * good + Math.round(100 * mean));
    const evenings = Array.from({ length: 40_000 }, () => castUntilEnough(good, tonight, random));
    const average = evenings.reduce((sum, casts) => sum + casts, 0) / evenings.length;
    const within = (casts: number) => evenings.filter((each) => each <= casts).length / evenings.length;
    expect(Math.abs(expected / average - 1)).toBeLessThan(0.02);
    expect(within(provision)).toBeGreaterThan(0.94);
    expect(within(provision)).toBeLessThan(0.975);
    expect(within(provision - 1)).toBeLessThan(0.955);
    expect(within(least - 1)).toBeLessThan(0.055);
  });

  test('an order of 24 where 78 in a hundred are good and 30 were cast: about 34 casts, up to 52', () => {
    // Evenings differ by 14 in a hundred: 0.14 ** 2 / (0.78 * 0.22) of p (1 - p).
    const tonight = yieldTonight({ mean: 0.78, casts: 30, spread: 0.14 ** 2 / (0.78 * 0.22) });
    const casts = castsUntil(headsToCast(24, { mean: 0.97, sure: 37 }), tonight);
    expect(castsSay(casts)).toBe('about 34 casts, up to 52');
  });

  test('a certain yield is a division; what may be next to nothing is not waited for', () => {
    expect(expectedCasts(90, { mean: 0.9 })).toBeCloseTo(100, 12);
    const hopeless = { mean: 0.05, sure: 4 };
    expect(expectedCasts(10, hopeless)).toBe(castsFor(10, hopeless));
    expect(castsUntil(0, { mean: 0.9, sure: 20 })).toEqual({ expected: 0, provision: 0, least: 0 });
    expect(() => expectedCasts(10, { mean: 0.01 })).toThrow(/yield is 0.01/);
    expect(() => expectedCasts(-1, { mean: 0.5 })).toThrow(/good heads is -1/);
  });

  test('said and shared out whole: a part is laid out for in whole pieces, and a last cast is one', () => {
    expect([0, 0.2, 1.4, 33.45, 33.6].map(wholeCasts)).toEqual([0, 1, 1, 33, 34]);
    expect(partOf({ expected: 30, provision: 41, least: 25 }, 0.5)).toEqual({ expected: 15, provision: 21, least: 12 });
    expect(castsSay({ expected: 1, provision: 1 })).toBe('1 cast');
    expect(castsSay({ expected: 3.02, provision: 3 })).toBe('3 casts');
  });
});
