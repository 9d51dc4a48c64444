import { inRange } from '../quantity/check.ts';
import { fullCureS, type CureLaw } from './cure-law.ts';
import { ovenAfter, ovenAirC, ovenAtStart, type OvenHeat } from './oven-air.ts';
import { airInRange, bakeStep, STEP_S, type HeadInOven } from './step.ts';

/** Where nobody has said how warm the room is. */
const ROOM_C = 20;

interface BakeInput extends OvenHeat {
  law: CureLaw;
  /** Lag of the head behind the oven air, s. */
  headLagS: number;
}
/** A bake without its powder: what is asked where only heat matters. */
type BakeHeat = Omit<BakeInput, 'law'>;

interface BakeMoment {
  seconds: number;
  ovenC: number;
  metal: HeadInOven;
}

/** Oven and head at every step after the door was shut, until what looks at them has seen enough. */
function alongBake(
  input: BakeHeat & { law?: CureLaw },
  seconds: number,
  enough: (now: BakeMoment, before: BakeMoment) => boolean,
  stepS = STEP_S,
): BakeMoment {
  airInRange(input.airC);
  inRange('headLagS', input.headLagS, 's', 1, 7200);
  let oven = ovenAtStart(input);
  let before: BakeMoment = {
    seconds: 0,
    ovenC: ovenAirC(oven),
    metal: { metalC: input.roomC ?? ROOM_C, share: 0, wallsC: oven.wallsC },
  };
  const step = bakeStep(input);
  const steps = Math.ceil(seconds / stepS - 1e-9);
  for (let i = 1; i <= steps; i++) {
    const at = Math.min(seconds, i * stepS);
    oven = ovenAfter(input, oven, at - before.seconds, false);
    const ovenC = ovenAirC(oven);
    const metal = step(before.metal, { fromC: before.ovenC, toC: ovenC, seconds: at - before.seconds });
    const now = { seconds: at, ovenC, metal };
    if (enough(now, before)) return now;
    before = now;
  }
  return before;
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
  const found: BakeTemperatures[] = [];
  const reach = ({ seconds, ovenC, metal }: BakeMoment) => {
    while (found.length < times.length && times[found.length]! <= seconds) {
      found.push({ atS: times[found.length]!, ovenC, metalC: metal.metalC });
    }
  };
  reach({ seconds: 0, ovenC: ovenAirC(ovenAtStart(input)), metal: { metalC: input.roomC ?? ROOM_C, share: 0 } });
  alongBake(input, lastS, (now) => {
    reach(now);
    return false;
  });
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
  if ((input.roomC ?? ROOM_C) >= warmC) return 0;
  let warmS = LONGEST_S;
  alongBake(input, LONGEST_S, (now, before) => {
    if (now.metal.metalC < warmC) return false;
    const part = (warmC - before.metal.metalC) / (now.metal.metalC - before.metal.metalC);
    warmS = before.seconds + part * (now.seconds - before.seconds);
    return true;
  });
  return warmS;
}

/** Longest bake that is looked at, s. */
const LONGEST_S = 8 * 3600;

/**
 * Share of a full cure reached `seconds` after closing the door: the integral of dt / t_full(T_metal(t)).
 * @param stepS at most so long a step; 20 s change a cure by less than 0.01
 * @example cureShare({ law: cureLaw([{ metalC: 177, seconds: 1200 }]), headLagS: 120, airC: 177 }, 1500) // 0.9997
 */
export function cureShare(input: BakeInput, seconds: number, stepS = STEP_S): number {
  return alongBake(input, inRange('bake time', seconds, 's', 0, 86_400), () => false, stepS).metal.share;
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
  let fullS: number | null = null;
  alongBake(input, withinS, (now, before) => {
    if (now.metal.share < 1) return false;
    const part = (1 - before.metal.share) / (now.metal.share - before.metal.share);
    fullS = before.seconds + part * (now.seconds - before.seconds);
    return true;
  });
  return fullS;
}
