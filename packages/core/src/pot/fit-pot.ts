import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import {
  fitLeastSquares,
  followingSd,
  soundFit,
  type FitResult,
  type Parameter,
  type Progress,
} from '../numeric/least-squares.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import { usualCrucibleJPerK } from './known-pot.ts';
import { simulatePot } from './simulate.ts';

/** A pot that is fitted is met within this by its own readings, probe lag and swing and all, K. */
const MISSED_K = 15;
/** Crucible and metal are not one: the model itself is off by about so much, K, and for minutes on end. */
const MODEL_K = 4;
/** The metal follows its element late, and the probe the metal, s. */
const LAG_S = 25;

/** A probe reading: seconds since the first, and the metal's temperature. */
export interface TimedReading {
  atS: number;
  temperatureC: number;
}

export interface PotFitInput {
  /** One heat-up or cool-down, in order. */
  readings: readonly TimedReading[];
  leadKg: number;
  roomC: number;
  /** Power that is on all the while: the plate's watts for a heat-up, none for a cool-down. */
  powerW: number;
  lossWPerK: number;
  /** What crucible and element are believed to hold, J/K. */
  crucibleJPerK?: number;
  heating: boolean;
  probeSdK?: number;
  alloy?: Alloy;
}

/**
 * A pot's real power, loss and crucible from one heat-up or cool-down: least squares on the enthalpy model, leaning on
 * what the plate says (10 %), on the usual loss (40 %) and the usual crucible (50 %) while the record is short. The
 * slope below the melting point and the time that melting takes tell them apart. A cool-down tells the loss alone.
 * @throws QuantityError with fewer than 8 readings or less than 30 K between coldest and hottest, or where no pot
 * can be
 * fitted to them
 * @example fitPot({ readings: simulatePot({ pot: { powerW: 700, lossWPerK: 0.55 }, leadKg: 4, fromC: 20, roomC: 20,
 *   setC: 600, seconds: 600 }).points, leadKg: 4, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: true }).points
 *   // 61
 */
export function fitPot(input: PotFitInput, progress?: Progress): FitResult {
  const { readings, leadKg, roomC } = input;
  if (readings.length < 8) throw new QuantityError('readings', readings.length, '', '8 or more');
  const temperatures = readings.map((reading) => reading.temperatureC);
  const spanK = Math.max(...temperatures) - Math.min(...temperatures);
  inRange('temperature span', spanK, 'K', 30, 700);
  const first = readings[0]!;
  const seconds = readings.at(-1)!.atS - first.atS;
  inRange('time span', seconds, 's', 60, 86_400);
  const model = ([powerW, lossWPerK, crucibleJPerK, lagS]: readonly number[]) => {
    const { points } = simulatePot({
      pot: { powerW: input.heating ? powerW! : 0, lossWPerK: lossWPerK!, crucibleJPerK: crucibleJPerK! },
      leadKg,
      fromC: first.temperatureC,
      roomC,
      setC: input.heating ? 600 : 20,
      seconds,
      alloy: input.alloy ?? SOFT_LEAD,
      everyS: 5,
    });
    let i = 0;
    return readings.map(({ atS, temperatureC }) => {
      const t = Math.max(0, atS - first.atS - lagS!);
      while (i + 2 < points.length && points[i + 1]!.atS < t) i++;
      const [a, b] = [points[i]!, points[i + 1] ?? points[i]!];
      const share = b.atS > a.atS ? (t - a.atS) / (b.atS - a.atS) : 0;
      return temperatureC - (a.temperatureC + share * (b.temperatureC - a.temperatureC));
    });
  };
  const crucible = input.crucibleJPerK ?? usualCrucibleJPerK(leadKg);
  const parameters: Parameter[] = [
    { name: 'powerW', start: input.powerW, priorSd: 0.1 * input.powerW, min: 50, max: 5000 },
    { name: 'lossWPerK', start: input.lossWPerK, priorSd: 0.4 * input.lossWPerK, min: 0.02, max: 5 },
    { name: 'crucibleJPerK', start: crucible, priorSd: 0.5 * crucible, min: 0, max: 20_000 },
    { name: 'lagS', start: LAG_S, priorSd: LAG_S, min: -300, max: 300 },
  ];
  const sdK = followingSd(readings.length, seconds, Math.hypot(input.probeSdK ?? 3, MODEL_K));
  return soundFit(fitLeastSquares(parameters, model, sdK, progress), parameters, 'K', MISSED_K);
}
