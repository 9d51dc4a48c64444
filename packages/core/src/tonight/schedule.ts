import { inRange, QuantityError } from '../quantity/check.ts';
import { seeded } from '../random/seeded.ts';

/** Something of the evening that takes time: hands at work, or a thing that works by itself. */
export interface Task {
  id: string;
  name: string;
  station: string;
  /** Of the route it is a step of; the pour is `pour`. */
  step?: string;
  seconds: number;
  /** Whether it takes a person from its beginning to its end. */
  hands: boolean;
  /** Tools that it holds meanwhile: pot, molds, gun, oven. */
  holds: readonly string[];
  /** So long before it begins its tools are held already, and work by themselves: the pot melts. */
  leadS?: number;
  /** What must be done before, and what has to pass after that, s. */
  after: readonly { task: string; lagS: number }[];
  /** Tickets or order lines that it is for. */
  works: readonly string[];
  heads: number;
}

export interface Person {
  name: string;
  /** Stations that they work at; null: all. */
  can: readonly string[] | null;
}

export interface Shop {
  people: readonly Person[];
  /** Tools of which there are more than one. */
  tools?: Readonly<Record<string, number>>;
  /** When somebody is there, s from the beginning; none: without an end. */
  windows?: readonly { fromS: number; toS: number }[];
}

export interface Placed {
  taskId: string;
  startS: number;
  endS: number;
  /** Place of the person in the list; null where nobody is at it. */
  person: number | null;
  /** Which of the tools of each kind. */
  tools: Record<string, number>;
}

export interface Schedule {
  placed: Placed[];
  endS: number;
  /** No order of the work ends earlier. */
  boundS: number;
}

/** Times that one person or tool is taken, in order. */
type Busy = { from: number; to: number }[];

/** The earliest time from `from` on at which it is free for so long. */
function freeAt(busy: Busy, from: number, seconds: number): number {
  let at = from;
  for (const each of busy) {
    if (each.to <= at) continue;
    if (each.from >= at + seconds) break;
    at = each.to;
  }
  return at;
}

function take(busy: Busy, from: number, to: number): void {
  if (to <= from) return;
  let at = busy.length;
  while (at > 0 && busy[at - 1]!.from > from) at--;
  busy.splice(at, 0, { from, to });
}

const FOREVER = 1e9;
/** Nobody is there outside the windows. */
const away = (windows: Shop['windows']): Busy => {
  if (!windows?.length) return [];
  const sorted = [...windows].sort((a, b) => a.fromS - b.fromS);
  const gaps = sorted.map(({ toS }, at) => ({ from: toS, to: sorted[at + 1]?.fromS ?? FOREVER }));
  return [{ from: -1, to: Math.max(0, sorted[0]!.fromS) }, ...gaps].filter(({ from, to }) => to > from);
};

/** The longest of them, s: a task that fits into none goes over its end. */
const longestWindow = (windows: Shop['windows']) =>
  windows?.length ? Math.max(...windows.map(({ fromS, toS }) => toS - fromS)) : FOREVER;

/**
 * Puts tasks in their places, one after another, each as early as people and tools are free: the serial rule of project
 * scheduling (Kolisch 1996). Nothing is ever taken twice.
 * @param order ids of all tasks, by urgency; what must be done before something is put before it whatever the order
 * @param pinned tasks that are to begin at a time and no earlier, s
 * @throws QuantityError where a task waits for itself, or nobody can do it
 * @example place(evening, alone, ['pour', 'paint', 'bake']).map(({ startS }) => startS) // [0, 3600, 5400]
 */
export function place(
  tasks: readonly Task[],
  shop: Shop,
  order: readonly string[],
  pinned: Readonly<Record<string, number>> = {},
): Placed[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const offS = longestWindow(shop.windows);
  const people = shop.people.map(() => away(shop.windows));
  const overtime = shop.people.map((): Busy => []);
  const tools = new Map<string, { inside: Busy; whole: Busy }[]>();
  // What is hot is not left alone.
  const unitsOf = (tool: string) => {
    const unit = () => ({ inside: away(shop.windows), whole: [] as Busy });
    const known = tools.get(tool) ?? Array.from({ length: shop.tools?.[tool] ?? 1 }, unit);
    tools.set(tool, known);
    return known;
  };
  const placed = new Map<string, Placed>();
  const rank = new Map(order.map((id, at) => [id, at]));
  const waiting = new Map(tasks.map((task) => [task.id, task.after.filter(({ task: id }) => byId.has(id)).length]));
  const next = new Map<string, Task[]>();
  for (const task of tasks) {
    for (const { task: id } of task.after) next.set(id, [...(next.get(id) ?? []), task]);
  }
  const ready = tasks.filter(({ id }) => waiting.get(id) === 0);
  while (ready.length > 0) {
    let first = 0;
    for (let at = 1; at < ready.length; at++) {
      if ((rank.get(ready[at]!.id) ?? FOREVER) < (rank.get(ready[first]!.id) ?? FOREVER)) first = at;
    }
    const [task] = ready.splice(first, 1) as [Task];
    const { id, seconds, hands, holds, after, leadS = 0 } = task;
    const heldS = leadS + seconds;
    let at = Math.max(leadS, pinned[id] ?? 0);
    for (const each of after) at = Math.max(at, (placed.get(each.task)?.endS ?? 0) + each.lagS + leadS);
    const able = shop.people.flatMap(({ can }, who) => (!can || can.includes(task.station) ? [who] : []));
    if (hands && able.length === 0) {
      throw new QuantityError(`who does ${task.name}`, 'nobody', '', `somebody who works at ${task.station}`);
    }
    const over = heldS > offS;
    const busyOf = (who: number) => (over ? overtime[who]! : people[who]!);
    let person: number | null = null;
    const units: Record<string, number> = {};
    for (;;) {
      let to = at;
      if (hands) {
        let best = FOREVER;
        for (const who of able) {
          const free = freeAt(busyOf(who), at, seconds);
          if (free < best) [best, person] = [free, who];
        }
        to = Math.max(to, best);
      }
      for (const tool of holds) {
        let best = FOREVER;
        unitsOf(tool).forEach(({ inside, whole }, unit) => {
          const free = freeAt(over ? whole : inside, at - leadS, heldS) + leadS;
          if (free < best) [best, units[tool]] = [free, unit];
        });
        to = Math.max(to, best);
      }
      if (to === at) break;
      at = to;
    }
    const endS = at + seconds;
    if (person !== null) {
      take(people[person]!, at, endS);
      take(overtime[person]!, at, endS);
    }
    for (const tool of holds) {
      const { inside, whole } = unitsOf(tool)[units[tool]!]!;
      take(inside, at - leadS, endS);
      take(whole, at - leadS, endS);
    }
    placed.set(id, { taskId: id, startS: at, endS, person, tools: units });
    for (const then of next.get(id) ?? []) {
      const left = waiting.get(then.id)! - 1;
      waiting.set(then.id, left);
      if (left === 0) ready.push(then);
    }
  }
  if (placed.size < tasks.length) {
    const stuck = tasks.find(({ id }) => !placed.has(id))!;
    throw new QuantityError('order of work', stuck.name, '', 'nothing that waits for itself');
  }
  return tasks.map(({ id }) => placed.get(id)!);
}

/** What must pass before a task can begin, and after it has ended, by the longest way, s. */
export interface HeadAndTail {
  headS: number;
  tailS: number;
}

/**
 * Longest ways to and from every task.
 * @example headsAndTails(evening).size // 3
 */
export function headsAndTails(tasks: readonly Task[]): Map<string, HeadAndTail> {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const heads = new Map<string, number>();
  const headOf = (task: Task): number => {
    const known = heads.get(task.id);
    if (known !== undefined) return known;
    heads.set(task.id, 0);
    const before = task.after.reduce((most, { task: id, lagS }) => {
      const each = byId.get(id);
      return each ? Math.max(most, headOf(each) + each.seconds + lagS) : most;
    }, 0);
    const head = before + (task.leadS ?? 0);
    heads.set(task.id, head);
    return head;
  };
  const next = new Map<string, { task: Task; lagS: number }[]>();
  for (const task of tasks) {
    for (const { task: id, lagS } of task.after) next.set(id, [...(next.get(id) ?? []), { task, lagS }]);
  }
  const tails = new Map<string, number>();
  const tailOf = (task: Task): number => {
    const known = tails.get(task.id);
    if (known !== undefined) return known;
    tails.set(task.id, 0);
    const tail = (next.get(task.id) ?? []).reduce(
      (most, { task: then, lagS }) => Math.max(most, lagS + (then.leadS ?? 0) + then.seconds + tailOf(then)),
      0,
    );
    tails.set(task.id, tail);
    return tail;
  };
  return new Map(tasks.map((task) => [task.id, { headS: headOf(task), tailS: tailOf(task) }]));
}

type Piece = HeadAndTail & { seconds: number };

/**
 * One machine, jobs with heads and tails, and each may be broken off: the largest tail first is best (Jackson 1955;
 * Carlier 1982), and no order of whole jobs ends earlier.
 */
function oneMachineS(jobs: readonly Piece[]): number {
  const waiting = jobs.map((job) => ({ ...job })).sort((a, b) => a.headS - b.headS);
  const open: Piece[] = [];
  let [now, end, at] = [0, 0, 0];
  while (at < waiting.length || open.length > 0) {
    if (open.length === 0) now = Math.max(now, waiting[at]!.headS);
    while (at < waiting.length && waiting[at]!.headS <= now) open.push(waiting[at++]!);
    open.sort((a, b) => b.tailS - a.tailS);
    const job = open[0]!;
    const until = Math.min(now + job.seconds, waiting[at]?.headS ?? FOREVER);
    job.seconds -= until - now;
    now = until;
    if (job.seconds <= 1e-9) {
      open.shift();
      end = Math.max(end, now + job.tailS);
    }
  }
  return end;
}

/**
 * So many alike: each has a first job and a last one, so that none begins before the next smallest head, and none ends
 * before the next smallest tail; between them all work cannot be shared better than evenly (Carlier 1987, from memory).
 */
function manyMachinesS(jobs: readonly Piece[], machines: number): number {
  let most = 0;
  const smallest = (values: number[]) =>
    values
      .sort((a, b) => a - b)
      .slice(0, machines)
      .reduce((sum, value) => sum + value, 0);
  for (const from of new Set(jobs.map(({ headS }) => headS))) {
    const later = jobs.filter(({ headS }) => headS >= from);
    for (const tail of new Set(later.map(({ tailS }) => tailS))) {
      const both = later.filter(({ tailS }) => tailS >= tail);
      if (both.length < machines) continue;
      const work = both.reduce((sum, { seconds }) => sum + seconds, 0);
      const ways = smallest(both.map(({ headS }) => headS)) + smallest(both.map(({ tailS }) => tailS));
      most = Math.max(most, (work + ways) / machines);
    }
  }
  return most;
}

/** When so much time has passed of those in which somebody is there. */
function insideS(seconds: number, windows: Shop['windows']): number {
  let left = seconds;
  for (const { fromS, toS } of [...(windows ?? [])].sort((a, b) => a.fromS - b.fromS)) {
    if (left <= toS - fromS) return fromS + left;
    left -= toS - fromS;
  }
  return left;
}

/** Nothing ends while nobody is there: a time between two evenings is the beginning of the next. */
function nextInside(seconds: number, windows: Shop['windows']): number {
  const sorted = [...(windows ?? [])].sort((a, b) => a.fromS - b.fromS);
  const later = sorted.find(({ toS }) => seconds <= toS);
  return later ? Math.max(seconds, later.fromS) : seconds;
}

/**
 * A time before which no evening ends, whatever the order: the longest way through the work, what hands there are, each
 * tool by itself, and over several evenings the hours in which somebody is there.
 * @example lowerBoundS(evening, alone) // 6900
 */
export function lowerBoundS(tasks: readonly Task[], shop: Shop): number {
  const around = headsAndTails(tasks);
  const piece = (task: Task): Piece => ({ ...around.get(task.id)!, seconds: task.seconds });
  // A tool is held from its lead on.
  const held = (task: Task): Piece => {
    const { headS, tailS } = around.get(task.id)!;
    const leadS = task.leadS ?? 0;
    return { headS: headS - leadS, seconds: leadS + task.seconds, tailS };
  };
  const bound = (own: readonly Piece[], machines: number) =>
    machines === 1 ? oneMachineS(own) : manyMachinesS(own, machines);
  const hands = tasks.filter((task) => task.hands);
  // What is longer than any evening goes over its end: then the hours say nothing.
  const fits = tasks.every(({ seconds, leadS = 0 }) => seconds + leadS <= longestWindow(shop.windows));
  const handsS = hands.reduce((sum, { seconds }) => sum + seconds, 0);
  const longest = Math.max(0, ...tasks.map(piece).map(({ headS, seconds, tailS }) => headS + seconds + tailS));
  const tools = new Set(tasks.flatMap(({ holds }) => holds));
  const bounds = [
    longest,
    shop.people.length > 0 ? bound(hands.map(piece), shop.people.length) : 0,
    shop.windows?.length && fits && shop.people.length > 0 ? insideS(handsS / shop.people.length, shop.windows) : 0,
    ...[...tools].map((tool) =>
      bound(tasks.filter(({ holds }) => holds.includes(tool)).map(held), shop.tools?.[tool] ?? 1),
    ),
  ];
  const boundS = Math.max(...bounds);
  return fits ? nextInside(boundS, shop.windows) : boundS;
}

/** When a work must be done, s from the beginning; and what is late counts more than any end. */
export type Due = Readonly<Record<string, number>>;
const LATE_WEIGHT = 20;
/** Of two evenings that end alike the one is better in which most is done early: what is done is done. */
const EARLY_WEIGHT = 0.02;
/** So many tries from one place. */
const AGAIN = 400;
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

export interface SearchOptions {
  due?: Due;
  pinned?: Readonly<Record<string, number>>;
  /** Orders that are tried; more is better and slower. */
  tries?: number;
  seed?: number;
  /** Told how far it is, 0 to 1, with the best so far. */
  tell?: (share: number, best: Schedule) => void;
}

/**
 * The evening in the best order found: by the longest way first, by due day, as they come, and then by moving tasks in
 * the best of them. Reproducible by its seed.
 * @throws QuantityError as {@link place}
 * @example schedule(evening, alone).endS // 6900
 */
export function schedule(tasks: readonly Task[], shop: Shop, options: SearchOptions = {}): Schedule {
  const { due = {}, pinned = {}, tries = 3000, seed = 1, tell } = options;
  inRange('tries', tries, '', 0, 1e6);
  const boundS = lowerBoundS(tasks, shop);
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
  const asSchedule = ({ placed }: { placed: Placed[] }): Schedule => ({
    placed,
    endS: Math.max(0, ...placed.map(({ endS }) => endS)),
    boundS,
  });
  // The order in which they begin: there a move of a few places changes what is next to each other in time.
  const asPlaced = (placed: readonly Placed[]) =>
    [...placed].sort((a, b) => a.startS - b.startS).map(({ taskId }) => taskId);
  const proved = () => asSchedule(best).endS <= NEAR * boundS + 1;
  // Where no order ends earlier, it is looked for a while longer whether more is done early.
  for (let at = 0; at < tries && tasks.length > 1 && !(at > tries / 4 && proved()); at++) {
    // Now and then it goes back to the best, so that it does not stray.
    if (at % AGAIN === AGAIN - 1) now = best;
    const order = [...now.order];
    const moves = 1 + Math.floor(random() * 3);
    for (let move = 0; move < moves; move++) {
      const from = Math.floor(random() * order.length);
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
    if (cost < best.cost) best = now;
    if (tell && at % 50 === 49) tell((at + 1) / tries, asSchedule(best));
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
