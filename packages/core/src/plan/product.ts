import { cureLaw, cureShare, warmUpS, PRIOR_ACTIVATION_J_MOL } from '../bake/cure.ts';
import { headLagS } from '../bake/head-lag.ts';
import { typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import type { HeatedHead } from '../paint/head-heat.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { coldHeadSolid, headWidthM } from '../geometry/solid.ts';
import { usualRoute } from '../job/route.ts';
import { powderKg, ZONE_SHARE } from '../paint/coverage.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import type {
  HouseWays,
  PlanBake,
  PlanLayer,
  PlanOven,
  PlanPowder,
  PlanProduct,
  PlanStep,
  StepPowder,
} from './types.ts';

type Coated = Pick<PlanProduct, 'layers' | 'bake' | 'steps' | 'source'>;

/** The steps of a product with what they take; where it names none, all its paint is one step and its bake another. */
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

/**
 * Powder for one head of this product, kg by step and material; the same powder in two layers of a step is added up.
 */
export const powdersByStep = (
  product: PlanProduct,
  ways: Pick<HouseWays, 'filmM' | 'transferEfficiency'>,
): StepPowder[] =>
  stepsOf(product).flatMap((step) =>
    powdersOfLayers(product, step.layers, ways).map((powder) => ({ ...powder, step: step.key })),
  );

/** Powder for one head of this product, kg by material over all its steps. */
export function powdersPerHead(product: PlanProduct, ways: Pick<HouseWays, 'filmM' | 'transferEfficiency'>) {
  return powdersOfLayers(
    product,
    stepsOf(product).flatMap((step) => step.layers),
    ways,
  );
}

function powdersOfLayers(
  product: Pick<PlanProduct, 'style' | 'nominalMassKg'>,
  layers: readonly PlanLayer[],
  ways: Pick<HouseWays, 'filmM' | 'transferEfficiency'>,
) {
  const { paintedAreaM2 } = coldHeadSolid(product.style, castMassKg({ nominalMassKg: product.nominalMassKg }));
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

/** This product's head as a gun or a flame sees it. */
export function productHeated({
  style,
  nominalMassKg,
  hook,
}: Pick<PlanProduct, 'style' | 'nominalMassKg'> & {
  hook: { size: HookSize; wire?: Wire } | null;
}): HeatedHead {
  const leadKg = castMassKg({ nominalMassKg });
  const { cooledAreaM2 } = coldHeadSolid(style, leadKg);
  return {
    leadKg,
    areaM2: cooledAreaM2,
    // Without a hook it hangs on a thin wire or a screw, which takes next to nothing.
    wireM: hook ? typicalHook(hook.size, hook.wire).wireM : HANGING_WIRE_M,
    embeddedM: hook ? headWidthM(leadKg) : 0,
  };
}

/** Powders of a product that have to cure; liquid paint only dries. */
export const curedPowders = (layers: readonly PlanLayer[]): PlanPowder[] => [
  ...new Map(
    layers
      .flatMap(({ powder, mix }) => (mix ? [powder, mix.powder] : [powder]))
      .filter((powder) => powder.form !== 'liquid')
      .map((powder) => [powder.materialId, powder]),
  ).values(),
];

/** Lag of this product's head in the oven, seconds. */
export function productLagS(product: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>): number {
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  return headLagS(leadKg, product.hook?.massKg ?? 0, coldHeadSolid(product.style, leadKg).cooledAreaM2);
}

/** Seconds from shutting the door to taking out: a program that counts from the metal's heat waits for that first. */
export function bakeDoorS(
  product: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>,
  bake: PlanBake,
  oven: Pick<PlanOven, 'lagS'>,
): number {
  if (bake.from !== 'metal') return bake.seconds;
  return (
    bake.seconds +
    warmUpS({ setC: bake.setC, headLagS: productLagS(product), ovenLagS: bake.preheated ? 0 : oven.lagS })
  );
}

/** How far this program cures this product: the least cured of its powders, as a share of full. Null without a bake. */
export function productCure(product: PlanProduct, oven: Pick<PlanOven, 'lagS'>): Figure | null {
  const { bake, layers } = product;
  const cured = curedPowders(layers);
  if (!bake || cured.length === 0) return null;
  const lagS = productLagS(product);
  const doorS = bakeDoorS(product, bake, oven);
  const ovenLagS = bake.preheated ? 0 : oven.lagS;
  const shares = cured.map((powder) => {
    const law = cureLaw(powder.label);
    const at = (activationJMol: number) =>
      cureShare({ law: { ...law, activationJMol }, headLagS: lagS, setC: bake.setC, ovenLagS }, doorS);
    const ends =
      law.from === 'prior'
        ? [at(PRIOR_ACTIVATION_J_MOL.low), at(PRIOR_ACTIVATION_J_MOL.high)]
        : [at(law.activationJMol * 0.9), at(law.activationJMol * 1.1)];
    return { powder, law, value: at(law.activationJMol), low: Math.min(...ends), high: Math.max(...ends) };
  });
  const least = shares.reduce((a, b) => (b.value < a.value ? b : a));
  return figure(
    least.value,
    'ratio',
    {
      rule: `${bake.name}, counted from the metal's own temperature, for the powder that cures slowest.`,
      formula: 'cure = ∫ dt / t_label(T_metal)',
      source: "Arrhenius law through the jar's label; head and oven as first-order lags",
      inputs: [
        given('Oven set to', bake.setC, 'C'),
        given('Time', doorS, 's', `${bake.preheated ? 'preheated' : 'from cold'}, the warming in it`),
        given('Head lags by', lagS, 's'),
        given('Powder', least.powder.name, 'text'),
        given('Activation energy', `${(least.law.activationJMol / 1000).toFixed(1)} kJ/mol`, 'text', least.law.from),
      ],
    },
    { low: least.low, high: least.high },
  );
}
