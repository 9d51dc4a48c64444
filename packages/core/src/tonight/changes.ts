import { cupsChangeS, EXACT_UP_TO, shortestWay, type CupColour } from '../paint/colour-order.ts';
import type { Task } from './task.ts';

/** What changing the cups takes between the tasks of an evening. */
export interface Changes {
  /** Which set of cups a task wants, by place; -1: none. */
  setOf: readonly number[];
  /** Seconds to set each of them up where nothing stood before. */
  first: readonly number[];
  /** Seconds from the one to the other. */
  between: readonly (readonly number[])[];
  /** No order of all of them takes less at one gun, s. */
  leastTourS: number;
  /** The least that a task's cups take, whatever stood before, by place, s. */
  leastS: readonly number[];
}

const keyOf = (cups: readonly CupColour[]) =>
  cups
    .map(({ id }) => id)
    .sort()
    .join(' ');

/** Of one list of tasks it is asked for thousands of times. */
const known = new WeakMap<readonly Task[], Changes>();

/**
 * Changes of cups between tasks: light before dark is cheap, and the same cups again cost nothing.
 * @example changesOf(evening).leastTourS // 0
 */
export function changesOf(tasks: readonly Task[]): Changes {
  const before = known.get(tasks);
  if (before) return before;
  const sets = new Map<string, readonly CupColour[]>();
  for (const { cups = [] } of tasks) if (cups.length > 0) sets.set(keyOf(cups), cups);
  const keys = [...sets.keys()];
  const all = [...sets.values()];
  const setOf = tasks.map(({ cups = [] }) => (cups.length > 0 ? keys.indexOf(keyOf(cups)) : -1));
  const first = all.map((to) => cupsChangeS([], to));
  const between = all.map((from) => all.map((to) => cupsChangeS(from, to)));
  const tasksOfSet = all.map((_, set) => setOf.filter((each) => each === set).length);
  const leastOf = (set: number) =>
    tasksOfSet[set]! > 1
      ? 0
      : Math.min(first[set]!, ...between.flatMap((row, from) => (from === set ? [] : row[set]!)));
  const changes: Changes = {
    ...{ setOf, first, between, leastTourS: leastTour(first, between) },
    leastS: setOf.map((set) => (set < 0 ? 0 : leastOf(set))),
  };
  known.set(tasks, changes);
  return changes;
}

/**
 * The shortest way to each through any others: it may pay to set up two cups for what wants one.
 * @example throughOthers([[0, 9], [9, 0]]) // [[0, 9], [9, 0]]
 */
export function throughOthers(between: readonly (readonly number[])[]): number[][] {
  const ways = between.map((row) => [...row]);
  ways.forEach((by, k) =>
    ways.forEach((row) => row.forEach((direct, to) => (row[to] = Math.min(direct, row[k]! + by[to]!)))),
  );
  return ways;
}

/** No evening at one gun takes less; where there are too many sets to know, each by the cheapest way to it. */
function leastTour(first: readonly number[], between: readonly (readonly number[])[]): number {
  if (first.length === 0) return 0;
  const ways = throughOthers(between);
  if (first.length <= EXACT_UP_TO) return shortestWay({ first, between: ways }).seconds;
  return first.reduce((sum, own, to) => {
    return sum + Math.min(own, ...ways.flatMap((row, from) => (from === to ? [] : row[to]!)));
  }, 0);
}
