import { jStat } from 'jstat';
import { typicalHook, type HookSize } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { bendHeat, holdFigure } from './hook-heat.ts';
import { headOpening } from './opening.ts';

/** erfc by the normal distribution of npm jstat. */
const erfc = (x: number) => 2 * (1 - jStat.normal.cdf(x * Math.SQRT2, 0, 1));

const bend = (size: HookSize, grams: number, more = {}) => {
  const [solid, headKg] = [cavitySolid('ball', grams / 1000), grams / 1000];
  const opening = headOpening(solid, headKg, { metalC: 371, moldC: 60, interfaceWPerM2K: 2000, together: 2 });
  const of = { hook: typicalHook(size), solid, headKg, opening, roomC: 20, ...more };
  return { ...bendHeat(of), openS: opening.openS, figure: holdFigure(of) };
};

// Carslaw & Jaeger, Conduction of Heat in Solids (1959), from memory: a half-infinite fin on a base that is kept hot is
// at T/T_base = 1/2 [e^(-mx) erfc(x / 2 sqrt(at) - m sqrt(at)) + e^(mx) erfc(x / 2 sqrt(at) + m sqrt(at))]. Steel as in
// the tables, from memory: 46 W/mK, 7850 kg/m3, 470 J/kgK; A wire that ends at its bend is as if it
// were mirrored there: twice as warm, while what comes back from the far end is little.
test('the heat in a shank, against the closed form of a fin', () => {
  const [shankM, wireM, air] = [0.03, 0.0012, 30];
  const a = 46 / (7850 * 470);
  const m = Math.sqrt((4 * air) / (46 * wireM));
  const share = (t: number) => {
    const [s, r] = [shankM / (2 * Math.sqrt(a * t)), m * Math.sqrt(a * t)];
    const [near, far] = [Math.exp(-m * shankM) * erfc(s - r), Math.exp(m * shankM) * erfc(s + r)];
    return near + far;
  };
  // A head so heavy, and left in its mold so long, that it stays at what it sets at.
  const opening = { head: { seconds: 900 }, openS: 900, opensC: 327, leavesC: 327 } as never;
  const hook = { ...typicalHook('2/0'), wireM };
  const solid = cavitySolid('ball', 1);
  const { coolUntilS } = bendHeat({ hook, solid, headKg: 1, opening, roomC: 20, shankM, airWPerM2K: air });
  expect(20 + 307 * share(coolUntilS!)).toBeGreaterThan(47);
  expect(20 + 307 * share(coolUntilS!)).toBeLessThan(50);
});

// Common practice, no source: a hook is cool when the mold opens and hot soon after.
test('cool when the mold opens, hot a little later', () => {
  for (const [size, grams] of [
    ['5/0', 28],
    ['6/0', 57],
    ['7/0', 113],
  ] as const) {
    const { coolUntilS, openS, hottestC, hottestAtS, figure } = bend(size, grams);
    expect(coolUntilS!).toBeGreaterThan(openS);
    expect(hottestC).toBeGreaterThan(50);
    expect(hottestAtS).toBeGreaterThan(coolUntilS!);
    expect(figure!.value).toBeCloseTo(coolUntilS! - openS, 9);
    expect(figure!.low!).toBeLessThan(figure!.value);
  }
});

test('a shorter shank and a heavier head burn sooner; a head of some grains never does', () => {
  expect(bend('6/0', 57, { shankM: 0.02 }).coolUntilS!).toBeLessThan(bend('6/0', 57).coolUntilS!);
  expect(bend('5/0', 57).hottestC).toBeGreaterThan(bend('5/0', 14).hottestC);
  expect(bend('8', 0.5)).toMatchObject({ coolUntilS: null, figure: null });
});
