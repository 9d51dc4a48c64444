import { LEAD_WARMED_J_KG_K, LEAD_SOLID_J_KG_K_AT_20C, LEAD_SOLID_J_KG_K_AT_MELTING } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { quantityText } from '../quantity/said.ts';

/** Still air round a hot head, convection and radiation together, W/m2K; from memory: 15 to 20. */
export const STILL_AIR_W_M2K = { low: 15, usual: 16, high: 20 };
/** Bare fingers hold this for good; hotter burns. From memory: 45 to 50 C. */
const HANDLE_BELOW_C = 48;

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

/**
 * Once a head is solid it shrinks off its cavity, and the gap lets through only so much, W/m2K. By it 8 oz, opened
 * after the usual 20 s, leave a mold of 120 C at 190 to 220 C. Common practice, no source.
 */
const GAP_W_M2K = { low: 400, usual: 480, high: 600 };

/** A head that stays in its mold after it has set. */
interface HeadInMold {
  headKg: number;
  areaM2: number;
  /** When it is solid, and when the mold is opened, s after the pour. */
  freezeS: number;
  openS: number;
  moldC: number;
  /** Where its metal is solid, C. */
  solidusC: number;
}

/**
 * How hot a head is when the mold is opened, C: from its solidus toward the mold, through the gap that its shrinking
 * leaves. Range: 0.1 g to 2 kg.
 * @example leavesAtC({ headKg: 0.227, areaM2: 0.0039, freezeS: 6, openS: 20, moldC: 120, solidusC: 327 }) // 206
 */
export function leavesAtC(head: HeadInMold, gapWPerM2K = GAP_W_M2K.usual): number {
  inRange('headKg', head.headKg, 'kg', 1e-4, 2);
  inRange('areaM2', head.areaM2, 'm2', 1e-6, 0.1);
  const { moldC, solidusC } = head;
  const afterS = Math.max(0, head.openS - head.freezeS);
  const lagS = (head.headKg * LEAD_WARMED_J_KG_K) / (gapWPerM2K * head.areaM2);
  return moldC + Math.max(0, solidusC - moldC) * Math.exp(-afterS / lagS);
}

/**
 * How hot a head leaves its mold, and how long it then lies before it can be handled.
 * @example leavingFigures({ headKg: 0.01, areaM2: 0.0005, freezeS: 1, moldC: 60, solidusC: 327, openS: 3 },
 *   20).leaves.value // 245.3
 */
export function leavingFigures(head: HeadInMold, roomC: number): { leaves: Figure; handling: Figure } {
  const [low, value, high] = [GAP_W_M2K.high, GAP_W_M2K.usual, GAP_W_M2K.low].map((gap) => leavesAtC(head, gap)) as [
    number,
    number,
    number,
  ];
  const lies = (fromC: number, airWPerM2K: number) =>
    handlingTimeS({ ...head, fromC: Math.min(330, Math.max(20, fromC)), roomC, airWPerM2K });
  const inputs = [
    given('Head', head.headKg, 'head-kg'),
    given('Solid after', head.freezeS, 's'),
    given('Opened after', head.openS, 's'),
    given('Mold', head.moldC, 'C'),
  ];
  return {
    leaves: figure(
      value,
      'C',
      {
        rule: 'Solid is not cool: from where it sets toward the mold, through the gap that its shrinking leaves.',
        formula: 'T = T_mold + (T_solidus − T_mold) e^(−t / τ)',
        source: 'The gap is common practice: 8 oz leave at 190 to 220 °C',
        inputs,
      },
      { low, high },
    ),
    handling: figure(
      lies(value, STILL_AIR_W_M2K.usual),
      's',
      {
        rule: `From there until bare fingers can hold it, below ${quantityText(HANDLE_BELOW_C, '°C')}, lying in still air.`,
        formula: 't = m c / (h A) · ln((T − T_room) / (48 − T_room))',
        source: 'One lump; still air 15 to 20 W/m²K, from memory',
        inputs: [given('Leaves the mold at', value, 'C'), given('Room', roomC, 'C')],
      },
      { low: lies(low, STILL_AIR_W_M2K.high), high: lies(high, STILL_AIR_W_M2K.low) },
    ),
  };
}
