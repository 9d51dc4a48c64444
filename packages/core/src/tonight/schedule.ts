import { inRange } from '../quantity/check.ts';
import { seeded } from '../random/seeded.ts';
import { headsAndTails, lowerBoundS } from './bound.ts';
import { FOREVER, place, type Placed, type Schedule, type MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';

/** When a work must be done, s from the beginning; and what is late counts more than any end. */
export type Due = Readonly<Record<string, number>>;
const LATE_WEIGHT = 20;
/** Of two evenings that end alike the one is better in which most is done early: what is done is done. */
const EARLY_WEIGHT = 0.02;
/** So many tries from one place. */
const AGAIN = 400;
/** So often a task is moved with what it waits for, and else by itself. */
const PULLED = 0.2;
/** So much of an evening is a gain. */
const GAIN = 0.0005;
/** So near the bound no better order is looked for. */
const NEAR = 1.002;

/**
 * When each work is done.
 * @example endsOf(evening, schedule(evening, alone).placed).get('w') // 6900
 */
export function endsOf(tasks: readonly Task[], placed: readonly Placed[]): Map<string, number> {
  const ends = new Map<string, number>();
  placed.forEach(({ endS }, at) => {
    for (const work of tasks[at]!.works) ends.set(work, Math.max(ends.get(work) ?? 0, endS));
  });
  return ends;
}

function costOfPlan(tasks: readonly Task[], placed: readonly Placed[], due: Due): number {
  const endS = Math.max(0, ...placed.map((each) => each.endS));
  let late = 0;
  let sum = 0;
  for (const [work, end] of endsOf(tasks, placed)) {
    late += Math.max(0, end - (due[work] ?? FOREVER));
    sum += end;
  }
  return endS + LATE_WEIGHT * late + (EARLY_WEIGHT * sum) / Math.max(1, tasks.length);
}

/** Each task with all that it waits for, by however many others. */
function waitedFor(tasks: readonly Task[]): Map<string, Set<string>> {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const found = new Map<string, Set<string>>();
  const of = (task: Task): Set<string> => {
    const known = found.get(task.id);
    if (known) return known;
    const own = new Set([task.id]);
    found.set(task.id, own);
    for (const { task: id } of task.after) {
      const other = byId.get(id);
      if (other) for (const each of of(other)) own.add(each);
    }
    return own;
  };
  for (const task of tasks) of(task);
  return found;
}

/** A task comes sooner only with all that it waits for: those of them that stand between go along with it. */
function pulled(order: readonly string[], from: number, to: number, along: ReadonlySet<string>): string[] {
  const between = order.slice(to, from + 1);
  const goes = (id: string) => along.has(id);
  return [
    ...order.slice(0, to),
    ...between.filter(goes),
    ...between.filter((id) => !goes(id)),
    ...order.slice(from + 1),
  ];
}

export interface SearchOptions {
  due?: Due;
  pinned?: Readonly<Record<string, number>>;
  /** Orders that are tried; more is better and slower. */
  tries?: number;
  seed?: number;
  /** It ends earlier when so many orders in a row have brought no gain; left out: it tries all of them. */
  patience?: number;
  /** Asked now and then whether it may go on: whoever has a clock gives it a time. */
  mayGoOn?: () => boolean;
  /** Told now and then how far it is, 0 to 1, with the best so far where that is a better one than was told before. */
  tell?: (share: number, better: Schedule | null) => void;
}

/** So many orders are tried between two looks up. */
const LOOKS_UP = 50;

/**
 * The evening in the best order found: by the longest way first, by due day, as they come, and then by moving tasks in
 * the best of them. Reproducible by its seed.
 * @throws QuantityError as {@link place}
 * @example schedule(evening, alone).endS // 6900
 */
export function schedule(tasks: readonly Task[], shop: MeansOfEvening, options: SearchOptions = {}): Schedule {
  const { due = {}, pinned = {}, tries = 3000, seed = 1, patience = Infinity, mayGoOn, tell } = options;
  inRange('tries', tries, '', 0, 1e6);
  // Who asks for an answer at once is not kept waiting for what is proved of it.
  const boundS = lowerBoundS(tasks, shop, tries);
  const around = headsAndTails(tasks);
  const dueOf = (task: Task) => Math.min(FOREVER, ...task.works.map((work) => due[work] ?? FOREVER));
  const ids = (by: (a: Task, b: Task) => number) => [...tasks].sort(by).map(({ id }) => id);
  const tail = (task: Task) => around.get(task.id)!.tailS;
  const starts = [
    ids((a, b) => tail(b) + b.seconds - tail(a) - a.seconds),
    ids((a, b) => tail(b) - tail(a)),
    ids((a, b) => dueOf(a) - dueOf(b) || tail(b) - tail(a)),
    tasks.map(({ id }) => id),
  ];
  const judged = starts.map((order) => {
    const placed = place(tasks, shop, order, pinned);
    return { order, placed, cost: costOfPlan(tasks, placed, due) };
  });
  let now = judged.reduce((a, b) => (b.cost < a.cost ? b : a));
  let best = now;
  const random = seeded(seed);
  const before = waitedFor(tasks);
  const asSchedule = ({ placed }: { placed: Placed[] }): Schedule => ({
    placed,
    endS: Math.max(0, ...placed.map(({ endS }) => endS)),
    boundS,
  });
  // The order in which they begin: there a move of a few places changes what is next to each other in time.
  const asPlaced = (placed: readonly Placed[]) =>
    [...placed].sort((a, b) => a.startS - b.startS).map(({ taskId }) => taskId);
  const proved = () => asSchedule(best).endS <= NEAR * boundS + 1;
  let [gainedAt, told] = [0, best];
  // Where no order ends earlier, it is looked for a while longer whether more is done early.
  for (let at = 0; at < tries && tasks.length > 1 && !(at > tries / 4 && proved()); at++) {
    if (at - gainedAt > patience || (at % LOOKS_UP === 0 && mayGoOn?.() === false)) break;
    // Now and then it goes back to the best, so that it does not stray.
    if (at % AGAIN === AGAIN - 1) now = best;
    let order = [...now.order];
    const moves = 1 + Math.floor(random() * 3);
    for (let move = 0; move < moves; move++) {
      const from = Math.floor(random() * order.length);
      if (random() < PULLED) {
        order = pulled(order, from, Math.floor(random() * (from + 1)), before.get(order[from]!)!);
        continue;
      }
      const [id] = order.splice(from, 1) as [string];
      const near =
        random() < 0.5 ? from + Math.round((random() - 0.5) * 10) : Math.floor(random() * (order.length + 1));
      order.splice(Math.min(order.length, Math.max(0, near)), 0, id);
    }
    const placed = place(tasks, shop, order, pinned);
    const cost = costOfPlan(tasks, placed, due);
    // A little worse is taken now and then, less and less: so it comes out of a corner.
    const slack = 0.01 * boundS * (1 - at / tries);
    if (cost <= now.cost + slack * random()) now = { order: asPlaced(placed), placed, cost };
    if (cost < best.cost) {
      // Some seconds more in which something is done early are no gain to wait for.
      if (cost < best.cost - GAIN * boundS) gainedAt = at;
      best = now;
    }
    if (tell && at % LOOKS_UP === LOOKS_UP - 1) {
      tell((at + 1) / tries, best === told ? null : asSchedule(best));
      told = best;
    }
  }
  return asSchedule(best);
}

/**
 * What the hands of an evening cost at the house's rate, minor units.
 * @example handsMinor(evening, { labourMinorPerHour: 1200 }) // 1800
 */
export const handsMinor = (
  tasks: readonly Pick<Task, 'hands' | 'seconds'>[],
  { labourMinorPerHour }: { labourMinorPerHour: number },
): number => (tasks.reduce((sum, { hands, seconds }) => sum + (hands ? seconds : 0), 0) / 3600) * labourMinorPerHour;
