import { inRange } from '../quantity/check.ts';

/** What an oven is, as far as its air is asked for. */
export interface OvenHeat {
  /** What the air holds: the mark and the oven's own offset, C. */
  airC: number;
  /** Seconds after which the cold, empty oven has done 63 % of its way; left out or 0, it is hot and stays so. */
  ovenLagS?: number;
  /** Hot before the heads go in: the walls are at their mark, the air was let out by the door. */
  preheated?: boolean;
  /** What full power would come to above the room, K. */
  powerRiseK?: number;
  /** How far the air shoots over what it holds, once it is there, K. */
  overshootK?: number;
  /** Heat capacity of the load over that of the oven, and the lag of its heads. */
  load?: { share: number; lagS: number };
  roomC?: number;
}

/** An oven at a moment: its walls, how far the air is below them, its load, and since when it has been at its mark. */
export interface OvenNow {
  wallsC: number;
  belowK: number;
  loadC: number;
  /** Seconds since the mark was reached; null on the way there. */
  reachedS: number | null;
}

/** Where nobody has looked: a small oven on full power would go on to some 320 C. Common practice, no source. */
export const USUAL_POWER_RISE_K = 300;
/** So far an element that is still glowing carries the air over its mark. Common practice, no source. */
export const USUAL_OVERSHOOT_K = 10;
/** It is highest so long after the mark was reached, s. Common practice, no source. */
const OVERSHOOT_PEAK_S = 75;
/** With the door open the air falls this fast, and to this share of the way to the room. Common practice, no source. */
const DOOR_LAG_S = 15;
const DOOR_SHARE = 0.6;
/** Walls stay hot: after the door the air is back in this share of the oven's lag. Common practice, no source. */
const RECOVERY_SHARE = 0.25;
/** Loading a hot oven takes so long, s. Common practice, no source. */
const LOADING_S = 20;
const DONE_BY_LAG = 1 - Math.exp(-1);
/** An oven that cannot get there on full power gets there all the same, slowly: it is wound up by hand. */
const LEAST_SPARE_K = 10;

const ROOM_C = 20;

/** Full power: what it would come to above the room, and its own time constant, from the lag of a cold oven. */
function fullPower({ airC, ovenLagS = 0, powerRiseK = USUAL_POWER_RISE_K, roomC = ROOM_C }: OvenHeat) {
  const wayK = Math.max(0, airC - roomC);
  const riseK = Math.max(powerRiseK, wayK + LEAST_SPARE_K);
  const tauS = wayK > 0 ? -ovenLagS / Math.log1p((-DONE_BY_LAG * wayK) / riseK) : ovenLagS;
  return { riseK, tauS };
}

/** A cold oven is timed to this, C: the mark that most powders name. */
const TIMED_TO_C = 177;

/**
 * Seconds that a cold, empty oven takes to 177 C, from its lag; how its lag is found from what a maker has timed is
 * {@link lagOfHeatUpS}.
 * @example heatUpS(180) // 332
 */
export function heatUpS(ovenLagS: number, powerRiseK = USUAL_POWER_RISE_K): number {
  const { riseK, tauS } = fullPower({ airC: TIMED_TO_C, ovenLagS, powerRiseK });
  return -tauS * Math.log1p(-(TIMED_TO_C - ROOM_C) / riseK);
}

/**
 * Lag of an oven that comes from the room to 177 C in so many seconds.
 * @example lagOfHeatUpS(332) // 180
 */
export const lagOfHeatUpS = (seconds: number): number => seconds / heatUpS(1);

/** What the oven holds, so long after its mark was reached: a little over it at first. */
const levelC = ({ airC, overshootK = 0 }: OvenHeat, reachedS: number): number =>
  airC + (overshootK * reachedS * Math.exp(1 - reachedS / OVERSHOOT_PEAK_S)) / OVERSHOOT_PEAK_S;

/**
 * The oven as the door is shut: cold, or hot with the air that loading let out.
 * @example ovenAtStart({ airC: 177 }).wallsC // 177
 */
export function ovenAtStart(heat: OvenHeat): OvenNow {
  const { airC, ovenLagS = 0, preheated = false, roomC = ROOM_C } = heat;
  if (ovenLagS === 0) return { wallsC: airC, belowK: 0, loadC: roomC, reachedS: Infinity };
  inRange('ovenLagS', ovenLagS, 's', 1, 7200);
  if (!preheated) return { wallsC: roomC, belowK: 0, loadC: roomC, reachedS: null };
  const belowK = DOOR_SHARE * (airC - roomC) * -Math.expm1(-LOADING_S / DOOR_LAG_S);
  return { wallsC: airC, belowK, loadC: roomC, reachedS: Infinity };
}

/**
 * An oven a few seconds later: at full power to its mark, a little over it, then holding it as far as full power
 * suffices for what the load takes. A door lets the air out, not the walls' heat.
 * @example ovenAfter({ airC: 177, headLagS: 120, ovenLagS: 200 }, { wallsC: 177, belowK: 0, loadC: 20,
 *   reachedS: 0 }, 120, false).loadC // 20
 */
export function ovenAfter(heat: OvenHeat, now: OvenNow, seconds: number, doorOpen: boolean): OvenNow {
  const { ovenLagS = 0, load, roomC = ROOM_C } = heat;
  if (ovenLagS === 0) return now;
  const { riseK, tauS } = fullPower(heat);
  const airC = now.wallsC - now.belowK;
  // What the load takes, at most until it is as warm as the oven.
  const takenK = load
    ? ((load.share * (airC - now.loadC)) / (1 + load.share)) * -Math.expm1((-seconds * (1 + load.share)) / load.lagS)
    : 0;
  const atFullPower = now.wallsC + (roomC + riseK - now.wallsC) * -Math.expm1(-seconds / tauS) - takenK;
  const reachedS = now.reachedS === null ? null : now.reachedS + seconds;
  const holds = reachedS === null || reachedS === Infinity ? heat.airC : levelC(heat, reachedS);
  const wallsC = Math.min(holds, atFullPower);
  const toBelow = doorOpen ? DOOR_SHARE * (wallsC - roomC) : 0;
  const lagS = doorOpen ? DOOR_LAG_S : ovenLagS * RECOVERY_SHARE;
  const belowK = toBelow + (now.belowK - toBelow) * Math.exp(-seconds / lagS);
  const loadC = load ? airC + (now.loadC - airC) * Math.exp(-seconds / load.lagS) : now.loadC;
  return { wallsC, belowK, loadC, reachedS: reachedS ?? (atFullPower >= heat.airC ? 0 : null) };
}

/**
 * Air of the oven at a moment.
 * @example Math.round(ovenAirC(ovenAtStart({ airC: 177, preheated: true }))) // 177
 */
export const ovenAirC = ({ wallsC, belowK }: OvenNow): number => wallsC - belowK;

/**
 * Heat capacity of an oven, from the power on its plate: what full power does to it, J/K.
 * @example ovenHeatJK(1400, { airC: 177, ovenLagS: 200, powerRiseK: 300 }) // 2324
 */
export function ovenHeatJK(powerW: number, heat: Pick<OvenHeat, 'airC' | 'ovenLagS' | 'powerRiseK'>): number {
  const { riseK, tauS } = fullPower(heat);
  return (inRange('powerW', powerW, 'W', 10, 50_000) * tauS) / riseK;
}
