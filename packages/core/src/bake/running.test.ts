import fc from 'fast-check';
import { Solver } from 'odex';
import { seeded } from '../random/seeded.ts';
import { fullCureS } from './cure-law.ts';
import { bakeTemperaturesC, cureShare, timeToFullCureS, warmUpS, WARM_WITHIN_K } from './cure.ts';
import { fittedAirC, fitOven, ovenLagFigure, ovenOffsetFigure } from './fit-oven.ts';
import { handlingTimeS } from '../freeze/handling.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { packLoads } from './packing.ts';
import { ovenLoads, roomOf, type OvenRack } from './rack.ts';
import { programEndsAt, runningBake, type RunningBake } from './running.ts';
import { bake, law, minutes } from '../test/bake.ts';

describe('a bake that runs', () => {
  test('with nothing to say it is what the program says', () => {
    for (const preheated of [true, false]) {
      const input = { law, headLagS: 120, airC: 177, ovenLagS: 200, preheated };
      const state = runningBake(bake({ preheated }));
      expect(state.metalC).toBeCloseTo(bakeTemperaturesC(input, [600])[0]!.metalC, 9);
      expect(state.cure).toBeCloseTo(cureShare(input, 600), 9);
      expect(state.probed).toBe(false);
      expect(state.fullAt! / 1000 / timeToFullCureS(input)!).toBeCloseTo(1, 2);
    }
  });
  test('the count starts when the metal is warm, not when the door is shut', () => {
    // In air that is at its mark at once, by hand.
    expect(warmUpS({ airC: 177, headLagS: 120 })).toBeCloseTo(120 * Math.log(157 / WARM_WITHIN_K), 0);
    const hot = { airC: 177, headLagS: 120, ovenLagS: 200, preheated: true };
    const seconds = warmUpS(hot);
    expect(runningBake(bake({ now: (seconds - 10) * 1000 })).warmAt).toBeNull();
    expect(Math.abs(runningBake(bake({ now: minutes(15) })).warmAt! / 1000 - seconds)).toBeLessThanOrEqual(5);
    expect(warmUpS({ ...hot, preheated: false })).toBeGreaterThan(seconds + 120);
  });
  test('a door that is opened costs cure, and the end moves; against a reference integrator (npm odex)', () => {
    const doors = [{ fromAt: minutes(5), toAt: minutes(6) }];
    const open = runningBake(bake({ doors }));
    expect(open.cure).toBeLessThan(runningBake(bake()).cure - 0.01);
    expect(open.fullAt!).toBeGreaterThan(runningBake(bake()).fullAt! + 15_000);
    expect(runningBake(bake({ doors: [{ fromAt: minutes(9), toAt: null }] })).airC).toBeLessThan(110);
    const solver = new Solver(4);
    solver.absoluteTolerance = 1e-9;
    solver.relativeTolerance = 1e-9;
    // Air, walls, metal, cure: the walls warm with a minute and cool with 400 s, the head has half from either.
    const stretch =
      (toC: number, lagS: number) =>
      (_: number, [air, walls, metal]: number[]) => [
        (toC - air!) / lagS,
        (air! - walls!) / (air! > walls! ? 60 : 400),
        ((air! + walls!) / 2 - metal!) / 120,
        1 / fullCureS(law, metal!),
      ];
    // Loading lets the air out for 20 s: six tenths of the way to the room, with 15 s.
    const loaded = 177 - 0.6 * 157 * (1 - Math.exp(-20 / 15));
    let y = solver.solve(stretch(177, 50), 0, [loaded, 177, 20, 0], 300).y;
    y = solver.solve(stretch(177 + 0.6 * (20 - 177), 15), 300, y, 360).y;
    y = solver.solve(stretch(177, 50), 360, y, 600).y;
    expect(open.metalC).toBeCloseTo(y[2]!, 0);
    expect(Math.abs(open.cure - y[3]!)).toBeLessThan(0.005);
  });
  test('a probe outranks the program; when it falls silent the program goes on', () => {
    const readings = Array.from({ length: 61 }, (_, i) => ({ at: i * 10_000, celsius: 160 }));
    const heard = runningBake(bake({ readings }));
    expect(heard.probed).toBe(true);
    expect(heard.airC).toBe(160);
    expect(heard.cure).toBeLessThan(runningBake(bake()).cure);
    const silent = runningBake(bake({ readings: readings.slice(0, 10) }));
    expect(silent.probed).toBe(false);
    expect(silent.airC).toBeCloseTo(177, 2);
  });
  test('too cool a mark is never full; at the first moment there is nothing yet', () => {
    expect(runningBake(bake({ airC: 60 })).fullAt).toBeNull();
    expect(runningBake(bake({ now: 0 }))).toMatchObject({ metalC: 20, cure: 0, warmAt: null });
    expect(() => runningBake(bake({ airC: 500 }))).toThrow(/airC is 500\u00a0C/);
  });
});

describe('a bake that runs, whatever happens to it', () => {
  const doorAt = (minute: number, seconds: number) => ({
    fromAt: minutes(minute),
    toAt: minutes(minute) + 1000 * seconds,
  });
  test('an open door never cures more, a hotter oven never less; cure and metal never fall back without one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 220 }),
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 0, max: 300 }),
        fc.boolean(),
        (airC, minute, open, preheated) => {
          const at = (more: Partial<RunningBake>) => runningBake(bake({ airC, preheated, now: minutes(25), ...more }));
          const shut = at({});
          expect(at({ doors: [doorAt(minute, open)] }).cure).toBeLessThanOrEqual(shut.cure + 1e-9);
          expect(at({ airC: airC + 5 }).cure).toBeGreaterThanOrEqual(shut.cure);
          for (const [i, point] of shut.points.slice(1).entries()) {
            expect(point.share).toBeGreaterThanOrEqual(shut.points[i]!.share);
            expect(point.metalC).toBeGreaterThanOrEqual(shut.points[i]!.metalC - 1e-9);
          }
          for (const { airC: air, metalC, share } of shut.points)
            expect([air, metalC, share].every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('the forecast comes true: what is said to be full then is full then', () => {
    for (const more of [{}, { preheated: false }, { doors: [doorAt(8, 60)] }]) {
      const { fullAt } = runningBake(bake(more));
      const then = runningBake(bake({ ...more, now: fullAt! }));
      expect(Math.abs(then.cure - 1)).toBeLessThan(0.02);
    }
  });
  test('a probe in a slow oven moves the end; its last word counts for two minutes', () => {
    const heard = Array.from({ length: 60 }, (_, i) => ({ at: i * 10_000, celsius: 20 + (157 * i) / 59 }));
    const slow = runningBake(bake({ readings: heard }));
    expect(slow.fullAt!).toBeGreaterThan(runningBake(bake()).fullAt! + 120_000);
    expect(runningBake(bake({ readings: heard, now: minutes(11) })).probed).toBe(true);
    expect(runningBake(bake({ readings: heard, now: minutes(13) })).probed).toBe(false);
  });
  test('what happened before the door was shut is not of this bake', () => {
    const before = [
      { at: -60_000, celsius: 400 },
      { at: -10_000, celsius: 400 },
    ];
    expect(runningBake(bake({ readings: before })).cure).toBeCloseTo(runningBake(bake()).cure, 12);
  });
});

test('when a load comes out: from the door at once, from the metal when that is warm, never before it was reckoned', () => {
  const load = { from: 'metal' as const, seconds: 1200, warmS: 400, loadedAt: 0, warmAt: null, endsAt: 1_600_000 };
  expect(programEndsAt({ ...load, from: 'door' }, 5000, 0)).toBe(1_600_000);
  expect(programEndsAt(load, null, 100_000)).toBe(1_600_000);
  // Still not warm after the reckoned time: the end moves on with the clock.
  expect(programEndsAt(load, null, 500_000)).toBe(1_700_000);
  expect(programEndsAt(load, 450_000, 500_000)).toBe(1_650_000);
  expect(programEndsAt({ ...load, warmAt: 420_000 }, 450_000, 500_000)).toBe(1_620_000);
});

describe('an oven from an empty run with a probe', () => {
  /** Full power on the way to `powerRiseK`, then held with a swing, as a plain formula. */
  const run = (lagS: number, setC: number, offsetK: number, swingK: number, noiseK = 0.6, powerRiseK = 400) => {
    const random = seeded(3);
    const level = setC + offsetK;
    const tauS = -lagS / Math.log(1 - (0.632 * (level - 19)) / powerRiseK);
    return Array.from({ length: 540 }, (_, i) => {
      const s = i * 5;
      const rise = Math.min(level, 19 + powerRiseK * (1 - Math.exp(-s / tauS)));
      const swing = rise < level ? 0 : swingK * Math.sin((2 * Math.PI * s) / 180);
      return { at: s * 1000, celsius: rise + swing + noiseK * (random() - 0.5) };
    });
  };
  test('finds its lag, its full power, how far it is off its mark and how far it swings', () => {
    const fit = fitOven(run(210, 177, -8, 4), 177);
    expect(Math.abs(fit.lagS / 210 - 1)).toBeLessThan(0.03);
    expect(Math.abs(fit.powerRiseK / 400 - 1)).toBeLessThan(0.15);
    expect(Math.abs(fit.offsetK + 8)).toBeLessThan(1);
    expect(Math.abs(fit.swingK - 4)).toBeLessThan(0.8);
    expect(Math.abs(fit.periodS! / 180 - 1)).toBeLessThan(0.15);
    const [lag, offset] = [ovenLagFigure(fit), ovenOffsetFigure(fit, 177)];
    expect(lag.basis).toBe('fitted');
    expect(lag.low!).toBeLessThan(fit.lagS);
    expect(offset.low!).toBeLessThan(-8);
    expect(offset.high!).toBeGreaterThan(-8);
  });
  test('a steady oven has no period and no overshoot; what was fitted runs through its readings', () => {
    const clean = run(150, 177, 0, 0, 0);
    const fit = fitOven(clean, 177);
    expect(Math.abs(fit.lagS - 150)).toBeLessThan(2);
    const some = clean.slice(0, 200);
    const fitted = fittedAirC(
      fit,
      177,
      19,
      some.map(({ at }) => at / 1000),
    );
    some.forEach(({ celsius }, i) => expect(Math.abs(fitted[i]! - celsius)).toBeLessThan(2.5));
    expect(fit.periodS).toBeNull();
    expect(fit.overshootK).toBeLessThan(0.1);
  });
  test('an element that still glows carries it over its mark', () => {
    const over = run(180, 177, 0, 0, 0.2).map(({ at, celsius }) => {
      const after = (at / 1000 - 330) / 75;
      return { at, celsius: celsius + (celsius > 176 && after > 0 ? 14 * after * Math.exp(1 - after) : 0) };
    });
    const fit = fitOven(over, 177);
    expect(Math.abs(fit.overshootK - 14)).toBeLessThan(2.5);
    expect(Math.abs(fit.offsetK)).toBeLessThan(1);
  });
  test('what teaches nothing is refused with what is missing', () => {
    expect(() => fitOven(run(200, 177, 0, 0).slice(0, 10), 177)).toThrow(/readings is 10; allowed: 20 or more/);
    expect(() => fitOven(run(200, 60, 0, 0), 60)).toThrow(/rise is 41\u00a0K/);
    expect(() => fitOven(run(600, 177, 0, 0).slice(0, 150), 177)).toThrow(/time held|rise/);
  });
});

describe('racks', () => {
  const half = roomOf({ style: 'ball', massKg: 0.0142, hookSize: '3/0' });
  const wires: OvenRack = { name: 'five wires', way: 'hanging', bars: 8, barM: 0.22, clearM: 0.08 };
  const clamp: OvenRack = { name: 'clamp', way: 'upright', bars: 2, barM: 0.3, clearM: 0.2 };
  // Common practice, no source: a large toaster oven with added wires took 88 heads of 1/2 oz.
  test('88 heads of 1/2 oz hang in one load of a large toaster oven with wires', () => {
    const { loads } = ovenLoads([wires], [{ id: 'a', program: '177', heads: 88, ...half }]);
    expect(loads).toHaveLength(1);
    expect(half.hangsM).toBeGreaterThan(0.03);
    expect(half.hangsM).toBeLessThan(0.08);
  });
  test('each program goes to the rack that needs the fewest loads; what is too long goes where it fits', () => {
    const long = { id: 'long', program: '163', heads: 10, pitchM: 0.03, hangsM: 0.15 };
    const { loads, unplaced } = ovenLoads([wires, clamp], [{ id: 'a', program: '177', heads: 60, ...half }, long]);
    expect(loads.map((load) => [load.program, load.rack.name])).toEqual([
      ['177', 'five wires'],
      ['163', 'clamp'],
    ]);
    expect(unplaced).toEqual([]);
    expect(ovenLoads([wires], [long])).toEqual({ loads: [], unplaced: ['long'] });
  });
  test('on one rack it is the packing itself; another rack never makes more loads; each head hangs somewhere', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            heads: fc.integer({ min: 1, max: 60 }),
            mm: fc.integer({ min: 12, max: 40 }),
            program: fc.constantFrom('177', '163'),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        (kinds) => {
          const groups = kinds.map(({ heads, mm, program }, i) => ({
            id: `b${i}`,
            program,
            heads,
            pitchM: mm / 1000,
            hangsM: 0.05,
          }));
          const one = ovenLoads([wires], groups);
          expect(one.loads.map(({ program, bars }) => ({ program, bars }))).toEqual(packLoads(wires, groups));
          const two = ovenLoads([wires, clamp], groups);
          expect(two.loads.length).toBeLessThanOrEqual(one.loads.length);
          for (const { id, heads } of groups) {
            expect(
              two.loads
                .flatMap((load) => load.bars.flat())
                .filter((each) => each.groupId === id)
                .reduce((sum, each) => sum + each.heads, 0),
            ).toBe(heads);
          }
        },
      ),
    );
  });
  test('heads of one program that share no rack are parted, and none is lost', () => {
    const low: OvenRack = { ...wires, clearM: 0.05, bars: 20 };
    const groups = [
      { id: 'long', program: '177', heads: 10, pitchM: 0.03, hangsM: 0.15 },
      { id: 'wide', program: '177', heads: 4, pitchM: 0.25, hangsM: 0.04 },
    ];
    const { loads } = ovenLoads(
      [
        { ...low, barM: 0.26 },
        { ...clamp, barM: 0.2 },
      ],
      groups,
    );
    expect(loads.flatMap((load) => load.bars.flat()).reduce((sum, each) => sum + each.heads, 0)).toBe(14);
  });
});

test('out of the oven a small head is fit to handle in a few minutes', () => {
  const minutesOf = (kg: number) =>
    handlingTimeS({ headKg: kg, areaM2: coldHeadSolid('ball', kg).cooledAreaM2, fromC: 177 }) / 60;
  expect(minutesOf(0.0142)).toBeGreaterThan(3);
  expect(minutesOf(0.0142)).toBeLessThan(8);
});
