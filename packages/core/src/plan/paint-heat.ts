import type { HeatTool } from '../paint/head-heat.ts';
import { schoolsFollowed } from '../ways/house.ts';
import { dipSeconds } from '../ways/work.ts';
import { inRange } from '../quantity/check.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import { productHeated } from './product.ts';
import type { KnownWays, PlanLayer, PlanProduct } from './types.ts';

/** What a heat gun draws while it is on. Common practice, no source: most are marked with 1,500 to 2,000 W. */
export const GUN_POWER_W = 1500;
/** What a kilogram of canned gas costs, minor units. Common practice, no source. */
export const GAS_MINOR_PER_KG = 1500;
/** Heat of a small flame, W. Common practice, no source. */
const FLAME_W: Record<Exclude<HeatTool, 'heat gun'>, number> = { torch: 1500, lighter: 60 };
/** Heat of burning of propane, lower, J/kg: 46.4 MJ/kg; butane has 45.8. From memory of gas tables. */
const GAS_J_PER_KG = 46.4e6;

/** What it takes to heat heads for their powder. */
interface PaintHeat {
  /** Of a heat gun. */
  electricKWh: number;
  /** Of a torch or a lighter. */
  gasKg: number;
}
const NO_HEAT: PaintHeat = { electricKWh: 0, gasKg: 0 };

const rateOf = (tool: HeatTool, ways: Pick<KnownWays, 'gunPowerW'>) =>
  tool === 'heat gun'
    ? { electricW: inRange('heat gun', ways.gunPowerW ?? GUN_POWER_W, 'W', 100, 5000), gasKgPerS: 0 }
    : { electricW: 0, gasKgPerS: FLAME_W[tool] / GAS_J_PER_KG };

/**
 * What one head takes of a gun's current, or of a torch's gas, coat by coat. A gun on its stand blows for as long as a
 * coat takes; a flame burns only while it is held on the head. Paint that is liquid or tapped on is not heated.
 * @param layers of a step; left out: all that the product has
 * @throws QuantityError for a gun out of range
 * @example paintHeat({ ...ways, coatS: 30 }, { ...product(10), ways: null, layers: [] })
 *   // { electricKWh: 0, gasKg: 0 }
 */
export function paintHeat(
  ways: KnownWays,
  product: PlanProduct,
  layers: readonly PlanLayer[] = product.layers,
): PaintHeat {
  const schools = schoolsFollowed(ways.schools, product.ways);
  const painted = layers.map(({ zone, coats, powder }) => ({ zone, coats, form: powder.form ?? ('powder' as const) }));
  const { dips, heatedS, coatS } = dipSeconds(painted, productHeated(product), schools, ways);
  if (dips === 0) return NO_HEAT;
  const { electricW, gasKgPerS } = rateOf(schools.tool, ways);
  const onS = ways.coatS === null ? coatS : dips * ways.coatS;
  return { electricKWh: (electricW * onS) / J_PER_KWH, gasKg: gasKgPerS * heatedS };
}

/**
 * What heat costs, minor units.
 * @example heatMinor({ energyMinorPerKWh: 30, gasMinorPerKg: 2000 }, { electricKWh: 2, gasKg: 0.01 }) // 80
 */
export const heatMinor = (
  { energyMinorPerKWh, gasMinorPerKg = GAS_MINOR_PER_KG }: Pick<KnownWays, 'energyMinorPerKWh' | 'gasMinorPerKg'>,
  { electricKWh, gasKg }: PaintHeat,
): number => electricKWh * energyMinorPerKWh + gasKg * gasMinorPerKg;
