import { PROBE_SD_K } from '../pot/dial.ts';
import { Z_90 } from '../quantity/range.ts';
import { figure, measured, type Figure } from '../quantity/figure.ts';

/**
 * What a probe reads now, with what a probe is good for.
 * @example probeFigure('pot', 371).high // 375.9
 */
export const probeFigure = (name: string, celsius: number): Figure =>
  figure(
    celsius,
    'C',
    {
      rule: 'Read off a probe a moment ago. A thermocouple is good to a few kelvin, one that touches badly reads low.',
      formula: 'as read',
      source: 'Your logger; type K, class 2 after IEC 60584-1',
      inputs: [measured(name, celsius, 'C')],
    },
    { low: celsius - Z_90 * PROBE_SD_K, high: celsius + Z_90 * PROBE_SD_K, basis: 'measured' },
  );
