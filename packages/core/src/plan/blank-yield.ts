import { yieldEstimate, yieldTonight, type YieldTonight } from '../count/yield.ts';
import type { PlanCavity, PlanMold } from './types.ts';

/** A cavity has been tried after so many casts. Common practice, no source. */
const TRIED = 20;

const sumOf = (cavities: readonly PlanCavity[], of: (each: PlanCavity) => number) =>
  cavities.reduce((sum, each) => sum + of(each), 0);

/**
 * What a cavity gives by its own records.
 * @example cavityYield({ good: 90, casts: 100 }) // 0.9114
 */
export const cavityYield = ({ good, casts }: Pick<PlanCavity, 'good' | 'casts'>): number =>
  yieldEstimate(good, casts).mean;

/**
 * What a cavity gives of a blank: by its own records; where nobody has cast in it, no better than all of the others
 * together, or what is not known would look better than what is.
 * @param all cavities of all molds that cast the blank
 * @example yieldIn({ good: 0, casts: 0 }, [{ good: 70, casts: 100 }]) // 0.7686
 */
export function yieldIn(cavity: PlanCavity, all: readonly PlanCavity[]): number {
  const own = cavityYield(cavity);
  if (cavity.casts >= TRIED) return own;
  const tried = all.filter(({ casts }) => casts >= TRIED);
  const others = { good: sumOf(tried, ({ good }) => good), casts: sumOf(tried, ({ casts }) => casts) };
  return Math.min(own, tried.length > 0 ? cavityYield(others) : 1);
}

/**
 * What these cavities together give of a blank in one evening: the mean of theirs, as sure as their casts tell it and
 * as evenings of their molds differ.
 * @example yieldOfBlank(mold.cavities, [mold], mold.cavities).mean // 0.94
 */
export function yieldOfBlank(
  cavities: readonly PlanCavity[],
  molds: readonly Pick<PlanMold, 'eveningSpread'>[],
  all: readonly PlanCavity[],
): Required<YieldTonight> {
  const spreads = molds.flatMap(({ eveningSpread }) => eveningSpread ?? []);
  return yieldTonight({
    mean: sumOf(cavities, (cavity) => yieldIn(cavity, all)) / cavities.length,
    casts: sumOf(cavities, ({ casts }) => casts),
    ...(spreads.length > 0 ? { spread: Math.max(...spreads) } : {}),
  });
}
