import { inRange } from '../quantity/check.ts';

/** A jar weighed before and after, and what the heads dipped meanwhile should have kept of it. */
export interface JarWeighing {
  usedKg: number;
  /** Powder on the heads by the coverage formula, kg. */
  onHeadsKg: number;
}
export interface JarEfficiency {
  efficiency: number;
  low: number;
  high: number;
  weighings: number;
}

/** Belief before any weighing: six tenths stay on, and it weighs as much as half a gram of powder. Common practice, no source. */
const PRIOR = { efficiency: 0.6, kg: 0.0005 };
/** A kitchen scale reads the jar to a gram, twice. */
const SCALE_SD_KG = 0.0007;

/**
 * Share of the powder taken that stays on the heads, from weighing the jar: all of it on heads over all of it used, leaning
 * on the usual. Range: uses 0 to 5 kg.
 */
export function jarEfficiency(weighings: readonly JarWeighing[]): JarEfficiency {
  let [used, on] = [PRIOR.kg, PRIOR.kg * PRIOR.efficiency];
  for (const { usedKg, onHeadsKg } of weighings) {
    used += inRange('usedKg', usedKg, 'kg', 0, 5);
    on += inRange('onHeadsKg', onHeadsKg, 'kg', 0, 5);
  }
  const efficiency = Math.min(1, Math.max(0.05, on / used));
  const spread = Math.hypot(0.25 / Math.sqrt(1 + weighings.length), (SCALE_SD_KG * Math.sqrt(weighings.length)) / used);
  return {
    efficiency,
    low: Math.max(0.05, efficiency * (1 - spread)),
    high: Math.min(1, efficiency * (1 + spread)),
    weighings: weighings.length,
  };
}
