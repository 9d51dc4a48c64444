import { measured, type Figure } from '../quantity/figure.ts';
import { recordedFigure } from '../quantity/recorded.ts';

/**
 * What is left of a lot, or of all of them: bookkeeping, not assay.
 * @example leftFigure(3.5, 8.5, 5).value // 3.5
 */
export const leftFigure = (leftKg: number, cameKg: number, wentKg: number): Figure =>
  recordedFigure(
    leftKg,
    'kg',
    'First in, first out: what was used came from the oldest lot that had any; what came back filled the one used last.',
    [measured('Clean metal that came', cameKg, 'kg'), measured('Went, less what came back', wentKg, 'kg')],
    'left = clean − went + came back',
  );

/**
 * Clean metal per kilogram bought: what skimming leaves of a lot.
 * @example cleanShareFigure(10, 8.7).value // 0.87
 */
export const cleanShareFigure = (grossKg: number, cleanKg: number): Figure =>
  recordedFigure(
    cleanKg / grossKg,
    'ratio',
    'What was skimmed off is a loss: the rest is what can be cast.',
    [measured('Weighed before', grossKg, 'kg'), measured('Clean, after skimming', cleanKg, 'kg')],
    'clean / weighed before',
  );

/**
 * What a kilogram of clean metal cost, dross paid for.
 * @example lotPriceFigure(1200, 10, 8).value // 150
 */
export const lotPriceFigure = (priceMinor: number, grossKg: number, cleanKg: number): Figure =>
  recordedFigure(
    priceMinor / cleanKg,
    'minor/kg',
    'Paid for the whole lot, spread over what is clean of it.',
    [measured('Paid', priceMinor, 'minor'), measured('Bought', grossKg, 'kg'), measured('Clean', cleanKg, 'kg')],
    'paid / clean',
  );

/**
 * What a material cost on average: moving over what came in.
 * @example averagePriceFigure(210, 12).unit // 'minor/kg'
 */
export const averagePriceFigure = (averageMinor: number, quantityKg: number): Figure =>
  recordedFigure(
    averageMinor,
    'minor/kg',
    'Moving average: each lot that comes in is mixed with what is there, price and quantity; what goes out leaves it as it is.',
    [measured('There now', quantityKg, 'kg')],
    'a = (a q + paid) / (q + came)',
  );

/**
 * All the metal that can be cast, as the sum of what is on the shelf and in the pots.
 * @example metalFigure([{ name: 'Soft', kg: 9, inPotKg: 2 }, { name: 'Hard', kg: 3, inPotKg: 0 }]).value // 12
 */
export const metalFigure = (leads: readonly { name: string; kg: number; inPotKg: number }[]): Figure =>
  recordedFigure(
    leads.reduce((sum, lead) => sum + lead.kg, 0),
    'kg',
    'Clean metal of every kind, heels in the pots counted in; scrap that waits to be melted down is not.',
    leads.map(({ name, kg, inPotKg }) => measured(name, kg, 'kg', inPotKg > 0 ? 'some of it in a pot' : undefined)),
    'Σ came − went',
  );

/**
 * Scrap that nobody has melted down yet.
 * @example waitingFigure([{ label: 'Keel', grossKg: 9.6 }]).value // 9.6
 */
export const waitingFigure = (lots: readonly { label: string; grossKg: number }[]): Figure =>
  recordedFigure(
    lots.reduce((sum, lot) => sum + lot.grossKg, 0),
    'kg',
    'Weighed as it came, dirt and clips in it: what is clean of it shows when it is skimmed.',
    lots.map(({ label, grossKg }) => measured(label, grossKg, 'kg')),
    'Σ weighed before',
  );
