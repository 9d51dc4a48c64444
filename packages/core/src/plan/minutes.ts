import { schoolsFollowed } from '../ways/house.ts';
import { paceOf, type PaceFactor } from '../ways/pace.ts';
import { finishSchool } from '../ways/finish.ts';
import { paintSeconds, TAKE_UP_S, trimSeconds } from '../ways/work.ts';
import { productHeated, stepsOf } from './product.ts';
import type { KnownWays, PlanLine, PlanProduct, PlanStep } from './types.ts';

/**
 * Seconds to trim one head: the maker's own, or by the ways that are followed.
 * @example trimS({ ...ways, trimS: 7 }, product(10)) // 7
 */
export const trimS = (ways: KnownWays, product: Pick<PlanProduct, 'ways'>): number =>
  ways.trimS ?? trimSeconds(schoolsFollowed(ways.schools, product.ways));

/**
 * Seconds to paint one head, all its layers: the maker's own for a coat, or by the model and the ways.
 * @example paintS({ ...ways, coatS: 20 }, product(10)) // 20
 */
export function paintS(ways: KnownWays, product: PlanProduct): number {
  const { layers } = product;
  if (ways.coatS !== null) return ways.coatS * layers.reduce((total, layer) => total + layer.coats, 0);
  const painted = layers.map(({ zone, coats, powder }) => ({ zone, coats, form: powder.form ?? ('powder' as const) }));
  return paintSeconds(painted, productHeated(product), schoolsFollowed(ways.schools, product.ways), ways);
}

/**
 * Hands-on seconds that are in a head when it comes to a station: what is lost with one that is spoiled there.
 * @example workBeforeS('trim', { ...ways, loadS: 9, inspectS: 5 }, product(10)) // 14
 */
export const workBeforeS = (station: 'trim' | 'paint', ways: KnownWays, product: Pick<PlanProduct, 'ways'>): number =>
  ways.loadS + ways.inspectS + (station === 'paint' ? trimS(ways, product) : 0);

/** Whether the maker has typed what a step takes: that outranks every record. */
const isTyped = ({ handsS, station }: PlanStep, { trimS: trim, coatS }: KnownWays): boolean =>
  (handsS !== undefined && handsS !== null) ||
  (station === 'trim' && trim !== null) ||
  (station === 'paint' && coatS !== null);

/**
 * How the maker's hands differ from the ways at a step, of a product where it is named: 1 where a time was typed.
 * @example paceOfStep(stepsOf(product(10))[0], ways).factor // 1
 */
export const paceOfStep = (step: PlanStep, ways: KnownWays, productId?: string): PaceFactor =>
  paceOf(isTyped(step, ways) ? null : ways.pace, step.station, step.does, productId);

/**
 * Hands-on seconds a head at one step: as the maker has typed it, or what the ways of its station take, at the maker's
 * own pace.
 * @example stepSeconds(stepsOf(product(10))[0], { ...ways, trimS: 10 }, product(10)) // 10
 */
export const stepSeconds = (step: PlanStep, ways: KnownWays, product: PlanProduct): number =>
  paceOfStep(step, ways, product.id).factor * secondsByWays(step, ways, product);

function secondsByWays(step: PlanStep, ways: KnownWays, product: PlanProduct): number {
  if (step.handsS !== undefined && step.handsS !== null) return step.handsS;
  if (step.station === 'trim') return trimS(ways, product);
  if (step.station === 'paint') return paintS(ways, { ...product, layers: step.layers });
  if (step.station === 'bake') return step.bake && step.bake.seconds > 0 ? ways.hangS : 0;
  return step.task ? TAKE_UP_S + finishSchool(step.task, step.school).seconds : ways.finishS;
}

/** What a step of a product takes of a person, for a whole line. */
export interface StepHands {
  step: PlanStep;
  line: PlanLine;
  seconds: number;
}

/**
 * Hands-on seconds of all lines, step by step of their routes.
 * @example handsOf({ ...ways, trimS: 10 }, [{ product: product(10), quantity: 60 }])[0].seconds // 600
 */
export const handsOf = (ways: KnownWays, lines: readonly PlanLine[]): StepHands[] =>
  lines.flatMap((line) =>
    stepsOf(line.product).map((step) => ({
      step,
      line,
      seconds: line.quantity * stepSeconds(step, ways, line.product),
    })),
  );

/**
 * @example totalSeconds([]) // 0
 */
export const totalSeconds = (hands: readonly StepHands[]): number =>
  hands.reduce((sum, { seconds }) => sum + seconds, 0);
