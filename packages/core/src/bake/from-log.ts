import type { Reading } from '../readings/block-codec.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import type { CureLaw } from './cure-law.ts';
import { bakeStep, STEP_S, type HeadInOven } from './step.ts';

interface LogCureInput {
  law: CureLaw;
  readings: readonly Reading[];
  /** The probe hangs in the air: the head follows it with this lag. 0 where the probe sits in a head. */
  headLagS: number;
  fromC?: number;
  /** The oven's walls at the first reading; left out, as warm as its air. */
  wallsFromC?: number;
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
  /** What makes one doubt the log, in words. */
  odd: string[];
  points: { at: number; airC: number; metalC: number; share: number }[];
}

/** Nothing is known of an oven that was silent for so long, s: one step goes over it. */
const SILENT_S = 3600;
/** So many steps a bake is followed in at most; a longer one is followed in longer steps. */
const MOST_STEPS = 40_000;
/** A pause so long is a wrong clock, or two bakes in one log, s. */
const NOT_ONE_BAKE_S = 24 * 3600;
/** So many times over a powder is through, and more of it says nothing. */
const MOST_CURE = 20;

/**
 * Cure of a bake from a log of its oven: between readings the air runs in a straight line, the head follows it step by
 * step. However long the log, the work is bounded: a silence of an hour is one step, and the cure stops where it is
 * full twenty times over.
 * @throws QuantityError with fewer than two readings or times that go back
 * @example cureFromLog({ law, readings: [{ at: 0, celsius: 177 }, { at: 1_200_000, celsius: 177 }],
 *   headLagS: 0 }).share // 1
 */
export function cureFromLog(input: LogCureInput): LogCure {
  const { readings, headLagS } = input;
  if (readings.length < 2) throw new QuantityError('readings', readings.length, '', 'two or more');
  inRange('headLagS', headLagS, 's', 0, 7200);
  const gapS = input.gapS ?? 120;
  const [first] = readings as [Reading];
  const fromC = headLagS === 0 ? first.celsius : (input.fromC ?? Math.min(first.celsius, 25));
  const spans = readings.slice(1).map((reading, i) => (reading.at - readings[i]!.at) / 1000);
  const spokenS = spans.reduce((sum, seconds) => sum + (seconds <= SILENT_S ? Math.max(0, seconds) : 0), 0);
  const stepS = Math.max(STEP_S, spokenS / MOST_STEPS);
  const odd = spans.flatMap((seconds, i) => {
    if (seconds <= NOT_ONE_BAKE_S) return [];
    const days = Math.round(seconds / 86_400);
    return [`Between reading ${i + 1} and the next lie ${days === 1 ? 'a day' : `${days} days`}: is the clock right?`];
  });
  const step = bakeStep(input);
  let metal: HeadInOven = { metalC: fromC, share: 0, wallsC: input.wallsFromC ?? first.celsius };
  let [certain, gapsS, hottestC] = [0, 0, fromC];
  const points = [{ at: first.at, airC: first.celsius, metalC: fromC, share: 0 }];
  for (let i = 1; i < readings.length; i++) {
    const [a, b] = [readings[i - 1]!, readings[i]!];
    const seconds = (b.at - a.at) / 1000;
    if (seconds < 0)
      throw new QuantityError('reading', new Date(b.at).toISOString(), '', 'a time after the one before');
    if (seconds === 0) continue;
    const silent = seconds > SILENT_S;
    const gap = seconds > gapS || silent;
    if (gap) gapsS += seconds;
    const steps = silent ? 1 : Math.max(1, Math.ceil(seconds / stepS));
    const airAt = (k: number) => a.celsius + ((b.celsius - a.celsius) * k) / steps;
    for (let k = 0; k < steps; k++) {
      const before = metal.share;
      metal = step(metal, { fromC: airAt(k), toC: airAt(k + 1), seconds: seconds / steps });
      metal.share = Math.min(MOST_CURE, metal.share);
      if (!gap) certain += metal.share - before;
      hottestC = Math.max(hottestC, metal.metalC);
    }
    points.push({ at: b.at, airC: b.celsius, metalC: metal.metalC, share: metal.share });
  }
  return { share: metal.share, certain, gapsS, hottestC, odd, points };
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

/**
 * What a bake did to the plating of its hooks, from the metal's temperature over time.
 * @example platingDamage([{ at: 0, metalC: 180 }, { at: 60_000, metalC: 180 }], 175) // { flag: 'may have coloured',
 *   overS: 60, overK: 5 }
 */
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
