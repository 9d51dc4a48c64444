import { LEAD_MOLAR_KG } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';
import { celsiusToKelvin, GAS_CONSTANT } from '../quantity/units.ts';

/** OSHA lead standard, 29 CFR 1910.1025: action level and permissible limit in air over a working day, ug/m3. */
export const LEAD_ACTION_LEVEL_UG_M3 = 30;
export const LEAD_LIMIT_UG_M3 = 50;

/**
 * Vapour pressure over liquid lead, Pa: log10(p) = 9.917 - 9701/T, T in K. Alcock, Itkin & Horrigan, Can. Metall. Q. 23
 * (1984) 309, as in the CRC Handbook, from memory. Range: 327 to 927 C. Check: 1.0 Pa at 705 C.
 * @example leadVapourPa(705) // 0.9984
 */
export function leadVapourPa(metalC: number): number {
  inRange('metalC', metalC, 'C', 327, 927);
  return 10 ** (9.917 - 9701 / celsiusToKelvin(metalC));
}

/**
 * Lead in air saturated over the melt, ug/m3: p M / (R T) at the melt's own temperature. An upper bound for vapour that
 * real air stays below; dust, dross and smoke are not in it. It measures nothing and clears nobody.
 * @example fumeCeilingUgM3(480) // 35.98
 */
export function fumeCeilingUgM3(metalC: number): number {
  return (leadVapourPa(metalC) * LEAD_MOLAR_KG * 1e9) / (GAS_CONSTANT * celsiusToKelvin(metalC));
}
