import { seeded } from '@schmelz/core';
import { stepSeconds } from '../plan/minutes.ts';
import { stepsOf } from '../plan/product.ts';
import { pourPace, preparePour } from '../plan/prepare-pour.ts';
import { planOrder } from '../plan/plan.ts';
import { stackTotal } from '../plan/types.ts';
import { product, workshop } from '../test/workshop.ts';
import { paceFrom, paceOf, paceWith, type PaceRecord } from './pace.ts';

const made = product(10);
const { ways } = workshop();
const steps = stepsOf(made).filter(({ station }) => station !== 'bake');

/** A standard normal from two uniforms: Box and Muller, 1958. */
function normals(seed: number): () => number {
  const random = seeded(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/*
 * Makers who differ from the ways, at each station by a factor of their own, with evenings that vary by 15 in a hundred
 * (common practice, no source). Made up here; the pace is only asked what it makes of them.
 */
const MAKERS = [
  { trim: 0.6, paint: 0.7, finish: 0.65 },
  { trim: 0.9, paint: 1.4, finish: 1 },
  { trim: 1, paint: 1, finish: 1.2 },
  { trim: 1.5, paint: 1.2, finish: 1.7 },
  { trim: 1.8, paint: 1.8, finish: 1.6 },
] as const;

test.each(MAKERS.map((maker, nth) => [nth, maker] as const))(
  'maker %d: after ten tickets each step is planned as it comes, in the median within five in a hundred',
  (nth, maker) => {
    const normal = normals(100 + nth);
    const off: Record<string, number[]> = {};
    for (let life = 0; life < 300; life++) {
      const records: PaceRecord[] = [];
      for (let ticket = 0; ticket < 11; ticket++) {
        const evening = Math.exp(0.15 * normal());
        const known = { ...ways, pace: paceFrom(records) };
        for (const step of steps) {
          const factor = maker[step.station as keyof typeof maker];
          const byWays = stepSeconds(step, ways, made);
          const came = byWays * factor * evening * Math.exp(0.05 * normal());
          if (ticket === 10) (off[step.key] ??= []).push(stepSeconds(step, known, made) / came);
          records.unshift({ station: step.station, does: step.does, seconds: 24 * came, waysS: 24 * byWays });
        }
      }
    }
    for (const ratios of Object.values(off)) {
      expect(ratios).toHaveLength(300);
      expect(median(ratios)).toBeGreaterThan(0.95);
      expect(median(ratios)).toBeLessThan(1.05);
    }
  },
);

/** By station, s a head: what the plan's own ways say, and what a head of it costs beside work. */
function byWays() {
  const plan = planOrder(workshop());
  const [line] = plan.lines;
  const { work, ...other } = line!.stack;
  const heads = line!.quantity;
  const handsS = Object.fromEntries(plan.minutes.map(({ station, handsS: all }) => [station, all.value / heads]));
  const hours = Object.values(handsS).reduce((sum, seconds) => sum + seconds, 0) / 3600;
  return { handsS, minorPerHour: work / hours, otherMinor: stackTotal(other) };
}

test.each(MAKERS.map((maker, nth) => [nth, maker] as const))(
  'maker %d: after ten evenings a head costs what the plan says, in the median within five in a hundred',
  (nth, maker) => {
    const normal = normals(500 + nth);
    const { handsS, minorPerHour, otherMinor } = byWays();
    const slow: Record<string, number> = { ...maker, pour: maker.paint * 0.9, bake: maker.finish };
    const off: number[] = [];
    for (let life = 0; life < 60; life++) {
      const records: PaceRecord[] = [];
      let cameS = 0;
      for (let ticket = 0; ticket < 11; ticket++) {
        const evening = Math.exp(0.15 * normal());
        const took = Object.entries(handsS).map(([station, seconds]) => {
          return { station, waysS: seconds, seconds: seconds * slow[station]! * evening * Math.exp(0.05 * normal()) };
        });
        if (ticket < 10) records.unshift(...took);
        cameS = took.reduce((sum, { seconds }) => sum + seconds, 0);
      }
      const asked = workshop();
      const plan = planOrder({ ...asked, ways: { ...asked.ways, pace: paceFrom(records) } });
      off.push(stackTotal(plan.lines[0]!.stack) / (otherMinor + (cameS / 3600) * minorPerHour));
    }
    expect(median(off)).toBeGreaterThan(0.95);
    expect(median(off)).toBeLessThan(1.05);
  },
);

test('a first record says little, a forgotten clock nothing, and a step leans on its station', () => {
  const record = (does: string, seconds: number): PaceRecord => ({ station: 'finish', does, seconds, waysS: 100 });
  const first = paceOf(paceFrom([record('Bag', 200)]), 'finish', 'Bag').factor;
  expect(first).toBeGreaterThan(1.2);
  expect(first).toBeLessThan(2);
  const steady = Array.from({ length: 9 }, () => record('Bag', 150));
  const forgotten = paceFrom([record('Bag', 15_000), ...steady]);
  expect(paceOf(forgotten, 'finish', 'Bag').factor).toBeCloseTo(paceOf(paceFrom(steady), 'finish', 'Bag').factor, 9);
  // Of a step that was never done here: as its station.
  expect(paceOf(forgotten, 'finish', 'Skirt on').factor).toBe(forgotten['finish']!.factor);
  expect(paceOf(forgotten, 'trim', 'Trim')).toMatchObject({ factor: 1, records: 0 });
  expect(paceFrom([{ station: 'trim', seconds: 0, waysS: 10 }])).toEqual({});
});

test('small heads take longer, and who is slower than the house is so on every step', () => {
  const of = (productId: string, seconds: number, who?: string): PaceRecord => {
    return { station: 'trim', does: 'Trim', productId, seconds, waysS: 100, ...(who === undefined ? {} : { who }) };
  };
  const records = Array.from({ length: 10 }, () => [of('small', 180), of('large', 120)]).flat();
  const pace = paceFrom(records);
  expect(paceOf(pace, 'trim', 'Trim', 'small').factor).toBeGreaterThan(1.7);
  expect(paceOf(pace, 'trim', 'Trim', 'large').factor).toBeLessThan(1.3);
  // Of a product that was never made here: as the step.
  expect(paceOf(pace, 'trim', 'Trim', 'new')).toEqual(paceOf(pace, 'trim', 'Trim'));
  // Two people of one house, one of them twice as quick: in the middle they are what the house is.
  const two = Array.from({ length: 12 }, () => [of('one', 200, 'Ada'), of('one', 100, 'Ben')]).flat();
  const house = paceFrom(two);
  const [ada, ben, both] = [['Ada'], ['Ben'], ['Ada', 'Ben']].map(
    (people) => paceOf(paceWith(house, people), 'trim', 'Trim').factor,
  );
  expect(ada! / ben!).toBeGreaterThan(1.8);
  expect(ada! / ben!).toBeLessThan(2.05);
  expect(both! / paceOf(house, 'trim', 'Trim').factor).toBeCloseTo(1, 3);
  expect(paceWith(house, ['Somebody new'])).toBe(house);
});

test('what a maker has typed outranks what came', () => {
  const pace = paceFrom(Array.from({ length: 12 }, () => ({ station: 'trim', seconds: 200, waysS: 100 })));
  const [trim] = steps;
  expect(stepSeconds(trim!, { ...ways, pace }, made) / stepSeconds(trim!, ways, made)).toBeGreaterThan(1.8);
  expect(stepSeconds(trim!, { ...ways, trimS: 9, pace }, made)).toBe(9);
  expect(stepSeconds({ ...trim!, handsS: 7 }, { ...ways, pace }, made)).toBe(7);
});

test('a pour is held against its own blanks and shots, and plans go by what came of it, once', () => {
  const asked = workshop();
  const pour = preparePour({ ...asked, atOnce: 1 });
  const [{ plannedShots: shots, plannedBlanks: blanks }] = pour.setup.molds as [(typeof pour.setup.molds)[number]];
  const byWays = pour.planned.plannedS - pour.planned.meltS;
  // Half as many shots as were planned, in as long as all of them were to take.
  const half = pourPace(pour.setup, pour.planned, { workS: byWays, molds: [{ shots: shots / 2, blanks: blanks / 2 }] });
  expect(half!.seconds / half!.waysS).toBeCloseTo(2, 9);
  const pace = paceFrom(Array.from({ length: 20 }, () => half!));
  const slow = { ...asked, ways: { ...asked.ways, pace } };
  const factor = pace['pour']!.factor;
  expect(factor).toBeGreaterThan(1.9);
  const minutes = (of: typeof asked) => planOrder(of).minutes.find(({ station }) => station === 'pour')!.handsS;
  expect(minutes(slow).value / minutes(asked).value).toBeCloseTo(factor, 9);
  expect(minutes(slow).why.source).toMatch(/^By your own evenings: \d+ s a head, of 20 records$/);
  expect([minutes(slow).basis, minutes(asked).basis]).toEqual(['fitted', 'given']);
  // A pour that was planned with it is held against the ways all the same.
  const again = preparePour({ ...slow, atOnce: 1 });
  const whole = pourPace(again.setup, again.planned, { workS: 2 * byWays, molds: [{ shots, blanks }] });
  expect(whole!.seconds / whole!.waysS).toBeCloseTo(2, 9);
});
