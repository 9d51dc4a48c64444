/** Constants of the metals; CRC Handbook of Chemistry and Physics, from memory, unless said otherwise. */
export const LEAD_SOLID_KG_M3 = 11340; // 20 C; also in npm periodic-table
export const LEAD_LIQUID_KG_M3 = 10660; // at the melting point
export const LEAD_MELTING_C = 327.46; // also in npm periodic-table
export const LEAD_LATENT_J_KG = 23_000;
export const LEAD_LIQUID_J_KG_K = 147;
/** Specific heat of solid lead: 127.9 at 20 C, rising in a straight line to 142 at the melting point. */
export const LEAD_SOLID_J_KG_K_AT_20C = 127.9;
export const LEAD_SOLID_J_KG_K_AT_MELTING = 142;
export const LEAD_LINEAR_EXPANSION_PER_K = 28.9e-6;

export const ALUMINIUM_J_KG_K = 897;
export const CAST_IRON_J_KG_K = 480; // from memory, no book at hand
export const STEEL_J_KG_K = 470; // from memory, no book at hand
export const STEEL_KG_M3 = 7850; // from memory, no book at hand

/** Lead just solid at its melting point, from the room-temperature density and three times the linear expansion: 11038 kg/m3. */
export const LEAD_SOLID_AT_MELTING_KG_M3 = LEAD_SOLID_KG_M3 * (1 - 3 * LEAD_LINEAR_EXPANSION_PER_K * 307);

/** A casting metal by what it weighs in a cavity against soft lead, and whether it counts as soft. */
export interface CastingMetal {
  id: 'soft-lead' | 'tyre-weight' | 'bismuth-tin';
  name: string;
  densityKgM3: number;
}

/** Density of an ideal mixture, 1/rho = sum(w/rho). Check: 58 Bi (9790) with 42 Sn (7290) gives 8560 kg/m3. */
export function idealMixtureKgM3(parts: readonly { massFraction: number; densityKgM3: number }[]): number {
  return 1 / parts.reduce((sum, part) => sum + part.massFraction / part.densityKgM3, 0);
}

const ANTIMONY_KG_M3 = 6690;
const TIN_KG_M3 = 7290;
const BISMUTH_KG_M3 = 9790;

export const CASTING_METALS: readonly CastingMetal[] = [
  { id: 'soft-lead', name: 'Soft lead', densityKgM3: LEAD_SOLID_KG_M3 },
  {
    id: 'tyre-weight',
    name: 'Tyre weights, 3 % antimony',
    densityKgM3: idealMixtureKgM3([
      { massFraction: 0.965, densityKgM3: LEAD_SOLID_KG_M3 },
      { massFraction: 0.03, densityKgM3: ANTIMONY_KG_M3 },
      { massFraction: 0.005, densityKgM3: TIN_KG_M3 },
    ]),
  },
  {
    id: 'bismuth-tin',
    name: 'Bismuth-tin 58/42',
    densityKgM3: idealMixtureKgM3([
      { massFraction: 0.58, densityKgM3: BISMUTH_KG_M3 },
      { massFraction: 0.42, densityKgM3: TIN_KG_M3 },
    ]),
  },
];

/** The metal with this id; throws where there is none. */
export function castingMetal(id: string): CastingMetal {
  const metal = CASTING_METALS.find((each) => each.id === id);
  if (!metal) throw new RangeError(`metal is ${id}; allowed: ${CASTING_METALS.map((each) => each.id).join(', ')}`);
  return metal;
}
