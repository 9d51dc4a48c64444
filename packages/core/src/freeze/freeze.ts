import type { HeadSolid } from '../geometry/solid.ts';
import type { Sprue } from '../geometry/sprue.ts';
import { LEAD_LATENT_J_KG, LEAD_LIQUID_J_KG_K, LEAD_LIQUID_KG_M3, LEAD_MELTING_C } from '../metal/materials.ts';
import { countInRange, inRange } from '../quantity/check.ts';

/** Heat transfer between metal and mold, W/m2K: freshly sooted and bare aluminium. */
export const SOOTED_W_M2K = 1500;
export const BARE_W_M2K = 4000;
const SOOT_LIFE_SHOTS = 40;

/** h(n) = h_bare - (h_bare - h_soot) exp(-n/40): soot wears off over the shots since smoking. W/m2K. */
export function interfaceWPerM2K(shotsSinceSmoked: number): number {
  countInRange('shotsSinceSmoked', shotsSinceSmoked, 0, 1e6);
  return BARE_W_M2K - (BARE_W_M2K - SOOTED_W_M2K) * Math.exp(-shotsSinceSmoked / SOOT_LIFE_SHOTS);
}

export interface FreezeInput {
  /** Volume over cooled area, m. */
  modulusM: number;
  metalC: number;
  moldC: number;
  interfaceWPerM2K?: number;
}

/**
 * Time until thin metal in a metal mold is solid, limited by the interface:
 * t = rho_liquid (L + c_l dT) (V/A) / (h (T_m - T_mold)), seconds.
 * Range: metal 328 to 600 C, mold -20 to 300 C, modulus 0.05 to 20 mm.
 * Checks: a 14.2 g ball at 371 C into a sooted mold at 120 C takes 2.3 s, 0.9 g 0.9 s, 113 g 4.5 s.
 */
export function freezeTimeS(input: FreezeInput): number {
  const modulusM = inRange('modulusM', input.modulusM, 'm', 5e-5, 0.02);
  const metalC = inRange('metalC', input.metalC, 'C', LEAD_MELTING_C, 600);
  const moldC = inRange('moldC', input.moldC, 'C', -20, 300);
  const h = inRange('interfaceWPerM2K', input.interfaceWPerM2K ?? SOOTED_W_M2K, 'W/m2K', 100, 50_000);
  const heat = LEAD_LATENT_J_KG + LEAD_LIQUID_J_KG_K * (metalC - LEAD_MELTING_C);
  return (LEAD_LIQUID_KG_M3 * heat * modulusM) / (h * (LEAD_MELTING_C - moldC));
}

/** Freezing is judged by eye and hand: wait twice the computed time before opening. Common practice, no source. */
export const OPENING_MARGIN = 2;

export interface TimeToOpen {
  headS: number;
  sprueS: number;
  /** When to open: the later of the two, with margin. */
  openS: number;
  last: 'head' | 'sprue';
}

/** When a filled cavity may be opened: head and sprue frozen, times {@link OPENING_MARGIN}. Seconds. */
export function timeToOpen(solid: HeadSolid, sprue: Sprue, heat: Omit<FreezeInput, 'modulusM'>): TimeToOpen {
  const headS = freezeTimeS({ ...heat, modulusM: solid.modulusM });
  const sprueS = freezeTimeS({ ...heat, modulusM: sprue.modulusM });
  return {
    headS,
    sprueS,
    openS: OPENING_MARGIN * Math.max(headS, sprueS),
    last: headS >= sprueS ? 'head' : 'sprue',
  };
}
