import { cavityVolumeM3 } from '../geometry/solid.ts';
import { densityAtSolidusKgM3, SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';

interface CastMassInput {
  /** Mass stamped on the mold, in soft lead with its usual hook. */
  nominalMassKg: number;
  /** Soft lead unless said otherwise. */
  alloy?: Alloy;
  /** Base-hole pin through the head: diameter and length inside the metal. */
  pinDiameterM?: number;
  pinLengthM?: number;
  /** Steel or wire inside the head beyond what the stamp allows for. */
  extraInsertVolumeM3?: number;
}

/**
 * Mass of metal that a cavity casts, kg: (V_cavity - V_pin - V_inserts) x density at the solidus. Each metal shrinks
 * from its own solidus on. Checks: bismuth-tin 0.771 of lead; 3 % Sb, 0.5 % Sn 0.977 to 0.983; a 1/8 inch pin 10 mm
 * deep takes 0.9 g out.
 * @throws QuantityError out of range, or where inserts leave no metal
 * @example castMassKg({ nominalMassKg: 0.014, pinDiameterM: 0.003175, pinLengthM: 0.01 }) // 0.01313
 */
export function castMassKg(input: CastMassInput): number {
  const pinDiameterM = inRange('pinDiameterM', input.pinDiameterM ?? 0, 'm', 0, 0.02);
  const pinLengthM = inRange('pinLengthM', input.pinLengthM ?? 0, 'm', 0, 0.1);
  const extra = inRange('extraInsertVolumeM3', input.extraInsertVolumeM3 ?? 0, 'm3', 0, 1e-4);
  const metalVolumeM3 = cavityVolumeM3(input.nominalMassKg) - (Math.PI / 4) * pinDiameterM ** 2 * pinLengthM - extra;
  inRange('metalVolumeM3', metalVolumeM3, 'm3', 1e-10, 1);
  return metalVolumeM3 * densityAtSolidusKgM3(input.alloy ?? SOFT_LEAD);
}
