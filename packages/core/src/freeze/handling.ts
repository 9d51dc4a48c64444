import { LEAD_SOLID_J_KG_K_AT_20C, LEAD_SOLID_J_KG_K_AT_MELTING } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

/** Still air round a hot head, convection and radiation together, W/m2K; from memory: 15 to 20. */
export const STILL_AIR_W_M2K = { low: 15, usual: 16, high: 20 };
/** Bare fingers hold this for good; hotter burns. From memory: 45 to 50 C. */
export const HANDLE_BELOW_C = 48;

/** A head that lies in still air, and what it is to come down to. */
interface HotHead {
  headKg: number;
  areaM2: number;
  fromC: number;
  roomC?: number;
  airWPerM2K?: number;
  toC?: number;
}

/**
 * Time until a head is cool enough to handle, s: one lump in still air, t = m c / (h A) ln((T0 - T_room)/(T - T_room)).
 * Range: 0.1 g to 2 kg, 50 to 330 C. Check: 227 g from 204 C takes 13 to 18 min; practice says 15 to 20: the usual
 * gives 15.2.
 * @example handlingTimeS({ headKg: 0.227, areaM2: 0.0039, fromC: 204 }) / 60 // 15
 */
export function handlingTimeS(head: HotHead): number {
  const { headKg, areaM2, fromC, roomC = 20, airWPerM2K = STILL_AIR_W_M2K.usual, toC = HANDLE_BELOW_C } = head;
  inRange('headKg', headKg, 'kg', 1e-4, 2);
  inRange('areaM2', areaM2, 'm2', 1e-6, 0.1);
  inRange('fromC', fromC, 'C', 20, 330);
  inRange('roomC', roomC, 'C', -20, 44);
  inRange('airWPerM2K', airWPerM2K, 'W/m2K', 1, 200);
  if (fromC <= toC) return 0;
  const c = (LEAD_SOLID_J_KG_K_AT_20C + LEAD_SOLID_J_KG_K_AT_MELTING) / 2;
  return ((headKg * c) / (airWPerM2K * areaM2)) * Math.log((fromC - roomC) / (toC - roomC));
}
