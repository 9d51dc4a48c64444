import { figure, given, type Figure } from '../quantity/figure.ts';
import { fillIndex, type FillCavity, type FillSettings } from './fill-index.ts';
import type { Lever } from './levers.ts';
import { fillMarks, fillVerdict, THRESHOLD_PRIOR_INDEX, type FillThreshold } from './threshold.ts';

/** Index of a cavity at these settings, with its terms; a fitted threshold turns it into a chance of a short. */
export function fillFigure(cavity: FillCavity, settings: FillSettings, threshold: FillThreshold | null): Figure {
  const fill = fillIndex(cavity, settings);
  const verdict = fillVerdict(fill.index, fillMarks(threshold));
  const short = threshold ? Math.round(100 * threshold.shortShare(fill.index)) : null;
  return figure(
    fill.index,
    'count',
    {
      rule: `${verdict === 'fills' ? 'It fills' : verdict === 'marginal' ? 'Marginal' : 'A short is expected'}: the metal runs ${(1000 * fill.reachM).toFixed(0)} mm before the thinnest section stops it, ${(1000 * fill.flowLengthM).toFixed(0)} mm are wanted.${short === null ? '' : ` From your records: ${short} % short.`}`,
      formula: 'index = v · t_stop / flow length; v = C_d √(2 g H)',
      source: 'Interface-limited flow; C_d and the share that may set are common practice',
      inputs: [
        given(
          'Speed in the gate',
          fill.speedMS,
          'm/s',
          `${settings.pouring}, head ${(1000 * fill.headM).toFixed(0)} mm`,
        ),
        given('Runs for', `${fill.stopS.toFixed(2)} s`, 'text'),
        given('Thin section', fill.thinM, 'm', 'bore less wire, a quarter'),
        given('Wall takes', fill.interfaceWPerM2K, 'W/m2K', `${settings.shotsSinceSmoked} shots since smoked`),
        given('Metal', settings.metalC, 'C', settings.alloy.name),
        given('Mold', settings.moldC, 'C'),
        given('Sharpest edge', fill.sharpestM, 'm', 'radius'),
      ],
    },
    { low: fill.index * 0.75, high: fill.index * 1.3, basis: threshold ? 'fitted' : 'given' },
  );
}

/** What one change at the bench would do to a cavity. */
export function leverFigure(lever: Lever, cavity: FillCavity, settings: FillSettings): Figure {
  const before = fillIndex(cavity, settings).index;
  return figure(
    lever.index,
    'count',
    {
      rule: `${lever.says}, and nothing else: the index goes from ${before.toFixed(2)} to ${lever.index.toFixed(2)}.`,
      formula: 'index = v · t_stop / flow length, before and after',
      source: 'Fill model, one usual step of this lever',
      inputs: [given('Index now', before, 'count'), given('Times', lever.gain, 'count')],
    },
    { low: lever.index * 0.75, high: lever.index * 1.3 },
  );
}

/** Index at which every second cast is short in this mold, by its own record. */
export const thresholdFigure = (threshold: Omit<FillThreshold, 'shortShare'>): Figure =>
  figure(
    threshold.index,
    'count',
    {
      rule: "Logistic regression on this mold's logged shorts, with the model's own guess as prior.",
      formula: 'P_short = 1 / (1 + e^((ln i − ln i_0) / s))',
      source: 'Your pours',
      inputs: [given('Guess before any record', THRESHOLD_PRIOR_INDEX, 'count')],
    },
    { low: threshold.low, high: threshold.high, basis: 'fitted' },
  );
