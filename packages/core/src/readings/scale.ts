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
 * It has stopped moving when all that it said for so long agrees, three readings or more. Common practice, no source: a
 * scale settles in a second or two, and a slow one creeps up the last part of it.
 */
const STILL_MS = 1500;
const ALIKE = 3;
/** The finest step of a bench scale. */
const SCALE_STEP_KG = 1e-5;
/** Below this the pan is empty, or a hook has been left on it. */
const EMPTY_KG = 1e-4;
/** Two readings nearer than this are the same. */
const SAME_KG = 1e-9;

/** Steps that scales count in, the coarsest first, kg. */
const STEPS_KG = [1e-3, 5e-4, 2e-4, 1e-4, 5e-5, 2e-5, SCALE_STEP_KG];

/** The step that a scale counts in: the coarsest of which all of its readings are so many. */
const stepKg = (kilograms: readonly number[]): number =>
  STEPS_KG.find((step) => kilograms.every((kg) => Math.abs(kg - step * Math.round(kg / step)) < SAME_KG)) ??
  SCALE_STEP_KG;

/**
 * What the newest readings of a scale say; null without any. Range: -1 to 100 kg.
 * @example onScale([]) // null
 */
export function onScale(weights: readonly Weight[]): OnScale | null {
  const newest = weights.at(-1);
  if (!newest) return null;
  const kilograms = weights.map((weight) => inRange('weight', weight.kg, 'kg', -1, 100));
  const from = weights.findLastIndex(({ at }) => newest.at - at >= STILL_MS);
  const last = kilograms.slice(Math.max(0, Math.min(from, kilograms.length - ALIKE)));
  const spread = Math.max(...last) - Math.min(...last);
  const empty = newest.kg < EMPTY_KG;
  const long = from >= 0 && last.length >= ALIKE;
  const steady = !empty && long && spread <= 3 * stepKg(kilograms) + SAME_KG;
  return { kg: steady ? last.reduce((sum, kg) => sum + kg, 0) / last.length : newest.kg, steady, empty };
}
