import type { CostStack, ToolCost } from './types.ts';

interface UnitCostInput {
  leadKg: number;
  leadMinorPerKg: number;
  drossKg: number;
  hookMinor: number;
  powderMinor: number;
  /** Other parts: guard, skirt, ring, treble, glue; none where nothing is said. */
  partsMinor?: number;
  /** Bags and labels; none where nothing is said. */
  packagingMinor?: number;
  energyKWh: number;
  energyMinorPerKWh: number;
  /** Heat for its powder, of a gun or a flame; none where nothing is said. */
  paintHeatMinor?: number;
  workS: number;
  labourMinorPerHour: number;
  /** Wear of tools; none where nothing is said. */
  wearMinor?: number;
}

/**
 * What one head costs, part by part, minor units. Rejects cost time, energy and dross, not their lead and hooks: those
 * come back. Powder, labour, energy and dross are counted: the makers' usual sum leaves them out.
 * @example unitCostStack({ leadKg: 0.01, leadMinorPerKg: 250, drossKg: 0, hookMinor: 16, powderMinor: 1,
 *   energyKWh: 0, energyMinorPerKWh: 0, workS: 0, labourMinorPerHour: 0 }).lead // 2.5
 */
export function unitCostStack(input: UnitCostInput): CostStack {
  return {
    lead: input.leadKg * input.leadMinorPerKg,
    hook: input.hookMinor,
    powder: input.powderMinor,
    parts: input.partsMinor ?? 0,
    packaging: input.packagingMinor ?? 0,
    dross: input.drossKg * input.leadMinorPerKg,
    energy: input.energyKWh * input.energyMinorPerKWh + (input.paintHeatMinor ?? 0),
    work: (input.workS / 3600) * input.labourMinorPerHour,
    wear: input.wearMinor ?? 0,
  };
}

/**
 * What the wear of tools costs a head, minor units: their price over their life; what does not wear costs none.
 * @example wearMinor([{ priceMinor: 6000, lifeHeads: 20000 }, { priceMinor: 9900, lifeHeads: null }]) // 0.3
 */
export const wearMinor = (tools: readonly ToolCost[]): number =>
  tools.reduce((sum, { priceMinor, lifeHeads }) => sum + (lifeHeads ? priceMinor / lifeHeads : 0), 0);

/**
 * The tools that serve a product: those that name it, and those that name none.
 * @example serving('p', [{ priceMinor: 6000, lifeHeads: null, productIds: [] }]).length // 1
 */
export const serving = <T extends { productIds: readonly string[] }>(
  productId: string,
  tools: readonly T[] = [],
): T[] => tools.filter(({ productIds }) => productIds.length === 0 || productIds.includes(productId));
