import { seeded } from '@schmelz/core';
import { schedule } from '../tonight/schedule.ts';
import { chances, spreadOf, timeOf } from '../tonight/chance.ts';
import type { Task } from '../tonight/task.ts';
import { byEvening, eveningsFrom, type WorkHeldUp } from './evenings.ts';
import { paceFrom, paceOf, type PaceRecord } from './pace.ts';

const DAY_MS = 86_400_000;
/** What the ways say of an evening, s: melting and baking run by themselves. */
const BY_WAYS = { pour: 3600, trim: 900, paint: 3000, finish: 600 };
const STATIONS = Object.keys(BY_WAYS) as (keyof typeof BY_WAYS)[];
const [MELT_S, BAKE_S] = [1200, 1500];

/** A maker who differs from the ways, with evenings that vary, and who is called away now and then. */
interface Maker {
  slow: Record<keyof typeof BY_WAYS, number>;
  eveningSd: number;
  stepSd: number;
  callsPerHour: number;
  callS: number;
}
const MAKERS: Record<string, Maker> = {
  quick: {
    slow: { pour: 0.6, trim: 0.7, paint: 0.65, finish: 0.6 },
    eveningSd: 0.1,
    stepSd: 0.08,
    callsPerHour: 0.2,
    callS: 180,
  },
  'by the ways': {
    slow: { pour: 1, trim: 1, paint: 1, finish: 1 },
    eveningSd: 0.15,
    stepSd: 0.1,
    callsPerHour: 0.4,
    callS: 300,
  },
  slow: {
    slow: { pour: 1.8, trim: 1.6, paint: 1.7, finish: 1.8 },
    eveningSd: 0.15,
    stepSd: 0.1,
    callsPerHour: 0.4,
    callS: 300,
  },
  'with children': {
    slow: { pour: 1.3, trim: 1.4, paint: 1.2, finish: 1.3 },
    eveningSd: 0.15,
    stepSd: 0.15,
    callsPerHour: 1.2,
    callS: 420,
  },
  moody: {
    slow: { pour: 1.1, trim: 0.9, paint: 1.4, finish: 1 },
    eveningSd: 0.25,
    stepSd: 0.1,
    callsPerHour: 0.3,
    callS: 300,
  },
};

/** One evening as it comes, played from its beginning to its end by this test alone. */
function eveningOf({ slow, eveningSd, stepSd, callsPerHour, callS }: Maker, random: () => number) {
  /** About 1: three uniforms, not the model's own curve. */
  const about = (sd: number) => 1 + 2 * sd * (random() + random() + random() - 1.5);
  const tonight = about(eveningSd);
  const calls = { times: 0, seconds: 0 };
  let clock = MELT_S * about(0.1);
  const took = {} as Record<keyof typeof BY_WAYS, number>;
  for (const station of STATIONS) {
    const casts = station === 'pour' ? about(0.055) : 1;
    took[station] = BY_WAYS[station] * slow[station] * tonight * about(stepSd) * casts;
    clock += took[station];
    for (let minute = 0; minute < took[station] / 60; minute++) {
      if (random() >= callsPerHour / 60) continue;
      const call = callS * (0.3 + 1.4 * random());
      clock += call;
      if (station === 'pour') [calls.times, calls.seconds] = [calls.times + 1, calls.seconds + call];
    }
    if (station === 'paint') clock += BAKE_S;
  }
  return { endS: clock, took, calls };
}

/** The same evening as it is planned, by a pace. */
function planned(seconds: (station: keyof typeof BY_WAYS) => number): Task[] {
  const parts: [string, number, boolean][] = [
    ['lead', MELT_S, false],
    ...(['pour', 'trim', 'paint'] as const).map((id): [string, number, boolean] => [id, seconds(id), true]),
    ['bake', BAKE_S, false],
    ['finish', seconds('finish'), true],
  ];
  return parts.map(([station, took, hands], at) => ({
    ...{ id: `${at}`, name: station, station, seconds: took, hands, holds: [], works: ['w'], heads: 1 },
    after: at === 0 ? [] : [{ task: `${at - 1}`, lagS: 0 }],
  }));
}

test.each(Object.entries(MAKERS))(
  '%s: after thirty evenings the range of the end holds 85 to 95 in a hundred',
  (_, maker) => {
    const random = seeded(4242);
    let [held, all, medians] = [0, 0, 0];
    for (let life = 0; life < 24; life++) {
      const records: PaceRecord[] = [];
      const worked: WorkHeldUp[] = [];
      for (let evening = 0; evening < 30; evening++) {
        const { took, calls } = eveningOf(maker, random);
        const at = evening * DAY_MS;
        for (const station of STATIONS) {
          records.unshift({ station, seconds: took[station], waysS: BY_WAYS[station], at: at + 1000 * took[station] });
        }
        worked.unshift({ workS: took.pour, heldUp: calls });
      }
      const pace = paceFrom(records);
      const evenings = eveningsFrom(records, pace, worked);
      const tasks = planned((station) => BY_WAYS[station] * paceOf(pace, station).factor);
      const { placed } = schedule(tasks, { people: [{ name: 'One', can: null }] });
      const spread = spreadOf({ castsShare: 0 }, { pace, evenings });
      const { endsS } = chances(tasks, placed, { evenings: 1500, spread, seed: life + 1 });
      const [low, middle, high] = [0.05, 0.5, 0.95].map((share) => timeOf(endsS, share));
      for (let next = 0; next < 40; next++) {
        const { endS } = eveningOf(maker, random);
        all += 1;
        if (endS >= low! && endS <= high!) held += 1;
        if (endS <= middle!) medians += 1;
      }
    }
    expect(held / all).toBeGreaterThanOrEqual(0.85);
    expect(held / all).toBeLessThanOrEqual(0.95);
    // And it is no wide range about a wrong middle.
    expect(Math.abs(medians / all - 0.5)).toBeLessThan(0.1);
  },
);

test('an evening goes on past midnight, and the next day is another', () => {
  const hours = (h: number) => ({ at: h * 3_600_000 });
  expect(byEvening([hours(26), hours(20), hours(23.5), hours(44), hours(48)]).map((own) => own.length)).toEqual([3, 2]);
});

test('without records it is as usual; a night that nobody closed is no interruption', () => {
  const nothing = eveningsFrom([], {}, []);
  expect(nothing).toMatchObject({ eveningSdLog: 0.15, stepSdLog: 0.15, heldUpS: 300, evenings: 0 });
  expect(nothing.heldUpPerHour).toBeCloseTo(0.4, 12);
  const forgotten = eveningsFrom([], {}, [{ workS: 3600, heldUp: { times: 1, seconds: 30_000 } }]);
  expect(forgotten.heldUpS).toBe(300);
  // Four calls of two minutes in eight hours beside the 1.6 in four that are usual: 5.6 in twelve.
  const calm = eveningsFrom([], {}, [{ workS: 8 * 3600, heldUp: { times: 4, seconds: 480 } }]);
  expect(calm.heldUpPerHour).toBeCloseTo(5.6 / 12, 9);
  expect(calm.heldUpS).toBeCloseTo((3 * 300 + 480) / 7, 9);
});
