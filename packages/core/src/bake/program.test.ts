import fc from 'fast-check';
import { Solver } from 'odex';
import { typicalHook } from '../geometry/hook.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { cureLaw, fullCureS } from './cure-law.ts';
import { cureShare, timeToFullCureS } from './cure.ts';
import { cureFromLog, platingDamage } from './from-log.ts';
import { headLagS } from './head-lag.ts';
import { packLoads, pitchOf, rackPlaces, type Rack, type RackGroup } from './packing.ts';
import { bakeProgram, COMMON_SCHEDULES, cureWords, OVER_BAKED, type BakedHead } from './program.ts';
import { airIn, knownOven } from './known-oven.ts';

const usual = knownOven(undefined);
const law = cureLaw([
  { metalC: 177, seconds: 1200 },
  { metalC: 200, seconds: 600 },
]);
const lagOf = (grams: number) =>
  headLagS({
    leadKg: grams / 1000,
    hookKg: typicalHook('3/0').massKg,
    areaM2: coldHeadSolid('ball', grams / 1000).cooledAreaM2,
  });
const head = (name: string, grams: number, limitC: number, more: Partial<BakedHead> = {}): BakedHead => ({
  name,
  headLagS: lagOf(grams),
  heatJK: 0.16 * grams,
  laws: [{ powder: 'White', law }],
  hook: `hook of ${name}`,
  limitC,
  ...more,
});

// Common practice, no source: 20 minutes at 177 C need 22 to 24 on the clock from cold; 1/2 oz lags 2 to 3 minutes.
test('20 minutes at 177 C on the clock', () => {
  for (const grams of [7, 10, 14.2]) {
    const minutes = timeToFullCureS({ law, headLagS: lagOf(grams), airC: 177 })! / 60;
    expect(minutes).toBeGreaterThan(22);
    expect(minutes).toBeLessThan(25); // 23.5, 24.0 and 24.7 by this model
  }
  expect(lagOf(14.2) / 60).toBeGreaterThan(2);
  expect(lagOf(14.2) / 60).toBeLessThan(3);
});

describe('the shortest program', () => {
  test('is full for the slowest, over-bakes none, stays under the finish; no mark around it is shorter', () => {
    const heads = [head('small', 3.5, 200), head('large', 28, 185)];
    const { program, conflict } = bakeProgram({ heads, oven: usual, preheated: true });
    expect(conflict).toBeNull();
    expect(program!.setC).toBe(185 - usual.swingK);
    expect(program!.slowest.name).toBe('large');
    for (const each of heads) {
      const air = airIn(usual, { setC: program!.setC, preheated: true });
      const cure = cureShare({ law, headLagS: each.headLagS, ...air }, program!.seconds);
      expect(cure).toBeGreaterThanOrEqual(0.999);
      expect(cure).toBeLessThan(OVER_BAKED);
    }
    for (let setC = 150; setC <= 180; setC += 5) {
      const air = airIn(usual, { setC, preheated: true });
      const slowest = Math.max(...heads.map(({ headLagS: lagS }) => timeToFullCureS({ law, headLagS: lagS, ...air })!));
      expect(Math.ceil(slowest / 60)).toBeGreaterThanOrEqual(program!.seconds / 60);
    }
  });
  test('a finish that stands too little: what must give way is said, with what each way would be', () => {
    const { program, conflict } = bakeProgram({
      heads: [head('bronze', 14, 130)],
      oven: knownOven({ lagS: 240 }),
      preheated: false,
    });
    expect(program).toBeNull();
    expect(conflict!.says).toMatch(
      /^None within 90 minutes, because under the 130\u00a0°C of hook of bronze.* takes 1\d\d minutes/,
    );
    const [finish, time, paint] = conflict!.ways;
    // The plating is asked to bear no more than it must: never the hottest that the oven can do.
    expect(finish!.program!.setC).toBeGreaterThan(125);
    expect(finish!.program!.setC).toBeLessThan(150);
    expect(finish!.program!.seconds).toBeLessThanOrEqual(5400);
    expect(time!.program!.setC).toBeLessThanOrEqual(125);
    expect(time!.program!.seconds).toBeGreaterThan(90 * 60);
    expect(paint!.program).toBeNull();
  });
  test('a quick powder on a small head and a slow one on a large head cannot share an oven', () => {
    const quick = cureLaw([
      { metalC: 150, seconds: 120 },
      { metalC: 170, seconds: 60 },
    ]);
    const answer = bakeProgram({
      heads: [head('small', 2, 300, { laws: [{ powder: 'Quick', law: quick }] }), head('large', 60, 300)],
      oven: usual,
      preheated: true,
    });
    expect(answer.program).toBeNull();
  });
  test('bare heads are refused', () =>
    expect(() => bakeProgram({ heads: [], oven: usual, preheated: true })).toThrow(/one painted head/));
});

// Worked by hand from the label: 25 min at 149 C is about half a cure, 20 at 121 C about a tenth (at metal
// temperature).
test('what the common schedules are worth, plainly', () => {
  const worth = COMMON_SCHEDULES.map(({ setC, seconds }) => seconds / fullCureS(law, setC));
  expect(worth[0]).toBeCloseTo(1, 6);
  expect(worth[1]).toBeCloseTo(0.485, 2);
  expect(worth[2]).toBeCloseTo(0.13, 2);
  expect(worth.map(cureWords)).toEqual([
    'full',
    'about half: it chips on the first rock',
    'hardly begun: dry to the touch, not cured',
  ]);
  expect(cureWords(3.2)).toMatch(/over-baked/);
});

describe('cure from a log', () => {
  const minute = (m: number, celsius: number) => ({ at: m * 60_000, celsius });
  test('a steady log is the closed form; a ramp agrees with a reference integrator (npm odex)', () => {
    const steady = cureFromLog({
      law,
      headLagS: 150,
      fromC: 20,
      readings: [minute(0, 177), minute(30, 177)],
      gapS: 1e9,
    });
    expect(steady.share).toBeCloseTo(cureShare({ law, headLagS: 150, airC: 177 }, 1800), 4);
    const ramp = [minute(0, 20), minute(10, 180), minute(30, 170)];
    const air = (t: number) => (t < 600 ? 20 + (160 * t) / 600 : 180 - (10 * (t - 600)) / 1200);
    // Air and walls share the head; the walls are a minute behind while it rises, and keep their heat while it falls.
    const rate = (t: number, [metal, , walls]: number[]) => [
      ((air(t) + walls!) / 2 - metal!) / 150,
      metal! < 40 ? 0 : 1 / fullCureS(law, metal!),
      (air(t) - walls!) / (air(t) > walls! ? 60 : 400),
    ];
    // In two pieces, so that the corner of the ramp falls between steps.
    const reach = (from: number, to: number, y: number[]) => {
      const solver = new Solver(3);
      solver.absoluteTolerance = 1e-10;
      solver.relativeTolerance = 1e-10;
      return solver.solve(rate, from, y, to).y;
    };
    const [metal, cure] = reach(600, 1800, reach(0, 600, [20, 0, 20]));
    const log = cureFromLog({ law, headLagS: 150, fromC: 20, readings: ramp, gapS: 1e9 });
    expect(log.points.at(-1)!.metalC).toBeCloseTo(metal!, 1);
    expect(log.share).toBeCloseTo(cure!, 2);
  });
  test('a gap is bridged and said, and what is certain leaves it out', () => {
    const with10 = [minute(0, 177), minute(1, 177), minute(2, 177), minute(12, 177), minute(13, 177)];
    const { share, certain, gapsS } = cureFromLog({ law, headLagS: 0, readings: with10 });
    expect(gapsS).toBe(600);
    expect(share).toBeCloseTo(13 / 20, 3);
    expect(certain).toBeCloseTo(3 / 20, 3);
    expect(() => cureFromLog({ law, headLagS: 0, readings: with10.slice(0, 1) })).toThrow(/readings is 1/);
    expect(() => cureFromLog({ law, headLagS: 0, readings: [...with10].reverse() })).toThrow(
      /a time after the one before/,
    );
  });
  test('more readings of the same course change nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 20, max: 220 }), { minLength: 2, maxLength: 12 }), (heats) => {
        const coarse = heats.map((celsius, i) => minute(i, celsius));
        const fine = coarse.flatMap((reading, i) =>
          i && heats[i - 1] !== undefined ? [minute(i - 0.5, (heats[i - 1]! + heats[i]!) / 2), reading] : [reading],
        );
        const of = (readings: typeof coarse) => cureFromLog({ law, headLagS: 120, fromC: 20, readings }).share;
        expect(of(fine)).toBeCloseTo(of(coarse), 6);
      }),
    );
  });
  test('what a bake did to the finish: nothing, perhaps, surely', () => {
    const course = (peak: number, minutes: number) =>
      Array.from({ length: minutes + 1 }, (_, m) => ({ at: m * 60_000, metalC: peak }));
    expect(platingDamage(course(170, 30), 175)).toEqual({ flag: 'none', overS: 0, overK: 0 });
    expect(platingDamage(course(178, 5), 175)).toMatchObject({ flag: 'may have coloured', overS: 300, overK: 3 });
    expect(platingDamage(course(178, 15), 175).flag).toBe('browned');
    expect(platingDamage(course(195, 2), 175).flag).toBe('browned');
  });
});

describe('packing the oven', () => {
  const rack: Rack = { bars: 4, barM: 0.36, clearM: 0.09 };
  // Common practice, no source: a large toaster oven with added wires took 88 heads of 1/2 oz, 22 on each of four bars.
  test('a toaster oven with wires takes what it took', () => {
    expect(rackPlaces({ bars: 8, barM: 0.22, clearM: 0.07 }, pitchOf(0.0134))).toBe(88);
  });
  test('programs are kept apart, nothing hangs too low, every head has a place', () => {
    const groups: RackGroup[] = [
      { id: 'a', program: '177', heads: 50, pitchM: 0.02, hangsM: 0.06 },
      { id: 'b', program: '177', heads: 30, pitchM: 0.03, hangsM: 0.08 },
      { id: 'c', program: '163', heads: 5, pitchM: 0.02, hangsM: 0.05 },
    ];
    const loads = packLoads(rack, groups);
    expect(loads.map((load) => load.program)).toEqual(['177', '177', '163']);
    for (const group of groups) {
      expect(
        loads
          .flatMap((load) => load.bars.flat())
          .filter((each) => each.groupId === group.id)
          .reduce((sum, each) => sum + each.heads, 0),
      ).toBe(group.heads);
    }
    expect(() => packLoads(rack, [{ ...groups[0]!, hangsM: 0.1 }])).toThrow(/hanging length of a is 100\u00a0mm/);
  });
  /** Fewest bars for two kinds of head, by trying every count of full mixtures. */
  const fewestLoads = (groups: readonly RackGroup[]): number => {
    const [a, b] = groups as [RackGroup, RackGroup];
    const mixes = Array.from(
      { length: Math.floor(rack.barM / a.pitchM + 1e-9) + 1 },
      (_, n) => [n, Math.floor((rack.barM - n * a.pitchM) / b.pitchM + 1e-9)] as const,
    );
    const memo = new Map<string, number>();
    const bars = (x: number, y: number): number => {
      if (x <= 0 && y <= 0) return 0;
      const key = `${x} ${y}`;
      const known = memo.get(key);
      if (known !== undefined) return known;
      memo.set(key, Infinity);
      const best =
        1 +
        Math.min(
          ...mixes
            .filter(([n, m]) => (n > 0 && x > 0) || (m > 0 && y > 0))
            .map(([n, m]) => bars(Math.max(0, x - n), Math.max(0, y - m))),
        );
      memo.set(key, best);
      return best;
    };
    return Math.ceil(bars(a.heads, b.heads) / rack.bars);
  };
  test('against brute force on small cases: never more than one load over the fewest', () => {
    let same = 0;
    let all = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 15, max: 60 }),
        fc.integer({ min: 15, max: 60 }),
        (x, y, p, q) => {
          const groups = [
            { id: 'a', program: 'one', heads: x, pitchM: p / 1000, hangsM: 0.05 },
            { id: 'b', program: 'one', heads: y, pitchM: q / 1000, hangsM: 0.05 },
          ];
          const [found, fewest] = [packLoads(rack, groups).length, fewestLoads(groups)];
          expect(found).toBeLessThanOrEqual(fewest + 1);
          same += Number(found === fewest);
          all += 1;
        },
      ),
    );
    expect(same / all).toBeGreaterThan(0.9);
  });
});
