import { FILL_DEFAULTS } from './fill/fill-index.ts';
import { fitThreshold } from './fill/threshold.ts';
import { typicalHook } from './geometry/hook.ts';
import { cavitySolid } from './geometry/solid.ts';
import { BISMUTH_TIN, SOFT_LEAD } from './metal/alloy.ts';
import { alloyFigures, antimonyFigure } from './metal/figures.ts';
import { dialDrift, dialTable } from './pot/dial.ts';
import { dialFigure, dialMarkFigure, driftFigure, skinFigure } from './pot/dial-figures.ts';
import { fumeFigure, potFigure, refillFigures } from './pot/figures.ts';
import {
  averagePriceFigure,
  cleanShareFigure,
  leftFigure,
  lotPriceFigure,
  metalFigure,
  waitingFigure,
} from './stock/figures.ts';
import {
  castableFigure,
  cavitiesFigure,
  causeFigure,
  inDrawerFigure,
  sinceSmokedFigure,
  smokeDueFigure,
  smokeInFigure,
  stockFigure,
} from './mold/care-figures.ts';
import { fillFigure, leverFigure, thresholdFigure } from './fill/figures.ts';
import { openingFigures } from './freeze/figures.ts';
import { learnedMoldFigures, missFigure, timesFigure } from './mold/fit-figures.ts';
import { probeFigure } from './readings/figures.ts';
import type { Figure } from './quantity/figure.ts';
import { fillLevers } from './fill/levers.ts';
import { castFigure, paceFigures, readyFigure, shareFigure, warmTimeFigure, yieldFigure } from './mold/figures.ts';
import { warmPlan } from './mold/warm-plan.ts';
import { AS_CUT } from './mold/variants.ts';

/** Whatever is shown can be asked why: a rule, a formula, a source, inputs, and a range that holds the value. */
const answersWhy = ({ value, low = value, high = value, why }: Figure) => {
  expect(Number.isFinite(value)).toBe(true);
  expect(low).toBeLessThanOrEqual(value);
  expect(high).toBeGreaterThanOrEqual(value);
  // An estimate that may be ten times off is none that a maker could use.
  expect(high - low).toBeLessThanOrEqual(Math.max(1, 10 * Math.abs(value)));
  for (const text of [why.rule, why.formula, why.source]) expect(text.length).toBeGreaterThan(3);
  expect(why.inputs.length).toBeGreaterThan(0);
  expect(JSON.stringify(why)).not.toMatch(/NaN|undefined/);
};

const cavity = { position: 1, style: 'ball', nominalMassKg: 0.01, pin: null, shotsSinceSmoked: 5 };
const fillCavity = { solid: cavitySolid('ball', 0.01), sprueHeightM: 0.008, wireM: typicalHook('2/0').wireM };
const plate = { capacityKg: 9, powerW: 700, lossWPerK: 0.55 };
const refill = {
  potKg: 4,
  potC: 385,
  capacityKg: 9,
  pot: { powerW: 700, lossWPerK: 0.55 },
  keepAboveC: 345,
  pourC: 371,
  roomC: 20,
};
const pairs = [5, 7, 9].map((dial) => ({ dial, temperatureC: 232 + 20 * dial, at: 0, sdK: 3 }));

const sooted = { position: 1, shotsSinceSmoked: 12, everSmoked: true };
const MONTH_MS = 30.4375 * 86_400_000;
const drifting = [0, 2, 4, 6].map((month) => ({
  dial: 7,
  temperatureC: 371 + 3 * month,
  at: month * MONTH_MS,
  sdK: 3,
}));

test('every figure of lead and molds answers why', () => {
  const feed = refillFigures(refill, 'measured');
  const pace = paceFigures({ block: { bodyKg: 0.6 }, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 5 }, 120, 60);
  const warm = warmPlan({
    block: { bodyKg: 0.6 },
    basis: 'given',
    shotKg: 0.08,
    metalC: 371,
    roomC: 20,
    school: 'both',
    openBelow: false,
  });
  const learned = { powerW: 650, powerSdW: 4, lossWPerK: 0.66, lossSdWPerK: 0.02, readings: 300 };
  const all = [
    feed.add,
    feed.recover,
    fumeFigure(371),
    dialFigure(dialTable(pairs), 7),
    dialFigure(dialTable(pairs), 2),
    potFigure('power', plate, null),
    potFigure('loss', plate, learned),
    castFigure(cavity, AS_CUT, BISMUTH_TIN),
    fillFigure(fillCavity, FILL_DEFAULTS, null),
    fillFigure(fillCavity, FILL_DEFAULTS, fitThreshold([])),
    openingFigures(cavity, { metalC: 371, moldC: 120, roomC: 20 }).opens,
    pace.cycle,
    pace.steady,
    yieldFigure(90, 100),
    yieldFigure(0, 0),
    shareFigure(BISMUTH_TIN),
    leverFigure(fillLevers(fillCavity, FILL_DEFAULTS)[0]!, fillCavity, FILL_DEFAULTS),
    readyFigure(warm),
    leftFigure(3.5, 8.5, 5),
    feed.after,
    warmTimeFigure(warm),
    cleanShareFigure(10, 8.7),
    lotPriceFigure(1200, 10, 8),
    averagePriceFigure(210, 12),
    metalFigure([
      { name: 'Soft', kg: 9, inPotKg: 2 },
      { name: 'Hard', kg: 3, inPotKg: 0 },
    ]),
    ...Object.values(alloyFigures(BISMUTH_TIN)),
    antimonyFigure(10.5),
    dialMarkFigure(dialTable(pairs), 371)!,
    driftFigure(dialDrift(drifting)!),
    skinFigure('straw'),
    sinceSmokedFigure(sooted),
    smokeInFigure('fifty', sooted)!,
    smokeDueFigure('five', [sooted, { ...sooted, position: 2, shotsSinceSmoked: 2 }]),
    inDrawerFigure([{ name: 'Pin', owned: 20, places: [{ where: 'in heads', count: 6 }] }]),
    stockFigure('Hook', 150),
    castableFigure([
      { position: 1, hooks: ['2/0'] },
      { position: 2, hooks: [] },
    ]),
    causeFigure('short', 3, 100),
    ...Object.values(
      learnedMoldFigures({
        lossWPerK: 0.5,
        lossSdWPerK: 0.02,
        capacityShare: 1.1,
        capacitySdShare: 0.03,
        readings: 300,
      }),
    ),
    missFigure(2.4, 300),
    thresholdFigure(fitThreshold([])),
    timesFigure(1.3, 1, 1.3),
    probeFigure('pot', 371),
    waitingFigure([{ label: 'Keel', grossKg: 9.6 }]),
    cavitiesFigure([{ name: 'Five', cavities: [1, 2, 3, 4, 5] }]),
  ];
  all.forEach(answersWhy);
  // What is weighed, counted or paid is a number; what a model says is a range, and says so.
  const estimates = [
    dialFigure(dialTable(pairs), 7),
    castFigure(cavity, AS_CUT, BISMUTH_TIN),
    openingFigures(cavity, { metalC: 371, moldC: 120, roomC: 20 }).opens,
    yieldFigure(90, 100),
    antimonyFigure(10.5),
    alloyFigures(SOFT_LEAD).pour,
    timesFigure(1.3, 1, 1.3),
    potFigure('loss', plate, learned),
    readyFigure(warm),
    pace.cycle,
    pace.steady,
    feed.recover,
  ];
  for (const { low, high } of estimates) expect(low!).toBeLessThan(high!);
  // A lever is a guess: of a gain of 30 % it may be half or one and a half, never a loss.
  expect(timesFigure(1.3, 1, 1.3).low! - 1).toBeCloseTo(0.15, 1);
  expect(timesFigure(1.3, 1, 1.3).high! - 1).toBeCloseTo(0.45, 1);
  // Saturated air is a ceiling that no air goes over, not a doubt.
  expect(fumeFigure(371)).not.toHaveProperty('high', expect.anything());
  expect(antimonyFigure(10.5).high!).toBeLessThan(0.09);
  // A mark to turn to is as sure as its pairs: 3 K on a dial of 20 K a mark.
  const mark = dialMarkFigure(dialTable(pairs), 371)!;
  expect(mark.high! - mark.low!).toBeGreaterThan(0.2);
  expect(mark.high! - mark.low!).toBeLessThan(2);
  // Straw begins at about 355 C, blue at 450: common practice, no source.
  for (const [colour, celsius] of [
    ['straw', 355],
    ['blue', 450],
  ] as const) {
    expect(Math.abs(skinFigure(colour).value - celsius)).toBeLessThanOrEqual(10);
    expect(skinFigure(colour).why.rule).toContain(colour);
  }
});

test('measured, fitted and given are told apart', () => {
  expect(refillFigures(refill, 'measured').add.why.inputs.find((each) => each.label === 'It is at')!.basis).toBe(
    'measured',
  );
  expect(dialFigure(dialTable(pairs), 7).basis).toBe('fitted');
  expect(dialFigure(dialTable(pairs), 2)).toMatchObject({
    basis: 'given',
    why: { rule: expect.stringMatching(/outside/) },
  });
  expect(potFigure('power', plate, null).basis).toBe('given');
  expect(fillFigure(fillCavity, FILL_DEFAULTS, fitThreshold([])).basis).toBe('fitted');
});

test('the small numbers beside the big ones are sums of what was written down', () => {
  expect(cleanShareFigure(10, 8.7).value).toBeCloseTo(0.87, 12);
  // Dross is paid for: 12 for 10 kg, of which 8 are clean.
  expect(lotPriceFigure(1200, 10, 8).value).toBe(150);
  expect(smokeInFigure('fifty', sooted)!.value).toBe(38);
  expect(smokeInFigure('five', sooted)).toBeNull();
  expect(inDrawerFigure([{ name: 'Pin', owned: 20, places: [{ where: 'in heads', count: 6 }] }]).value).toBe(14);
  expect(
    castableFigure([
      { position: 1, hooks: ['2/0'] },
      { position: 2, hooks: [] },
    ]).value,
  ).toBe(1);
  expect(driftFigure(dialDrift(drifting)!).value).toBeCloseTo(3, 6);
  expect(dialMarkFigure(dialTable(pairs), 371)!.value).toBeCloseTo(6.95, 2);
  expect(dialMarkFigure(dialTable(pairs), 500)).toBeNull();
  // Pure lead melts at 327.46 C and is poured at about 370 C (common practice, no source).
  expect(alloyFigures(SOFT_LEAD)).toMatchObject({ liquidus: { value: 327.46 }, pour: { value: 370 } });
});
