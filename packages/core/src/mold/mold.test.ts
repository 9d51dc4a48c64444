import fc from 'fast-check';
import { Solver } from 'odex';
import { QuantityError } from '../quantity/check.ts';
import { blockNodes, meanC, relax } from './block.ts';
import { backAtReadings, fitMold } from './fit-mold.ts';
import { afterPause, cycleForMoldC, steadyMoldC } from './pace.ts';
import { moldSession, type MoldStep } from './session.ts';
import { sootDue } from './soot.ts';
import { AS_CUT, castAs, usablePositions } from './variants.ts';
import { warmPlan } from './warm-plan.ts';
import { MOLD_READY_C, MOLD_TOO_HOT_C, shotStep } from './warm-up.ts';

const block = { bodyKg: 0.6 };
const shots = (n: number, kg = 0.1): MoldStep[] =>
  Array.from({ length: n }, () => shotStep({ kg, metalC: 371, cycleS: 40 }));

describe('two-node block', () => {
  test('between shots against npm odex', () => {
    const nodes = blockNodes(block);
    const { faceJK, backJK, betweenWPerK: g, lossWPerK } = nodes;
    const rates = (_: number, [f, b]: number[]) => [
      (-g * (f! - b!)) / faceJK,
      (g * (f! - b!) - lossWPerK * (b! - 20) * ((b! - 20) / 60) ** 0.25) / backJK,
    ];
    const solver = new Solver(2);
    solver.absoluteTolerance = 1e-10;
    solver.relativeTolerance = 1e-11;
    for (const seconds of [0.5, 3, 60, 900]) {
      const { y } = solver.solve(rates, 0, [180, 110], seconds);
      const { heat } = relax(nodes, { faceC: 180, backC: 110 }, seconds, 20);
      // In steps of a fifth of its time the loss goes by their mean: thousandths of a kelvin.
      expect(heat.faceC).toBeCloseTo(y[0]!, 2);
      expect(heat.backC).toBeCloseTo(y[1]!, 2);
    }
  });
  test('a stiff block decays like one lump, by its power: C dT/dt = -UA T (T/60)^n', () => {
    const { faceJK, backJK } = blockNodes(block);
    const [capacity, lossW] = [faceJK + backJK, 0.45 * (0.6 / 0.55) ** (2 / 3)];
    const after = (lossPower: number, seconds: number) => {
      const nodes = { ...blockNodes({ ...block, lossPower }), betweenWPerK: 1e6 };
      return meanC(nodes, relax(nodes, { faceC: 120, backC: 120 }, seconds, 20).heat);
    };
    const exact = (n: number, seconds: number) =>
      (100 ** -n + (n * lossW * seconds) / (capacity * 60 ** n)) ** (-1 / n);
    for (const seconds of [60, 600, 3600, 20_000]) {
      expect(after(0, seconds)).toBeCloseTo(20 + 100 * Math.exp((-lossW * seconds) / capacity), 3);
      for (const n of [0.25, 0.33]) expect(Math.abs(after(n, seconds) - 20 - exact(n, seconds))).toBeLessThan(0.05);
    }
  });
  test('energy closes to 1e-9 through shots, waits and time on the pot', () => {
    const steps: MoldStep[] = [
      { kind: 'pot top', seconds: 600, potC: 240 },
      ...shots(40),
      { kind: 'wait', seconds: 1800 },
      ...shots(10),
    ];
    const { storedJ, gainedJ, lostJ } = moldSession({ block, steps });
    expect(Math.abs(storedJ - (gainedJ - lostJ)) / gainedJ).toBeLessThan(1e-9);
    const lossless = moldSession({ block: { ...block, lossWPerK: 0 }, steps: shots(5) });
    expect(lossless.lostJ).toBe(0);
    expect(lossless.storedJ / lossless.gainedJ).toBeCloseTo(1, 12);
  });
  // Common practice, no source: face and back differ by some tens of kelvin just after a shot.
  test('the face leaps ahead of the back at a shot and is caught up with in seconds', () => {
    const { points } = moldSession({ block, fromC: 100, steps: shots(1) });
    const just = points.find((point) => point.after === 'shot')!;
    expect(just.faceC - just.backC).toBeGreaterThan(20);
    expect(just.faceC - just.backC).toBeLessThan(90);
    expect(points.at(-1)!.faceC - points.at(-1)!.backC).toBeLessThan(3);
  });
  test('a hotter start, a heavier shot and hotter metal never leave it colder; nothing is NaN', () => {
    const end = (fromC: number, kg: number) => moldSession({ block, fromC, steps: shots(3, kg) }).points.at(-1)!.meanC;
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0.005, max: 0.4, noNaN: true }),
        (fromC, kg) => {
          expect(end(fromC + 10, kg)).toBeGreaterThan(end(fromC, kg));
          expect(end(fromC, kg * 1.1)).toBeGreaterThanOrEqual(end(fromC, kg) - 1e-9);
        },
      ),
    );
    expect(() =>
      moldSession({ block, steps: [{ kind: 'shot', kg: 0.1, metalC: 300, closedS: 10, openS: 5 }] }),
    ).toThrow(QuantityError);
  });
});

describe('warming', () => {
  const input = {
    block: { bodyKg: 0.55 },
    basis: 'given',
    shotKg: 0.012,
    metalC: 371,
    roomC: 20,
    openBelow: false,
  } as const;
  // Common practice, no source: 10 to 15 minutes on the pot, or about 10 blank shots for micro heads, or both.
  test('pot top, blank shots, both', () => {
    const blanks = warmPlan({ ...input, school: 'blank shots' });
    const both = warmPlan({ ...input, school: 'both', potTopS: 240 });
    const onPot = warmPlan({ ...input, school: 'pot top', potTopS: 15 * 60 });
    expect(blanks.blanks.value).toBeGreaterThanOrEqual(9);
    expect(both.blanks.value).toBeLessThan(blanks.blanks.value);
    expect(both.blanks.value).toBeGreaterThan(0);
    expect(onPot.blanks.value).toBe(0);
    expect(onPot.impossible).toBeNull();
    for (const plan of [blanks, both, onPot]) expect(plan.readyC).toBeGreaterThanOrEqual(MOLD_READY_C - 1);
    expect(blanks.blanks.low!).toBeLessThanOrEqual(blanks.blanks.value);
    expect(blanks.blanks.high!).toBeGreaterThanOrEqual(blanks.blanks.value);
  });
  test('what cannot be is said', () => {
    expect(warmPlan({ ...input, school: 'both', openBelow: true }).impossible).toMatch(/open below/);
    expect(warmPlan({ ...input, school: 'pot top', openBelow: true, potTopS: 900 }).impossible).toBeNull();
    expect(warmPlan({ ...input, school: 'pot top', potTopS: 60 }).impossible).toMatch(/leave it longer/);
    expect(warmPlan({ ...input, block: { bodyKg: 5 }, shotKg: 0.005, school: 'blank shots' }).impossible).toMatch(
      /never warm/,
    );
  });
});

describe('pace', () => {
  const pace = { block, shotKg: 0.1, metalC: 371, roomC: 20, closedS: 15 };
  test('the steady temperature of a pace is the one that pace holds, and the session goes there', () => {
    for (const cycleS of [60, 90, 180]) {
      const steadyC = steadyMoldC(pace, cycleS);
      expect(cycleForMoldC(pace, steadyC)).toBeCloseTo(cycleS, 6);
      const steps = Array.from({ length: 200 }, () => shotStep({ kg: 0.1, metalC: 371, cycleS, openS: cycleS - 15 }));
      const { points } = moldSession({ block, fromC: steadyC, steps });
      // Halfway between just before and just after a shot.
      const last = points.slice(-4).map((point) => point.meanC);
      const middle = (Math.max(...last) + Math.min(...last)) / 2;
      expect(Math.abs(middle - steadyC)).toBeLessThan(0.08 * steadyC);
    }
  });
  test('quicker is hotter; a pause costs blank shots, a long one more', () => {
    expect(steadyMoldC(pace, 60)).toBeGreaterThan(steadyMoldC(pace, 120));
    expect(cycleForMoldC(pace, MOLD_TOO_HOT_C)).toBeLessThan(cycleForMoldC(pace, MOLD_READY_C));
    expect(afterPause(pace, 90, 30).blanks).toBe(0);
    const [short, long] = [afterPause(pace, 90, 500), afterPause(pace, 90, 3600)];
    expect(short.blanks).toBeGreaterThan(0);
    expect(long.blanks).toBeGreaterThan(short.blanks);
    expect(long.moldC).toBeLessThan(short.moldC);
  });
});

describe('learning a mold from its probe', () => {
  const truth = { bodyKg: 0.6, lossWPerK: 0.62, capacityShare: 1.12 };
  const pours = Array.from({ length: 25 }, (_, i) => ({ atS: 40 * i + 5, kg: 0.1, metalC: 371 }));
  const times = Array.from({ length: 220 }, (_, i) => ({ atS: 5 * i, temperatureC: 20 }));
  const base = { block: { bodyKg: 0.6 }, closedS: 5, shots: pours, roomC: 20 };
  test('finds loss and heat capacity again', () => {
    const back = backAtReadings({ ...base, readings: times }, truth);
    const readings = times.map(({ atS }, i) => ({ atS, temperatureC: back[i]! + Math.sin(i * 7.1) }));
    const fit = fitMold({ ...base, readings });
    expect(fit.parameters[0]!.value).toBeCloseTo(truth.lossWPerK, 1);
    expect(fit.parameters[1]!.value).toBeCloseTo(truth.capacityShare, 1);
    expect(fit.parameters[1]!.sd).toBeLessThan(0.08);
  });
  test('without shots there is nothing to learn from', () => {
    expect(() => fitMold({ ...base, shots: [], readings: times })).toThrow(/shots is 0/);
  });
});

// Common practice, no source: none; once, ever; every 50 to 60 shots; about every 5; or when heads begin to stick.
test('schools of soot', () => {
  expect(sootDue('fifty', 49, true)).toEqual({ due: false, inShots: 1 });
  expect(sootDue('fifty', 50, true).due).toBe(true);
  expect(sootDue('five', 6, true).due).toBe(true);
  expect(sootDue('once', 900, true).due).toBe(false);
  expect(sootDue('once', 0, false).due).toBe(true);
  expect(sootDue('never', 900, false)).toEqual({ due: false, inShots: null });
});

describe('variants of a cavity', () => {
  const cavity = { position: 2, style: 'ball', nominalMassKg: 0.014, pin: { diameterM: 0.003175, lengthM: 0.01 } };
  // Worked value: a 1/8 inch pin hole 10 mm deep takes 0.9 g out of a head.
  test('a pin takes 0.9 g, a shortened pin gives it back', () => {
    const cut = castAs(cavity, AS_CUT);
    expect(cut.takes[0]).toMatchObject({ what: 'pin hole', kg: expect.closeTo(0.0009, 4) });
    expect(cut.parts).toEqual(['base-hole pin']);
    expect(castAs(cavity, { ...AS_CUT, pin: 'cut short' }).massKg).toBeCloseTo(0.014, 6);
    expect(castAs(cavity, { ...AS_CUT, pin: 'left out' }).mind[0]).toMatch(/open/);
  });
  test('what is laid in takes metal out, and the sum is the stamp', () => {
    const full = castAs(cavity, { ...AS_CUT, keeper: true, wireGuards: 2, insert: 'pull-out rod' });
    expect(full.takes.map((each) => each.what)).toEqual(['pin hole', 'wire keeper', 'wire guard', 'rod']);
    expect(full.massKg + full.takes.reduce((sum, each) => sum + each.kg, 0)).toBeCloseTo(0.014, 9);
    expect(full.parts.filter((part) => part === 'wire guard')).toHaveLength(2);
    expect(() => castAs(cavity, { ...AS_CUT, wireGuards: 3 })).toThrow(/wireGuards is 3/);
  });
  // Common practice, no source: ground out for longer hooks, a mold of 6 may give only 3.
  test('ground grooves keep neighbours empty', () => {
    const ground = (position: number) => ({
      position,
      variant: { ...AS_CUT, grooveFor: '5/0' as const, blocks: [position + 1] },
    });
    expect(usablePositions([1, 2, 3, 4, 5, 6].map(ground))).toEqual([1, 3, 5]);
    expect(
      usablePositions([
        { position: 1, variant: AS_CUT },
        { position: 2, variant: AS_CUT },
      ]),
    ).toEqual([1, 2]);
  });
});
