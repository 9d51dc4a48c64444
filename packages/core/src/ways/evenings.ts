import type { HeldUp } from '../log/log.ts';
import { paceOf, type Pace, type PaceRecord } from './pace.ts';

/** How a maker's evenings come out otherwise than usual, from those that are on record. */
export interface Evenings {
  /** All that hands do on one evening is slower or quicker by this: who is slow tonight is slow at every step. */
  eveningSdLog: number;
  /** One step beside the others of its evening. */
  stepSdLog: number;
  /** So often an hour of work something holds up, and for so long on average, s. */
  heldUpPerHour: number;
  heldUpS: number;
  /** Evenings on record. */
  evenings: number;
}

/** A stretch of work with what held it up. */
export interface WorkHeldUp {
  workS: number;
  heldUp: HeldUp;
}

/** What is thought before there are records, and of how many records that is worth. Common practice, no source. */
const BEFORE = {
  eveningSdLog: 0.15,
  ofEvenings: 5,
  stepSdLog: 0.15,
  ofSteps: 10,
  heldUpPerHour: 0.4,
  ofHours: 4,
  heldUpS: 300,
  ofTimes: 3,
};
/** Work that is further apart than this is of another evening, ms. */
const NIGHT_MS = 6 * 3_600_000;
/** Further than this from what is usual a record is no pace: a clock was forgotten. */
const FURTHEST = 1.2;
/** One interruption longer than this was no interruption: the evening was over, s. */
const LONGEST_S = 3600;

/**
 * Records by the evening in which they were made: work goes on until nobody does anything for a night.
 * @example byEvening([{ at: 0 }, { at: 60_000 }, { at: 86_400_000 }]).length // 2
 */
export function byEvening<R extends { at: number }>(records: readonly R[]): R[][] {
  const evenings: R[][] = [];
  for (const record of [...records].sort((a, b) => a.at - b.at)) {
    const last = evenings.at(-1);
    if (last && record.at - last.at(-1)!.at < NIGHT_MS) last.push(record);
    else evenings.push([record]);
  }
  return evenings;
}

const sumOf = (numbers: readonly number[]) => numbers.reduce((sum, each) => sum + each, 0);

/**
 * How evenings come out: what all records of one evening are off by together, what each is off by beside the others
 * (one-way analysis of variance, Fisher 1925), and how often something holds up; each leans on what is usual while
 * records are few.
 * @param records what hands took at the steps, with the day; those that do not know it are passed over
 * @param pace what those records say of this maker: what is usual is no deviation
 * @example eveningsFrom([], {}, []).heldUpS // 300
 */
export function eveningsFrom(records: readonly PaceRecord[], pace: Pace, worked: readonly WorkHeldUp[]): Evenings {
  const off = records.flatMap(({ station, does, seconds, waysS, at }) => {
    if (at === undefined || seconds <= 0 || waysS <= 0) return [];
    const log = Math.log(seconds / waysS / paceOf(pace, station, does).factor);
    return Math.abs(log) <= FURTHEST ? [{ at, log }] : [];
  });
  const evenings = byEvening(off).map((own) => ({
    count: own.length,
    mean: sumOf(own.map(({ log }) => log)) / own.length,
    logs: own.map(({ log }) => log),
  }));
  const within = sumOf(evenings.flatMap(({ logs, mean }) => logs.map((log) => (log - mean) ** 2)));
  const free = sumOf(evenings.map(({ count }) => count - 1));
  const stepVar = (BEFORE.ofSteps * BEFORE.stepSdLog ** 2 + within) / (BEFORE.ofSteps + free);
  // An evening's mean carries what its steps are off by, each by itself.
  const between = sumOf(evenings.map(({ mean, count }) => mean ** 2 - stepVar / count));
  const eveningVar = (BEFORE.ofEvenings * BEFORE.eveningSdLog ** 2 + between) / (BEFORE.ofEvenings + evenings.length);
  const hours = sumOf(worked.map(({ workS }) => workS / 3600));
  const told = worked.filter(({ heldUp: { times, seconds } }) => times > 0 && seconds / times <= LONGEST_S);
  const times = sumOf(told.map(({ heldUp }) => heldUp.times));
  const seconds = sumOf(told.map(({ heldUp }) => heldUp.seconds));
  return {
    eveningSdLog: Math.sqrt(Math.max(LEAST_VAR, eveningVar)),
    stepSdLog: Math.sqrt(stepVar),
    heldUpPerHour: (BEFORE.ofHours * BEFORE.heldUpPerHour + times) / (BEFORE.ofHours + hours),
    heldUpS: (BEFORE.ofTimes * BEFORE.heldUpS + seconds) / (BEFORE.ofTimes + times),
    evenings: evenings.length,
  };
}
/** Nobody is the same on every evening. */
const LEAST_VAR = 0.03 ** 2;
