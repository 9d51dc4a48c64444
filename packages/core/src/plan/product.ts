import { cureLaw, cureShare, PRIOR_ACTIVATION_J_MOL } from '../bake/cure.ts';
import { headLagS } from '../bake/head-lag.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { powderKg, ZONE_SHARE } from '../paint/coverage.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import type { HouseWays, PlanOven, PlanProduct } from './types.ts';

/** Powder for one head of this product, kg by material; the same powder in two layers is added up. */
export function powdersPerHead(product: PlanProduct, ways: Pick<HouseWays, 'filmM' | 'transferEfficiency'>) {
  const { paintedAreaM2 } = coldHeadSolid(product.style, castMassKg({ nominalMassKg: product.nominalMassKg }));
  const byMaterial = new Map<string, { materialId: string; name: string; kgPerHead: number }>();
  for (const { powder, zone, coats } of product.layers) {
    const kg =
      coats *
      powderKg({
        paintedAreaM2: paintedAreaM2 * ZONE_SHARE[zone],
        filmM: ways.filmM,
        specificGravity: powder.specificGravity,
        transferEfficiency: ways.transferEfficiency,
      });
    const before = byMaterial.get(powder.materialId)?.kgPerHead ?? 0;
    byMaterial.set(powder.materialId, { materialId: powder.materialId, name: powder.name, kgPerHead: before + kg });
  }
  return [...byMaterial.values()];
}

/** Lag of this product's head in the oven, seconds. */
export function productLagS(product: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>): number {
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  return headLagS(leadKg, product.hook.massKg, coldHeadSolid(product.style, leadKg).cooledAreaM2);
}

/** How far this program cures this product: the least cured of its powders, as a share of full. Null without a bake. */
export function productCure(product: PlanProduct, oven: Pick<PlanOven, 'lagS'>): Figure | null {
  const { bake, layers } = product;
  if (!bake || layers.length === 0) return null;
  const lagS = productLagS(product);
  const ovenLagS = bake.preheated ? 0 : oven.lagS;
  const shares = layers.map(({ powder }) => {
    const law = cureLaw(powder.label);
    const at = (activationJMol: number) =>
      cureShare({ law: { ...law, activationJMol }, headLagS: lagS, setC: bake.setC, ovenLagS }, bake.seconds);
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
        given('Time', bake.seconds, 's', bake.preheated ? 'preheated' : 'from cold'),
        given('Head lags by', lagS, 's'),
        given('Powder', least.powder.name, 'text'),
        given('Activation energy', `${(least.law.activationJMol / 1000).toFixed(1)} kJ/mol`, 'text', least.law.from),
      ],
    },
    { low: least.low, high: least.high },
  );
}
