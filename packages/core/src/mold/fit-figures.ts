import { range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';

interface LearnedMold {
  lossWPerK: number;
  lossSdWPerK: number;
  capacityShare: number;
  capacitySdShare: number;
  readings: number;
}

/**
 * What a mold loses and how much heat it holds against the book, as learned from its probe.
 * @example learnedMoldFigures({ lossWPerK: 0.5, lossSdWPerK: 0.02, capacityShare: 1.1, capacitySdShare: 0.03,
 *   readings: 300 }).loss.value // 0.5
 */
export function learnedMoldFigures(learned: LearnedMold): { loss: Figure; capacity: Figure } {
  const why = {
    rule: "Least squares on this mold's own readings between its shots, leaning on the book values.",
    formula: 'min Σ (T_probe − T_model)² / σ² + prior',
    source: 'Levenberg-Marquardt; your probe',
    inputs: [fitted('Readings', learned.readings, 'count')],
  };
  const of = (value: number, sd: number, unit: 'W/K' | 'ratio') =>
    figure(value, unit, why, { low: Math.max(0, value - Z_90 * sd), high: value + Z_90 * sd, basis: 'fitted' });
  return {
    loss: of(learned.lossWPerK, learned.lossSdWPerK, 'W/K'),
    capacity: of(learned.capacityShare, learned.capacitySdShare, 'ratio'),
  };
}

/**
 * By how much a fitted model misses a reading.
 * @example missFigure(2.4, 300).value // 2.4
 */
export const missFigure = (rmsK: number, readings: number): Figure =>
  figure(
    rmsK,
    'K',
    {
      rule: 'Root of the mean square of what is left between probe and model: a few kelvin is the probe itself.',
      formula: '√(Σ (T_probe − T_model)² / n)',
      source: 'The fit itself',
      inputs: [fitted('Readings', readings, 'count')],
    },
    { basis: 'fitted' },
  );

/**
 * A part of the whole that many times larger or smaller: what a lever does to the index.
 * @example timesFigure(1.3, 1, 1.3).value // 1.3
 */
export const timesFigure = (gain: number, before: number, after: number): Figure =>
  figure(
    gain,
    'count',
    {
      rule: 'The index after this change, over the index now.',
      formula: 'gain = after / before',
      source: 'Fill model',
      inputs: [given('Now', before, 'count'), given('After', after, 'count')],
    },
    // The rest of a mold's doubts are in both.
    range90(([more]) => 1 + more!, [{ value: gain - 1, sd: SPREAD.leverShare * Math.abs(gain - 1) }]),
  );
