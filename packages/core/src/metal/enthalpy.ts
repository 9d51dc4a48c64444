import { inRange } from '../quantity/check.ts';
import {
  LEAD_LATENT_J_KG,
  LEAD_LIQUID_J_KG_K,
  LEAD_MELTING_C,
  LEAD_SOLID_J_KG_K_AT_20C,
  LEAD_SOLID_J_KG_K_AT_MELTING,
} from './materials.ts';

const SLOPE = (LEAD_SOLID_J_KG_K_AT_MELTING - LEAD_SOLID_J_KG_K_AT_20C) / (LEAD_MELTING_C - 20);
const solidEnthalpy = (celsius: number) =>
  LEAD_SOLID_J_KG_K_AT_20C * (celsius - 20) + 0.5 * SLOPE * (celsius - 20) ** 2;

/** Enthalpy of lead that is just solid and just molten, J/kg above 20 C. */
export const LEAD_SOLIDUS_J_KG = solidEnthalpy(LEAD_MELTING_C);
export const LEAD_LIQUIDUS_J_KG = LEAD_SOLIDUS_J_KG + LEAD_LATENT_J_KG;

/**
 * Enthalpy of lead above 20 C in J/kg; at the melting point it is that of the solid.
 * Source: specific heats and latent heat of metal/materials.ts. Range: -50 to 900 C.
 * @example leadEnthalpyJKg(371) // 70 902
 */
export function leadEnthalpyJKg(temperatureC: number): number {
  inRange('metalTemperatureC', temperatureC, 'C', -50, 900);
  if (temperatureC <= LEAD_MELTING_C) return solidEnthalpy(temperatureC);
  return LEAD_LIQUIDUS_J_KG + LEAD_LIQUID_J_KG_K * (temperatureC - LEAD_MELTING_C);
}

/** Temperature and molten share of lead with this enthalpy (J/kg above 20 C): the inverse of {@link leadEnthalpyJKg}. */
export function leadStateAt(enthalpyJKg: number): { temperatureC: number; moltenShare: number } {
  inRange('enthalpyJKg', enthalpyJKg, 'J/kg', -10_000, 150_000);
  if (enthalpyJKg >= LEAD_LIQUIDUS_J_KG) {
    return { temperatureC: LEAD_MELTING_C + (enthalpyJKg - LEAD_LIQUIDUS_J_KG) / LEAD_LIQUID_J_KG_K, moltenShare: 1 };
  }
  if (enthalpyJKg > LEAD_SOLIDUS_J_KG) {
    return { temperatureC: LEAD_MELTING_C, moltenShare: (enthalpyJKg - LEAD_SOLIDUS_J_KG) / LEAD_LATENT_J_KG };
  }
  const c = LEAD_SOLID_J_KG_K_AT_20C;
  return { temperatureC: 20 + (Math.sqrt(c * c + 2 * SLOPE * enthalpyJKg) - c) / SLOPE, moltenShare: 0 };
}
