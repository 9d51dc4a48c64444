import { expose } from 'comlink';
import loadHighs from 'highs';
import program from 'highs/runtime?url';
import { castsOfTonight, planTonight, solveWith, type TonightAsked, type TonightWishes } from '@schmelz/core';

/** Fetched with the first question, kept for the others: the solver is some megabytes. */
const loaded = loadHighs({ locateFile: () => program });

/** Orders that are tried for the first answer: it must be there at once. */
const AT_ONCE = 24;
/** The casts' solver stops after that, s, with the best it has and what it has proved. */
const LIMIT_S = 1.5;

/** The first answer: casts by the solver, the evening in the best of a few orders. */
const planner = {
  async plan(asked: TonightAsked, wishes: TonightWishes) {
    const solve = solveWith(await loaded, { limitS: LIMIT_S });
    return planTonight(asked, wishes, castsOfTonight(asked, wishes, solve), { tries: AT_ONCE });
  },
};
export type Planner = typeof planner;

expose(planner);
