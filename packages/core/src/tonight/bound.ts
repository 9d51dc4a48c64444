import { changesOf, type Changes } from './changes.ts';
import { FOREVER, longestWindow, type MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';

/** What must pass before a task can begin, and after it has ended, by the longest way, s. */
interface HeadAndTail {
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

/** The order of Schrage: of what can begin, the largest tail first, and no job is broken off; each with its end. */
function unbrokenInOrder(jobs: readonly Piece[]): { job: Piece; endS: number }[] {
  const left = new Set(jobs);
  const done: { job: Piece; endS: number }[] = [];
  let now = 0;
  while (left.size > 0) {
    let next: Piece | null = null;
    let soonest = FOREVER;
    for (const job of left) {
      soonest = Math.min(soonest, job.headS);
      if (job.headS > now) continue;
      if (!next || job.tailS > next.tailS || (job.tailS === next.tailS && job.seconds > next.seconds)) next = job;
    }
    if (!next) {
      now = soonest;
      continue;
    }
    left.delete(next);
    now += next.seconds;
    done.push({ job: next, endS: now });
  }
  return done;
}

/** So many cases are looked at before what is proved by then is taken. */
const CASES = 80;

/**
 * One machine, and no job is broken off: the end of the best order, or what is proved of it after {@link CASES}. Where
 * the order of Schrage is not the best, one job of it comes before all that follow it on the longest way, or after all
 * of them (Carlier 1982).
 */
function unbrokenS(jobs: readonly Piece[]): number {
  if (jobs.length === 0) return 0;
  let best = Infinity;
  const open = [{ jobs, leastS: oneMachineS(jobs) }];
  for (let seen = 0; open.length > 0; seen++) {
    let at = 0;
    open.forEach(({ leastS }, nth) => leastS < open[at]!.leastS && (at = nth));
    const { jobs: own, leastS } = open[at]!;
    if (leastS >= best - 1e-6 || seen === CASES) return Math.min(best, leastS);
    open.splice(at, 1);
    const order = unbrokenInOrder(own);
    const endOf = ({ job, endS }: (typeof order)[number]) => endS + job.tailS;
    const endS = Math.max(...order.map(endOf));
    best = Math.min(best, endS);
    const last = order.findLastIndex((each) => endOf(each) >= endS - 1e-9);
    // The longest way begins where the machine last waited.
    let first = last;
    while (first > 0 && order[first - 1]!.endS >= order[first]!.endS - order[first]!.job.seconds - 1e-9) first--;
    let before = last - 1;
    while (before >= first && order[before]!.job.tailS >= order[last]!.job.tailS) before--;
    if (before < first) continue;
    const { job } = order[before]!;
    const rest = order.slice(before + 1, last + 1).map((each) => each.job);
    const restS = rest.reduce((sum, { seconds }) => sum + seconds, 0);
    const least = (of: (each: Piece) => number) => Math.min(...rest.map(of));
    const changed = [
      { ...job, tailS: Math.max(job.tailS, restS + least(({ tailS }) => tailS)) },
      { ...job, headS: Math.max(job.headS, least(({ headS }) => headS) + restS) },
    ];
    for (const other of changed) {
      const now = own.map((each) => (each === job ? other : each));
      const nowS = Math.max(leastS, oneMachineS(now));
      if (nowS < best) open.push({ jobs: now, leastS: nowS });
    }
  }
  return best;
}

/** So many beginnings of an order of dips are looked at before what is proved by then is taken. */
const BEGINNINGS = 600;

interface Dip extends HeadAndTail {
  /** Without what its cups take, and the least that these take. */
  seconds: number;
  leastS: number;
  set: number;
}

/**
 * One gun, whose cups are changed between dips: the end of the best order, or what is proved of it after so many looks.
 * The beginning that could end soonest is gone on from first (best first; Hart, Nilsson and Raphael 1968).
 */
function dippedS(dips: readonly Dip[], { first, between }: Pick<Changes, 'first' | 'between'>, looks: number): number {
  interface Beginning {
    left: readonly Dip[];
    set: number;
    nowS: number;
    endS: number;
    leastS: number;
  }
  const withCups = (dip: Dip, nowS: number) => ({
    headS: Math.max(dip.headS, nowS),
    seconds: dip.seconds + dip.leastS,
    tailS: dip.tailS,
  });
  const from = (left: readonly Dip[], set: number, nowS: number, endS: number): Beginning => {
    return { left, set, nowS, endS, leastS: Math.max(endS, oneMachineS(left.map((dip) => withCups(dip, nowS)))) };
  };
  const open = [from(dips, -1, 0, 0)];
  let seen = 0;
  for (;;) {
    let at = 0;
    open.forEach(({ leastS }, nth) => leastS < open[at]!.leastS && (at = nth));
    const { left, set, nowS, endS, leastS } = open[at]!;
    if (left.length === 0 || seen >= looks) return leastS;
    open.splice(at, 1);
    seen += left.length;
    for (const dip of left) {
      const changeS = set < 0 ? first[dip.set]! : between[set]![dip.set]!;
      const doneS = Math.max(nowS, dip.headS) + changeS + dip.seconds;
      const rest = left.filter((other) => other !== dip);
      open.push(from(rest, dip.set, doneS, Math.max(endS, doneS + dip.tailS)));
    }
  }
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
function insideS(seconds: number, windows: MeansOfEvening['windows']): number {
  let left = seconds;
  for (const { fromS, toS } of [...(windows ?? [])].sort((a, b) => a.fromS - b.fromS)) {
    if (left <= toS - fromS) return fromS + left;
    left -= toS - fromS;
  }
  return left;
}

/** Nothing ends while nobody is there: a time between two evenings is the beginning of the next. */
function nextInside(seconds: number, windows: MeansOfEvening['windows']): number {
  const sorted = [...(windows ?? [])].sort((a, b) => a.fromS - b.fromS);
  const later = sorted.find(({ toS }) => seconds <= toS);
  return later ? Math.max(seconds, later.fromS) : seconds;
}

/**
 * A time before which no evening ends, whatever the order: the longest way through the work, what hands there are, each
 * tool by itself with the least that its cups take, and over several evenings the hours in which somebody is there.
 * @param looks how long it is looked for what one gun takes; fewer are quicker, and prove less
 * @example lowerBoundS(evening, alone) // 6900
 */
export function lowerBoundS(planned: readonly Task[], shop: MeansOfEvening, looks = BEGINNINGS): number {
  const { setOf, leastS, leastTourS, first, between } = changesOf(planned);
  const tasks = planned.map((task, at) => ({ ...task, seconds: task.seconds + leastS[at]! }));
  const around = headsAndTails(tasks);
  const piece = (task: Task): Piece => ({ ...around.get(task.id)!, seconds: task.seconds });
  // A tool is held from its lead on.
  const held = (task: Task): Piece => {
    const { headS, tailS } = around.get(task.id)!;
    const leadS = task.leadS ?? 0;
    return { headS: headS - leadS, seconds: leadS + task.seconds, tailS };
  };
  const bound = (own: readonly Piece[], machines: number) =>
    machines === 1 ? unbrokenS(own) : manyMachinesS(own, machines);
  const hands = tasks.filter((task) => task.hands);
  // What is longer than any evening goes over its end: then the hours say nothing.
  const fits = tasks.every(({ seconds, leadS = 0 }) => seconds + leadS <= longestWindow(shop.windows));
  // At one gun all sets of cups come after one another: the shortest way through them is more than each by itself.
  const dipped = tasks.filter((_, at) => setOf[at]! >= 0);
  const oneGun = dipped.length > 0 && dipped.every(({ holds }) => (shop.tools?.[holds[0] ?? ''] ?? 1) === 1);
  const moreS = oneGun ? Math.max(0, leastTourS - leastS.reduce((sum, each) => sum + each, 0)) : 0;
  const dips = planned.flatMap(({ id, seconds }, at): Dip[] => {
    return setOf[at]! < 0 ? [] : [{ ...around.get(id)!, seconds, leastS: leastS[at]!, set: setOf[at]! }];
  });
  const handsS = moreS + hands.reduce((sum, { seconds }) => sum + seconds, 0);
  const inARow = (own: readonly Task[]) => {
    const pieces = own.map(piece);
    const least = (of: (each: Piece) => number) => Math.min(...pieces.map(of));
    const busyS = pieces.reduce((sum, { seconds }) => sum + seconds, moreS);
    return pieces.length > 0 ? least(({ headS }) => headS) + busyS + least(({ tailS }) => tailS) : 0;
  };
  const longest = Math.max(0, ...tasks.map(piece).map(({ headS, seconds, tailS }) => headS + seconds + tailS));
  const tools = new Set(tasks.flatMap(({ holds }) => holds));
  const bounds = [
    longest,
    oneGun ? inARow(dipped) : 0,
    oneGun ? dippedS(dips, { first, between }, Math.min(looks, BEGINNINGS)) : 0,
    oneGun && shop.people.length === 1 ? inARow(hands) : 0,
    shop.people.length > 0 ? bound(hands.map(piece), shop.people.length) : 0,
    shop.windows?.length && fits && shop.people.length > 0 ? insideS(handsS / shop.people.length, shop.windows) : 0,
    ...[...tools].map((tool) =>
      bound(tasks.filter(({ holds }) => holds.includes(tool)).map(held), shop.tools?.[tool] ?? 1),
    ),
  ];
  const boundS = Math.max(...bounds);
  return fits ? nextInside(boundS, shop.windows) : boundS;
}
