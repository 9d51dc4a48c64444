import { USUAL_STAYS_ON } from './coverage.ts';
import { inRange } from '../quantity/check.ts';

/** A jar weighed before and after, and what the heads dipped meanwhile should have kept of it. */
interface JarWeighing {
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

/** What a jar held when it was weighed last, and what has come and gone since, kg. */
export interface JarMoves {
  lastKg: number;
  receivedKg: number;
  onHeadsKg: number;
}

/** What is in a jar now. */
export interface JarLevel {
  kg: number;
  low: number;
  high: number;
  /** Nothing has come or gone since it was weighed: what is shown is what the scale said. */
  weighed: boolean;
}

/**
 * What a jar holds: its last weighing, what came since, less what lies on heads over the share that stays on. Between
 * weighings an estimate, as wide as that share is known.
 * @example jarLevel({ lastKg: 0.2, receivedKg: 0, onHeadsKg: 0 }, jarEfficiency([])).kg // 0.2
 */
export function jarLevel({ lastKg, receivedKg, onHeadsKg }: JarMoves, stays: JarEfficiency): JarLevel {
  inRange('lastKg', lastKg, 'kg', 0, 1000);
  inRange('onHeadsKg', onHeadsKg, 'kg', 0, 100);
  const left = (share: number, scaleKg: number) => Math.max(0, lastKg + receivedKg - onHeadsKg / share + scaleKg);
  const weighed = receivedKg === 0 && onHeadsKg === 0;
  return {
    kg: left(stays.efficiency, 0),
    low: left(stays.low, -SCALE_SD_KG),
    high: left(stays.high, SCALE_SD_KG),
    weighed,
  };
}

/**
 * Heads that a jar is sure to do: by the least that it may hold.
 * @example headsInJar(0.1, 0.0001) // 1000
 */
export const headsInJar = (leastKg: number, kgPerHead: number): number =>
  Math.floor(inRange('leastKg', leastKg, 'kg', 0, 1000) / inRange('kgPerHead', kgPerHead, 'kg', 1e-9, 1));

/**
 * Belief before any weighing: the usual stays on, and it weighs as much as half a gram of powder. Common practice, no
 * source.
 */
const PRIOR = { efficiency: USUAL_STAYS_ON, kg: 0.0005 };
/** A kitchen scale reads the jar to a gram, twice. */
const SCALE_SD_KG = 0.0007;

/**
 * Share of the powder taken that stays on the heads, from weighing the jar: all of it on heads over all of it used,
 * leaning on the usual. Range: uses 0 to 5 kg.
 * @example jarEfficiency([{ usedKg: 0.1, onHeadsKg: 0.07 }]).efficiency // 0.7
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
