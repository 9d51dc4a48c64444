import { inRange } from '../quantity/check.ts';
import { fullCureS, type CureLaw } from './cure-law.ts';
import { airInRange, bakeStep, STEP_S, type Metal } from './step.ts';

/** Where nobody has said how warm the room is. */
const ROOM_C = 20;

export interface BakeInput {
  law: CureLaw;
  /** Lag of the head behind the oven air, s. */
  headLagS: number;
  /** What the oven's air comes to. */
  airC: number;
  /** Lag of the oven itself from cold; 0 when preheated. */
  ovenLagS?: number;
  fromC?: number;
}

/** Oven air and metal at a time after the door was closed; both lags are first order. */
export function bakeTemperaturesC(input: Omit<BakeInput, 'law'>, seconds: number): { ovenC: number; metalC: number } {
  const fromC = input.fromC ?? ROOM_C;
  const ovenLagS = input.ovenLagS ?? 0;
  const rise = input.airC - fromC;
  const tau = input.headLagS;
  const ovenC = ovenLagS === 0 ? input.airC : input.airC - rise * Math.exp(-seconds / ovenLagS);
  if (ovenLagS === 0) return { ovenC, metalC: input.airC - rise * Math.exp(-seconds / tau) };
  // Two lags in a row; equal lags are nudged apart, the limit is smooth.
  const a = ovenLagS;
  const b = Math.abs(tau - a) < 1e-6 ? tau + 1e-3 : tau;
  const left = (a * Math.exp(-seconds / a) - b * Math.exp(-seconds / b)) / (a - b);
  return { ovenC, metalC: input.airC - rise * left };
}

/** The count of a program starts here: metal this near to the oven's heat cures at about nine tenths of its pace. */
export const WARM_WITHIN_K = 5;

/**
 * Seconds after the door is shut until the metal is within {@link WARM_WITHIN_K} of the oven's heat.
 * @example warmUpS({ airC: 177, headLagS: 120 }) // 413.6
 */
export function warmUpS({ airC, headLagS, ovenLagS = 0, fromC = ROOM_C }: Omit<BakeInput, 'law'>): number {
  const course = { airC, headLagS, ovenLagS, fromC };
  let [low, high] = [0, 20 * (headLagS + ovenLagS)];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (bakeTemperaturesC(course, middle).metalC < airC - WARM_WITHIN_K) low = middle;
    else high = middle;
  }
  return high;
}

/** Longest bake that is looked at, s. */
const LONGEST_S = 8 * 3600;

/** The head of a bake at every step after the door is shut, until `seconds` have passed. */
function* bakeSteps(input: BakeInput, seconds: number): Generator<Metal & { seconds: number }> {
  airInRange(input.airC);
  inRange('headLagS', input.headLagS, 's', 1, 7200);
  const airAt = (s: number) => bakeTemperaturesC(input, s).ovenC;
  const steps = Math.ceil(seconds / STEP_S - 1e-9);
  let metal: Metal = { metalC: input.fromC ?? ROOM_C, share: 0 };
  let fromC = airAt(0);
  for (let i = 1; i <= steps; i++) {
    const at = Math.min(seconds, i * STEP_S);
    const toC = airAt(at);
    metal = bakeStep(input, metal, { fromC, toC, seconds: at - (i - 1) * STEP_S });
    fromC = toC;
    yield { ...metal, seconds: at };
  }
}

/** Share of a full cure reached `seconds` after closing the door: the integral of dt / t_full(T_metal(t)). */
export function cureShare(input: BakeInput, seconds: number): number {
  inRange('bake time', seconds, 's', 0, 86_400);
  let share = 0;
  for (const metal of bakeSteps(input, seconds)) share = metal.share;
  return share;
}

/** From this share on a cure is as good as full: below it heads chip on rock. Common practice, no source. */
export const FULL_ENOUGH = 0.9;

/**
 * Seconds after closing the door until the cure is full; null when it is not full within eight hours.
 * @example timeToFullCureS({ law: cureLaw([{ metalC: 177, seconds: 1200 }]), headLagS: 120, airC: 177 }) // 1500
 */
export function timeToFullCureS(input: BakeInput, withinS = LONGEST_S): number | null {
  // Metal is never hotter than the oven: what takes too long at its heat takes too long.
  if (fullCureS(input.law, Math.max(input.airC, input.fromC ?? ROOM_C)) > withinS) return null;
  let before = { seconds: 0, share: 0 };
  for (const metal of bakeSteps(input, withinS)) {
    if (metal.share >= 1) {
      const part = (1 - before.share) / (metal.share - before.share);
      return before.seconds + part * (metal.seconds - before.seconds);
    }
    before = metal;
  }
  return null;
}
