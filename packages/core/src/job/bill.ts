import { partKind } from './part-kinds.ts';
import type { RouteStep } from './route.ts';
import { quantityText } from '../quantity/said.ts';

/** One line of a bill of materials: a part, how much a head takes of it, and the step that uses it. */
export interface BillLine {
  partId: string;
  name: string;
  kind: string;
  /** In the unit of its kind, a head. */
  quantity: number;
  /** Share that is spoiled or left over, on top of the quantity. */
  waste: number;
  /** Key of the step; `pour` for what is cast in. */
  step: string;
}

/** The step at which the head itself is made: what is used there is cast in. */
export const POUR_STEP = 'pour';

/** How much of a part one head takes, what is wasted in it. @example perHead({ quantity: 2, waste: 0.1 }) // 2.2 */
export const perHead = ({ quantity, waste }: Pick<BillLine, 'quantity' | 'waste'>): number => quantity * (1 + waste);

/**
 * Where on the way a step stands: -1 at the pour, then as in the route; behind all of them where it is not on it.
 * @example placeOf([{ key: 'trim' }, { key: 'finish' }], 'finish') // 1
 */
export const placeOf = (route: readonly Pick<RouteStep, 'key'>[], step: string): number => {
  if (step === POUR_STEP) return -1;
  const at = route.findIndex((each) => each.key === step);
  return at < 0 ? route.length : at;
};

/** Heat that a step brings to everything that is on the head by then, C; null where it brings none. */
interface StepHeat {
  step: string;
  heatC: number | null;
}

/**
 * Parts that are on a head before a step that is hotter than they stand, in words: a rubber skirt does not go into the
 * oven. Parts with no limit on record are passed over.
 * @example heatProblems([], [], []) // []
 */
export function heatProblems(
  route: readonly RouteStep[],
  bill: readonly (BillLine & { limitC: number | null })[],
  heats: readonly StepHeat[],
): string[] {
  return heats.flatMap(({ step, heatC }) => {
    if (heatC === null) return [];
    const at = placeOf(route, step);
    const does = route.find((each) => each.key === step)?.does ?? step;
    return bill
      .filter((line) => line.limitC !== null && line.limitC < heatC && placeOf(route, line.step) < at)
      .map(
        ({ name, kind, limitC }) =>
          `${does} is at ${quantityText(Math.round(heatC), '°C')}, and the ${name} that is on by then stands ${quantityText(Math.round(limitC!), '°C')}${
            partKind(kind).costs === 'hook' ? ': it may brown' : ': put it on after'
          }.`,
      );
  });
}
