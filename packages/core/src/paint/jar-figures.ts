import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import { jarLevel, type JarEfficiency, type JarMoves } from './jar.ts';

/**
 * What a jar holds now: weighed, or an estimate since.
 * @example jarFigure('White', { lastKg: 0.2, receivedKg: 0.1, onHeadsKg: 0.07 }, { efficiency: 0.7, low: 0.5,
 *   high: 0.9, weighings: 0 }).value // 0.2
 */
export function jarFigure(name: string, moves: JarMoves, stays: JarEfficiency): Figure {
  const { lastKg, receivedKg, onHeadsKg } = moves;
  const level = jarLevel(moves, stays);
  return figure(
    level.kg,
    'kg',
    {
      rule: level.weighed
        ? 'As it was weighed; nothing has come or gone since.'
        : 'What was weighed last, and what came, less what has gone since: an estimate until it is weighed again.',
      formula: 'weighed + bought − on heads / stays on',
      source: 'Your scale; the coverage formula between weighings',
      inputs: [
        measured(`${name} weighed`, lastKg, 'kg'),
        measured('Bought since', receivedKg, 'kg'),
        given('On heads since', onHeadsKg, 'kg', 'area · film · density'),
        { ...given('Stays on', stays.efficiency, 'ratio'), basis: stays.weighings > 0 ? 'fitted' : 'given' },
      ],
    },
    { low: level.low, high: level.high, basis: level.weighed ? 'measured' : stays.weighings > 0 ? 'fitted' : 'given' },
  );
}

/**
 * Share of the powder taken that stays on the heads.
 * @example efficiencyFigure({ efficiency: 0.7, low: 0.5, high: 0.9, weighings: 0 }, 0, 0).value // 0.7
 */
export const efficiencyFigure = (stays: JarEfficiency, usedKg: number, onHeadsKg: number): Figure =>
  figure(
    stays.efficiency,
    'ratio',
    {
      rule:
        stays.weighings > 0
          ? 'All that lies on heads over all that went from the jars, leaning on the usual while weighings are few.'
          : 'No jar was weighed twice yet: what is usual.',
      formula: '(on heads + prior) / (used + prior)',
      source: 'Your weighings; the prior is common practice',
      inputs: [
        measured('Went from the jars', usedKg, 'kg'),
        given('Lies on heads', onHeadsKg, 'kg'),
        measured('Stretches between weighings', stays.weighings, 'count'),
      ],
    },
    { low: stays.low, high: stays.high, basis: stays.weighings > 0 ? 'fitted' : 'given' },
  );
