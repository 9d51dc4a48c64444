import { given, measured, type Figure, type Unit } from '../quantity/figure.ts';
import { recordedFigure } from '../quantity/recorded.ts';
import { SOOT_SCHOOLS, sootDue, type SootSchool } from './soot.ts';

interface SootedCavity {
  position: number;
  shotsSinceSmoked: number;
  everSmoked: boolean;
}

const shots = ({ position, shotsSinceSmoked, everSmoked }: SootedCavity) =>
  measured(
    `Cavity ${position}`,
    shotsSinceSmoked,
    'count',
    everSmoked ? 'shots since smoked' : 'never smoked on record',
  );

const schoolName = (school: SootSchool) =>
  given('Your way', SOOT_SCHOOLS.find(({ id }) => id === school)!.name, 'text');

/**
 * Shots that a cavity has seen since the candle.
 * @example sinceSmokedFigure({ position: 1, shotsSinceSmoked: 12, everSmoked: true }).value // 12
 */
export const sinceSmokedFigure = (cavity: SootedCavity): Figure =>
  recordedFigure(
    cavity.shotsSinceSmoked,
    'count',
    'Every shot logged at the pot since this cavity was written down as smoked, blank shots too.',
    [shots(cavity)],
  );

/**
 * Shots until a cavity wants the candle; null in the schools without a count, or where it is due.
 * @example smokeInFigure('five', { position: 2, shotsSinceSmoked: 1, everSmoked: true }).value // 4
 */
export function smokeInFigure(school: SootSchool, cavity: SootedCavity): Figure | null {
  const { due, inShots } = sootDue(school, cavity.shotsSinceSmoked, cavity.everSmoked);
  if (due || inShots === null) return null;
  return recordedFigure(
    inShots,
    'count',
    'By the interval of your way.',
    [schoolName(school), shots(cavity)],
    'interval − shots since',
  );
}

/**
 * How many cavities want the candle now.
 * @example smokeDueFigure('five', [{ position: 1, shotsSinceSmoked: 12, everSmoked: true }]).value // 1
 */
export const smokeDueFigure = (school: SootSchool, cavities: readonly SootedCavity[]): Figure =>
  recordedFigure(
    cavities.filter((each) => sootDue(school, each.shotsSinceSmoked, each.everSmoked).due).length,
    'count',
    'Cavities past the interval of your way; those out of use are left out.',
    [schoolName(school), ...cavities.map(shots)],
    'count of shots since ≥ interval',
  );

/**
 * Pieces in the drawer: owned, less what is said to be elsewhere.
 * @example inDrawerFigure([{ name: 'Pin', owned: 20, places: [{ where: 'in heads', count: 6 }] }]).value // 14
 */
export const inDrawerFigure = (
  parts: readonly { name: string; owned: number; places: readonly { where: string; count: number }[] }[],
): Figure =>
  recordedFigure(
    parts.reduce((sum, part) => sum + part.owned - part.places.reduce((out, place) => out + place.count, 0), 0),
    'count',
    'What is owned, less what you said is somewhere else.',
    parts.flatMap((part) => [
      measured(part.name, part.owned, 'count', 'owned'),
      ...part.places.map(({ where, count }) => measured(where, -count, 'count')),
    ]),
    'owned − elsewhere',
  );

/**
 * What Stock holds of something now.
 * @example stockFigure('Hook', 150).value // 150
 */
export const stockFigure = (name: string, quantity: number, unit: Unit = 'count'): Figure =>
  recordedFigure(
    quantity,
    unit,
    'What came in, less what was used or lost; a count corrects it.',
    [measured(name, quantity, unit)],
    'Σ came − went',
  );

/**
 * How many cavities can be filled with the hooks in the house.
 * @example castableFigure([{ position: 1, hooks: ['2/0'] }, { position: 2, hooks: [] }]).value // 1
 */
export const castableFigure = (cavities: readonly { position: number; hooks: readonly string[] }[]): Figure =>
  recordedFigure(
    cavities.filter(({ hooks }) => hooks.length > 0).length,
    'count',
    'Cavities in which some hook that is there seats, as cut or with its eye bent.',
    cavities.map(({ position, hooks }) =>
      measured(`Cavity ${position}`, hooks.length ? hooks.join(', ') : 'none', 'text'),
    ),
    'count of cavities with a hook',
  );

/**
 * How often a cause spoiled a cast.
 * @example causeFigure('short', 3, 100).why.rule // 'Marked as short at the pot.'
 */
export const causeFigure = (cause: string, count: number, casts: number): Figure =>
  recordedFigure(count, 'count', `Marked as ${cause} at the pot.`, [measured('Casts', casts, 'count')], 'as tapped');

/**
 * All cavities of all molds.
 * @example cavitiesFigure([{ name: 'Five', cavities: [1, 2, 3] }]).value // 3
 */
export const cavitiesFigure = (molds: readonly { name: string; cavities: readonly unknown[] }[]): Figure =>
  recordedFigure(
    molds.reduce((sum, { cavities }) => sum + cavities.length, 0),
    'count',
    'Cavities of every mold on record, those out of use too.',
    molds.map(({ name, cavities }) => measured(name, cavities.length, 'count')),
    'Σ cavities',
  );
