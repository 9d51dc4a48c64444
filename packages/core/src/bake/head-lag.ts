import { LEAD_WARMED_J_KG_K, STEEL_J_KG_K } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

/**
 * Oven air and walls around a hung head, W/m2K: free convection on a ball of 13 mm (Churchill 1983, from memory) about
 * 14, and as much again by radiation from walls at 177 C. A 1/2 oz head then lags 2 minutes, and 20 minutes at 177 C
 * take 24 on the clock (common practice: 22 to 24).
 */
export const OVEN_W_M2K = 28;

/**
 * What has to be warmed of one head in an oven, lead and hook, J/K.
 * @example bakedHeatJK({ leadKg: 0.0142, hookKg: 0.0009 }) // 2.289
 */
export const bakedHeatJK = ({ leadKg, hookKg }: { leadKg: number; hookKg: number }): number =>
  leadKg * LEAD_WARMED_J_KG_K + hookKg * STEEL_J_KG_K;

/**
 * First-order lag of a head in an oven, s: (m c + m_hook c_hook)/(h A).
 * @example headLagS({ leadKg: 0.0142, hookKg: 0.0009, areaM2: 0.0006 }) // 136.3
 */
export function headLagS(head: { leadKg: number; hookKg: number; areaM2: number }, filmW_M2K = OVEN_W_M2K): number {
  const { areaM2 } = head;
  inRange('leadKg', head.leadKg, 'kg', 1e-4, 2);
  inRange('hookKg', head.hookKg, 'kg', 0, 0.1);
  inRange('areaM2', areaM2, 'm2', 1e-6, 0.1);
  return bakedHeatJK(head) / (filmW_M2K * areaM2);
}
