import { expose } from 'comlink';
import {
  chances,
  planTonight,
  spreadOf,
  type CastsTonight,
  type Chances,
  type KnownWays,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';

/** Orders that are tried at most; fewer where some hundreds in a row bring no gain, or its time is over. */
const TRIES = 9000;
const PATIENCE = 400;
const SEARCHES_FOR_MS = 2500;
/** What is proved of the evening that was found comes after it, as far as it comes by then. */
const PROVES_FOR_MS = 3500;
/** A page need not hear of it more often. */
const TELLS_EVERY_MS = 400;
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
    tell: (share: number, better: TonightPlan | null) => void,
  ): TonightPlan {
    const begun = performance.now();
    let toldAt = begun;
    let better: TonightPlan | null = null;
    return planTonight(asked, wishes, casts, {
      ...{ tries: TRIES, patience: PATIENCE },
      mayGoOn: () => performance.now() - begun < SEARCHES_FOR_MS,
      mayProve: () => performance.now() - begun < PROVES_FOR_MS,
      tell(share, found) {
        better = found ?? better;
        if (performance.now() - toldAt < TELLS_EVERY_MS) return;
        tell(share, better);
        toldAt = performance.now();
        better = null;
      },
    });
  },
  chances({ tasks, schedule, windows, casts }: TonightPlan, ways: KnownWays): Chances {
    const { endsS, worksS, doubts } = chances(tasks, schedule.placed, {
      ...{ evenings: EVENINGS, windows },
      spread: spreadOf(casts, ways),
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
