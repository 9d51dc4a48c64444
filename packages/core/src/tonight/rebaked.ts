import { FULL_ENOUGH } from '../bake/cure.ts';
import type { OvenRecord } from '../bake/known-oven.ts';
import { OVER_BAKED } from '../bake/program.ts';
import { productBake, stepsOf } from '../plan/product.ts';
import type { PlanBake, PlanProduct } from '../plan/types.ts';

/**
 * A product with its last bake by another program; null where it is not baked, where that would leave its powder short
 * of a cure or over-baked in this oven, or where a part on it does not stand the heat.
 * @param heads of a load: they take of the oven's power
 * @example rebaked(product(10), { name: 'Hot', setC: 200, seconds: 1800, preheated: true }, planOven, 60).bake.setC
 *   // 200
 * @example rebaked(product(10), { name: 'Cool', setC: 121, seconds: 1200, preheated: true }, planOven, 60) // null
 */
export function rebaked(product: PlanProduct, bake: PlanBake, oven: OvenRecord, heads: number): PlanProduct | null {
  if (!product.bake) return null;
  const steps = stepsOf(product);
  const last = steps.findLastIndex((step) => step.bake);
  const other = { ...product, bake, steps: steps.map((step, at) => (at === last ? { ...step, bake } : step)) };
  const outcome = productBake(other, oven, heads);
  if (!outcome || outcome.damage.flag !== 'none') return null;
  const cure = outcome.cure.value;
  return cure >= FULL_ENOUGH && cure < OVER_BAKED ? other : null;
}

/** The same bake, however it is called. */
const alike = (a: PlanBake, b: PlanBake): boolean =>
  a.setC === b.setC && a.seconds === b.seconds && a.preheated === b.preheated && a.from === b.from;

/**
 * What is wanted with all of it that can be baked by one program, so that it shares loads; null where that changes
 * nothing, or where something that is baked cannot be.
 * @example allBakedBy([{ product: product(10) }], { name: 'Cool', setC: 121, seconds: 1200, preheated: true },
 *   planOven, 60) // null
 */
export function allBakedBy<W extends { product: PlanProduct }>(
  wanted: readonly W[],
  bake: PlanBake,
  oven: OvenRecord,
  heads: number,
): W[] | null {
  const changes = wanted.filter(({ product }) => product.bake && !alike(product.bake, bake));
  if (changes.length === 0) return null;
  const found: W[] = [];
  for (const each of wanted) {
    const other = changes.includes(each) ? rebaked(each.product, bake, oven, heads) : each.product;
    if (!other) return null;
    found.push({ ...each, product: other });
  }
  return found;
}
