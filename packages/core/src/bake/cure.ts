import { inRange } from '../quantity/check.ts';
import { fullCureS, type CureLaw } from './cure-law.ts';
import { ovenAfter, ovenAirC, ovenAtStart, type OvenHeat } from './oven-air.ts';
import { airInRange, bakeStep, STEP_S, type Metal } from './step.ts';

/** Where nobody has said how warm the room is. */
const ROOM_C = 20;

export interface BakeInput extends OvenHeat {
  law: CureLaw;
  /** Lag of the head behind the oven air, s. */
  headLagS: number;
}
/** A bake without its powder: what is asked where only heat matters. */
export type BakeHeat = Omit<BakeInput, 'law'>;

/** Oven and head at every step after the door was shut. */
function* bakeSteps(
  input: BakeHeat & { law?: CureLaw },
  seconds: number,
): Generator<Metal & { seconds: number; ovenC: number }> {
  airInRange(input.airC);
  inRange('headLagS', input.headLagS, 's', 1, 7200);
  let oven = ovenAtStart(input);
  let metal: Metal = { metalC: input.roomC ?? ROOM_C, share: 0, wallsC: oven.wallsC };
  const step = bakeStep(input);
  const steps = Math.ceil(seconds / STEP_S - 1e-9);
  for (let i = 1; i <= steps; i++) {
    const at = Math.min(seconds, i * STEP_S);
    const stepS = at - (i - 1) * STEP_S;
    const fromC = ovenAirC(oven);
    oven = ovenAfter(input, oven, stepS, false);
    metal = step(metal, { fromC, toC: ovenAirC(oven), seconds: stepS });
    yield { ...metal, seconds: at, ovenC: ovenAirC(oven) };
  }
}

/** How warm oven and head are at a time after the door was shut. */
export interface BakeTemperatures {
  atS: number;
  ovenC: number;
  metalC: number;
}

/**
 * Oven air and metal at times after the door was shut, in the order of the times: to the next step of five seconds.
 * @example bakeTemperaturesC({ airC: 177, headLagS: 120 }, [0, 600]).map(({ metalC }) => Math.round(metalC))
 *   // [20, 176]
 */
export function bakeTemperaturesC(input: BakeHeat, atS: readonly number[]): BakeTemperatures[] {
  const times = [...atS].sort((a, b) => a - b);
  const lastS = inRange('time in the oven', times.at(-1) ?? 0, 's', 0, 86_400);
  const start = { seconds: 0, ovenC: ovenAirC(ovenAtStart(input)), metalC: input.roomC ?? ROOM_C };
  const found: BakeTemperatures[] = [];
  const reach = ({ seconds, ovenC, metalC }: typeof start) => {
    while (found.length < times.length && times[found.length]! <= seconds) {
      found.push({ atS: times[found.length]!, ovenC, metalC });
    }
  };
  reach(start);
  for (const each of bakeSteps(input, lastS)) reach(each);
  return found;
}

/** The count of a program starts here: metal this near to the oven's heat cures at about nine tenths of its pace. */
export const WARM_WITHIN_K = 5;

/**
 * Seconds after the door is shut until the metal is within {@link WARM_WITHIN_K} of the oven's heat.
 * @example warmUpS({ airC: 177, headLagS: 120, ovenLagS: 0 }) // 413.6
 */
export function warmUpS(input: BakeHeat): number {
  const warmC = input.airC - WARM_WITHIN_K;
  let before = { seconds: 0, metalC: input.roomC ?? ROOM_C };
  if (before.metalC >= warmC) return 0;
  for (const metal of bakeSteps(input, LONGEST_S)) {
    if (metal.metalC >= warmC) {
      const part = (warmC - before.metalC) / (metal.metalC - before.metalC);
      return before.seconds + part * (metal.seconds - before.seconds);
    }
    before = metal;
  }
  return LONGEST_S;
}

/** Longest bake that is looked at, s. */
const LONGEST_S = 8 * 3600;

/**
 * Share of a full cure reached `seconds` after closing the door: the integral of dt / t_full(T_metal(t)).
 * @example cureShare({ law: cureLaw([{ metalC: 177, seconds: 1200 }]), headLagS: 120, airC: 177 }, 1500) // 0.9997
 */
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
  if (fullCureS(input.law, Math.max(input.airC + (input.overshootK ?? 0), input.roomC ?? ROOM_C)) > withinS)
    return null;
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
