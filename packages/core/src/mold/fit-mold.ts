import type { Alloy } from '../metal/alloy.ts';
import {
  fitLeastSquares,
  followingSd,
  soundFit,
  type FitResult,
  type Fitted,
  type Parameter,
  type Progress,
} from '../numeric/least-squares.ts';
import type { TimedReading } from '../pot/fit-pot.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import {
  blockNodes,
  LOSS_POWER,
  lossShareAt,
  meanC,
  moldLossWPerK,
  OPEN_LOSS_FACTOR,
  relax,
  takeIn,
  type MoldBlock,
  type MoldHeat,
} from './block.ts';
import { shotHeatJ } from './session.ts';

export interface MoldFitInput {
  block: MoldBlock;
  /** From a pour until the mold is opened: from then on it stands open until the next. */
  closedS: number;
  /** When metal went in, seconds on the clock of the readings, how much, and whether it was a blank shot. */
  shots: readonly { atS: number; kg: number; metalC: number; blank?: boolean }[];
  /** A probe at the back of the block, in order. */
  readings: readonly TimedReading[];
  roomC: number;
  probeSdK?: number;
  alloy?: Alloy;
}

/** Handles, hinge and contact are not in the model: it is off by about so much, K, and for a minute on end. */
const MODEL_K = 2;
/** Three numbers stand for a whole mold: they are good to about this share, however well they fit. */
const MODEL_SHARE = 0.01;
/** A mold that is fitted is met within this by its own readings, K. */
const MISSED_K = 12;

/**
 * Temperature of the back at each reading, for a block and its shots.
 * @example backAtReadings({ block: smallBlock, closedS: 5, shots: [{ atS: 30, kg: 0.08, metalC: 371 }],
 *   readings: [{ atS: 0, temperatureC: 20 }, { atS: 90, temperatureC: 26 }], roomC: 20 }, smallBlock) // [20, 29.87]
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
  const passTo = (to: number, lossFactor: number) => {
    if (to > t) heat = relax(nodes, heat, to - t, input.roomC, lossFactor).heat;
    t = Math.max(t, to);
  };
  const pass = (to: number) => {
    passTo(Math.min(to, openFrom), 1);
    passTo(to, OPEN_LOSS_FACTOR);
  };
  return input.readings.map(({ atS }) => {
    while (next < input.shots.length && input.shots[next]!.atS <= atS) {
      const shot = input.shots[next++]!;
      pass(shot.atS);
      const { kg: shotKg, metalC } = shot;
      const [moldC, { alloy }] = [meanC(nodes, heat), input];
      const keptShare = shot.blank ? undefined : block.keptShare;
      const joules = shotHeatJ({ shotKg, metalC, moldC, capacityJK, alloy, keptShare });
      heat = takeIn(nodes, heat, joules, metalC);
      openFrom = shot.atS + input.closedS;
    }
    pass(atS);
    return heat.backC;
  });
}

/** A mold as its readings have it. */
export interface MoldFit extends FitResult {
  /** What it was above the room on average: there its loss is known best, whatever the power. */
  aboveK: number;
}

/** Powers by which a mold's loss grows lie between none and a third: so sure is one that nobody has read. */
const POWER_SD = 0.13;

/**
 * A mold's real loss and heat capacity from a probe at its back and the times of its shots: least squares on the
 * two-node block, leaning on the usual loss (40 %), the book's heat capacity (15 %) and the quarter power. Parameters:
 * `lossWPerK` as it is at what the mold was above the room on average, `capacityShare`, and `lossPower`, by which the
 * loss grows from there; {@link fittedBlock} makes a block of them. One pace says little of the power, a long pause
 * much.
 * @throws QuantityError with fewer than 8 readings or no shot among them
 * @example fitMold({ block: smallBlock, closedS: 5, shots: [{ atS: 30, kg: 0.08, metalC: 371 }],
 *   readings: Array.from({ length: 30 }, (_, at) => ({ atS: 10 * at, temperatureC: 26 - at / 20 })),
 *   roomC: 20 }).points // 30
 */
export function fitMold(input: MoldFitInput, progress?: Progress): MoldFit {
  const { readings, shots } = input;
  if (readings.length < 8) throw new QuantityError('readings', readings.length, '', '8 or more');
  if (shots.length < 1) throw new QuantityError('shots', shots.length, '', 'one or more among the readings');
  const seconds = inRange('time span', readings.at(-1)!.atS - readings[0]!.atS, 's', 30, 86_400);
  const above = readings.reduce((sum, { temperatureC }) => sum + temperatureC - input.roomC, 0) / readings.length;
  const aboveK = Math.max(LEAST_ABOVE_K, above);
  const usual = (input.block.lossWPerK ?? moldLossWPerK(input.block.bodyKg)) * lossShareAt(aboveK);
  const parameters: Parameter[] = [
    { name: 'lossWPerK', start: usual, priorSd: 0.4 * usual, min: 0.02, max: 5 },
    { name: 'capacityShare', start: 1, priorSd: 0.15, min: 0.4, max: 1.8 },
    { name: 'lossPower', start: LOSS_POWER, priorSd: POWER_SD, min: -0.5, max: 1 },
  ];
  const model = ([lossWPerK, capacityShare, lossPower]: readonly number[]) => {
    const of = { lossWPerK: lossWPerK!, capacityShare: capacityShare!, lossPower: Math.max(0, lossPower!) };
    const back = backAtReadings(input, fittedBlock(input.block, { ...of, aboveK }));
    return readings.map((reading, i) => reading.temperatureC - back[i]!);
  };
  const sdK = followingSd(readings.length, seconds, Math.hypot(input.probeSdK ?? 3, MODEL_K));
  const fit = soundFit(fitLeastSquares(parameters, model, sdK, progress), parameters, 'K', MISSED_K);
  const honest = fit.parameters.map((each) => ({ ...each, sd: Math.hypot(each.sd, MODEL_SHARE * each.value) }));
  return { ...fit, parameters: honest, aboveK };
}
/** A mold that was no warmer than this on average was never at work, K. */
const LEAST_ABOVE_K = 3;

/**
 * A block by what was fitted to it: its loss is written down at {@link LOSS_AT_K}, wherever it was read.
 * @example fittedBlock({ bodyKg: 0.5 }, { lossWPerK: 0.4, capacityShare: 1, lossPower: 0.25, aboveK: 30 }).lossWPerK
 *   // 0.4757
 */
export const fittedBlock = (
  block: MoldBlock,
  of: { lossWPerK: number; capacityShare: number; lossPower: number; aboveK: number },
): MoldBlock => ({
  ...block,
  lossWPerK: of.lossWPerK / lossShareAt(of.aboveK, of.lossPower),
  lossPower: of.lossPower,
  capacityShare: of.capacityShare,
});

/**
 * What is kept of a mold by what was fitted to it: its loss at {@link LOSS_AT_K}, with the doubts it came with.
 * @example learnedMold({ parameters: [{ name: 'lossWPerK', value: 0.4, sd: 0.02 }, { name: 'capacityShare', value: 1,
 *   sd: 0.03 }, { name: 'lossPower', value: 0.25, sd: 0.1 }], aboveK: 30, points: 300, rms: 2, rounds: 5 }).lossSdWPerK
 *   // 0.02378
 */
export function learnedMold({ parameters, aboveK, points }: MoldFit) {
  const [loss, capacity, power] = parameters as [Fitted, Fitted, Fitted];
  const lossPower = Math.max(0, power.value);
  const there = lossShareAt(aboveK, lossPower);
  return {
    ...{ lossWPerK: loss.value / there, lossSdWPerK: loss.sd / there, lossPower, lossPowerSd: power.sd, aboveK },
    ...{ capacityShare: capacity.value, capacitySdShare: capacity.sd, readings: points },
  };
}
