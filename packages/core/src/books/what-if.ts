import type { SolveLp } from '../numeric/program.ts';
import { planOrder } from '../plan/plan.ts';
import { stepsOf } from '../plan/product.ts';
import { type CostStack, type PlanInput, type PlanLayer, type PlanProduct, stackTotal } from '../plan/types.ts';
import type { Offer } from '../stock/buying.ts';

/** One thing that is otherwise, to see what a head would cost then. */
interface CostChange {
  id: string;
  says: string;
  /** The plan with it; null where it changes nothing here. */
  apply(input: PlanInput): PlanInput | null;
}
export interface ChangedCost {
  id: string;
  says: string;
  stack: CostStack;
  /** Minor units a head, and how many more than as it is. */
  totalMinor: number;
  moreMinor: number;
}

const withPrice = (input: PlanInput, materialId: string, minor: number): PlanInput => ({
  ...input,
  stock: input.stock.map((each) => (each.materialId === materialId ? { ...each, priceMinor: minor } : each)),
  lead: input.lead.materialId === materialId ? { ...input.lead, priceMinor: minor } : input.lead,
});

/** Without the last coat of what is painted last. */
const lessByACoat = (layers: readonly PlanLayer[]): PlanLayer[] => {
  const last = layers.at(-1);
  if (!last) return [];
  return last.coats > 1 ? [...layers.slice(0, -1), { ...last, coats: last.coats - 1 }] : layers.slice(0, -1);
};

/**
 * A product with a coat less on its last painted step: what the steps take together, and what each takes.
 * @example thinner(product(10)).layers.length // 0
 */
export function thinner(product: PlanProduct): PlanProduct {
  const steps = stepsOf(product);
  const at = steps.findLastIndex(({ layers }) => layers.length > 0);
  return {
    ...product,
    layers: lessByACoat(product.layers),
    steps: steps.map((step, nth) => (nth === at ? { ...step, layers: lessByACoat(step.layers) } : step)),
  };
}

/** Less than this a head is no difference, minor units. */
const SEEN_MINOR = 0.05;

/** Metal dearer by so much: what a bad year of scrap is like. Common practice, no source. */
const DEARER = 1.5;

/** The price of a piece in the largest pack that somebody sells. */
function bulkMinor(offers: readonly Offer[], materialId: string): number | null {
  const own = offers.filter((offer) => offer.materialId === materialId);
  const prices = own.map(({ pack, prices: [first] }) => first!.minor / pack);
  return prices.length ? Math.min(...prices) : null;
}

/**
 * What can be changed, one thing at a time: metal, hooks by the largest pack, a coat, molds, hands, rejects, how many.
 * @example costChanges([]).map(({ id }) => id)[0] // 'metal dearer'
 */
export function costChanges(offers: readonly Offer[]): CostChange[] {
  return [
    {
      ...{ id: 'metal dearer', says: `metal dearer by ${Math.round(100 * (DEARER - 1))} %` },
      apply: (input) => {
        const { materialId, priceMinor } = input.lead;
        return priceMinor ? withPrice(input, materialId, priceMinor * DEARER) : null;
      },
    },
    {
      ...{ id: 'hooks in bulk', says: 'hooks by the largest pack that is sold' },
      apply: (input) => {
        const hook = input.lines[0]?.product.hook;
        const minor = hook ? bulkMinor(offers, hook.materialId) : null;
        const now = input.stock.find(({ materialId }) => materialId === hook?.materialId)?.priceMinor;
        return hook && minor !== null && minor !== now ? withPrice(input, hook.materialId, minor) : null;
      },
    },
    {
      ...{ id: 'one coat less', says: 'one coat less' },
      apply: (input) => {
        const layers = input.lines[0]?.product.layers ?? [];
        const coats = layers.reduce((sum, layer) => sum + layer.coats, 0);
        if (coats < 2) return null;
        return { ...input, lines: input.lines.map((line) => ({ ...line, product: thinner(line.product) })) };
      },
    },
    {
      ...{ id: 'two molds', says: 'two molds like it, poured in turn' },
      apply: (input) => (input.lines[0]?.product.source === 'shelf' ? null : { ...input, twoOfEach: true }),
    },
    {
      ...{ id: 'no labour', says: 'no labour counted' },
      apply: (input) =>
        input.ways.labourMinorPerHour > 0 ? { ...input, ways: { ...input.ways, labourMinorPerHour: 0 } } : null,
    },
    {
      ...{ id: 'own cavities perfect', says: 'every cast good' },
      apply: (input) => {
        const cavities = (mold: PlanInput['molds'][number]) =>
          mold.cavities.map((cavity) => ({ ...cavity, good: 1e6, casts: 1e6 }));
        const molds = input.molds.map((mold) => ({ ...mold, eveningSpread: 0, cavities: cavities(mold) }));
        return { ...input, molds, afterPour: { mean: 1, sure: 1e6 } };
      },
    },
    {
      ...{ id: 'twice as many', says: 'twice as many at once' },
      apply: (input) => ({ ...input, lines: input.lines.map((line) => ({ ...line, quantity: 2 * line.quantity })) }),
    },
  ];
}

/**
 * What a head of the first line costs, as it is and with each change by itself.
 * @returns as it is first, with the id `as it is`; changes that change nothing are left out
 * @param solve a solver for the molds, as {@link planOrder}
 * @throws QuantityError for what no plan takes
 * @example changedCosts(order, []).at(0).id // 'as it is'
 */
export function changedCosts(input: PlanInput, offers: readonly Offer[], solve?: SolveLp): ChangedCost[] {
  const stackOf = (of: PlanInput) => planOrder(of, solve).lines[0]?.stack;
  const now = stackOf(input);
  if (!now) return [];
  const nowMinor = stackTotal(now);
  const changed = costChanges(offers).flatMap(({ id, says, apply }): ChangedCost[] => {
    const other = apply(input);
    const stack = other && stackOf(other);
    if (!stack) return [];
    const totalMinor = stackTotal(stack);
    const moreMinor = totalMinor - nowMinor;
    return Math.abs(moreMinor) < SEEN_MINOR ? [] : [{ id, says, stack, totalMinor, moreMinor }];
  });
  return [{ id: 'as it is', says: 'as it is', stack: now, totalMinor: nowMinor, moreMinor: 0 }, ...changed];
}

/**
 * What a head of the first line costs, so many at once, minor units.
 * @throws QuantityError for what no plan takes; Infinity where no mold casts it
 * @example costAt(order, 24) > costAt(order, 240) // true
 */
export function costAt(input: PlanInput, heads: number, solve?: SolveLp): number {
  const lines = input.lines.slice(0, 1).map((line) => ({ ...line, quantity: heads }));
  const stack = planOrder({ ...input, lines }, solve).lines[0]?.stack;
  return stack ? stackTotal(stack) : Infinity;
}
