import { cureLaw } from '../bake/cure-law.ts';
import { bakedHeatJK, headLagS } from '../bake/head-lag.ts';
import { knownOven, loadHeat, type OvenRecord } from '../bake/known-oven.ts';
import { bakeOutcome, type BakeOutcome } from '../bake/outcome.ts';
import type { BakedHead } from '../bake/program.ts';
import { typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import type { HeatedHead } from '../paint/head-heat.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { coldHeadSolid, headWidthM } from '../geometry/solid.ts';
import { placeOf } from '../job/bill.ts';
import { usualRoute } from '../job/route.ts';
import { powderKg, ZONE_SHARE } from '../paint/coverage.ts';
import { schoolsFollowed } from '../ways/house.ts';
import type { HouseWays, PlanLayer, PlanPowder, PlanProduct, PlanStep, StepPowder } from './types.ts';

type Coated = Pick<PlanProduct, 'layers' | 'bake' | 'steps' | 'source'>;

/**
 * The steps of a product with what they take; where it names none, all its paint is one step and its bake another.
 * @example stepsOf(product(10)).map(({ key }) => key) // ['trim', 'paint', 'bake', 'finish']
 */
export function stepsOf(product: Coated): PlanStep[] {
  if (product.steps) return product.steps;
  const { layers, bake, source } = product;
  const route = usualRoute({ painted: layers.length > 0, baked: bake !== null, fromShelf: source === 'shelf' });
  return route.map((step) => ({
    ...step,
    layers: step.station === 'paint' ? layers : [],
    bake: step.station === 'bake' ? bake : null,
  }));
}

type PowderWays = Pick<HouseWays, 'filmM' | 'transferEfficiency' | 'schools'>;
type Dipped = Pick<PlanProduct, 'style' | 'nominalMassKg' | 'ways'>;

/**
 * Surface that is dipped, m2: to the shoulder, so that thread and skirt grip bare lead, or collar and all.
 * @example 1e6 * dippedAreaM2(product(10), ways) // 426.3
 */
export function dippedAreaM2(product: Dipped, ways: Pick<HouseWays, 'schools'>): number {
  const solid = coldHeadSolid(product.style, castMassKg({ nominalMassKg: product.nominalMassKg }));
  return schoolsFollowed(ways.schools, product.ways).collar === 'whole' ? solid.cooledAreaM2 : solid.paintedAreaM2;
}

/**
 * Powder for one head of this product, kg by step and material; the same powder in two layers of a step is added up.
 * @example powdersByStep(product(10), ways).map(({ step }) => step) // ['paint']
 */
export const powdersByStep = (product: PlanProduct, ways: PowderWays): StepPowder[] =>
  stepsOf(product).flatMap((step) =>
    powdersOfLayers(product, step.layers, ways).map((powder) => ({ ...powder, step: step.key })),
  );

/**
 * Powder for one head of this product, kg by material over all its steps.
 * @example powdersPerHead(product(10), ways).length // 1
 */
export function powdersPerHead(product: PlanProduct, ways: PowderWays) {
  return powdersOfLayers(
    product,
    stepsOf(product).flatMap((step) => step.layers),
    ways,
  );
}

function powdersOfLayers(product: Dipped, layers: readonly PlanLayer[], ways: PowderWays) {
  const paintedAreaM2 = dippedAreaM2(product, ways);
  const byMaterial = new Map<string, { materialId: string; name: string; kgPerHead: number }>();
  const add = (powder: PlanPowder, { zone, coats }: PlanLayer, share: number) => {
    const kg =
      coats *
      share *
      powderKg({
        paintedAreaM2: paintedAreaM2 * ZONE_SHARE[zone],
        filmM: ways.filmM,
        specificGravity: powder.specificGravity,
        transferEfficiency: ways.transferEfficiency,
      });
    const before = byMaterial.get(powder.materialId)?.kgPerHead ?? 0;
    byMaterial.set(powder.materialId, { materialId: powder.materialId, name: powder.name, kgPerHead: before + kg });
  };
  for (const layer of layers) {
    const mixed = layer.mix?.share ?? 0;
    add(layer.powder, layer, 1 - mixed);
    if (layer.mix) add(layer.mix.powder, layer, mixed);
  }
  return [...byMaterial.values()];
}

/** What a head without a hook is held by. Common practice, no source. */
const HANGING_WIRE_M = 0.0008;

/**
 * This product's head as a gun or a flame sees it.
 * @example productHeated({ style: 'ball', nominalMassKg: 0.0142, hook: { size: '3/0' } }) // { leadKg: 0.0142,
 *   areaM2: 0.0006234, wireM: 0.00134, embeddedM: 0.01337 }
 */
export function productHeated({
  style,
  nominalMassKg,
  hook,
}: Pick<PlanProduct, 'style' | 'nominalMassKg'> & {
  hook: { size: HookSize; wire?: Wire; wireM?: number | null } | null;
}): HeatedHead {
  const leadKg = castMassKg({ nominalMassKg });
  const { cooledAreaM2 } = coldHeadSolid(style, leadKg);
  return {
    leadKg,
    areaM2: cooledAreaM2,
    // Without a hook it hangs on a thin wire or a screw, which takes next to nothing.
    wireM: hook ? (hook.wireM ?? typicalHook(hook.size, hook.wire).wireM) : HANGING_WIRE_M,
    embeddedM: hook ? headWidthM(leadKg) : 0,
  };
}

/**
 * Powders of a product that have to cure; liquid paint only dries.
 * @example curedPowders(product(10).layers).map(({ name }) => name) // ['White']
 */
export const curedPowders = (layers: readonly PlanLayer[]): PlanPowder[] => [
  ...new Map(
    layers
      .flatMap(({ powder, mix }) => (mix ? [powder, mix.powder] : [powder]))
      .filter((powder) => powder.form !== 'liquid')
      .map((powder) => [powder.materialId, powder]),
  ).values(),
];

/**
 * Lag of this product's head in the oven, seconds.
 * @example productLagS({ style: 'ball', nominalMassKg: 0.0142, hook: null }) // 107
 */
export function productLagS(product: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>): number {
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  const { cooledAreaM2: areaM2 } = coldHeadSolid(product.style, leadKg);
  return headLagS({ leadKg, hookKg: product.hook?.massKg ?? 0, areaM2 });
}

/**
 * What has to be warmed of one head of this product in the oven, J/K.
 * @example productBakedJK(product(10)) // 1.597
 */
export const productBakedJK = (product: Pick<PlanProduct, 'nominalMassKg' | 'hook'>): number =>
  bakedHeatJK({
    leadKg: castMassKg({ nominalMassKg: product.nominalMassKg }),
    hookKg: product.hook?.massKg ?? 0,
  });

/**
 * A product's head as the oven sees it at one of its bakes (the last where none is named): the powders that are on it
 * by then, and the part that stands the least heat. Null where nothing on it cures.
 * @example bakedHead(product(10)).headLagS // 115.6
 */
export function bakedHead(product: PlanProduct, step?: string): BakedHead | null {
  const steps = stepsOf(product);
  const bake = step === undefined ? steps.findLastIndex((each) => each.bake) : placeOf(steps, step);
  const before = steps.slice(0, bake < 0 ? steps.length : bake + 1);
  const powders = curedPowders(before.flatMap((each) => each.layers));
  if (powders.length === 0) return null;
  const on = [
    ...(product.hook ? [{ name: product.hook.name, limitC: product.hook.limitC ?? null }] : []),
    ...(product.parts ?? []).filter((part) => placeOf(steps, part.step) < before.length),
  ];
  const tightest = on.reduce<{ name: string; limitC: number | null }>(
    (a, b) => ((b.limitC ?? Infinity) < (a.limitC ?? Infinity) ? b : a),
    on[0] ?? { name: 'no hook', limitC: null },
  );
  return {
    name: product.name,
    headLagS: productLagS(product),
    heatJK: productBakedJK(product),
    laws: powders.map((powder) => ({ powder: powder.name, law: cureLaw(powder.label) })),
    hook: tightest.name,
    limitC: tightest.limitC,
  };
}

/**
 * Why a product cannot be baked as its route says, as a sentence; null when it can, and where nothing on it cures.
 * @example bakeProblem(product(10)) // null
 */
export function bakeProblem(product: Coated): string | null {
  const steps = stepsOf(product);
  const bare = steps.findIndex(({ station, bake }) => station === 'bake' && !bake);
  if (bare < 0 || curedPowders(steps.slice(0, bare).flatMap(({ layers }) => layers)).length === 0) return null;
  return `“${steps[bare]!.does}” names no program; say at the product by which one it is baked.`;
}

/**
 * What the last bake of this product does to it, with so many heads in a load; null where it is not baked.
 * @example productBake(product(10), planOven, 60).cure.value // 1.162
 */
export function productBake(product: PlanProduct, oven: OvenRecord, heads = 0): BakeOutcome | null {
  const head = bakedHead(product);
  if (!head || !product.bake) return null;
  return bakeOutcome(head, product.bake, knownOven(oven), loadHeat([{ ...head, count: heads }]));
}
