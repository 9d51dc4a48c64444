import { expose } from 'comlink';
import loadHighs from 'highs';
import program from 'highs/runtime?url';
import {
  castsOfTonight,
  cheapestCover,
  needsTonight,
  solveWith,
  type Lacking,
  type Offer,
  type Supplier,
  type TonightAsked,
  type TonightWishes,
} from '@schmelz/core';

const loaded = loadHighs({ locateFile: () => program });
/** The solver stops after that, s, with the best it has and what it has proved. */
const LIMIT_S = 3;

/** What all open work takes off the shelves, and where to buy what is short for the least money. */
const buyer = {
  async needs(asked: TonightAsked) {
    const solve = solveWith(await loaded, { limitS: LIMIT_S });
    const wishes: TonightWishes = { evenings: [], people: [], guns: 1, atOnce: 1, leftOut: [], pinned: {} };
    // Hooks and lead that are short are bought: they limit nothing here.
    const plenty = { ...asked, hooksHere: {}, leadHereKg: MANY_KG };
    return needsTonight(plenty, wishes, castsOfTonight(plenty, wishes, solve));
  },
  async buy(lacking: Lacking[], offers: Offer[], suppliers: Supplier[]) {
    return cheapestCover(lacking, offers, suppliers, solveWith(await loaded, { gap: 0, limitS: LIMIT_S }));
  },
};
const MANY_KG = 1e4;
export type Buyer = typeof buyer;

expose(buyer);
