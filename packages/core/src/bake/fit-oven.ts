import { QuantityError } from '../quantity/check.ts';
import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import type { Reading } from '../readings/block-codec.ts';

/** An oven as its own probe showed it: how slow, how far off its mark, how far it swings about that. */
export interface FittedOven {
  lagS: number;
  lagSdS: number;
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

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Lag, offset and swing of an oven from an empty run with a probe in it, from cold to its mark and held. The held
 * stretch
 * begins where the air first reaches its later mean; the lag is the one of a first-order rise to that mean that fits
 * the
 * readings before 90 % of it best: a straight line through ln of what is left, weighted by that rest.
 * @throws QuantityError with fewer than 20 readings, a rise of less than 60 K, or less than 10 minutes held
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
  const held = reached < 0 ? [] : readings.slice(reached);
  const heldS = held.length ? (end.at - held[0]!.at) / 1000 : 0;
  if (heldS < LEAST_HELD_S)
    throw new QuantityError('time held', Math.round(heldS), 's', '10 minutes or more at the mark');
  const heldC = held.map((reading) => reading.celsius);
  const level = mean(heldC);
  const { lagS, lagSdS } = lagOf(readings, level);
  const turns = crossings(held, level);
  const sorted = [...heldC].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return {
    lagS,
    lagSdS,
    offsetK: level - setC,
    offsetSdK: Math.max(PROBE_OFFSET_SD_K, (at(0.95) - at(0.05)) / 2 / Math.sqrt(Math.max(1, turns))),
    swingK: (at(0.98) - at(0.02)) / 2,
    periodS: turns >= 4 ? (2 * heldS) / turns : null,
    readings: readings.length,
  };
}

/** Air of a fitted oven `seconds` after it was switched on at `fromC`, set to `setC`; its swing left out. */
export const fittedAirC = ({ lagS, offsetK }: FittedOven, setC: number, fromC: number, seconds: number): number =>
  setC + offsetK - (setC + offsetK - fromC) * Math.exp(-seconds / lagS);

/** A thermocouple and where it hangs are good to this much. Common practice, no source. */
const PROBE_OFFSET_SD_K = 1.5;

/** Weighted least squares through the start: ln((level - T)/(level - T0)) = -t / lag, over the rise to 90 %. */
function lagOf(readings: readonly Reading[], level: number): { lagS: number; lagSdS: number } {
  const start = readings[0]!;
  const rise = level - start.celsius;
  let [xy, xx, count] = [0, 0, 0];
  const points: { x: number; y: number; w: number }[] = [];
  for (const { at, celsius } of readings) {
    const rest = (level - celsius) / rise;
    if (rest < 0.1) break;
    if (rest >= 1) continue;
    const point = { x: (at - start.at) / 1000, y: -Math.log(rest), w: rest * rest };
    points.push(point);
    xy += point.w * point.x * point.y;
    xx += point.w * point.x * point.x;
    count += 1;
  }
  if (count < 3) throw new QuantityError('readings of the rise', count, '', '3 or more before it is hot');
  const rate = xy / xx;
  const spread = points.reduce((sum, { x, y, w }) => sum + w * (y - rate * x) ** 2, 0) / Math.max(1, count - 1);
  return { lagS: 1 / rate, lagSdS: Math.sqrt(spread / xx) / rate ** 2 };
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

/** Lag of an oven, as its own run showed it. */
export const ovenLagFigure = (fit: FittedOven): Figure =>
  figure(
    fit.lagS,
    's',
    {
      rule: 'The rise of the empty oven from cold, up to nine tenths of it.',
      formula: 'T = T_held − (T_held − T_cold) e^(−t/τ)',
      source: 'Weighted least squares on your own readings',
      inputs: [measured('Readings', fit.readings, 'count'), measured('Held above its mark by', fit.offsetK, 'K')],
    },
    { low: fit.lagS - 2 * fit.lagSdS, high: fit.lagS + 2 * fit.lagSdS, basis: 'fitted' },
  );

/** How far an oven is off its mark. */
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
    { low: fit.offsetK - 2 * fit.offsetSdK, high: fit.offsetK + 2 * fit.offsetSdK, basis: 'fitted' },
  );
