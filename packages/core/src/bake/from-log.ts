import type { Reading } from '../readings/block-codec.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import type { CureLaw } from './cure-law.ts';
import { bakeStep, STEP_S, type Metal } from './step.ts';

export interface LogCureInput {
  law: CureLaw;
  readings: readonly Reading[];
  /** The probe hangs in the air: the head follows it with this lag. 0 where the probe sits in a head. */
  headLagS: number;
  fromC?: number;
  /** A pause in the readings longer than this is a gap, s. */
  gapS?: number;
}
export interface LogCure {
  /** Gaps bridged in a straight line. */
  share: number;
  /** Gaps counted as nothing: what is certain. */
  certain: number;
  gapsS: number;
  hottestC: number;
  points: { at: number; airC: number; metalC: number; share: number }[];
}

/**
 * Cure of a bake from a log of its oven: between readings the air runs in a straight line, the head follows it step by
 * step.
 * @throws QuantityError with fewer than two readings or times that go back
 */
export function cureFromLog(input: LogCureInput): LogCure {
  const { readings, headLagS } = input;
  if (readings.length < 2) throw new QuantityError('readings', readings.length, '', 'two or more');
  inRange('headLagS', headLagS, 's', 0, 7200);
  const gapS = input.gapS ?? 120;
  const [first] = readings as [Reading];
  const fromC = headLagS === 0 ? first.celsius : (input.fromC ?? Math.min(first.celsius, 25));
  let metal: Metal = { metalC: fromC, share: 0 };
  let [certain, gapsS, hottestC] = [0, 0, fromC];
  const points = [{ at: first.at, airC: first.celsius, ...metal }];
  for (let i = 1; i < readings.length; i++) {
    const [a, b] = [readings[i - 1]!, readings[i]!];
    const seconds = (b.at - a.at) / 1000;
    if (seconds < 0)
      throw new QuantityError('reading', new Date(b.at).toISOString(), '', 'a time after the one before');
    if (seconds === 0) continue;
    const gap = seconds > gapS;
    if (gap) gapsS += seconds;
    const steps = Math.max(1, Math.ceil(seconds / STEP_S));
    const airAt = (k: number) => a.celsius + ((b.celsius - a.celsius) * k) / steps;
    for (let k = 0; k < steps; k++) {
      const before = metal.share;
      metal = bakeStep(input, metal, { fromC: airAt(k), toC: airAt(k + 1), seconds: seconds / steps });
      if (!gap) certain += metal.share - before;
      hottestC = Math.max(hottestC, metal.metalC);
    }
    points.push({ at: b.at, airC: b.celsius, ...metal });
  }
  return { share: metal.share, certain, gapsS, hottestC, points };
}

/** Nothing was over its limit, or none is on record. */
export const NO_DAMAGE: PlatingDamage = { flag: 'none', overS: 0, overK: 0 };

export interface PlatingDamage {
  flag: 'none' | 'may have coloured' | 'browned';
  overS: number;
  overK: number;
}

/** So long above the limit, or so far, and a plating has surely browned. Common practice, no source. */
const BROWN_S = 10 * 60;
const BROWN_K = 15;

/** What a bake did to the plating of its hooks, from the metal's temperature over time. */
export function platingDamage(points: readonly { at: number; metalC: number }[], limitC: number | null): PlatingDamage {
  if (limitC === null) return NO_DAMAGE;
  inRange('limitC', limitC, 'C', 40, 400);
  let [overS, overK] = [0, 0];
  points.forEach(({ at, metalC }, i) => {
    overK = Math.max(overK, metalC - limitC);
    const next = points[i + 1];
    if (next && metalC > limitC && next.metalC > limitC) overS += (next.at - at) / 1000;
  });
  const flag = overK <= 0 ? 'none' : overS > BROWN_S || overK > BROWN_K ? 'browned' : 'may have coloured';
  return { flag, overS, overK: Math.max(0, overK) };
}
