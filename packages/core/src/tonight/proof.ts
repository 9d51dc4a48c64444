import { changesOf, throughOthers } from './changes.ts';
import { hoursOf, type Hours } from './hours.ts';
import { longestWindow, type MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';

/** Closer than this two times are one, s. */
const SAME_S = 1e-6;
/** So often all that is known is gone through again: after that little more follows. */
const ROUNDS = 12;

/** When a task can begin at the earliest and must be over at the latest, s, by its place. */
interface Times {
  begin: number[];
  over: number[];
}

/** Tasks that want one and the same thing, of which there are so many: a tool, or hands. */
interface Shared {
  jobs: readonly number[];
  units: number;
  /** What a task holds it for, s, by its place: with its lead, where it is a tool. */
  heldS: readonly number[];
  leadS: readonly number[];
  /** Between two of them one after the other, s, over what they hold it for anyway. */
  betweenS: (from: number, to: number) => number;
}

interface Link {
  from: number;
  to: number;
  /** From the end of the one to the beginning of the other at least, s. */
  lagS: number;
}

/** An evening as what it must keep to; whatever keeps to this may still be no evening, so that it proves only ends. */
interface Kept {
  seconds: readonly number[];
  leads: readonly number[];
  hours: Hours;
  links: readonly Link[];
  shared: readonly Shared[];
}

/** Something cannot be: no evening ends by then. */
class Contradiction extends Error {}

function keptOf(tasks: readonly Task[], shop: MeansOfEvening): Kept {
  const changes = changesOf(tasks);
  const { setOf, leastS } = changes;
  // Between two dips others may come: those take their own time besides.
  const ways = throughOthers(changes.between);
  const seconds = tasks.map((task, at) => task.seconds + leastS[at]!);
  const placeOf = new Map(tasks.map(({ id }, at) => [id, at]));
  const links = tasks.flatMap(({ after, leadS = 0 }, to) =>
    after.flatMap(({ task, lagS }): Link[] => {
      const from = placeOf.get(task);
      return from === undefined ? [] : [{ from, to, lagS: lagS + leadS }];
    }),
  );
  const none = tasks.map(() => 0);
  const leads = tasks.map(({ leadS = 0 }) => leadS);
  const places = (of: (task: Task) => boolean) => tasks.flatMap((task, at) => (of(task) ? [at] : []));
  const tools = [...new Set(tasks.flatMap(({ holds }) => holds))].map((tool): Shared => {
    const cups = (from: number, to: number) => {
      const [a, b] = [setOf[from]!, setOf[to]!];
      const own = (at: number) => tasks[at]!.holds[0] === tool;
      return a < 0 || b < 0 || !own(from) || !own(to) ? 0 : Math.max(0, ways[a]![b]! - leastS[to]!);
    };
    const jobs = places(({ holds }) => holds.includes(tool));
    const heldS = seconds.map((each, at) => each + leads[at]!);
    return { jobs, units: shop.tools?.[tool] ?? 1, heldS, leadS: leads, betweenS: cups };
  });
  // What is longer than any evening goes over its end, and what nobody is at may end in the night.
  const longestS = longestWindow(shop.windows);
  const mostCupsS = Math.max(0, ...changes.first, ...changes.between.flat());
  const inside = (task: Task, at: number) =>
    (task.hands || task.holds.length > 0) && leads[at]! + task.seconds + (setOf[at]! < 0 ? 0 : mostCupsS) <= longestS;
  const hands: Shared = {
    ...{ jobs: places((task) => task.hands), units: shop.people.length, heldS: seconds, leadS: none },
    betweenS: () => 0,
  };
  const hours = hoursOf(tasks.every(inside) ? shop.windows : undefined);
  return { seconds, leads, hours, links, shared: [...tools, hands].filter(({ jobs, units }) => jobs.length > units) };
}

/** Takes what follows from a link: nothing begins before what it waits for is over. */
function alongLinks({ seconds, links }: Kept, more: readonly Link[], { begin, over }: Times): void {
  for (const { from, to, lagS } of [...links, ...more]) {
    begin[to] = Math.max(begin[to]!, begin[from]! + seconds[from]! + lagS);
    over[from] = Math.min(over[from]!, over[to]! - seconds[to]! - lagS);
  }
}

/** From when on and until when a thing may be held for a task, by its place, in hours in which somebody is there. */
interface Held {
  from: number[];
  until: number[];
}

/** One of each two is first: where the one cannot be, the other is. */
function inPairs({ jobs, heldS, betweenS }: Shared, { from, until }: Held): void {
  const can = (a: number, b: number) => from[a]! + heldS[a]! + betweenS(a, b) + heldS[b]! <= until[b]! + SAME_S;
  const first = (a: number, b: number) => {
    from[b] = Math.max(from[b]!, from[a]! + heldS[a]! + betweenS(a, b));
    until[a] = Math.min(until[a]!, until[b]! - heldS[b]! - betweenS(a, b));
  };
  jobs.forEach((a, nth) => {
    for (const b of jobs.slice(nth + 1)) {
      const [ab, ba] = [can(a, b), can(b, a)];
      if (!ab && !ba) throw new Contradiction();
      if (!ab) first(b, a);
      else if (!ba) first(a, b);
    }
  });
}

/**
 * What must be over by a time fills the one that there is so far that another comes after all of it (edge finding;
 * Carlier and Pinson 1989). Turned round it says the same of what must come before.
 */
function afterAll({ jobs, heldS }: Shared, from: number[], until: readonly number[]): void {
  // What is learned here counts the next time: the order is of what was known.
  const known = [...from];
  const late = [...jobs].sort((a, b) => known[b]! - known[a]!);
  for (const by of new Set(jobs.map((at) => until[at]!))) {
    let [work, filled] = [0, -Infinity];
    const sets: { since: number; work: number; filled: number }[] = [];
    for (const at of late) {
      if (until[at]! > by) continue;
      work += heldS[at]!;
      filled = Math.max(filled, known[at]! + work);
      if (filled > by + SAME_S) throw new Contradiction();
      sets.push({ since: known[at]!, work, filled });
    }
    for (const at of jobs) {
      if (until[at]! <= by) continue;
      for (const set of sets) {
        const endS = Math.min(set.since, known[at]!) + set.work + heldS[at]!;
        if (endS > by + SAME_S) from[at] = Math.max(from[at]!, set.filled);
      }
    }
  }
}

function edges(shared: Shared, { from, until }: Held): void {
  afterAll(shared, from, until);
  const back = until.map((each) => -each);
  afterAll(
    shared,
    back,
    from.map((each) => -each),
  );
  back.forEach((each, at) => (until[at] = -each));
}

/**
 * Between two times no more can be done than so many can do, and each task does at least what it does whether it is
 * begun as early or as late as it can be (energetic reasoning; Erschler and Lopez 1990).
 */
function withinTimes({ jobs, units, heldS }: Shared, { from, until }: Held): void {
  const starts = [...new Set(jobs.flatMap((at) => [from[at]!, until[at]! - heldS[at]!]))];
  const ends = [...new Set(jobs.flatMap((at) => [until[at]!, from[at]! + heldS[at]!]))];
  for (const a of starts) {
    for (const b of ends) {
      if (b <= a + SAME_S) continue;
      let most = units * (b - a);
      const parts = jobs.map((at) => {
        const held = heldS[at]!;
        const early = Math.max(0, Math.min(b, from[at]! + held) - Math.max(a, from[at]!));
        const late = Math.max(0, Math.min(b, until[at]!) - Math.max(a, until[at]! - held));
        most -= Math.min(early, late);
        return { at, early, late };
      });
      if (most < -SAME_S) throw new Contradiction();
      for (const { at, early, late } of parts) {
        const room = most + Math.min(early, late);
        if (early > room + SAME_S) from[at] = Math.max(from[at]!, b - room);
        if (late > room + SAME_S) until[at] = Math.min(until[at]!, a + room);
      }
    }
  }
}

/** What those who want one and the same thing leave each other, in hours in which somebody is there. */
function sharing({ hours }: Kept, shared: Shared, { begin, over }: Times): void {
  const { jobs, units, leadS } = shared;
  const held: Held = {
    from: begin.map((each, at) => hours.passed(each - leadS[at]!)),
    until: over.map((each) => hours.passed(each)),
  };
  const known = { from: [...held.from], until: [...held.until] };
  if (units === 1) {
    inPairs(shared, held);
    edges(shared, held);
  } else withinTimes(shared, held);
  for (const at of jobs) {
    if (held.from[at]! > known.from[at]!) {
      begin[at] = Math.max(begin[at]!, hours.earliest(held.from[at]!) + leadS[at]!);
    }
    if (held.until[at]! < known.until[at]!) over[at] = Math.min(over[at]!, hours.latest(held.until[at]!));
  }
}

/** All that follows, until nothing more does. @throws Contradiction where that cannot be */
function follow(kept: Kept, more: readonly Link[], times: Times): void {
  const { begin, over } = times;
  const { seconds, leads, hours } = kept;
  const tight = () => begin.reduce((sum, each, at) => sum + each - over[at]!, 0);
  for (let round = 0; round < ROUNDS; round++) {
    const before = tight();
    alongLinks(kept, more, times);
    begin.forEach((each, at) => {
      const heldS = leads[at]! + seconds[at]!;
      begin[at] = hours.fitsFrom(each - leads[at]!, heldS) + leads[at]!;
      over[at] = hours.fitsUntil(over[at]!, heldS);
    });
    for (const shared of kept.shared) sharing(kept, shared, times);
    if (begin.some((each, at) => each + seconds[at]! > over[at]! + SAME_S)) throw new Contradiction();
    if (tight() <= before + SAME_S) return;
  }
}

/** Two that want the same one thing and may come in either order, those first of which either leaves least time. */
function openPair({ shared }: Kept, { begin, over }: Times): Link[] | null {
  let least = Infinity;
  let found: Link[] | null = null;
  for (const { jobs, units, heldS, leadS, betweenS } of shared) {
    if (units > 1) continue;
    const leftS = (a: number, b: number) => over[b]! - heldS[b]! - betweenS(a, b) - (begin[a]! - leadS[a]! + heldS[a]!);
    jobs.forEach((a, nth) => {
      for (const b of jobs.slice(nth + 1)) {
        const [ab, ba] = [leftS(a, b), leftS(b, a)];
        // One that is decided already says nothing more.
        if (over[a]! <= begin[b]! - leadS[b]! + SAME_S || over[b]! <= begin[a]! - leadS[a]! + SAME_S) continue;
        if (ab < 0 || ba < 0 || ab + ba >= least) continue;
        least = ab + ba;
        found = [
          { from: a, to: b, lagS: betweenS(a, b) + leadS[b]! },
          { from: b, to: a, lagS: betweenS(b, a) + leadS[a]! },
        ];
      }
    });
  }
  return found;
}

/** Whether it is proved, within so many looks, that no evening ends by a time. */
function isRefuted(kept: Kept, byS: number, looks: number, mayGoOn?: () => boolean): boolean {
  let left = looks;
  const refuted = (more: readonly Link[], times: Times): boolean => {
    if (left-- <= 0 || mayGoOn?.() === false) return false;
    try {
      follow(kept, more, times);
    } catch (error) {
      if (error instanceof Contradiction) return true;
      throw error;
    }
    const again = (): Times => ({ begin: [...times.begin], over: [...times.over] });
    const pair = openPair(kept, times);
    if (pair) return pair.every((link) => refuted([...more, link], again()));
    const halves = inHalves(kept, times);
    return halves !== null && halves.every((half) => refuted(more, half));
  };
  return refuted([], { begin: kept.seconds.map(() => 0), over: kept.seconds.map(() => byS) });
}

/** Of what several can do, the longest task that may still be begun at several times: early, or late. None: null. */
function inHalves({ seconds, shared }: Kept, { begin, over }: Times): Times[] | null {
  const roomS = (at: number) => over[at]! - begin[at]! - seconds[at]!;
  const at = shared
    .filter(({ units }) => units > 1)
    .flatMap(({ jobs }) => jobs)
    .filter((each) => roomS(each) > 60)
    .reduce((most, each) => (most < 0 || seconds[each]! > seconds[most]! ? each : most), -1);
  if (at < 0) return null;
  const middle = begin[at]! + roomS(at) / 2;
  return [
    { begin, over: over.map((each, nth) => (nth === at ? middle + seconds[at]! : each)) },
    { begin: begin.map((each, nth) => (nth === at ? middle : each)), over },
  ];
}

/** Looks at what follows from an end before it is left. */
const LOOKS = 60;
/** So often the time between what is proved and what was found is halved. */
const HALVES = 6;

/**
 * A later time before which no evening ends, where the quick bound leaves doubt: an end is taken for true, what follows
 * from it for people and tools together is gone through, and where it cannot be, none ends by then (destructive bounds;
 * Klein and Scholl 1999). Pins and who cannot do what are left out: they make it only later.
 * @param known what is proved already, and the end of an evening that was found, s; `mayGoOn` is asked before each look
 * @example provedS(evening, alone, { boundS: 6890, endS: 6900 }) // 6899
 */
export function provedS(
  tasks: readonly Task[],
  shop: MeansOfEvening,
  { boundS, endS, looks = LOOKS, mayGoOn }: { boundS: number; endS: number; looks?: number; mayGoOn?: () => boolean },
): number {
  const kept = keptOf(tasks, shop);
  let [proved, open] = [boundS, endS];
  for (let half = 0; half < HALVES && open - proved > 1 && mayGoOn?.() !== false; half++) {
    const byS = (proved + open) / 2;
    if (isRefuted(kept, byS, looks, mayGoOn)) proved = byS;
    else open = byS;
  }
  return proved;
}
