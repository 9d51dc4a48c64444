import type { Alloy } from '../metal/alloy.ts';
import {
  fitLeastSquares,
  followingSd,
  soundFit,
  type FitResult,
  type Parameter,
  type Progress,
} from '../numeric/least-squares.ts';
import type { TimedReading } from '../pot/fit-pot.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import {
  blockNodes,
  decayOf,
  meanC,
  moldLossWPerK,
  OPEN_LOSS_FACTOR,
  takeIn,
  type MoldBlock,
  type MoldHeat,
} from './block.ts';
import { shotHeatJ } from './session.ts';

export interface MoldFitInput {
  block: MoldBlock;
  /** From a pour until the mold is opened: from then on it stands open until the next. */
  closedS: number;
  /** When metal went in, seconds on the clock of the readings, and how much. */
  shots: readonly { atS: number; kg: number; metalC: number }[];
  /** A probe at the back of the block, in order. */
  readings: readonly TimedReading[];
  roomC: number;
  probeSdK?: number;
  alloy?: Alloy;
}

/** Handles, hinge and contact are not in the model: it is off by about so much, K, and for a minute on end. */
const MODEL_K = 2;
/** Two numbers stand for a whole mold: at another pace they are good to about this share, however well they fit. */
const MODEL_SHARE = 0.04;
/** A mold that is fitted is met within this by its own readings, K. */
const MISSED_K = 12;

/**
 * Temperature of the back at each reading, for a block and its shots.
 * @example backAtReadings({ block: smallBlock, closedS: 5, shots: [{ atS: 30, kg: 0.08, metalC: 371 }],
 *   readings: [{ atS: 0, temperatureC: 20 }, { atS: 90, temperatureC: 26 }], roomC: 20 }, smallBlock) // [20,
 *   29.27]
 */
export function backAtReadings(input: MoldFitInput, block: MoldBlock): number[] {
  const nodes = blockNodes(block);
  const first = input.readings[0]!;
  let heat: MoldHeat = { faceC: first.temperatureC, backC: first.temperatureC };
  let t = first.atS;
  let next = input.shots.findIndex((shot) => shot.atS >= t);
  if (next < 0) next = input.shots.length;
  const capacityJK = nodes.faceJK + nodes.backJK;
  let openFrom = t;
  const [shut, open] = [decayOf(nodes), decayOf(nodes, OPEN_LOSS_FACTOR)];
  const passTo = (to: number, decay: typeof shut) => {
    if (to > t) heat = decay.after(heat, to - t, input.roomC);
    t = Math.max(t, to);
  };
  const pass = (to: number) => {
    passTo(Math.min(to, openFrom), shut);
    passTo(to, open);
  };
  return input.readings.map(({ atS }) => {
    while (next < input.shots.length && input.shots[next]!.atS <= atS) {
      const shot = input.shots[next++]!;
      pass(shot.atS);
      const { kg: shotKg, metalC } = shot;
      const joules = shotHeatJ({ shotKg, metalC, moldC: meanC(nodes, heat), capacityJK, alloy: input.alloy });
      heat = takeIn(nodes, heat, joules, metalC);
      openFrom = shot.atS + input.closedS;
    }
    pass(atS);
    return heat.backC;
  });
}

/**
 * A mold's real loss and heat capacity from a probe at its back and the times of its shots: least squares on the
 * two-node block, leaning on the usual loss (40 %) and the book's heat capacity (15 %).
 * @throws QuantityError with fewer than 8 readings or no shot among them
 * @example fitMold({ block: smallBlock, closedS: 5, shots: [{ atS: 30, kg: 0.08, metalC: 371 }],
 *   readings: Array.from({ length: 30 }, (_, at) => ({ atS: 10 * at, temperatureC: 26 - at / 20 })),
 *   roomC: 20 }).points // 30
 */
export function fitMold(input: MoldFitInput, progress?: Progress): FitResult {
  const { readings, shots } = input;
  if (readings.length < 8) throw new QuantityError('readings', readings.length, '', '8 or more');
  if (shots.length < 1) throw new QuantityError('shots', shots.length, '', 'one or more among the readings');
  const seconds = inRange('time span', readings.at(-1)!.atS - readings[0]!.atS, 's', 30, 86_400);
  const usual = input.block.lossWPerK ?? moldLossWPerK(input.block.bodyKg);
  const parameters: Parameter[] = [
    { name: 'lossWPerK', start: usual, priorSd: 0.4 * usual, min: 0.02, max: 5 },
    { name: 'capacityShare', start: 1, priorSd: 0.15, min: 0.4, max: 1.8 },
  ];
  const model = ([lossWPerK, capacityShare]: readonly number[]) => {
    const back = backAtReadings(input, { ...input.block, lossWPerK: lossWPerK!, capacityShare: capacityShare! });
    return readings.map((reading, i) => reading.temperatureC - back[i]!);
  };
  const sdK = followingSd(readings.length, seconds, Math.hypot(input.probeSdK ?? 3, MODEL_K));
  const fit = soundFit(fitLeastSquares(parameters, model, sdK, progress), parameters, 'K', MISSED_K);
  const honest = fit.parameters.map((each) => ({ ...each, sd: Math.hypot(each.sd, MODEL_SHARE * each.value) }));
  return { ...fit, parameters: honest };
}
