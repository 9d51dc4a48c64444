import fc from 'fast-check';
import { jStat } from 'jstat';
import { typicalHook } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { STYLE_IDS } from '../geometry/styles.ts';
import { alloyOf } from '../metal/alloy.ts';
import { FILL_DEFAULTS, fillIndex, type FillCavity, type FillSettings } from './fill-index.ts';
import { fillLevers } from './levers.ts';
import { fillMarks, fillVerdict, fitFairThreshold, fitThreshold } from './threshold.ts';

const cavity = (style: string, massKg: number, size: '8' | '2/0' = '2/0'): FillCavity => ({
  solid: cavitySolid(style, massKg),
  sprueHeightM: 0.008,
  wireM: typicalHook(size).wireM,
});
const dart = cavity('dart', 0.01);
const at = (change: Partial<FillSettings>, one = dart) => fillIndex(one, { ...FILL_DEFAULTS, ...change }).index;

describe('fill index', () => {
  test('is its own formula, worked by hand: a bore of 2.7 mm round a 1.1 mm wire', () => {
    const { stopS, speedMS, index, thinM, reachM } = fillIndex(dart, FILL_DEFAULTS);
    expect(speedMS).toBeCloseTo(0.7 * Math.sqrt(2 * 9.80665 * 0.008), 9);
    const heat = 147 * (371 - 327.46) + 0.45 * 23_000;
    expect(stopS).toBeCloseTo((10_660 * heat * thinM) / (1500 * (327.46 - 120)), 6);
    expect(index).toBeCloseTo(reachM / dart.solid.flowLengthM, 9);
  });

  // Common practice, no source: each lever of the trade, in the direction the trade gives it.
  test('every lever moves it the right way, for every style', () => {
    for (const style of STYLE_IDS) {
      for (const one of [cavity(style, 0.01), cavity(style, 0.0012, '8')]) {
        const base: Partial<FillSettings> = { hookWarm: false, shotsSinceSmoked: 20, stream: 'slow', dirt: 0.5 };
        const before = at(base, one);
        const better: Partial<FillSettings>[] = [
          { metalC: 390 },
          { moldC: 140 },
          { hookWarm: true },
          { shotsSinceSmoked: 0 },
          { pouring: 'inject' },
          { tiltDeg: 20 },
          { stream: 'quick' },
          { dirt: 0 },
        ];
        for (const change of better) expect(at({ ...base, ...change }, one)).toBeGreaterThan(before);
        expect(at({ ...base, alloy: alloyOf('tyre-weight') }, one)).toBeLessThan(before);
        expect(at({ ...base, stream: 'thin' }, one)).toBeLessThan(before);
      }
    }
  });
  test('more soot worn off never fills better; hotter never worse; never NaN in range, a named error outside', () => {
    const setting = fc.record({
      metalC: fc.double({ min: 328, max: 505, noNaN: true }),
      moldC: fc.double({ min: 0, max: 240, noNaN: true }),
      shotsSinceSmoked: fc.integer({ min: 0, max: 5000 }),
      tiltDeg: fc.double({ min: 0, max: 50, noNaN: true }),
    });
    fc.assert(
      fc.property(setting, (change) => {
        const index = at(change);
        expect(Number.isFinite(index)).toBe(true);
        expect(at({ ...change, shotsSinceSmoked: change.shotsSinceSmoked + 10 })).toBeLessThanOrEqual(index);
        expect(at({ ...change, metalC: change.metalC + 10 })).toBeGreaterThan(index);
        expect(at({ ...change, moldC: change.moldC + 10 })).toBeGreaterThan(index);
      }),
    );
    expect(() => at({ metalC: 300 })).toThrow(/metalC is 300\u00a0C/);
    expect(() => at({ tiltDeg: NaN })).toThrow(/tiltDeg is NaN/);
  });
  test('pressure presses out sharper edges: gamma / (rho g H)', () => {
    const gravity = fillIndex(dart, FILL_DEFAULTS).sharpestM;
    expect(gravity).toBeCloseTo(0.45 / (10_660 * 9.80665 * 0.008), 9);
    expect(fillIndex(dart, { ...FILL_DEFAULTS, pouring: 'inject' }).sharpestM).toBeLessThan(gravity / 5);
  });
});

describe('what to change first', () => {
  const worst: FillSettings = {
    ...FILL_DEFAULTS,
    hookWarm: false,
    shotsSinceSmoked: 60,
    stream: 'thin',
    dirt: 0.6,
    alloy: alloyOf('tyre-weight'),
  };
  test('all levers that are left, the largest gain first, none below what it is', () => {
    const levers = fillLevers(dart, worst);
    expect(levers.map((lever) => lever.id).sort()).toEqual([
      'clean',
      'hook',
      'inject',
      'metal',
      'mold',
      'smoke',
      'soft',
      'stream',
      'tilt',
    ]);
    levers.slice(1).forEach((lever, i) => expect(lever.gain).toBeLessThanOrEqual(levers[i]!.gain));
    for (const lever of levers) expect(lever.gain).toBeGreaterThan(1);
    expect(levers.find((lever) => lever.id === 'metal')!.caution).toMatch(/fume/);
  });
  test('what is used up is not offered again', () => {
    const ids = fillLevers(dart, { ...FILL_DEFAULTS, pouring: 'inject', tiltDeg: 25, metalC: 395, moldC: 140 }).map(
      (lever) => lever.id,
    );
    expect(ids).toEqual([]);
  });
});

describe('what is said of a cavity', () => {
  test('by the model below 1 and 1.5, by its own record where one in four and one in twelve is short', () => {
    expect(fillMarks(null)).toEqual([1, 1.5]);
    expect(fillMarks({ index: 0.5, spread: 0.1, casts: 59 })).toEqual([1, 1.5]);
    const [short, filled] = fillMarks({ index: 0.5, spread: 0.1, casts: 400 });
    const share = (index: number) => 1 / (1 + (index / 0.5) ** 10); // the logistic curve in ln(index), written out
    expect(share(short)).toBeCloseTo(0.25, 9);
    expect(share(filled)).toBeCloseTo(0.08, 9);
    const marks = [short, filled] as const;
    expect([0.5, 0.6, 0.84].map((index) => fillVerdict(index, marks))).toEqual(['short expected', 'marginal', 'fills']);
  });
});

describe('threshold from logged shorts', () => {
  test('without records it is the prior; all-good records move it a little and do not blow up', () => {
    expect(fitThreshold([]).index).toBeCloseTo(1.1, 6);
    const good = fitThreshold([{ index: 2, casts: 5000, shorts: 0 }]);
    expect(good.index).toBeGreaterThan(0.5);
    expect(good.index).toBeLessThan(1.1);
    expect(good.shortShare(2)).toBeLessThan(0.002);
  });
  test('ten shots already help', () => {
    const few = fitThreshold([{ index: 1.6, casts: 10, shorts: 6 }]);
    expect(few.index).toBeGreaterThan(1.25);
    expect(few.high - few.low).toBeLessThan(fitThreshold([]).high - fitThreshold([]).low);
  });
  test('500 casts of a known truth are found again', () => {
    const [centre, spread] = [Math.log(1.35), 0.12];
    const records = [0.9, 1.1, 1.25, 1.4, 1.6, 2].map((index) => {
      const share = 1 / (1 + Math.exp(-(centre - Math.log(index)) / spread));
      return { index, casts: 83, shorts: Math.round(83 * share) };
    });
    const fit = fitThreshold(records);
    expect(fit.index).toBeCloseTo(1.35, 1);
    expect(fit.low).toBeLessThan(1.35);
    expect(fit.high).toBeGreaterThan(1.35);
    expect(fit.spread).toBeCloseTo(0.12, 1);
    // npm jstat: the 95 % interval is centre +- 1.96 sd in ln(index).
    const z = jStat.normal.inv(0.975, 0, 1);
    expect(Math.log(fit.high / fit.low) / (2 * z)).toBeLessThan(0.1);
  });
  test('a cavity with a burr does not spoil the threshold of the others, and is named', () => {
    const cavities = ['a', 'b', 'c', 'd', 'e'].map((cavityId) => ({ cavityId, index: 1.6, casts: 200, shorts: 4 }));
    const honest = fitThreshold(cavities);
    const { threshold, faulty } = fitFairThreshold([
      ...cavities,
      { cavityId: 'burr', index: 1.6, casts: 200, shorts: 52 },
    ]);
    expect(faulty).toEqual(['burr']);
    expect(threshold.index).toBeCloseTo(honest.index, 6);
    expect(fitFairThreshold(cavities).faulty).toEqual([]);
    expect(fitFairThreshold([]).threshold.casts).toBe(0);
  });
  test('nonsense is refused by name', () => {
    expect(() => fitThreshold([{ index: 1, casts: 3, shorts: 4 }])).toThrow(/shorts is 4/);
  });
});
