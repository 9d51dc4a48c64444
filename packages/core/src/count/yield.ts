import { countInRange, inRange } from '../quantity/check.ts';
import { wilson } from './wilson.ts';

/** A yield and what it rests on. */
export interface YieldEstimate {
  mean: number;
  low: number;
  high: number;
  casts: number;
}

/** What one evening may give: its mean share of good ones, as sure as after so many draws (left out: certain). */
export interface YieldTonight {
  mean: number;
  sure?: number;
}

/** What was cast in one evening, and how much of it was good. */
export interface Evening {
  good: number;
  casts: number;
}

/**
 * What a practised hand gets before there are records: 94 % from 40 casts' worth of belief. Common practice, no source.
 */
const PRIOR_GOOD = 37.6;
const PRIOR_BAD = 2.4;

/**
 * How much evenings differ, as the share of a yield's p(1 - p) that lies between them: 0.03 is 4 % either way about 94
 * %. From memory of nights that went badly; common practice, no source. It counts for as much as six evenings.
 */
export const USUAL_EVENING_SPREAD = 0.03;
const PRIOR_EVENINGS = 6;
/** No two evenings of one hand and one mold are as different as that. */
const MOST_EVENING_SPREAD = 0.5;

/**
 * Yield from records with a beta prior; low and high are the Wilson score interval (90 %) of the prior and the records
 * taken together: of the mean, not of tonight.
 * @example yieldEstimate(90, 100).mean // 0.9114
 */
export function yieldEstimate(good: number, casts: number): YieldEstimate {
  countInRange('casts', casts, 0, 1e9);
  countInRange('good casts', good, 0, casts);
  const n = casts + PRIOR_GOOD + PRIOR_BAD;
  const mean = (good + PRIOR_GOOD) / n;
  return { mean, casts, ...wilson(mean, n) };
}

/**
 * How much evenings differ, from what each gave: the over-dispersion of a beta-binomial by its moments (Kleinman, J.
 * Am. Statist. Assoc. 68 (1973) 46, from memory), leaning on the usual while there are few. Range: 0 to 0.5.
 * @example eveningSpread([]) // 0.03
 */
export function eveningSpread(evenings: readonly Evening[]): number {
  const poured = evenings.filter(({ casts }) => casts > 0);
  const casts = poured.reduce((sum, each) => sum + each.casts, 0);
  const share = poured.reduce((sum, each) => sum + each.good, 0) / casts;
  const between = poured.length - 1;
  if (between < 1 || !(share > 0 && share < 1)) return USUAL_EVENING_SPREAD;
  const squares = poured.reduce((sum, each) => sum + each.casts * (each.good / each.casts - share) ** 2, 0);
  const room = casts - poured.reduce((sum, each) => sum + each.casts ** 2, 0) / casts - between;
  if (room <= 0) return USUAL_EVENING_SPREAD;
  const seen = (squares / (share * (1 - share)) - between) / room;
  const held = (between * seen + PRIOR_EVENINGS * USUAL_EVENING_SPREAD) / (between + PRIOR_EVENINGS);
  return Math.min(MOST_EVENING_SPREAD, Math.max(0, held));
}

/**
 * What tonight may give: the mean is known as well as so many casts tell it, and evenings differ on top of that.
 * @example yieldTonight({ mean: 0.94, casts: 0, spread: 0.03 }).sure // 17.6
 */
export function yieldTonight(of: { mean: number; casts: number; spread?: number }): YieldTonight & { sure: number } {
  const spread = inRange('spread', of.spread ?? USUAL_EVENING_SPREAD, '', 0, MOST_EVENING_SPREAD);
  const ofMean = 1 / (of.casts + PRIOR_GOOD + PRIOR_BAD + 1);
  return { mean: of.mean, sure: 1 / (ofMean + (1 - ofMean) * spread) - 1 };
}
