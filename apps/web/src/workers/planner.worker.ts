import { expose } from 'comlink';
import loadHighs from 'highs';
import program from 'highs/runtime?url';
import {
  castsOfTonight,
  chanceBy,
  chances,
  planTonight,
  solveWith,
  spreadOf,
  type KnownWays,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';

/** Fetched with the first question, kept for the others: the solver is some megabytes. */
const loaded = loadHighs({ locateFile: () => program });

/** Orders that are tried for the first answer: it must be there at once. */
const AT_ONCE = 12;
/** Enough to tell plans from each other to some hundredths. */
const FEW_EVENINGS = 2000;
/** The casts' solver stops after that, s, with the best it has and what it has proved. */
const LIMIT_S = 1.5;

/** The first answer: casts by the solver, the evening in the best of a few orders. */
const planner = {
  /** How sure a plan is to be over by a time, s from its beginning. */
  sure({ tasks, schedule, windows, casts }: TonightPlan, byS: number, ways: KnownWays): number {
    return chanceBy(
      chances(tasks, schedule.placed, { evenings: FEW_EVENINGS, windows, spread: spreadOf(casts, ways) }).endsS,
      byS,
    );
  },
  async plan(asked: TonightAsked, wishes: TonightWishes) {
    const solve = solveWith(await loaded, { limitS: LIMIT_S });
    return planTonight(asked, wishes, castsOfTonight(asked, wishes, solve), { tries: AT_ONCE, quick: true });
  },
};
export type Planner = typeof planner;

expose(planner);
