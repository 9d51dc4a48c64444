import { expose } from 'comlink';
import {
  chances,
  planTonight,
  spreadOf,
  type CastsTonight,
  type Chances,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';

const TRIES = 9000;
/** Evenings that are played. */
const EVENINGS = 10_000;
/** Ends in order, thinned: a page draws no more of them. */
const SHOWN = 200;

const thinned = (sorted: readonly number[]): number[] =>
  Array.from({ length: SHOWN }, (_, at) => sorted[Math.round((at * (sorted.length - 1)) / (SHOWN - 1))]!);

/** The search for a better evening, and how it may turn out. */
const refiner = {
  better(
    asked: TonightAsked,
    wishes: TonightWishes,
    casts: CastsTonight,
    tell: (share: number, best: TonightPlan) => void,
  ): TonightPlan {
    return planTonight(asked, wishes, casts, { tries: TRIES, tell: (share, best) => void tell(share, best) });
  },
  chances({ tasks, schedule, windows, casts }: TonightPlan): Chances {
    const { endsS, worksS, doubts } = chances(tasks, schedule.placed, {
      ...{ evenings: EVENINGS, windows },
      spread: spreadOf(casts),
    });
    return {
      endsS: thinned(endsS),
      worksS: Object.fromEntries(Object.entries(worksS).map(([work, ends]) => [work, thinned(ends)])),
      doubts,
    };
  },
};
export type Refiner = typeof refiner;

expose(refiner);
