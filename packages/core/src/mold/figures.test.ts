import { FILL_DEFAULTS } from '../fill/fill-index.ts';
import { fitThreshold } from '../fill/threshold.ts';
import { typicalHook } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { BISMUTH_TIN, SOFT_LEAD } from '../metal/alloy.ts';
import { dialTable } from '../pot/dial.ts';
import { dialFigure, fumeFigure, potFigure, refillFigures } from '../pot/figures.ts';
import type { Figure } from '../quantity/figure.ts';
import { fillLevers } from '../fill/levers.ts';
import {
  castFigure,
  fillFigure,
  leftFigure,
  leverFigure,
  openTimeFigure,
  paceFigures,
  readyFigure,
  shareFigure,
  yieldFigure,
} from './figures.ts';
import { warmPlan } from './warm-plan.ts';
import { AS_CUT } from './variants.ts';

/** Whatever is shown can be asked why: a rule, a formula, a source, inputs, and a range that holds the value. */
const answersWhy = ({ value, low = value, high = value, why }: Figure) => {
  expect(Number.isFinite(value)).toBe(true);
  expect(low).toBeLessThanOrEqual(value);
  expect(high).toBeGreaterThanOrEqual(value);
  for (const text of [why.rule, why.formula, why.source]) expect(text.length).toBeGreaterThan(3);
  expect(why.inputs.length).toBeGreaterThan(0);
  expect(JSON.stringify(why)).not.toMatch(/NaN|undefined/);
};

const cavity = { position: 1, style: 'ball', nominalMassKg: 0.01, pin: null, shotsSinceSmoked: 5 };
const fillCavity = { solid: cavitySolid('ball', 0.01), sprueHeightM: 0.008, wireM: typicalHook('2/0').wireM };
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

test('every figure of lead and molds answers why', () => {
  const feed = refillFigures(refill, 'measured');
  const pace = paceFigures({ block: { bodyKg: 0.6 }, shotKg: 0.08, metalC: 371, roomC: 20, openShare: 0.4 }, 120, 60);
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
    potFigure('power', refill.pot, null),
    potFigure('loss', refill.pot, learned),
    castFigure(cavity, AS_CUT, BISMUTH_TIN),
    fillFigure(fillCavity, FILL_DEFAULTS, null),
    fillFigure(fillCavity, FILL_DEFAULTS, fitThreshold([])),
    openTimeFigure(cavity, { metalC: 371, moldC: 120, alloy: SOFT_LEAD, moldMetal: 'aluminium' }),
    pace.cycle,
    pace.steady,
    yieldFigure(90, 100),
    yieldFigure(0, 0),
    shareFigure(BISMUTH_TIN),
    leverFigure(fillLevers(fillCavity, FILL_DEFAULTS)[0]!, fillCavity, FILL_DEFAULTS),
    readyFigure(warm),
    leftFigure(3.5, 8.5, 5),
  ];
  all.forEach(answersWhy);
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
  expect(potFigure('power', refill.pot, null).basis).toBe('given');
  expect(fillFigure(fillCavity, FILL_DEFAULTS, fitThreshold([])).basis).toBe('fitted');
});
