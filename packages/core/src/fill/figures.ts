import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { fillIndex, type FillCavity, type FillSettings } from './fill-index.ts';
import type { Lever } from './levers.ts';
import { fillMarks, fillVerdict, THRESHOLD_PRIOR_INDEX, type FillThreshold } from './threshold.ts';
import { quantityText } from '../quantity/said.ts';

/** What the index may be where heat, skin and gate are as unsure as they are at a bench. */
function indexRange(cavity: FillCavity, settings: FillSettings) {
  const { metalC, moldC, alloy } = settings;
  const middleC = (alloy.liquidusC + alloy.solidusC) / 2;
  return range90(
    // The index goes with the speed in the gate, and against what the skin lets through.
    ([ofMetalC, ofMoldC, skin, gate]) =>
      (gate! / skin!) * fillIndex(cavity, { ...settings, metalC: ofMetalC!, moldC: ofMoldC! }).index,
    [
      { value: metalC, sd: SPREAD.metalK, least: Math.min(metalC, alloy.liquidusC), most: 520 },
      { value: moldC, sd: SPREAD.moldK, least: -10, most: Math.max(moldC, Math.min(260, middleC - 5)) },
      { ...aboveZero(1, SPREAD.interfaceShare), least: 0.3 },
      aboveZero(1, SPREAD.dischargeShare),
    ],
  );
}

const times = ({ low, high }: { low: number; high: number }, gain: number) => ({ low: gain * low, high: gain * high });

/**
 * Index of a cavity at these settings, with its terms; a fitted threshold turns it into a chance of a short.
 * @example fillFigure(dart, FILL_DEFAULTS, null).value // 3.052
 */
export function fillFigure(cavity: FillCavity, settings: FillSettings, threshold: FillThreshold | null): Figure {
  const fill = fillIndex(cavity, settings);
  const verdict = fillVerdict(fill.index, fillMarks(threshold));
  const short = threshold ? Math.round(100 * threshold.shortShare(fill.index)) : null;
  return figure(
    fill.index,
    'count',
    {
      rule: `${verdict === 'fills' ? 'It fills' : verdict === 'marginal' ? 'Marginal' : 'A short is expected'}: the metal runs ${quantityText((1000 * fill.reachM).toFixed(0), 'mm')} before the thinnest section stops it, ${quantityText((1000 * fill.flowLengthM).toFixed(0), 'mm')} are wanted.${short === null ? '' : ` From your records: ${short} % short.`}`,
      formula: 'index = v · t_stop / flow length; v = C_d √(2 g H)',
      source: 'Interface-limited flow; C_d and the share that may set are common practice',
      inputs: [
        given(
          'Speed in the gate',
          fill.speedMS,
          'm/s',
          `${settings.pouring}, head ${quantityText((1000 * fill.headM).toFixed(0), 'mm')}`,
        ),
        given('Runs for', `${fill.stopS.toFixed(2)} s`, 'text'),
        given('Thin section', fill.thinM, 'm', 'bore less wire, a quarter'),
        given('Wall takes', fill.interfaceWPerM2K, 'W/m2K', `${settings.shotsSinceSmoked} shots since smoked`),
        given('Metal', settings.metalC, 'C', settings.alloy.name),
        given('Mold', settings.moldC, 'C'),
        given('Sharpest edge', fill.sharpestM, 'm', 'radius'),
      ],
    },
    { ...indexRange(cavity, settings), basis: threshold ? 'fitted' : 'given' },
  );
}

/**
 * What one change at the bench would do to a cavity.
 * @example leverFigure(fillLevers(dart, FILL_DEFAULTS)[0], dart, FILL_DEFAULTS).unit // 'count'
 */
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
    times(indexRange(cavity, settings), lever.gain),
  );
}

/**
 * Index at which every second cast is short in this mold, by its own record.
 * @example thresholdFigure(fitThreshold([])).basis // 'fitted'
 */
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
