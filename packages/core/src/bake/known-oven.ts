import { warmUpS } from './cure.ts';
import type { CountFrom } from './count-from.ts';
import { ovenHeatJK, USUAL_OVERSHOOT_K, USUAL_POWER_RISE_K, type OvenHeat } from './oven-air.ts';

/** What a run of its own taught of an oven; older runs do not say how it gets to its mark. */
interface LearnedOven {
  lagS: number;
  offsetK: number;
  swingK: number;
  powerRiseK?: number;
  overshootK?: number;
}

/** An oven as it is on record: what its plate or its maker says, and what a run of its own taught. */
export interface OvenRecord {
  lagS: number;
  powerW?: number;
  learned?: LearnedOven | null;
}

/** An oven as it is reckoned with. */
export interface KnownOven {
  /** Seconds after which it has done 63 % of its way from cold. */
  lagS: number;
  /** What the air holds above its mark, K. */
  offsetK: number;
  /** How far it swings about that, K. */
  swingK: number;
  /** What full power would come to above the room, and how far it shoots over at first, K. */
  powerRiseK: number;
  overshootK: number;
  powerW: number;
  basis: 'given' | 'fitted';
}

/** A thermostat swings about so far where nobody has looked. Common practice, no source. */
const USUAL_SWING_K = 5;
/** A small oven where none is on record. Common practice, no source. */
const USUAL_LAG_S = 200;
const USUAL_POWER_W = 1400;

/**
 * What is known of an oven: its own run outranks what was written down.
 * @example knownOven({ lagS: 180 }).lagS // 180
 */
export function knownOven(oven: OvenRecord | undefined): KnownOven {
  const powerW = oven?.powerW ?? USUAL_POWER_W;
  const usual = { powerRiseK: USUAL_POWER_RISE_K, overshootK: USUAL_OVERSHOOT_K, powerW };
  if (!oven?.learned) {
    return { lagS: oven?.lagS ?? USUAL_LAG_S, offsetK: 0, swingK: USUAL_SWING_K, ...usual, basis: 'given' };
  }
  const { lagS, offsetK, swingK, powerRiseK = usual.powerRiseK, overshootK = usual.overshootK } = oven.learned;
  return { lagS, offsetK, swingK, powerRiseK, overshootK, powerW, basis: 'fitted' };
}

/** A program as the bench says it: a mark, a time, where the time is counted from. */
export interface BakeWay {
  setC: number;
  seconds: number;
  preheated: boolean;
  /** What its minutes are counted from; the shutting of the door where nothing is said. */
  from?: CountFrom;
}

/** What hangs in an oven besides the head that is asked for: what it takes to warm it all, and how slow it is. */
export interface OvenLoadHeat {
  heatJK: number;
  lagS: number;
}

/**
 * Several kinds of heads as one load: their heat together, and the lag that most of it has.
 * @example loadHeat([{ heatJK: 2.3, headLagS: 140, count: 88 }]) // { heatJK: 202.4, lagS: 140 }
 */
export function loadHeat(
  heads: readonly { heatJK: number; headLagS: number; count: number }[],
): OvenLoadHeat | undefined {
  const heatJK = heads.reduce((sum, each) => sum + each.count * each.heatJK, 0);
  if (heatJK <= 0) return undefined;
  return { heatJK, lagS: heads.reduce((sum, each) => sum + each.count * each.heatJK * each.headLagS, 0) / heatJK };
}

/**
 * What a program makes of this oven: a mark is not what it holds, a cold one is on its way at full power, a load takes
 * its share of that.
 * @example airIn({ ...knownOven(undefined), offsetK: -12 }, { setC: 177, preheated: true }).airC // 165
 */
export function airIn(
  oven: KnownOven,
  { setC, preheated }: Pick<BakeWay, 'setC' | 'preheated'>,
  load?: OvenLoadHeat,
): OvenHeat & { ovenLagS: number; preheated: boolean } {
  const { lagS: ovenLagS, powerRiseK, overshootK, powerW } = oven;
  const heat = { airC: setC + oven.offsetK, ovenLagS, preheated, powerRiseK, overshootK };
  if (!load || load.heatJK === 0) return heat;
  return { ...heat, load: { share: load.heatJK / ovenHeatJK(powerW, heat), lagS: load.lagS } };
}

/**
 * Seconds that a program waits for warm metal before its count begins; 0 where it counts from the door.
 * @example waitsForMetalS({ setC: 177, seconds: 1200, preheated: true }, knownOven(undefined), 120) // 0
 */
export const waitsForMetalS = (way: BakeWay, oven: KnownOven, headLagS: number, load?: OvenLoadHeat): number =>
  way.from === 'metal' ? warmUpS({ ...airIn(oven, way, load), headLagS }) : 0;

/**
 * Seconds from shutting the door to taking out.
 * @example doorS({ setC: 177, seconds: 1200, preheated: true }, knownOven(undefined), 120) // 1200
 */
export const doorS = (way: BakeWay, oven: KnownOven, headLagS: number, load?: OvenLoadHeat): number =>
  way.seconds + waitsForMetalS(way, oven, headLagS, load);
