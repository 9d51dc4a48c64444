import type { CostStack } from './types.ts';

export interface UnitCostInput {
  leadKg: number;
  leadMinorPerKg: number;
  drossKg: number;
  hookMinor: number;
  powderMinor: number;
  /** Other parts: guard, skirt, ring, treble, glue; none where nothing is said. */
  partsMinor?: number;
  energyKWh: number;
  energyMinorPerKWh: number;
  workS: number;
  labourMinorPerHour: number;
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
    dross: input.drossKg * input.leadMinorPerKg,
    energy: input.energyKWh * input.energyMinorPerKWh,
    work: (input.workS / 3600) * input.labourMinorPerHour,
  };
}
