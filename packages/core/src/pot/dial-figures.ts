import { figure, given, measured, type Figure, type WhyInput } from '../quantity/figure.ts';
import { Z_90 } from '../quantity/range.ts';
import { bookFigure } from '../quantity/recorded.ts';
import type { DialTable, Drift } from './dial.ts';
import { SKIN_SD_K, SKINS, type SkinColour } from './skin.ts';
import { quantityText } from '../quantity/said.ts';

const FROM_PAIRS = {
  formula: 'monotone cubic through the marks (PCHIP)',
  source: 'Fritsch & Carlson 1980; your pairs',
};

const markInputs = (table: DialTable): WhyInput[] =>
  table.marks.map(({ dial, temperatureC, sdK, pairs }) =>
    measured(
      `Mark ${dial}`,
      temperatureC,
      'C',
      `± ${quantityText(Math.round(Z_90 * sdK), 'K')}, ${pairs} ${pairs === 1 ? 'pair' : 'pairs'}`,
    ),
  );

/**
 * What the dial stands for, from the maker's own pairs.
 * @example dialFigure(dialTable(dialPairs), 6).value // 352
 */
export function dialFigure(table: DialTable, dial: number): Figure {
  const { temperatureC, sdK, outside } = table.at(dial);
  return figure(
    temperatureC,
    'C',
    {
      rule: outside
        ? `Mark ${dial} lies outside the measured marks ${table.from} to ${table.to}: the nearest one is held. Measure it.`
        : 'Between your own measured marks, never overshooting them.',
      ...FROM_PAIRS,
      inputs: markInputs(table),
    },
    { low: temperatureC - Z_90 * sdK, high: temperatureC + Z_90 * sdK, basis: outside ? 'given' : 'fitted' },
  );
}

/**
 * The mark to turn to for a temperature; null where no measured mark reaches it.
 * @example dialMarkFigure(dialTable(dialPairs), 372).value // 7
 */
export function dialMarkFigure(table: DialTable, temperatureC: number): Figure | null {
  const dial = table.dialFor(temperatureC);
  if (dial === null) return null;
  const { sdK } = table.at(dial);
  const low = table.dialFor(temperatureC - Z_90 * sdK) ?? table.from;
  const high = table.dialFor(temperatureC + Z_90 * sdK) ?? table.to;
  const rule = 'Where the curve through your own measured marks reaches this temperature.';
  const inputs = [given('Wanted', temperatureC, 'C'), ...markInputs(table)];
  return figure(dial, 'count', { rule, ...FROM_PAIRS, inputs }, { low, high, basis: 'fitted' });
}

/**
 * How much hotter or colder the same mark gets in a month.
 * @example driftFigure({ kPerMonth: 3, sdKPerMonth: 0.45, real: true, pairs: 4 }).value // 3
 */
export const driftFigure = (drift: Drift): Figure =>
  figure(
    drift.kPerMonth,
    'K/month',
    {
      rule: drift.real
        ? 'One straight line through time for all marks. It is beyond twice its doubt: not chance.'
        : 'One straight line through time for all marks. It is within twice its doubt: it may be nothing.',
      formula: 'T = T_mark + k t, least squares',
      source: 'Your pairs, measured again on other days',
      inputs: [measured('Pairs', drift.pairs, 'count')],
    },
    {
      low: drift.kPerMonth - Z_90 * drift.sdKPerMonth,
      high: drift.kPerMonth + Z_90 * drift.sdKPerMonth,
      basis: 'fitted',
    },
  );

/**
 * From where on the skin shows this colour.
 * @example skinFigure('straw').value // 355
 */
export function skinFigure(colour: SkinColour): Figure {
  const skin = SKINS.find((each) => each.colour === colour)!;
  return bookFigure(
    skin.fromC,
    'C',
    `The skin on clean lead begins to look ${colour}: ${skin.says}. Light and alloy shift it.`,
    'Common practice, no source',
    { low: skin.fromC - Z_90 * SKIN_SD_K, high: skin.fromC + Z_90 * SKIN_SD_K },
  );
}
