import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import { bookFigure } from '../quantity/recorded.ts';
import { antimonyFromHardness, SOFT_LEAD, type Alloy } from './alloy.ts';

/** Metal is poured this far above where it begins to freeze: lead at about 370 C. Common practice, no source. */
const POUR_ABOVE_K = 370 - SOFT_LEAD.liquidusC;

/**
 * What a metal is poured at in a house that pours lead at `leadPourC`: lead and its alloys alike, others as far above
 * their melting as lead usually is.
 * @example pourTemperatureC(SOFT_LEAD, 371) // 371
 */
export const pourTemperatureC = (alloy: Alloy, leadPourC: number): number =>
  alloy.liquidusC > 240 ? Math.max(leadPourC, alloy.liquidusC + 10) : alloy.liquidusC + POUR_ABOVE_K;

/**
 * Where a metal melts, freezes and is poured, and how heavy it is.
 * @example alloyFigures(SOFT_LEAD).liquidus.value // 327.5
 */
export function alloyFigures(alloy: Alloy) {
  const diagram = 'Binary phase diagrams, read off by straight lines; from memory';
  const pourC = alloy.liquidusC + POUR_ABOVE_K;
  return {
    liquidus: bookFigure(alloy.liquidusC, 'C', `Above this ${alloy.name} is all liquid.`, diagram),
    solidus: bookFigure(
      alloy.solidusC,
      'C',
      `Below this ${alloy.name} is all solid; between the two it is a paste.`,
      diagram,
    ),
    pour: figure(
      pourC,
      'C',
      {
        rule: 'As far above where it begins to freeze as lead is usually poured above its own melting point.',
        formula: 'T = T_liquidus + 370 − 327.5',
        source: 'Common practice, no source',
        inputs: [given('Begins to freeze', alloy.liquidusC, 'C')],
      },
      { low: pourC - 15, high: pourC + 15 },
    ),
    density: bookFigure(
      alloy.densityKgM3,
      'kg/m3',
      'Parts mixed by volume.',
      'Ideal mixing; densities from the CRC Handbook, from memory',
    ),
  };
}

/**
 * Antimony in percent by mass from a hardness test, as a range.
 * @example antimonyFigure(10).value // 0.0275
 */
export function antimonyFigure(brinell: number): Figure {
  const { percent, low, high } = antimonyFromHardness(brinell);
  return figure(
    percent / 100,
    'ratio',
    {
      rule: 'Antimony makes lead hard; tin and the age of the casting do too, and without tin the same hardness stands for more: a range, and a wide one.',
      formula: 'inverse of BHN against % Sb, by straight lines',
      source: 'Hardness of antimonial lead, handbook values from memory',
      inputs: [measured('Hardness', `${brinell.toFixed(1)} BHN`, 'text')],
    },
    { low: low / 100, high: high / 100, basis: 'fitted' },
  );
}
