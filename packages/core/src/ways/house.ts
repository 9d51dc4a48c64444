import { QuantityError } from '../quantity/check.ts';
import { STEPS, type Schools, type School, type Step, type StepId } from './school.ts';

/** What is done where nobody has said anything: the first school of each step. */
export const USUAL_SCHOOLS = Object.fromEntries(
  STEPS.map(({ id, schools }) => [id, schools[0].id]),
) as unknown as Schools;

/** A product's own ways outrank those of the house; what neither says is the usual. */
export const schoolsFollowed = (house?: Partial<Schools> | null, own?: Partial<Schools> | null): Schools => ({
  ...USUAL_SCHOOLS,
  ...house,
  ...own,
});

/** The steps of a station, in working order. */
export const stepsAt = (station: Step['station']): Step<StepId>[] => STEPS.filter((step) => step.station === station);

/** The school that is followed in a step. @throws QuantityError for one that the step does not have */
export function schoolOf(step: StepId, ways: Schools): School {
  const { schools } = STEPS.find((each) => each.id === step)!;
  const found = (schools as readonly School[]).find((each) => each.id === ways[step]);
  if (!found) throw new QuantityError(step, ways[step], '', schools.map((each) => each.id).join(', '));
  return found;
}

/** The schools followed at a station, in working order. */
export const schoolsAt = (station: Step['station'], ways: Schools): { step: Step<StepId>; school: School }[] =>
  stepsAt(station).map((step) => ({ step, school: schoolOf(step.id, ways) }));

/** Share of heads that a station's schools spoil together: each spoils its share of what the others left. */
export const spoiledShare = (station: Step['station'], ways: Schools): number =>
  1 - schoolsAt(station, ways).reduce((good, { school }) => good * (1 - (school.spoils?.share ?? 0)), 1);
