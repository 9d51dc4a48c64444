import { AS_CUT, castAs } from './variants.ts';
import { learnedMoldFigures, missFigure } from './fit-figures.ts';
import { sinceSmokedFigure, smokeInFigure } from './care-figures.ts';
import { steadyMoldC, cycleForMoldC } from './pace.ts';
import { readSample } from './sample.ts';
import { warmPlan } from './warm-plan.ts';

const cavity = { position: 3, style: 'ball', nominalMassKg: 0.014, pin: { diameterM: 0.003, lengthM: 0.008 } };

test('a variant says what to mind, and no more', () => {
  expect(castAs({ ...cavity, pin: null }, AS_CUT)).toMatchObject({ mind: [], takes: [], parts: [] });
  const ground = castAs({ ...cavity, pin: null }, { ...AS_CUT, grooveFor: '5/0', blocks: [2, 4] });
  expect(ground.mind).toEqual(['Ground out for 5/0.', 'Cavity 2, 4 stays empty.']);
  expect(castAs(cavity, AS_CUT).mind).toEqual(['Pin before hook: a cavity without its pin leaks.']);
  // What is taken out is lead of that room: the shares add up to what the head is lighter by.
  const keeper = castAs(cavity, { ...AS_CUT, keeper: true });
  const lighter = castAs({ ...cavity, pin: null }, AS_CUT).massKg - keeper.massKg;
  expect(keeper.takes.reduce((sum, { kg }) => sum + kg, 0)).toBeCloseTo(lighter, 12);
  expect(keeper.takes.map(({ what }) => what)).toEqual(['pin hole', 'wire keeper']);
});

test('what a probe taught of a mold has the range of its spread: nine in ten', () => {
  const learned = { lossWPerK: 0.4, lossSdWPerK: 0.1, capacityShare: 1, capacitySdShare: 0.05, readings: 120, at: 0 };
  const { loss, capacity } = learnedMoldFigures(learned);
  // Of a normal spread nine in ten lie within 1.645 of it (any table of the normal distribution).
  expect(loss.low).toBeCloseTo(0.4 - 0.1645, 4);
  expect(loss.high).toBeCloseTo(0.4 + 0.1645, 4);
  expect(capacity.high).toBeCloseTo(1 + 1.645 * 0.05, 6);
  expect(loss.why.inputs).toMatchObject([{ label: 'Readings', value: 120 }]);
  expect(loss.why.source).toMatch(/your probe/);
  expect(learnedMoldFigures({ ...learned, lossSdWPerK: 1 }).loss.low).toBe(0);
  expect(missFigure(2.5, 40)).toMatchObject({ value: 2.5, basis: 'fitted' });
});

test('the candle: shots since, by the way that is followed; nothing where it is due', () => {
  const at = (shotsSinceSmoked: number, everSmoked = true) => ({ position: 2, shotsSinceSmoked, everSmoked });
  expect(sinceSmokedFigure(at(12)).why.inputs).toMatchObject([{ label: 'Cavity 2', note: 'shots since smoked' }]);
  expect(sinceSmokedFigure(at(12, false)).why.inputs).toMatchObject([{ note: 'never smoked on record' }]);
  // Common practice: about every 50 shots, or every 5 for tiny cavities.
  expect(smokeInFigure('fifty', at(12))).toMatchObject({ value: 38 });
  const five = smokeInFigure('five', at(1))!;
  expect(five).toMatchObject({ value: 4 });
  expect(five.why.inputs[0]).toMatchObject({ label: 'Your way', value: 'Every 5 shots' });
  expect(smokeInFigure('five', at(500))).toBeNull();
  expect(smokeInFigure('never', at(3))).toBeNull();
});

test('the pace that holds a mold is the pace that it tends to, and neither goes beyond its metal', () => {
  const input = { block: { bodyKg: 0.5 }, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 3 };
  for (const moldC of [50, 80, 140]) {
    expect(steadyMoldC(input, cycleForMoldC(input, moldC))).toBeCloseTo(moldC, 3);
  }
  // As fast as can be said, a heavy shot: the end of the range, not beyond it.
  expect(steadyMoldC({ ...input, shotKg: 0.3 }, 1)).toBeLessThanOrEqual(300);
  expect(steadyMoldC({ ...input, shotKg: 0.001 }, 3600)).toBeLessThan(25);
});

test('a cavity that differs from its fellows is named with its direction; less than a habit is not', () => {
  const heads = (third: number) =>
    [1, 2, 3].flatMap((position) =>
      [0, 1, 2, 3].map((i) => ({ position, massKg: (position === 3 ? third : 0.0146) + 1e-6 * i, at: i })),
    );
  const says = (third: number) => readSample({ heads: heads(third), leadKg: 0.014, hookKg: 0.0006 })!.says;
  expect(says(0.0155).join(' ')).toMatch(/Cavity 3 is .* heavier than its fellows: flash there/);
  expect(says(0.0137).join(' ')).toMatch(/Cavity 3 is .* lighter than its fellows: not quite full/);
  expect(says(0.0146).join(' ')).not.toMatch(/Cavity/);
});

test('a pot that is too small to warm a mold from below says how far it comes, and in how many minutes', () => {
  const heat = {
    block: { bodyKg: 0.9 },
    shotKg: 0.08,
    metalC: 371,
    roomC: 5,
    basis: 'given' as const,
    openBelow: false,
  };
  const plan = warmPlan({ ...heat, school: 'pot top', potTopS: 180 });
  expect(plan.impossible).toMatch(/The pot alone brings it to \d\d?\u00a0°C in 3 minutes/);
  expect(warmPlan({ ...heat, school: 'pot top', potTopS: 3600 }).impossible).toBeNull();
});
