import { inRange } from '../quantity/check.ts';
import { SOFT_LEAD, type Alloy } from './alloy.ts';

const slopeOf = (alloy: Alloy) => (alloy.solidJKgKAtSolidus - alloy.solidJKgKAt20C) / (alloy.solidusC - 20);
const solidEnthalpy = (alloy: Alloy, celsius: number) =>
  alloy.solidJKgKAt20C * (celsius - 20) + 0.5 * slopeOf(alloy) * (celsius - 20) ** 2;

/**
 * Enthalpy of the metal that is just solid, J/kg above 20 C.
 * @example solidusJKg(SOFT_LEAD) // 41490
 */
export const solidusJKg = (alloy: Alloy): number => solidEnthalpy(alloy, alloy.solidusC);

/**
 * Enthalpy of the metal that is just molten, J/kg above 20 C: latent heat, and for an alloy the specific heat of its
 * freezing range, taken as the mean of solid and liquid.
 * @example liquidusJKg(SOFT_LEAD) // 64490
 */
export const liquidusJKg = (alloy: Alloy): number =>
  solidusJKg(alloy) +
  alloy.latentJKg +
  0.5 * (alloy.solidJKgKAtSolidus + alloy.liquidJKgK) * (alloy.liquidusC - alloy.solidusC);

/**
 * Enthalpy of a casting metal above 20 C, J/kg. In its freezing range the heat is given off in a straight line; at the
 * melting point of a pure metal the value is that of the solid. Source: heats of metal/materials.ts and metal/alloy.ts.
 * Range: -50 to 900 C.
 * @example enthalpyJKg(SOFT_LEAD, 371) // 70 902
 */
export function enthalpyJKg(alloy: Alloy, temperatureC: number): number {
  inRange('metalTemperatureC', temperatureC, 'C', -50, 900);
  if (temperatureC <= alloy.solidusC) return solidEnthalpy(alloy, temperatureC);
  const molten = liquidusJKg(alloy);
  if (temperatureC >= alloy.liquidusC) return molten + alloy.liquidJKgK * (temperatureC - alloy.liquidusC);
  const share = (temperatureC - alloy.solidusC) / (alloy.liquidusC - alloy.solidusC);
  return solidusJKg(alloy) + share * (molten - solidusJKg(alloy));
}

export interface MetalState {
  temperatureC: number;
  moltenShare: number;
}

/**
 * The inverse of {@link enthalpyJKg} for one alloy, its constants worked out once: integrators ask it many thousand
 * times. Takes J/kg above 20 C, unchecked.
 * @example temperatureOf(SOFT_LEAD)(enthalpyJKg(SOFT_LEAD, 371)) // 371
 */
export function temperatureOf(alloy: Alloy): (enthalpy: number) => number {
  const solid = solidusJKg(alloy);
  const molten = liquidusJKg(alloy);
  const { solidusC, liquidusC, liquidJKgK, solidJKgKAt20C: c } = alloy;
  const perJoule = (liquidusC - solidusC) / (molten - solid);
  const slope = slopeOf(alloy);
  return (enthalpy) => {
    if (enthalpy >= molten) return liquidusC + (enthalpy - molten) / liquidJKgK;
    if (enthalpy > solid) return solidusC + (enthalpy - solid) * perJoule;
    return 20 + (slope === 0 ? enthalpy / c : (Math.sqrt(c * c + 2 * slope * enthalpy) - c) / slope);
  };
}

/**
 * Temperature and molten share of a metal with this enthalpy (J/kg above 20 C): the inverse of {@link enthalpyJKg}.
 * @example stateAt(SOFT_LEAD, 53_000) // { temperatureC: 327.5, moltenShare: 0.5004 }
 */
export function stateAt(alloy: Alloy, enthalpy: number): MetalState {
  inRange('enthalpyJKg', enthalpy, 'J/kg', -1e9, 1e9);
  const [solid, molten] = [solidusJKg(alloy), liquidusJKg(alloy)];
  const moltenShare = Math.min(1, Math.max(0, (enthalpy - solid) / (molten - solid)));
  return { temperatureC: temperatureOf(alloy)(enthalpy), moltenShare };
}

/**
 * Enthalpy of soft lead above 20 C, J/kg.
 * @example leadEnthalpyJKg(371) // 70890
 */
export const leadEnthalpyJKg = (temperatureC: number): number => enthalpyJKg(SOFT_LEAD, temperatureC);
