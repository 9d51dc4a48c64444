import { warmUpS, type BakeInput } from './cure.ts';
import type { CountFrom } from './count-from.ts';

/** An oven as it is on record: what its plate or its maker says, and what a run of its own taught. */
export interface OvenRecord {
  lagS: number;
  learned?: { lagS: number; offsetK: number; swingK: number } | null;
}

/** An oven as it is reckoned with. */
export interface KnownOven {
  lagS: number;
  /** What the air holds above its mark, K. */
  offsetK: number;
  /** How far it swings about that, K. */
  swingK: number;
  basis: 'given' | 'fitted';
}

/** A thermostat swings about so far where nobody has looked. Common practice, no source. */
const USUAL_SWING_K = 5;
/** A small oven where none is on record. Common practice, no source. */
const USUAL_LAG_S = 200;

/**
 * What is known of an oven: its own run outranks what was written down.
 * @example knownOven({ lagS: 180 }) // { lagS: 180, offsetK: 0, swingK: 5, basis: 'given' }
 */
export function knownOven(oven: OvenRecord | undefined): KnownOven {
  if (!oven?.learned) {
    return { lagS: oven?.lagS ?? USUAL_LAG_S, offsetK: 0, swingK: USUAL_SWING_K, basis: 'given' };
  }
  const { lagS, offsetK, swingK } = oven.learned;
  return { lagS, offsetK, swingK, basis: 'fitted' };
}

/** A program as the bench says it: a mark, a time, where the time is counted from. */
export interface BakeWay {
  setC: number;
  seconds: number;
  preheated: boolean;
  /** What its minutes are counted from; the shutting of the door where nothing is said. */
  from?: CountFrom;
}

/**
 * What a program makes of the air in this oven: a mark is not what the oven holds, and only a cold oven lags.
 * @example airIn({ ...oven, offsetK: -12 }, { setC: 177, preheated: true }) // { airC: 165, ovenLagS: 0 }
 */
export const airIn = (
  oven: KnownOven,
  { setC, preheated }: Pick<BakeWay, 'setC' | 'preheated'>,
): Required<Pick<BakeInput, 'airC' | 'ovenLagS'>> => ({
  airC: setC + oven.offsetK,
  ovenLagS: preheated ? 0 : oven.lagS,
});

/** Seconds that a program waits for warm metal before its count begins; 0 where it counts from the door. */
export const waitsForMetalS = (way: BakeWay, oven: KnownOven, headLagS: number): number =>
  way.from === 'metal' ? warmUpS({ ...airIn(oven, way), headLagS }) : 0;

/** Seconds from shutting the door to taking out. */
export const doorS = (way: BakeWay, oven: KnownOven, headLagS: number): number =>
  way.seconds + waitsForMetalS(way, oven, headLagS);
