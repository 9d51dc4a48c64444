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

/**
 * What so many heads have taken of a part: pieces are whole, and one that broke is counted when it breaks; of what is
 * measured off, what is left on spool, brush and card goes with every head.
 * @example takenBy({ kind: 'bag', quantity: 0.1, waste: 0.05 }, 11) // 2
 * @example takenBy({ kind: 'thread', quantity: 2, waste: 0.05 }, 10) // 21
 */
export const takenBy = (line: Pick<BillLine, 'kind' | 'quantity' | 'waste'>, heads: number): number =>
  partKind(line.kind).unit === 'pieces' ? Math.ceil(line.quantity * heads - 1e-9) : perHead(line) * heads;

/**
 * What comes back of a part with so many heads: whole pieces, as far as they were on.
 * @example givenBack({ kind: 'blade', quantity: 2, waste: 0.1 }, 3) // 6
 */
export const givenBack = (line: Pick<BillLine, 'kind' | 'quantity' | 'waste'>, heads: number): number =>
  partKind(line.kind).unit === 'pieces' ? Math.floor(line.quantity * heads + 1e-9) : perHead(line) * heads;

/**
 * Why something cannot be said of the parts of a step, in words; null when it can.
 * @param said parts that broke, or that are still in the hand
 * @example partsRefusal([], 'finish', 'partId', ['a'])
 *   // 'partId is "a"; allowed: none, as no piece is put on at finish'
 */
export function partsRefusal(
  bill: readonly Pick<BillLine, 'partId' | 'name' | 'kind' | 'step'>[],
  step: string,
  field: string,
  said: readonly string[],
): string | null {
  const pieces = bill.filter((line) => line.step === step && partKind(line.kind).unit === 'pieces');
  const odd = said.find((partId) => !pieces.some((line) => line.partId === partId));
  if (odd === undefined) return null;
  const allowed = pieces.map(({ partId, name }) => `${partId} (${name})`).join(', ');
  return `${field} is ${JSON.stringify(odd)}; allowed: ${allowed || `none, as no piece is put on at ${step}`}`;
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
