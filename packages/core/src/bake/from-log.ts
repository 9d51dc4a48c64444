import type { Reading } from '../readings/block-codec.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import { fullCureS, type CureLaw } from './cure.ts';

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

/** Steps inside a stretch between readings, s: small beside every lag. */
const STEP_S = 5;

/**
 * Cure of a bake from a log of its oven: between readings the air runs in a straight line, the head follows it by its
 * lag (exactly, for a ramp), and dt over the time to full cure is summed up by the trapezium.
 * @throws QuantityError with fewer than two readings or times that go back
 */
export function cureFromLog(input: LogCureInput): LogCure {
  const { law, readings, headLagS } = input;
  if (readings.length < 2) throw new QuantityError('readings', readings.length, '', 'two or more');
  inRange('headLagS', headLagS, 's', 0, 7200);
  const gapS = input.gapS ?? 120;
  let metalC = input.fromC ?? Math.min(readings[0]!.celsius, 25);
  if (headLagS === 0) metalC = readings[0]!.celsius;
  const rate = (celsius: number) => (celsius < 40 ? 0 : 1 / fullCureS(law, celsius));
  let [share, certain, gapsS, hottestC] = [0, 0, 0, metalC];
  const points = [{ at: readings[0]!.at, airC: readings[0]!.celsius, metalC, share }];
  for (let i = 1; i < readings.length; i++) {
    const [a, b] = [readings[i - 1]!, readings[i]!];
    const seconds = (b.at - a.at) / 1000;
    if (seconds < 0)
      throw new QuantityError('reading', new Date(b.at).toISOString(), '', 'a time after the one before');
    if (seconds === 0) continue;
    const gap = seconds > gapS;
    if (gap) gapsS += seconds;
    const steps = Math.max(1, Math.ceil(seconds / STEP_S));
    const dt = seconds / steps;
    const slope = (b.celsius - a.celsius) / seconds;
    for (let k = 0; k < steps; k++) {
      const airC = a.celsius + slope * k * dt;
      const before = rate(metalC);
      if (headLagS === 0) metalC = airC + slope * dt;
      else {
        // First-order lag behind a ramp, in closed form.
        const settled = airC - slope * headLagS;
        metalC = settled + slope * dt + (metalC - settled) * Math.exp(-dt / headLagS);
      }
      const more = ((before + rate(metalC)) / 2) * dt;
      share += more;
      if (!gap) certain += more;
      hottestC = Math.max(hottestC, metalC);
    }
    points.push({ at: b.at, airC: b.celsius, metalC, share });
  }
  return { share, certain, gapsS, hottestC, points };
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
