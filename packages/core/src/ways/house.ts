import { QuantityError } from '../quantity/check.ts';
import { STEPS, type Schools, type School, type Step, type StepId } from './school.ts';

/** What is done where nobody has said anything: the first school of each step. */
export const USUAL_SCHOOLS = Object.fromEntries(
  STEPS.map(({ id, schools }) => [id, schools[0].id]),
) as unknown as Schools;

/**
 * A product's own ways outrank those of the house; what neither says is the usual.
 * @example schoolsFollowed({ sprue: 'wiggle' }).sprue // 'wiggle'
 */
export const schoolsFollowed = (house?: Partial<Schools> | null, own?: Partial<Schools> | null): Schools => ({
  ...USUAL_SCHOOLS,
  ...house,
  ...own,
});

/**
 * The steps of a station, in working order.
 * @example schoolStepsAt('trim')[0].id // 'sprue'
 */
export const schoolStepsAt = (station: Step['station']): Step<StepId>[] =>
  STEPS.filter((step) => step.station === station);

/**
 * The school that is followed in a step. @throws QuantityError for one that the step does not have
 * @example schoolOf('sprue', USUAL_SCHOOLS).seconds // 3
 */
export function schoolOf(step: StepId, ways: Schools): School {
  const { schools } = STEPS.find((each) => each.id === step)!;
  const found = (schools as readonly School[]).find((each) => each.id === ways[step]);
  if (!found) throw new QuantityError(step, ways[step], '', schools.map((each) => each.id).join(', '));
  return found;
}

/**
 * The schools followed at a station, in working order.
 * @example schoolsAt('trim', USUAL_SCHOOLS)[0].school.id // 'nip'
 */
export const schoolsAt = (station: Step['station'], ways: Schools): { step: Step<StepId>; school: School }[] =>
  schoolStepsAt(station).map((step) => ({ step, school: schoolOf(step.id, ways) }));

/**
 * Share of heads that a station's schools spoil together: each spoils its share of what the others left.
 * @example spoiledShare('trim', USUAL_SCHOOLS) // 0
 */
export const spoiledShare = (station: Step['station'], ways: Schools): number =>
  1 - schoolsAt(station, ways).reduce((good, { school }) => good * (1 - (school.spoils?.share ?? 0)), 1);
