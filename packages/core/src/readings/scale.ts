import { inRange } from '../quantity/check.ts';

export interface Weight {
  /** ms since 1970 */
  at: number;
  kg: number;
}
export interface OnScale {
  kg: number;
  /** It has stopped moving: what is read is what it weighs. */
  steady: boolean;
  /** Nothing lies on it. */
  empty: boolean;
}

/**
 * So many readings in a row must agree, to so much. Common practice, no source: a scale of 0.01 g settles in a second
 * or two.
 */
const ALIKE = 3;
export const SCALE_STEP_KG = 1e-5;
/** Below this the pan is empty, or a hook has been left on it. */
const EMPTY_KG = 1e-4;

/**
 * What the newest readings of a scale say; null without any. Range: -1 to 100 kg.
 * @example onScale([]) // null
 */
export function onScale(weights: readonly Weight[]): OnScale | null {
  const last = weights.slice(-ALIKE);
  const newest = last.at(-1);
  if (!newest) return null;
  const kilograms = last.map((weight) => inRange('weight', weight.kg, 'kg', -1, 100));
  const spread = Math.max(...kilograms) - Math.min(...kilograms);
  const empty = newest.kg < EMPTY_KG;
  const steady = !empty && last.length === ALIKE && spread <= 2 * SCALE_STEP_KG + 1e-9;
  return { kg: steady ? kilograms.reduce((sum, kg) => sum + kg, 0) / ALIKE : newest.kg, steady, empty };
}
