import type { CostStack } from '../plan/types.ts';

/** Finished heads of one product that went to one customer. */
export interface Sale {
  productId: string;
  /** For whom; empty where nobody was named. */
  party: string;
  /** Sold, less what came back. */
  heads: number;
  /** What was asked for them, less what was paid back, minor units. */
  minor: number;
  /** What went off the shelves for these heads and for those that were given. */
  costMinor: number;
  /** Hours at the house's rate, heat and wear of tools that they took, as their tickets came to. */
  workMinor: number;
  /** Given away or kept: they cost, and bring nothing. */
  givenHeads: number;
  /** Of all of them those whose minutes are by the ways, because nobody timed them; left out: none. */
  notTimedHeads?: number;
}

/**
 * What one head took beside its parts: hands, heat and wear, minor units.
 * @example workPerHead({ work: 40, energy: 1, wear: 2 }) // 43
 */
export const workPerHead = ({ work, energy, wear }: Pick<CostStack, 'work' | 'energy' | 'wear'>): number =>
  work + energy + wear;

export interface SalesOf extends Required<Omit<Sale, 'productId' | 'party'>> {
  key: string;
  /** What is left over what they took, and as a part of what came in; null where nothing came in. */
  leftMinor: number;
  leftShare: number | null;
}

/**
 * Sales put together by product, by customer, or by anything else; what brought most first.
 * @example salesBy([{ productId: 'a', party: 'Stall', heads: 6, minor: 900, costMinor: 300, workMinor: 100,
 *   givenHeads: 0 }], ({ party }) => party)[0].leftMinor // 500
 */
export function salesBy(sales: readonly Sale[], keyOf: (sale: Sale) => string): SalesOf[] {
  const groups = new Map<string, SalesOf>();
  for (const sale of sales) {
    const key = keyOf(sale);
    const own = groups.get(key) ?? {
      key,
      heads: 0,
      minor: 0,
      costMinor: 0,
      workMinor: 0,
      givenHeads: 0,
      notTimedHeads: 0,
      leftMinor: 0,
      leftShare: null,
    };
    own.heads += sale.heads;
    own.minor += sale.minor;
    own.costMinor += sale.costMinor;
    own.workMinor += sale.workMinor;
    own.givenHeads += sale.givenHeads;
    own.notTimedHeads += sale.notTimedHeads ?? 0;
    groups.set(key, own);
  }
  return [...groups.values()]
    .map((own) => {
      const leftMinor = own.minor - own.costMinor - own.workMinor;
      return { ...own, leftMinor, leftShare: own.minor > 0 ? leftMinor / own.minor : null };
    })
    .sort((a, b) => b.minor - a.minor || b.heads - a.heads || a.key.localeCompare(b.key));
}
