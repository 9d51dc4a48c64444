import { enthalpyJKg } from '../metal/enthalpy.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { fitDialMarks } from './dial.ts';
import { potFigure } from './figures.ts';
import { meltPlan } from './melt-plan.ts';
import { largestRefill } from './refill.ts';
import { simulatePot } from './simulate.ts';
import { meltTime } from './time-to-pour.ts';

const pot = { powerW: 700, lossWPerK: 0.55, crucibleJPerK: 540 };
const plan = (school: 'full then down' | 'left at the mark') =>
  meltPlan({
    ...{ leadKg: 3, fromC: 20, roomC: 20, pourC: 371, school, basis: 'given' },
    ...{ ...pot, powerSdW: 70, lossSdWPerK: 0.1 },
  });

test('on full the dial is turned down just before it is there; left at its mark it never is', () => {
  const down = plan('full then down');
  const left = plan('left at the mark');
  expect(left.turnDown).toBeNull();
  expect(down.turnDown!.value).toBeLessThan(down.ready.value);
  expect(down.turnDown!.value).toBeGreaterThan(0.9 * down.ready.value);
  // Turned down in time, the metal does not run away by the swing of a thermostat and a little.
  const hottest = Math.max(...down.points.map(({ temperatureC }) => temperatureC));
  expect(hottest).toBeGreaterThan(371 - 10);
  expect(hottest).toBeLessThan(371 + 15);
  // It is as hot on full as on the mark until then: the same pot at the same power.
  const at = (of: typeof down) => of.points.findLast((point) => point.atS < down.turnDown!.value)!.temperatureC;
  expect(at(down)).toBeCloseTo(at(left), -1);
});

test('cold lead that is added brings the heat that it has, and takes the rest from the pot', () => {
  const run = { pot, leadKg: 3, fromC: 380, roomC: 20, setC: 370, seconds: 600, everyS: 5 };
  const trace = simulatePot({ ...run, events: [{ atS: 60, kind: 'add', kg: 0.5, fromC: 150 }] });
  expect(trace.addedJ).toBeCloseTo(0.5 * enthalpyJKg(SOFT_LEAD, 150), 3);
  const before = trace.points.findLast((point) => point.atS < 60)!.temperatureC;
  const after = trace.points.find((point) => point.atS >= 65)!.temperatureC;
  // By hand: 3 kg at about 150 J/kgK and the crucible cool from ~380, half a kilo comes from 150 C and melts.
  const needJ = 0.5 * (enthalpyJKg(SOFT_LEAD, after) - enthalpyJKg(SOFT_LEAD, 150));
  const gaveJ = 3 * (enthalpyJKg(SOFT_LEAD, before) - enthalpyJKg(SOFT_LEAD, after)) + 540 * (before - after);
  expect(after).toBeLessThan(before - 15);
  expect(needJ / gaveJ).toBeGreaterThan(0.8);
  expect(needJ / gaveJ).toBeLessThan(1.2);
});

test('at the heat itself nothing is melted, and nothing can be added at the heat that is to be kept', () => {
  expect(meltTime({ leadKg: 2, ...pot, fromC: 371, toC: 371 })).toEqual({
    seconds: 0,
    energyKWh: 0,
    moltenAtS: 0,
    shares: { solidJ: 0, latentJ: 0, liquidJ: 0, crucibleJ: 0, lostJ: 0 },
  });
  const at = (potC: number) =>
    largestRefill({ potKg: 3, potC, keepAboveC: 340, capacityKg: 9, pot, pourC: 371, roomC: 20 });
  expect(at(339)).toMatchObject({ addKg: 0, limit: 'too cold to feed' });
  expect(at(360).addKg).toBeGreaterThan(0);
});

test('three marks that read against their order become one, by their weights', () => {
  const at = (dial: number, temperatureC: number, sdK: number) => ({ dial, temperatureC, sdK, at: 0 });
  const marks = fitDialMarks([at(4, 300, 5), at(5, 380, 2), at(6, 360, 4), at(7, 350, 4)]);
  // Weighted by 1/sd2: (380/4 + 360/16 + 350/16) / (1/4 + 2/16).
  const pooled = (380 / 4 + 360 / 16 + 350 / 16) / (1 / 4 + 2 / 16);
  expect(marks.map(({ temperatureC }) => Math.round(100 * temperatureC) / 100)).toEqual([
    300,
    ...Array<number>(3).fill(Math.round(100 * pooled) / 100),
  ]);
});

test('of a pot that nobody has looked at, each figure says where it is from', () => {
  const given = { capacityKg: 9, powerW: 700, lossWPerK: 0.55 };
  const why = (what: 'power' | 'loss' | 'crucible') => potFigure(what, given, null).why;
  expect(why('crucible')).toMatchObject({
    rule: expect.stringMatching(/By the size of the pot/),
    source: 'From memory',
  });
  expect(why('crucible').formula).toContain('60 J/K');
  for (const what of ['power', 'loss'] as const) {
    expect(why(what)).toMatchObject({
      rule: expect.stringMatching(/As you gave it/),
      formula: 'as given',
      source: 'Setup',
    });
  }
});
