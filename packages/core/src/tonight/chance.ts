import { countInRange } from '../quantity/check.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { seeded } from '../random/seeded.ts';
import { eveningsFrom } from '../ways/evenings.ts';
import { paceOf } from '../ways/pace.ts';
import type { KnownWays } from '../plan/types.ts';
import type { Placed, MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';
import { endsOf } from './schedule.ts';

/** What an evening may be off by, as shares of what is planned. */
export interface EveningSpread {
  /** All that hands do: who is slow tonight is slow at every step. */
  eveningShare: number;
  /** Hands at each station by itself, and at those that are named. */
  handsShare: number;
  ofStation?: Readonly<Record<string, number>>;
  /** What works by itself: melting. */
  meltShare: number;
  /** Casts until enough are good. */
  castsShare: number;
  /** One task beside others of its kind. */
  taskShare: number;
  /** So often an hour of work something holds up, and for so long on average, s. */
  heldUpPerHour: number;
  heldUpS: number;
}
/** What a task takes longer or shorter by: its pace, and for the pour also its casts. */
const PACES = ['pour', 'trim', 'paint', 'bake', 'finish'] as const;
const HELD_UP = eveningsFrom([], {}, []);
export const USUAL_SPREAD: EveningSpread = {
  eveningShare: SPREAD.eveningShare,
  handsShare: SPREAD.handsShare,
  meltShare: SPREAD.potPowerShare,
  // A yield of 90 % that an evening misses by 5 % makes casts come out so much off.
  castsShare: 0.055,
  taskShare: 0.05,
  heldUpPerHour: HELD_UP.heldUpPerHour,
  heldUpS: HELD_UP.heldUpS,
};

/**
 * How far things come otherwise where the casts of an evening are known to be off by so much, as a share, 0: as usual;
 * and of a maker whose evenings are on record as theirs do.
 * @example spreadOf({ castsShare: 0.02 }).castsShare // 0.02
 */
export function spreadOf(
  { castsShare }: { castsShare: number },
  { evenings, pace }: Pick<KnownWays, 'evenings' | 'pace'> = {},
): EveningSpread {
  const spread = { ...USUAL_SPREAD, castsShare: castsShare || USUAL_SPREAD.castsShare };
  if (!evenings) return spread;
  const { eveningSdLog, stepSdLog, heldUpPerHour, heldUpS } = evenings;
  // How far a step is off beside its evening, and what is not known yet of the usual pace there.
  const own = (doubt: number) => Math.hypot(stepSdLog, Math.min(SPREAD.eveningShare, doubt));
  return {
    ...spread,
    ...{ eveningShare: eveningSdLog, handsShare: own(Infinity), heldUpPerHour, heldUpS },
    ofStation: Object.fromEntries(PACES.map((station) => [station, own(paceOf(pace, station).sdLog)])),
  };
}

export interface Chances {
  /** Ends of all evenings in order, s: their shares are the chance to be done by then. */
  endsS: number[];
  /** When each work is done, in order, s. */
  worksS: Record<string, number[]>;
  /** What the end hangs on, the most first: its part of the variance. */
  doubts: { what: string; share: number }[];
}

/** A normal deviate by Box and Muller (1958). */
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
/** A factor about 1 whose logarithm is normal, never below nothing; what is usual is as often beaten as missed. */
const paceBy = (random: () => number, share: number) => Math.exp(share * normal(random));
/** The same with its mean 1. */
const factor = (random: () => number, share: number) => Math.exp(share * normal(random) - (share * share) / 2);

/** What holds up so many seconds of work, s: a Poisson count of interruptions, each exponential (Knuth 1969). */
function heldUpS(random: () => number, seconds: number, { heldUpPerHour, heldUpS: meanS }: EveningSpread): number {
  const none = Math.exp((-heldUpPerHour * seconds) / 3600);
  let held = 0;
  for (let left = random(); left > none; left *= random()) held -= meanS * Math.log(1 - random());
  return held;
}

interface Playable {
  task: Task;
  /** Tasks before it, by place, and what has to pass. */
  before: { at: number; lagS: number }[];
  /** Whom it follows there, by place, and what: that must be free for its lead as well. */
  follows: number[];
  behind: number[];
  fromS: number;
}

/** The plan as it is played: tasks in the order of their beginnings, each behind what it waits for. */
function playableOf(tasks: readonly Task[], placed: readonly Placed[], windows: MeansOfEvening['windows']): Playable[] {
  const order = tasks.map((_, at) => at).sort((a, b) => placed[a]!.startS - placed[b]!.startS || a - b);
  const placeIn = new Map(order.map((at, nth) => [tasks[at]!.id, nth]));
  const last = new Map<string, number>();
  return order.map((at, nth) => {
    const task = tasks[at]!;
    const { person, tools } = placed[at]!;
    const who = person === null ? [] : [`person ${person}`];
    const held = Object.entries(tools).map(([tool, unit]) => `${tool} ${unit}`);
    const follows = who.flatMap((what) => last.get(what) ?? []);
    const behind = held.flatMap((what) => last.get(what) ?? []);
    for (const what of [...who, ...held]) last.set(what, nth);
    const before = task.after.flatMap(({ task: id, lagS }) => {
      const where = placeIn.get(id);
      return where === undefined ? [] : [{ at: where, lagS }];
    });
    // What was put into a later evening is not begun in an earlier one.
    const window = (windows ?? []).filter(({ fromS }) => fromS <= placed[at]!.startS + 1e-6).at(-1);
    return { task, before, follows, behind, fromS: window?.fromS ?? 0 };
  });
}

/**
 * Plays a plan many times with hands and yields as they may turn out, in the order that was planned: what comes late
 * holds up what follows. Reproducible by its seed.
 * @param evenings 1 to 100 000
 * @example chances(evening, schedule(evening, alone).placed, { evenings: 100 }).endsS.length // 100
 */
export function chances(
  tasks: readonly Task[],
  placed: readonly Placed[],
  options: { evenings?: number; seed?: number; spread?: EveningSpread; windows?: MeansOfEvening['windows'] } = {},
): Chances {
  const { evenings = 10_000, seed = 1, spread = USUAL_SPREAD, windows } = options;
  countInRange('evenings', evenings, 1, 100_000);
  const random = seeded(seed);
  const playable = playableOf(tasks, placed, windows);
  const works = [...endsOf(tasks, placed).keys()];
  const workPlaces = playable.map(({ task }) => task.works.map((work) => works.indexOf(work)));
  const endsS: number[] = [];
  const worksS = works.map((): number[] => []);
  const drawn: Record<string, number[]> = { evening: [], melting: [], casts: [] };
  for (const pace of PACES) drawn[pace] = [];
  const ends = new Float64Array(playable.length);
  const done = new Float64Array(works.length);
  for (let evening = 0; evening < evenings; evening++) {
    const paces: Record<string, number> = {};
    const tonight = paceBy(random, spread.eveningShare);
    for (const station of PACES) paces[station] = paceBy(random, spread.ofStation?.[station] ?? spread.handsShare);
    const melting = factor(random, spread.meltShare);
    const casts = factor(random, spread.castsShare);
    done.fill(0);
    let end = 0;
    playable.forEach(({ task, before, follows, behind, fromS }, at) => {
      const leadS = (task.leadS ?? 0) * melting;
      let start = fromS + leadS;
      for (const each of before) start = Math.max(start, ends[each.at]! + each.lagS + leadS);
      for (const each of behind) start = Math.max(start, ends[each]! + leadS);
      for (const each of follows) start = Math.max(start, ends[each]!);
      const own = task.hands
        ? tonight *
          (paces[task.station] ?? 1) *
          (task.station === 'pour' ? casts : 1) *
          factor(random, spread.taskShare)
        : task.station === 'lead'
          ? melting
          : 1;
      const seconds = task.seconds * own;
      ends[at] = start + seconds + (task.hands ? heldUpS(random, seconds, spread) : 0);
      end = Math.max(end, ends[at]!);
      for (const work of workPlaces[at]!) done[work] = Math.max(done[work]!, ends[at]!);
    });
    endsS.push(end);
    works.forEach((_, at) => worksS[at]!.push(done[at]!));
    for (const station of PACES) drawn[station]!.push(paces[station]!);
    drawn['evening']!.push(tonight);
    drawn['melting']!.push(melting);
    drawn['casts']!.push(casts);
  }
  const doubts = Object.entries(drawn)
    .map(([what, values]) => ({ what, share: squaredCorrelation(values, endsS) }))
    .sort((a, b) => b.share - a.share);
  const sorted = (values: number[]) => Float64Array.from(values).sort();
  return {
    endsS: [...sorted(endsS)],
    worksS: Object.fromEntries(works.map((work, at) => [work, [...sorted(worksS[at]!)]])),
    doubts,
  };
}

/** The part of one's variance that goes along with another's; 0 where one of them does not vary. */
function squaredCorrelation(x: readonly number[], y: readonly number[]): number {
  const n = x.length;
  const mean = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0) / n;
  const [mx, my] = [mean(x), mean(y)];
  let [xx, yy, xy] = [0, 0, 0];
  for (let at = 0; at < n; at++) {
    xx += (x[at]! - mx) ** 2;
    yy += (y[at]! - my) ** 2;
    xy += (x[at]! - mx) * (y[at]! - my);
  }
  return xx > 0 && yy > 0 ? (xy * xy) / (xx * yy) : 0;
}

/**
 * Chance that it is done by a time, from the ends of many evenings in order.
 * @example chanceBy([100, 200, 300, 400], 300) // 0.75
 */
export function chanceBy(endsS: readonly number[], byS: number): number {
  let [low, high] = [0, endsS.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (endsS[middle]! <= byS) low = middle + 1;
    else high = middle;
  }
  return endsS.length > 0 ? low / endsS.length : 0;
}

/**
 * The time by which so many in a hundred evenings are done.
 * @example timeOf([100, 200, 300, 400], 0.5) // 200
 */
export const timeOf = (endsS: readonly number[], share: number): number =>
  endsS[Math.min(endsS.length - 1, Math.max(0, Math.ceil(share * endsS.length) - 1))] ?? 0;

/** A doubt, and what is gained by measuring it. */
export interface Gain {
  what: string;
  /** Its part of the variance of the end. */
  share: number;
  /** By so much less the span is in which nine evenings in ten end, s. */
  surerS: number;
}

/**
 * What measuring would gain, doubt by doubt, the most first: of the span in which nine evenings in ten end, what goes
 * when a doubt's part of the variance is taken out. What is less than a minute is left out.
 * @example gains({ endsS: [0, 500, 1000], worksS: {}, doubts: [{ what: 'pour', share: 0.75 }] })
 *   // [{ what: 'pour', share: 0.75, surerS: 500 }]
 */
export function gains({ endsS, doubts }: Chances): Gain[] {
  const spanS = timeOf(endsS, 0.95) - timeOf(endsS, 0.05);
  return doubts
    .map(({ what, share }) => ({ what, share, surerS: spanS * (1 - Math.sqrt(Math.max(0, 1 - share))) }))
    .filter(({ surerS }) => surerS >= WORTH_MEASURING_S);
}
const WORTH_MEASURING_S = 60;
