import { LEAD_WARMED_J_KG_K, STEEL_J_KG_K, STEEL_KG_M3 } from '../metal/materials.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import { Z_90 } from '../quantity/range.ts';

/** What heats the head: a stream of hot air, or a flame whose heat does not care how warm the head is. */
export const HEAT_TOOLS = ['heat gun', 'torch', 'lighter'] as const;
export type HeatTool = (typeof HEAT_TOOLS)[number];

/**
 * Below this powder does not wet; above that it smokes and runs; lead melts. Common practice, no source; CRC for the
 * last.
 */
export const TOO_COLD_C = 120;
export const TARGET_C = 170;
export const TOO_HOT_C = 230;
export const MELTS_C = 327;
/** Shank that is warmed with the head: about sqrt(alpha t) of steel; the far end stays cool in the hand. */
const WARM_SHANK_M = 0.015;
/**
 * Of a head of half an ounce, mean over head and collar: 110 W/m2K where the stream strikes, less on the far side while
 * it is turned. With it 14 g take 16 s. Other heads by their width, see {@link WIDTH_POWER}.
 */
export const GUN_W_M2K = 72;
/**
 * A stream warms a wide head less by the area: Nu = 0.37 Re^0.6 for spheres in air (McAdams, Heat Transmission, 1954,
 * from memory), so h goes with width^-0.4. A gun that was counted on one size so serves the others.
 */
const WIDTH_POWER = 0.4;
const HALF_OUNCE_KG = 0.0142;
export const GUN_AIR_C = 480;
/** A gun is at its heat after some such times. Common practice, no source. */
export const GUN_WARM_UP_S = 12;
/**
 * Heat of a flame into the side it is held on, W/m2. Common practice, no source: a torch takes a few seconds a side.
 */
const FLAME_W_M2: Record<Exclude<HeatTool, 'heat gun'>, number> = { torch: 120_000, lighter: 40_000 };

export interface HeatedHead {
  leadKg: number;
  /** Surface of head and collar, m2. */
  areaM2: number;
  wireM: number;
  /** Hook inside the lead, m. */
  embeddedM: number;
}
export interface HeatInput {
  head: HeatedHead;
  tool: HeatTool;
  roomC: number;
  /** Where it starts: room, or what is left of the first coat's heat. */
  fromC?: number;
  targetC?: number;
  /** The maker's own gun, fitted; the default otherwise. */
  gunWM2K?: number;
  /** Seconds since the gun was switched on; left out, it has been on for long. */
  gunOnS?: number;
}

/**
 * What has to be warmed: the lead, the steel in it and 15 mm of shank, J/K.
 * @example headHeatJK({ leadKg: 0.0142, wireM: 0.00137, embeddedM: 0.012 }) // 2.014
 */
export function headHeatJK({ leadKg, wireM, embeddedM }: HeatedHead): number {
  inRange('leadKg', leadKg, 'kg', 1e-4, 2);
  inRange('wireM', wireM, 'm', 1e-4, 0.005);
  inRange('embeddedM', embeddedM, 'm', 0, 0.2);
  const steelKg = STEEL_KG_M3 * Math.PI * (wireM / 2) ** 2 * (embeddedM + WARM_SHANK_M);
  return leadKg * LEAD_WARMED_J_KG_K + steelKg * STEEL_J_KG_K;
}

/** The shank that is warmed with the head, where it stands in the flame or the air, m2. */
const shankM2 = ({ wireM }: Pick<HeatedHead, 'wireM'>): number => Math.PI * wireM * WARM_SHANK_M;

/**
 * What a gun that gives a half-ounce head 1 W/m2K gives this one in all, W/K: by its width, over its own surface and
 * that of the shank that is warmed with it.
 */
function takenWPerK(head: HeatedHead): number {
  const byWidth = Math.cbrt(head.leadKg / HALF_OUNCE_KG) ** -WIDTH_POWER;
  return byWidth * (inRange('areaM2', head.areaM2, 'm2', 1e-6, 0.1) + shankM2(head));
}

/**
 * Temperature of a head `seconds` under its tool: one lump; for a gun that is not warm yet, two lags in a row. Range: 0
 * to 600 s.
 * @example headTemperatureC({ head: { leadKg: 0.01, areaM2: 0.0005, wireM: 0.0012, embeddedM: 0.012 },
 *   tool: 'heat gun', roomC: 20 }, 10) // 137.2
 */
export function headTemperatureC(input: HeatInput, seconds: number): number {
  const { head, tool, roomC } = input;
  inRange('seconds', seconds, 's', 0, 600);
  inRange('roomC', roomC, 'C', -20, 50);
  const fromC = inRange('fromC', input.fromC ?? roomC, 'C', -20, MELTS_C);
  const heat = headHeatJK(head);
  if (tool !== 'heat gun') {
    // A flame is held on one side at a time, and on the shank with it.
    const litM2 = (inRange('areaM2', head.areaM2, 'm2', 1e-6, 0.1) + shankM2(head)) / 2;
    return fromC + (FLAME_W_M2[tool] * litM2 * seconds) / heat;
  }
  const h = inRange('gunWM2K', input.gunWM2K ?? GUN_W_M2K, 'W/m2K', 10, 1000);
  const tau = heat / (h * takenWPerK(head));
  const lateS = input.gunOnS ?? Infinity;
  // The air falls short of its heat by this much when the head comes under it, and by less and less.
  const short = lateS === Infinity ? 0 : (GUN_AIR_C - roomC) * Math.exp(-lateS / GUN_WARM_UP_S);
  const gun = Math.abs(tau - GUN_WARM_UP_S) < 1e-6 ? GUN_WARM_UP_S + 1e-3 : GUN_WARM_UP_S;
  const own = Math.exp(-seconds / tau);
  const lag = (short * gun * (Math.exp(-seconds / gun) - own)) / (gun - tau);
  return GUN_AIR_C - (GUN_AIR_C - fromC) * own - lag;
}

/**
 * Seconds until a head is at its target.
 * @throws QuantityError where it is there already, or never gets there
 * @example heatingS({ head: { leadKg: 0.01, areaM2: 0.0005, wireM: 0.0012, embeddedM: 0.012 }, tool: 'heat gun',
 *   targetC: 170, roomC: 20 }) // 13.42
 */
export function heatingS(input: HeatInput): number {
  const targetC = inRange('targetC', input.targetC ?? TARGET_C, 'C', 60, MELTS_C - 1);
  if (headTemperatureC(input, 0) >= targetC) return 0;
  let [low, high] = [0, 600];
  if (headTemperatureC(input, high) < targetC) {
    throw new QuantityError('targetC', targetC, 'C', 'what this tool reaches in ten minutes');
  }
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (headTemperatureC(input, middle) < targetC) low = middle;
    else high = middle;
  }
  return high;
}

/** Hung in still air while it is hot, convection and radiation, W/m2K; from memory: 15 to 20, more when it glows. */
const HUNG_W_M2K = 20;
/** What a coat takes from its head to melt, J/m2: 100 um of specific gravity 1.5, 1.5 kJ/kgK over 150 K (memory). */
const COAT_J_M2 = 0.15 * 225_000;

/**
 * How warm a head still is so many seconds after it was dipped: the coat has taken its heat, the air the rest. From
 * there a second coat is heated.
 * @example secondCoatFromC({ head: { leadKg: 0.0142, areaM2: 0.00062, wireM: 0.00137, embeddedM: 0.012 }, roomC: 20,
 *   dippedC: 170, restS: 10 }) // 151.3
 */
export function secondCoatFromC(of: { head: HeatedHead; roomC: number; dippedC: number; restS: number }): number {
  const { head, roomC, dippedC } = of;
  inRange('restS', of.restS, 's', 0, 86_400);
  const heatJK = headHeatJK(head);
  const coatedC = Math.max(roomC, dippedC - (COAT_J_M2 * head.areaM2) / heatJK);
  return roomC + (coatedC - roomC) * Math.exp((-of.restS * HUNG_W_M2K * head.areaM2) / heatJK);
}

/**
 * What the paint does at a temperature, in words.
 * @example paintAt(170) // 'flows'
 */
export function paintAt(headC: number): 'does not wet' | 'dull' | 'flows' | 'runs and smokes' | 'the head melts' {
  if (headC < TOO_COLD_C) return 'does not wet';
  if (headC < TARGET_C - 20) return 'dull';
  if (headC <= TOO_HOT_C) return 'flows';
  return headC < MELTS_C ? 'runs and smokes' : 'the head melts';
}

/** A head that came out right, and for how long it was under the gun. */
export interface OwnSeconds {
  head: HeatedHead;
  seconds: number;
}
/** Relative spread of one count, and how sure the default is. Common practice, no source. */
const COUNT_SPREAD = 0.15;
const PRIOR_SPREAD = 0.35;

/**
 * A maker's own gun from the seconds that came out right: least squares on ln h, leaning on the default. Time goes with
 * 1/h, so that each count gives an h of its own; what it would be on a half-ounce head. Range: 90 %.
 * @example fitGun([], 20).counts // 0
 */
export function fitGun(
  counts: readonly OwnSeconds[],
  roomC: number,
): { wM2K: number; low: number; high: number; counts: number } {
  const reach = Math.log((GUN_AIR_C - roomC) / (GUN_AIR_C - TARGET_C));
  let weight = 1 / PRIOR_SPREAD ** 2;
  let sum = weight * Math.log(GUN_W_M2K);
  for (const { head, seconds } of counts) {
    inRange('seconds', seconds, 's', 0.5, 300);
    const own = (headHeatJK(head) * reach) / (takenWPerK(head) * seconds);
    sum += Math.log(own) / COUNT_SPREAD ** 2;
    weight += 1 / COUNT_SPREAD ** 2;
  }
  const [ln, sd] = [sum / weight, Math.sqrt(1 / weight)];
  return { wM2K: Math.exp(ln), low: Math.exp(ln - Z_90 * sd), high: Math.exp(ln + Z_90 * sd), counts: counts.length };
}
