/** Constants of the metals; CRC Handbook of Chemistry and Physics, from memory, unless said otherwise. */
export const LEAD_SOLID_KG_M3 = 11340; // 20 C; also in npm periodic-table
export const LEAD_LIQUID_KG_M3 = 10660; // at the melting point
export const LEAD_MELTING_C = 327.46; // also in npm periodic-table
export const LEAD_LATENT_J_KG = 23_000;
export const LEAD_LIQUID_J_KG_K = 147;
/** Specific heat of solid lead: 127.9 at 20 C, rising in a straight line to 142 at the melting point. */
export const LEAD_SOLID_J_KG_K_AT_20C = 127.9;
export const LEAD_SOLID_J_KG_K_AT_MELTING = 142;
/** Solid lead warmed under a gun or in an oven, 20 to 177 C: the mean over that stretch of the straight line above. */
export const LEAD_WARMED_J_KG_K =
  LEAD_SOLID_J_KG_K_AT_20C +
  ((LEAD_SOLID_J_KG_K_AT_MELTING - LEAD_SOLID_J_KG_K_AT_20C) * ((177 - 20) / 2)) / (LEAD_MELTING_C - 20);
export const LEAD_LINEAR_EXPANSION_PER_K = 28.9e-6;
export const LEAD_MOLAR_KG = 0.2072; // also in npm periodic-table
export const LEAD_SURFACE_TENSION_N_M = 0.45; // from memory, no book at hand

export const ALUMINIUM_J_KG_K = 897;
export const ALUMINIUM_KG_M3 = 2700;
export const ALUMINIUM_W_M_K = 150; // cast alloys, from memory
export const CAST_IRON_J_KG_K = 480; // from memory, no book at hand
export const CAST_IRON_KG_M3 = 7200; // from memory, no book at hand
export const CAST_IRON_W_M_K = 50; // from memory, no book at hand
export const STEEL_J_KG_K = 470; // from memory, no book at hand
export const STEEL_KG_M3 = 7850; // from memory, no book at hand

/**
 * Lead just solid at its melting point, from the room-temperature density and three times the linear expansion: 11038
 * kg/m3.
 */
export const LEAD_SOLID_AT_MELTING_KG_M3 =
  LEAD_SOLID_KG_M3 * (1 - 3 * LEAD_LINEAR_EXPANSION_PER_K * (LEAD_MELTING_C - 20));

/**
 * Density of an ideal mixture, 1/rho = sum(w/rho). Check: 58 Bi (9790) with 42 Sn (7290) gives 8560 kg/m3.
 * @example idealMixtureKgM3([{ massFraction: 0.58, densityKgM3: 9790 }, { massFraction: 0.42, densityKgM3: 7290 }])
 * // 8557
 */
export function idealMixtureKgM3(parts: readonly { massFraction: number; densityKgM3: number }[]): number {
  return 1 / parts.reduce((sum, part) => sum + part.massFraction / part.densityKgM3, 0);
}

export const ANTIMONY_KG_M3 = 6690;
export const TIN_KG_M3 = 7290;
export const BISMUTH_KG_M3 = 9790;
