import { cureLaw, fullCureS } from './cure-law.ts';
import { fitOven } from './fit-oven.ts';
import { scheduleFigure, underCuredFigure } from './figures.ts';
import { auditBake, type PastBake } from './audit.ts';
import { cureFromLog, platingDamage } from './from-log.ts';
import { knownOven } from './known-oven.ts';
import { airByProgram, runningBake, type RunningBake } from './running.ts';
import { bake, law, minutes } from '../test/bake.ts';

// Logs that start late, doors one after another, ovens that are off: what a bake is in a shed.

const probe = (celsius: number, from = 0, to = 600) =>
  Array.from({ length: (to - from) / 10 + 1 }, (_, i) => ({ at: 1000 * (from + 10 * i), celsius }));

describe('a bake that runs', () => {
  test('is the same whenever it was loaded', () => {
    const at = minutes(40_000);
    const door = { fromAt: minutes(4), toAt: minutes(5) };
    for (const { preheated, doors } of [
      { preheated: true, doors: [] },
      { preheated: false, doors: [] },
      { preheated: true, doors: [door] },
    ]) {
      const now = runningBake(bake({ preheated, doors }));
      const later = doors.map(({ fromAt, toAt }) => ({ fromAt: at + fromAt, toAt: at + toAt }));
      const late = runningBake(bake({ preheated, doors: later, loadedAt: at, now: at + minutes(10) }));
      expect(late.cure).toBeCloseTo(now.cure, 9);
      expect(late.metalC).toBeCloseTo(now.metalC, 9);
      expect(late.fullAt! - at).toBeCloseTo(now.fullAt!, 3);
    }
  });
  // Six tenths of the way to the room in an open door, 15 s to get there, a quarter of the oven's lag back: common
  // practice, no source.
  test('a door lets the air down at once and it comes back, as the curve by hand says', () => {
    const air = (seconds: number, doors: RunningBake['doors']) =>
      airByProgram({ ...bake({ doors, now: 1000 * seconds }) }).at(-1)!.celsius;
    // Loading has let the air out for 20 s already.
    const lost = 0.6 * 157 * (1 - Math.exp(-20 / 15));
    const down = 0.6 * 157 + (lost - 0.6 * 157) * Math.exp(-60 / 15);
    const doors = [{ fromAt: 0, toAt: minutes(1) }];
    expect(air(60, doors)).toBeCloseTo(177 - down, 6);
    expect(air(160, doors)).toBeCloseTo(177 - down * Math.exp(-100 / 50), 6);
    const back = lost * Math.exp(-60 / 50);
    const open = 0.6 * 157 + (back - 0.6 * 157) * Math.exp(-100 / 15);
    expect(air(160, [{ fromAt: minutes(1), toAt: null }])).toBeCloseTo(177 - open, 6);
    const cold = airByProgram({ ...bake({ preheated: false, roomC: 5, now: 200_000 }) }).at(-1)!.celsius;
    expect(cold).toBeCloseTo(177 - 172 * Math.exp(-1), 6);
  });
  test('air that a door has just let out comes back; air that is low by itself means walls that are low', () => {
    const low = (doors: RunningBake['doors']) => runningBake(bake({ readings: probe(140), doors })).fullAt!;
    const [early, lately] = [
      { fromAt: minutes(1), toAt: minutes(2) },
      { fromAt: minutes(9), toAt: minutes(9.5) },
    ];
    expect(low([early])).toBe(low([]));
    expect(low([lately])).toBeLessThan(low([]) - 30_000);
    expect(low([early, lately])).toBe(low([lately]));
    expect(low([{ fromAt: minutes(9), toAt: null }])).toBe(low([lately]));
  });
});

describe('an oven learned from its run', () => {
  /** A rise that slows down before its mark, from 20 C, with a thermostat's swing on it, readings every `everyS`. */
  const run = (more: { lagS?: number; swingK?: number; periodS?: number; everyS?: number; startAt?: number } = {}) => {
    const { lagS = 300, swingK = 0, periodS = 240, everyS = 10, startAt = 0 } = more;
    return Array.from({ length: Math.floor(4800 / everyS) }, (_, i) => {
      const t = i * everyS;
      const swing = t > 8 * lagS ? swingK * Math.sin((2 * Math.PI * t) / periodS) : 0;
      return { at: startAt + 1000 * t, celsius: 180 - 160 * Math.exp(-t / lagS) + swing };
    });
  };
  test('whenever it was: lag, offset and swing are those it was made with', () => {
    for (const startAt of [0, Date.UTC(2026, 2, 1)]) {
      const fit = fitOven(run({ swingK: 6, startAt }), 175);
      // A rise that slows down before the mark is one that it does not know.
      expect(Math.abs(fit.lagS / 300 - 1)).toBeLessThan(0.07);
      expect(Math.abs(fit.offsetK - 5)).toBeLessThan(1);
      expect(Math.abs(fit.swingK - 6)).toBeLessThan(0.5);
    }
  });
  test('its period is that of the thermostat; wobble within a degree is none', () => {
    for (const periodS of [120, 240, 400]) {
      const fit = fitOven(run({ lagS: 100, swingK: 5, periodS }), 180);
      expect(Math.abs(fit.periodS! / periodS - 1)).toBeLessThan(0.15);
    }
    expect(fitOven(run({ lagS: 100, swingK: 0.9 }), 180).periodS).toBeNull();
  });
  test('readings too far apart to see it rise are refused', () => {
    expect(() => fitOven(run({ lagS: 60, everyS: 150 }), 180)).toThrow(/readings of the rise is 1; allowed: 3 or more/);
    expect(Math.abs(fitOven(run({ lagS: 150, everyS: 100 }), 180).lagS / 150 - 1)).toBeLessThan(0.08);
  });
});

describe('a log that makes one doubt', () => {
  const day = 24 * 3600;
  const odd = (...seconds: number[]) =>
    cureFromLog({ law, headLagS: 0, readings: seconds.map((s) => ({ at: 1000 * s, celsius: 20 })) }).odd;
  test('a day between two readings is no doubt, more is said, with where it lies', () => {
    expect(odd(0, 60, 60 + day)).toEqual([]);
    expect(odd(0, 60, 61 + day)).toEqual(['Between reading 2 and the next lie a day: is the clock right?']);
    expect(odd(0, 365 * day, 365 * day + 60)).toEqual([
      'Between reading 1 and the next lie 365 days: is the clock right?',
    ]);
  });
  test('an hour of silence is a gap, even where gaps of hours are allowed', () => {
    const cure = (seconds: number) =>
      cureFromLog({ law, headLagS: 0, gapS: 1e9, readings: [0, seconds].map((s) => ({ at: 1000 * s, celsius: 177 })) });
    expect(cure(3600)).toMatchObject({ gapsS: 0 });
    expect(cure(3600).certain).toBeCloseTo(3, 6);
    expect(cure(3601)).toMatchObject({ gapsS: 3601, certain: 0 });
  });
  test('it stops where it is full twenty times over', () => {
    const long = Array.from({ length: 600 }, (_, i) => ({ at: minutes(i), celsius: 177 }));
    expect(cureFromLog({ law, headLagS: 0, readings: long }).share).toBe(20);
  });
  // Common practice, no source: a quarter of an hour over the limit browns, or 20 K over it; a little may colour.
  test('a plating browns by time or by heat', () => {
    const over = (k: number, s: number) =>
      platingDamage(
        [0, s].map((at) => ({ at: 1000 * at, metalC: 175 + k })),
        175,
      ).flag;
    expect(over(0, 3600)).toBe('none');
    expect([over(5, 60), over(12, 480)]).toEqual(['may have coloured', 'may have coloured']);
    expect([over(5, 900), over(20, 10)]).toEqual(['browned', 'browned']);
    expect(platingDamage([{ at: 0, metalC: 400 }], null)).toEqual({ flag: 'none', overS: 0, overK: 0 });
  });
});

describe('figures of bakes', () => {
  const slow = cureLaw([
    { metalC: 177, seconds: 1500 },
    { metalC: 200, seconds: 750 },
  ]);
  const past = (id: string, seconds: number, laws = [{ powder: 'White', law }]): PastBake => ({
    id,
    at: 0,
    name: id,
    heads: 10,
    setC: 177,
    seconds,
    preheated: true,
    doors: [],
    oven: knownOven(undefined),
    headLagS: 110,
    heatJK: 1.6,
    laws,
    limitC: 190,
  });
  test.each([
    [
      'the slow one last',
      [
        { powder: 'White', law },
        { powder: 'Slow', law: slow },
      ],
    ],
    [
      'the slow one first',
      [
        { powder: 'Slow', law: slow },
        { powder: 'White', law },
      ],
    ],
  ])('a head in two powders is as cured as the slower one, %s', (_, laws) => {
    const head = { name: 'Ball', headLagS: 110, heatJK: 1.6, laws, hook: 'bronze', limitC: 190 };
    const figure = scheduleFigure(head, { setC: 177, seconds: 1500, preheated: true }, knownOven(undefined));
    expect(figure.why.rule).toMatch(/^For Slow/);
    const alone = scheduleFigure(
      { ...head, laws: [{ powder: 'Slow', law: slow }] },
      { setC: 177, seconds: 1500, preheated: true },
      knownOven(undefined),
    );
    expect(figure.value).toBe(alone.value);
    // 25 minutes of a 25-minute label, less what a head's lag of 110 s and the powder's slow start take.
    expect(figure.value).toBeGreaterThan(0.75);
    expect(figure.value).toBeLessThan(0.95);
    expect(auditBake(past('two', 1500, laws)).cure).toBeCloseTo(figure.value, 6);
  });
  test('only what was under-cured is listed, and its heads alone are counted', () => {
    const figure = underCuredFigure([past('full', 1800), past('short', 900), past('half', 700)].map(auditBake));
    expect(figure.value).toBe(20);
    expect(figure.why.inputs.map((input) => input.label)).toEqual(['short', 'half']);
  });
  test('the energy of the law is written in kJ/mol', () => {
    const head = {
      name: 'Ball',
      headLagS: 110,
      heatJK: 1.6,
      laws: [{ powder: 'White', law }],
      hook: 'bronze',
      limitC: 190,
    };
    const { why } = scheduleFigure(head, { setC: 177, seconds: 1500, preheated: true }, knownOven(undefined));
    expect(JSON.stringify(why.inputs)).toContain('53.4 kJ/mol');
    expect(fullCureS(law, 177)).toBeCloseTo(1200, 6);
  });
});
