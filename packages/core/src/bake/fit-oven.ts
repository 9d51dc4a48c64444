import { QuantityError } from '../quantity/check.ts';
import { figure, fitted, given, measured, type Figure } from '../quantity/figure.ts';
import { Z_90 } from '../quantity/range.ts';
import type { Reading } from '../readings/block-codec.ts';
import { bakeTemperaturesC } from './cure.ts';
import { USUAL_POWER_RISE_K } from './oven-air.ts';

/** An oven as its own probe showed it: how slow, how far off its mark, how far it swings about that. */
export interface FittedOven {
  /** Seconds after which it had done 63 % of its way. */
  lagS: number;
  lagSdS: number;
  /** What full power would have come to above the room, K. */
  powerRiseK: number;
  /** How far it shot over what it holds, K. */
  overshootK: number;
  /** Mean of the held stretch less the mark. */
  offsetK: number;
  offsetSdK: number;
  /** Half of the way from its lows to its highs. */
  swingK: number;
  /** From high to high; null where it does not swing that often. */
  periodS: number | null;
  readings: number;
}

/** A run is worth learning from when it rises this far and then holds this long. */
const LEAST_RISE_K = 60;
const LEAST_HELD_S = 600;
const LEAST_READINGS = 20;
/** So long after its mark was reached an oven may still be above what it holds, s. */
const SETTLED_S = 360;

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/**
 * Lag, overshoot, offset and swing of an oven from an empty run with a probe in it, from cold to its mark and held. On
 * its way it is at full power: a rise that would go on, see {@link riseOf}. What it holds is read from where it has
 * settled, six minutes after the mark where the run is long enough.
 * @throws QuantityError with fewer than 20 readings, a rise of less than 60 K, or less than 10 minutes held
 * @example fitOven(ovenReadings, 177).offsetK // -0.00004027
 */
export function fitOven(readings: readonly Reading[], setC: number): FittedOven {
  if (readings.length < LEAST_READINGS) throw new QuantityError('readings', readings.length, '', '20 or more');
  const start = readings[0]!;
  const end = readings.at(-1)!;
  const lastThird = readings.filter((reading) => reading.at > end.at - (end.at - start.at) / 3);
  const levelC = mean(lastThird.map((reading) => reading.celsius));
  const riseK = levelC - start.celsius;
  if (riseK < LEAST_RISE_K)
    throw new QuantityError('rise', Math.round(riseK), 'K', '60 K or more, from cold to the mark');
  const reached = readings.findIndex((reading) => reading.celsius >= levelC);
  const after = reached < 0 ? [] : readings.slice(reached);
  const reachedAt = after[0]?.at ?? 0;
  const afterS = after.length ? (end.at - reachedAt) / 1000 : 0;
  if (afterS < LEAST_HELD_S)
    throw new QuantityError('time held', Math.round(afterS), 's', '10 minutes or more at the mark');
  const settled = after.filter(({ at }) => at - reachedAt >= 1000 * SETTLED_S);
  const held = afterS >= SETTLED_S + LEAST_HELD_S ? settled : after;
  const heldC = held.map((reading) => reading.celsius);
  const level = mean(heldC);
  const turns = crossings(held, level);
  const sorted = [...heldC].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  const swingK = (at(0.98) - at(0.02)) / 2;
  const first = after.filter((each) => each.at - reachedAt < 1000 * SETTLED_S).map((each) => each.celsius);
  const smooth = first.slice(2).map((_, i) => median(first.slice(i, i + 3)));
  return {
    ...riseOf(readings.slice(0, reached), level),
    overshootK: Math.max(0, Math.max(...smooth, level) - level - swingK),
    offsetK: level - setC,
    offsetSdK: Math.max(PROBE_OFFSET_SD_K, (at(0.95) - at(0.05)) / 2 / Math.sqrt(Math.max(1, turns))),
    swingK,
    periodS: turns >= 4 ? (2 * (end.at - held[0]!.at)) / 1000 / turns : null,
    readings: readings.length,
  };
}

/**
 * Air of a fitted oven at times after it was switched on at `fromC`, set to `setC`; its swing left out.
 * @example fittedAirC(fitOven(ovenReadings, 177), 177, 20, [0])[0] // 20
 */
export const fittedAirC = (fit: FittedOven, setC: number, fromC: number, atS: readonly number[]): number[] =>
  bakeTemperaturesC(
    {
      airC: setC + fit.offsetK,
      ovenLagS: fit.lagS,
      powerRiseK: fit.powerRiseK,
      overshootK: fit.overshootK,
      roomC: fromC,
      headLagS: 60,
    },
    atS,
  ).map(({ ovenC }) => ovenC);

/** A thermocouple in the air tells what heads elsewhere come to no better than this. Common practice, no source. */
const PROBE_OFFSET_SD_K = 2.5;

/** How sure the usual full power is, as a spread of its logarithm, and how well any curve follows a real rise, K. */
const POWER_RISE_SPREAD = 0.5;
const RISE_SD_K = 2;

/**
 * The rise at full power, T = T0 + R (1 - e^(-t/tau)): for each R the tau of a straight line through ln(1 - (T -
 * T0)/R), weighted by that rest; of these the R that leaves least, leaning on the usual one (golden section).
 */
function riseOf(rise: readonly Reading[], level: number): Pick<FittedOven, 'lagS' | 'lagSdS' | 'powerRiseK'> {
  const start = rise[0];
  const wayK = level - (start?.celsius ?? level);
  const points = rise.slice(1).map(({ at, celsius }) => ({ x: (at - start!.at) / 1000, k: celsius - start!.celsius }));
  const rising = points.filter(({ k }) => k > 0 && k < 0.97 * wayK);
  if (rising.length < 3)
    throw new QuantityError('readings of the rise', rising.length, '', '3 or more before it is hot');
  const at = (riseK: number) => {
    let [xy, xx] = [0, 0];
    for (const { x, k } of rising) {
      const rest = 1 - k / riseK;
      xy += rest * rest * x * -Math.log(rest);
      xx += rest * rest * x * x;
    }
    const tauS = xx / xy;
    const left = rising.reduce((sum, { x, k }) => sum + (k - riseK * -Math.expm1(-x / tauS)) ** 2, 0);
    const doubt = (Math.log(riseK / USUAL_POWER_RISE_K) / POWER_RISE_SPREAD) ** 2;
    return { tauS, xx, left, score: left / RISE_SD_K ** 2 + doubt };
  };
  let [low, high] = [Math.log(1.05 * wayK), Math.log(2000)];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 60; i++) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)];
    if (at(Math.exp(a)).score < at(Math.exp(b)).score) high = b;
    else low = a;
  }
  const powerRiseK = Math.exp((low + high) / 2);
  const { tauS, xx, left } = at(powerRiseK);
  const lagS = -tauS * Math.log1p(-((1 - Math.exp(-1)) * wayK) / powerRiseK);
  const sdK = Math.sqrt(left / Math.max(1, rising.length - 2));
  return { lagS, lagSdS: (lagS * tauS * sdK) / (powerRiseK * Math.sqrt(xx)), powerRiseK };
}

/** How often the air crosses its mean, a crossing counted only once it is clear of it. */
function crossings(held: readonly Reading[], level: number): number {
  const clearK = 1;
  let side = 0;
  let count = 0;
  for (const { celsius } of held) {
    const now = celsius > level + clearK ? 1 : celsius < level - clearK ? -1 : side;
    if (side !== 0 && now !== side) count += 1;
    side = now;
  }
  return count;
}

/**
 * Lag of an oven, as its own run showed it.
 * @example ovenLagFigure(fitOven(ovenReadings, 177)).value // 210.9
 */
export const ovenLagFigure = (fit: FittedOven): Figure =>
  figure(
    fit.lagS,
    's',
    {
      rule: 'After so long the empty oven had done 63 % of its way from cold; it is at full power until it is there.',
      formula: 'T = T_cold + R (1 − e^(−t/τ)), to its mark',
      source: 'Weighted least squares on your own readings',
      inputs: [
        measured('Readings', fit.readings, 'count'),
        measured('Held above its mark by', fit.offsetK, 'K'),
        fitted('Full power goes on to', fit.powerRiseK, 'K', 'above the room'),
        measured('Shot over it by', fit.overshootK, 'K'),
      ],
    },
    { low: fit.lagS - Z_90 * fit.lagSdS, high: fit.lagS + Z_90 * fit.lagSdS, basis: 'fitted' },
  );

/**
 * How far an oven is off its mark.
 * @example ovenOffsetFigure(fitOven(ovenReadings, 177), 177).unit // 'K'
 */
export const ovenOffsetFigure = (fit: FittedOven, setC: number): Figure =>
  figure(
    fit.offsetK,
    'K',
    {
      rule: 'The mean of what the probe read while the oven held, less the mark it was set to.',
      formula: 'mean(T_held) − T_set',
      source: 'Your own readings; a probe and its place are good to a few kelvin',
      inputs: [
        given('Set to', setC, 'C'),
        measured(
          'Swings by',
          fit.swingK,
          'K',
          fit.periodS === null ? 'slowly' : `every ${Math.round(fit.periodS / 60)} min`,
        ),
      ],
    },
    { low: fit.offsetK - Z_90 * fit.offsetSdK, high: fit.offsetK + Z_90 * fit.offsetSdK, basis: 'fitted' },
  );
