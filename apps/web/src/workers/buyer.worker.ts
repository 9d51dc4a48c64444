import { expose } from 'comlink';
import loadHighs from 'highs';
import program from 'highs/runtime?url';
import {
  castsOfTonight,
  changedCosts,
  costAt,
  mostFromHere,
  cheapestCover,
  needsTonight,
  smallestOrder,
  solveWith,
  type Lacking,
  type Makeable,
  type Offer,
  type PlanInput,
  type PriceLine,
  type Supplier,
  type TonightAsked,
  type TonightWishes,
} from '@schmelz/core';

const loaded = loadHighs({ locateFile: () => program });
/** The solver stops after that, s, with the best it has and what it has proved. */
const LIMIT_S = 3;

/** What all open work takes off the shelves, where to buy what is short for the least money, what can be made of what
 * is there, and what a head costs as its molds are chosen. */
const buyer = {
  async needs(asked: TonightAsked) {
    const solve = solveWith(await loaded, { limitS: LIMIT_S });
    const wishes: TonightWishes = { evenings: [], people: [], guns: 1, atOnce: 1, leftOut: [], pinned: {} };
    // Hooks and lead that are short are bought: they limit nothing here.
    const plenty = { ...asked, hooksHere: {}, leadHereKg: MANY_KG };
    return needsTonight(plenty, wishes, castsOfTonight(plenty, wishes, solve));
  },
  async make(products: Makeable[], here: Record<string, number>) {
    return mostFromHere(products, here, solveWith(await loaded, { limitS: LIMIT_S }));
  },
  async costs(input: PlanInput, offers: Offer[]) {
    return changedCosts(input, offers, solveWith(await loaded, { limitS: LIMIT_S }));
  },
  /** The smallest order of the first line that leaves a margin at a price. */
  async least(input: PlanInput, of: { priceMinor: number; margin: number; lines: PriceLine[] }) {
    const solve = solveWith(await loaded, { limitS: LIMIT_S });
    return smallestOrder({ ...of, costAt: (heads) => costAt(input, heads, solve) });
  },
  async buy(lacking: Lacking[], offers: Offer[], suppliers: Supplier[]) {
    return cheapestCover(lacking, offers, suppliers, solveWith(await loaded, { gap: 0, limitS: LIMIT_S }));
  },
};
const MANY_KG = 1e4;
export type Buyer = typeof buyer;

expose(buyer);
