import { QuantityError } from '../quantity/check.ts';
import { choleskyInverse, choleskySolve } from './solve.ts';

/** A parameter to be fitted: where it starts, what is believed of it beforehand, and where it may lie. */
export interface Parameter {
  name: string;
  start: number;
  /** Standard deviation of the belief that it is at `start`; what keeps a short record from running away. */
  priorSd: number;
  min: number;
  max: number;
}
export interface Fitted {
  name: string;
  value: number;
  /** Standard deviation from the curvature at the optimum. */
  sd: number;
}
export interface FitResult {
  parameters: Fitted[];
  /** Root mean square of the residuals, in the unit of the data. */
  rms: number;
  points: number;
  rounds: number;
}
/**
 * The fit, or why it is none: it came to no end, it pushed a value to the end of its range, or it misses the readings
 * by far more than they are noisy.
 * @param rmsAtMost in the unit of the data
 * @throws QuantityError that says so
 * @example soundFit({ parameters: [{ name: 'loss', value: 0.5, sd: 0.01 }], rms: 1, points: 40, rounds: 5 },
 *   [{ name: 'loss', start: 0.5, priorSd: 1, min: 0.1, max: 2 }], 'K', 8).rms // 1
 */
export function soundFit(fit: FitResult, parameters: readonly Parameter[], unit: string, rmsAtMost: number): FitResult {
  if (fit.rms > rmsAtMost) {
    const missed = Math.round(fit.rms * 10) / 10;
    throw new QuantityError(
      'what the fit misses a reading by',
      missed,
      unit,
      `up to ${rmsAtMost}: these are other readings`,
    );
  }
  if (fit.rounds >= ROUNDS) throw new QuantityError('the fit', 'still moving', '', 'readings that settle it');
  for (const [i, { name, value }] of fit.parameters.entries()) {
    const { min, max } = parameters[i]!;
    const slack = 1e-6 * (max - min);
    if (value > min + slack && value < max - slack) continue;
    throw new QuantityError(name, value, '', `between ${min} and ${max}: the readings push it to the end`);
  }
  return fit;
}

/** What a model is off by stays so for about this long, s: readings within it say the same thing. */
const FOLLOWING_S = 60;
/**
 * Standard deviation to reckon each reading with, where readings follow each other closer than what the model is off by
 * changes: ten times as many of them do not know more.
 * @param sd of one reading against the model
 * @example followingSd(600, 3000, 5) // 17.3: fifty that stand for themselves
 */
export const followingSd = (readings: number, spanS: number, sd: number): number =>
  sd * Math.sqrt(Math.max(1, readings / Math.max(8, spanS / FOLLOWING_S)));

/** Told now and then, for a bar that moves; answers false to stop. */
export type Progress = (share: number) => boolean | void;

export class FitStopped extends Error {
  constructor() {
    super('The fit was stopped.');
    this.name = 'FitStopped';
  }
}

const ROUNDS = 40;
const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

/**
 * Least squares with normal priors by Levenberg-Marquardt (Marquardt 1963), Jacobian by forward differences.
 * @param residuals data minus model over noise `sd`, for given parameter values
 * @param sd noise of one datum, in the data's unit; the noise actually seen widens the uncertainties where it is larger
 * @throws QuantityError where there are fewer data than two; FitStopped where `progress` answers false
 * @example fitLeastSquares([{ name: 'x', start: 1, priorSd: 100, min: -10, max: 10 }], ([x]) => [3, 3,
 *   3].map((y) => y - x)).parameters[0].value // 1
 */
export function fitLeastSquares(
  parameters: readonly Parameter[],
  residuals: (values: readonly number[]) => number[],
  sd: number,
  progress: Progress = () => true,
): FitResult {
  const clamp = (values: readonly number[]) =>
    values.map((value, i) => Math.min(parameters[i]!.max, Math.max(parameters[i]!.min, value)));
  const priors = (values: readonly number[]) =>
    values.map((v, i) => (parameters[i]!.start - v) / parameters[i]!.priorSd);
  const all = (values: readonly number[]) => [...residuals(values).map((r) => r / sd), ...priors(values)];
  let values = clamp(parameters.map((each) => each.start));
  let now = all(values);
  const points = now.length - parameters.length;
  if (points < 2) throw new QuantityError('data', points, '', 'two points or more');
  let cost = dot(now, now);
  let damping = 1e-2;
  let rounds = 0;
  const jacobian = () =>
    values.map((value, i) => {
      const step = Math.max(1e-6, 1e-4 * Math.abs(value));
      const up = value + step <= parameters[i]!.max;
      const moved = values.map((v, k) => (k === i ? v + (up ? step : -step) : v));
      const there = all(moved);
      return there.map((r, k) => (r - now[k]!) / (up ? step : -step));
    });
  for (; rounds < ROUNDS; rounds++) {
    if (progress(rounds / ROUNDS) === false) throw new FitStopped();
    const j = jacobian();
    const normal = j.map((a) => j.map((b) => dot(a, b)));
    const gradient = j.map((a) => -dot(a, now));
    let better = false;
    for (let tries = 0; tries < 8 && !better; tries++) {
      const damped = normal.map((row, i) => row.map((v, k) => (i === k ? v * (1 + damping) + 1e-12 : v)));
      const step = choleskySolve(damped, gradient);
      if (!step) break;
      const next = clamp(values.map((v, i) => v + step[i]!));
      const there = all(next);
      const nextCost = dot(there, there);
      if (nextCost < cost) {
        better = cost - nextCost > 1e-6 * (1 + cost);
        [values, now, cost] = [next, there, nextCost];
        damping = Math.max(1e-9, damping / 5);
        if (!better) tries = 8;
      } else damping *= 6;
    }
    if (!better) break;
  }
  progress(1);
  const j = jacobian();
  const covariance = choleskyInverse(j.map((a) => j.map((b) => dot(a, b))));
  const data = now.slice(0, points);
  const seen = Math.sqrt(dot(data, data) / Math.max(1, points - parameters.length));
  return {
    parameters: parameters.map(({ name, priorSd }, i) => ({
      name,
      value: values[i]!,
      sd: covariance ? Math.min(priorSd, Math.sqrt(covariance[i]![i]!) * Math.max(1, seen)) : priorSd,
    })),
    rms: sd * Math.sqrt(dot(data, data) / points),
    points,
    rounds,
  };
}
