import { inRange } from '../quantity/check.ts';
import { ratesOf, type CureLaw } from './cure-law.ts';

/** A head in the oven: how warm its metal is and how far its powder has come, as a share of a full cure. */
export interface HeadInOven {
  metalC: number;
  share: number;
  /** The oven's walls, of which a head has half of its heat; left out, they are as warm as the air. */
  wallsC?: number;
}

/** Air of the oven over a short stretch, in a straight line. */
interface AirStretch {
  fromC: number;
  toC: number;
  seconds: number;
}

/**
 * Walls are warmed by the element as the air is, a minute behind it; they keep their heat when a door lets the air out.
 * Common practice, no source.
 */
const WALLS_WARM_LAG_S = 60;
const WALLS_COOL_LAG_S = 400;
/** Convection and radiation share a head about equally, see OVEN_W_M2K. */
const WALLS_SHARE = 0.5;

/** Walls at the end of a stretch of air. */
const wallsAfter = (wallsC: number, { fromC, toC, seconds }: AirStretch): number => {
  const airC = (fromC + toC) / 2;
  return airC + (wallsC - airC) * Math.exp(-seconds / (airC > wallsC ? WALLS_WARM_LAG_S : WALLS_COOL_LAG_S));
};

/** What a head is warmed by: half of it air, half walls. */
const seenC = (airC: number, wallsC = airC) => airC + WALLS_SHARE * (wallsC - airC);

/** Below this powder only lies there. */
const DORMANT_C = 40;
/** Small beside every lag of an oven or a head, s. */
export const STEP_S = 5;

/** A probe that says more is not in an oven; what it says is cured through in seconds all the same. */
const HOTTEST_C = 400;

/** An oven's air, C. */
export const COLDEST_C = -20;
export const HOTTEST_AIR_C = 360;

/**
 * What an oven's air may be reckoned at: marks of 60 to 260 °C, and as much as 80 K above or below them.
 * @example airInRange(177) // 177
 * @throws QuantityError outside of that
 */
export const airInRange = (airC: number): number => inRange('airC', airC, 'C', COLDEST_C, HOTTEST_AIR_C);

/**
 * How fast a powder cures at this metal temperature, full cures per second; nothing below 40 °C.
 * @example 1 / cureRate(cureLaw([{ metalC: 177, seconds: 1200 }]), 177) // 1200
 */
export const cureRate = (law: CureLaw, metalC: number): number => paceOf(law)(metalC);

const paceOf = (law: CureLaw) => {
  const rateAt = ratesOf(law);
  return (metalC: number) => (metalC < DORMANT_C ? 0 : rateAt(Math.min(metalC, HOTTEST_C)));
};

/**
 * The one step that every cure is added up of, in a plan, in a running bake and in a past one: the metal follows air
 * and walls by its lag (for a straight line of them in closed form), and dt over the time to full cure is taken by
 * Simpson's rule. Reckoned once for a head and its powder, then taken from stretch to stretch.
 * @param law left out, only the heat is followed
 * @param headLagS 0 for a probe that sits in the metal itself
 * @example bakeStep({ law, headLagS: 150 })({ metalC: 20, share: 0 }, { fromC: 177, toC: 177, seconds: 5 })
 */
export function bakeStep({ law, headLagS }: { law?: CureLaw; headLagS: number }) {
  const paceAt = law && paceOf(law);
  // A stretch starts where the last one ended: its first pace is known by then.
  let last = { metalC: NaN, pace: 0 };
  return ({ metalC, share, wallsC }: HeadInOven, air: AirStretch): HeadInOven => {
    const { seconds } = air;
    const walls = wallsC === undefined || headLagS === 0 ? undefined : wallsAfter(wallsC, air);
    const fromC = seenC(air.fromC, walls === undefined ? undefined : wallsC);
    const toC = seenC(air.toC, walls);
    const slope = (toC - fromC) / seconds;
    const settled = fromC - slope * headLagS;
    const after = (s: number) =>
      headLagS === 0 ? fromC + slope * s : settled + slope * s + (metalC - settled) * Math.exp(-s / headLagS);
    const end: HeadInOven = { metalC: after(seconds), share };
    if (walls !== undefined) end.wallsC = walls;
    if (!paceAt) return end;
    const first = metalC === last.metalC ? last.pace : paceAt(metalC);
    last = { metalC: end.metalC, pace: paceAt(end.metalC) };
    end.share += (seconds / 6) * (first + 4 * paceAt(after(seconds / 2)) + last.pace);
    return end;
  };
}
