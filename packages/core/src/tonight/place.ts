import { QuantityError } from '../quantity/check.ts';
import { changesOf } from './changes.ts';
import type { Task } from './task.ts';

export interface Person {
  name: string;
  /** Stations that they work at; null: all. */
  can: readonly string[] | null;
}

export interface MeansOfEvening {
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
  /** Of that, changing cups before it begins. */
  changeS: number;
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

/** A tool as it is taken: while somebody is there, over the end of an evening, and by what stands in its cups. */
interface Unit {
  inside: Busy;
  whole: Busy;
  cupsSet: number;
  cupsUntilS: number;
}

/** Later than any evening, s. */
export const FOREVER = 1e9;
/** Nobody is there between the windows; what none of them takes goes on in the last, past its end. */
const away = (windows: MeansOfEvening['windows']): Busy => {
  if (!windows?.length) return [];
  const sorted = [...windows].sort((a, b) => a.fromS - b.fromS);
  const gaps = sorted.slice(1).map(({ fromS }, at) => ({ from: sorted[at]!.toS, to: fromS }));
  return [{ from: -1, to: Math.max(0, sorted[0]!.fromS) }, ...gaps].filter(({ from, to }) => to > from);
};

/**
 * The longest time in which somebody is there, s: a task that fits into none goes over its end.
 * @example longestWindow([{ fromS: 0, toS: 3600 }]) // 3600
 */
export const longestWindow = (windows: MeansOfEvening['windows']) =>
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
  shop: MeansOfEvening,
  order: readonly string[],
  pinned: Readonly<Record<string, number>> = {},
): Placed[] {
  const placeIn = new Map(tasks.map(({ id }, at) => [id, at]));
  const changes = changesOf(tasks);
  const offS = longestWindow(shop.windows);
  const people = shop.people.map(() => away(shop.windows));
  const overtime = shop.people.map((): Busy => []);
  const tools = new Map<string, Unit[]>();
  // What is hot is not left alone.
  const unitsOf = (tool: string) => {
    const unit = (): Unit => ({ inside: away(shop.windows), whole: [], cupsSet: -1, cupsUntilS: 0 });
    const known = tools.get(tool) ?? Array.from({ length: shop.tools?.[tool] ?? 1 }, unit);
    tools.set(tool, known);
    return known;
  };
  const ableTo = ({ station }: Task) =>
    shop.people.flatMap(({ can }, who) => (!can || can.includes(station) ? [who] : []));
  /** The earliest time from `from` on at which somebody and all tools are free for so long. */
  const earliest = (task: Task, from: number, seconds: number, only?: { tool: string; unit: number }): Placed => {
    const { id, hands, holds, leadS = 0 } = task;
    const able = hands ? ableTo(task) : [];
    if (hands && able.length === 0) {
      throw new QuantityError(`who does ${task.name}`, 'nobody', '', `somebody who works at ${task.station}`);
    }
    const heldS = leadS + seconds;
    const over = heldS > offS;
    const busyOf = (who: number) => (over ? overtime[who]! : people[who]!);
    let at = from;
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
          if (only && only.tool === tool && only.unit !== unit) return;
          const free = freeAt(over ? whole : inside, at - leadS, heldS) + leadS;
          if (free < best) [best, units[tool]] = [free, unit];
        });
        to = Math.max(to, best);
      }
      if (to === at) break;
      at = to;
    }
    return { taskId: id, startS: at, endS: at + seconds, changeS: 0, person, tools: units };
  };
  /** At the gun where it is done first: changing its cups is part of it, and what was put there before stays so. */
  const withCups = (task: Task, from: number, set: number): Placed => {
    const [tool] = task.holds as [string];
    const ways = unitsOf(tool).map(({ cupsSet, cupsUntilS }, unit): Placed => {
      const changeS = cupsSet < 0 ? changes.first[set]! : changes.between[cupsSet]![set]!;
      const at = Math.max(from, cupsUntilS);
      return { ...earliest(task, at, changeS + task.seconds, { tool, unit }), changeS };
    });
    const best = ways.reduce((a, b) => (b.endS < a.endS ? b : a));
    const unit = unitsOf(tool)[best.tools[tool]!]!;
    [unit.cupsSet, unit.cupsUntilS] = [set, best.endS];
    return best;
  };
  const placed = new Map<string, Placed>();
  const rank = new Map(order.map((id, at) => [id, at]));
  const waiting = new Map(tasks.map((task) => [task.id, task.after.filter(({ task: id }) => placeIn.has(id)).length]));
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
    const { id, seconds, holds, after, leadS = 0 } = task;
    let from = Math.max(leadS, pinned[id] ?? 0);
    for (const each of after) from = Math.max(from, (placed.get(each.task)?.endS ?? 0) + each.lagS + leadS);
    const set = holds.length > 0 ? changes.setOf[placeIn.get(id)!]! : -1;
    const found = set < 0 ? earliest(task, from, seconds) : withCups(task, from, set);
    const { startS, endS, person } = found;
    if (person !== null) {
      take(people[person]!, startS, endS);
      take(overtime[person]!, startS, endS);
    }
    for (const tool of holds) {
      const { inside, whole } = unitsOf(tool)[found.tools[tool]!]!;
      take(inside, startS - leadS, endS);
      take(whole, startS - leadS, endS);
    }
    placed.set(id, found);
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
