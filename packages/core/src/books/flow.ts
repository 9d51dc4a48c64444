import type { LeadBalance } from '../balance/lead-balance.ts';

/** Metal of one pour, with where it went. */
export interface MetalOfPour extends LeadBalance {
  number: number;
  closedAt: number;
}
const KG = ['chargedKg', 'headsKg', 'sprueBackKg', 'rejectsBackKg', 'drossKg', 'heelKg', 'unexplainedKg'] as const;

/**
 * The balance of several pours together. What came back of a heel was charged again: it is counted each time.
 * @example metalFlow([]).chargedKg // 0
 */
export function metalFlow(pours: readonly LeadBalance[]): LeadBalance {
  const sum = (field: (typeof KG)[number]) => pours.reduce((kg, pour) => kg + pour[field], 0);
  return Object.fromEntries(KG.map((field) => [field, sum(field)])) as unknown as LeadBalance;
}
