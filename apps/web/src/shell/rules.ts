import type { LocalRule, Product } from '@schmelz/contract';

/** What local rules, as the maker wrote them down, say against a product, a sentence each. */
export function rulesTouched({ nominalMassKg }: Pick<Product, 'nominalMassKg'>, rules: readonly LocalRule[]): string[] {
  return rules.flatMap(({ where, fromKg, belowKg, noLead }) => {
    if (noLead) return [`${where}: no lead at all.`];
    if (fromKg !== null && nominalMassKg >= fromKg - 1e-9) return [`${where}: too heavy for lead there.`];
    if (belowKg !== null && nominalMassKg < belowKg - 1e-9) return [`${where}: too light for lead there.`];
    return [];
  });
}
