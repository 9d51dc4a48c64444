import type { Alloy } from '../metal/alloy.ts';

/** Of the time in which metal follows its heater: Runge-Kutta of fourth order is stable up to 2.78 of it. */
const SHARE = 0.5;

/**
 * Longest step of the integration, s: a second, and less where a spoonful of metal follows its heater so fast that a
 * second is beyond the stability of Runge-Kutta, where it would stand still for ever or jump about.
 * @example stableStepS(SOFT_LEAD, 6, 0.55) // 1
 */
export function stableStepS(alloy: Alloy, leadKg: number, lossWPerK: number): number {
  const leastJKgK = Math.min(alloy.solidJKgKAt20C, alloy.solidJKgKAtSolidus, alloy.liquidJKgK);
  return Math.min(1, (SHARE * leadKg * leastJKgK) / Math.max(lossWPerK, 1e-9));
}
