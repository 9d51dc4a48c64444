import { inRange } from '../quantity/check.ts';
import {
  ANTIMONY_KG_M3,
  BISMUTH_KG_M3,
  idealMixtureKgM3,
  LEAD_LATENT_J_KG,
  LEAD_LIQUID_J_KG_K,
  LEAD_LINEAR_EXPANSION_PER_K,
  LEAD_LIQUID_KG_M3,
  LEAD_MELTING_C,
  LEAD_SOLID_J_KG_K_AT_20C,
  LEAD_SOLID_J_KG_K_AT_MELTING,
  LEAD_SOLID_KG_M3,
  TIN_KG_M3,
} from './materials.ts';

/** A casting metal with all that heat and flow ask of it. */
export interface Alloy {
  name: string;
  densityKgM3: number;
  /** Linear, solid, from 20 C to the solidus. */
  expansionPerK: number;
  liquidKgM3: number;
  liquidusC: number;
  solidusC: number;
  latentJKg: number;
  /** Specific heat of the solid at 20 C and at the solidus; in a straight line between. */
  solidJKgKAt20C: number;
  solidJKgKAtSolidus: number;
  liquidJKgK: number;
  /** Share that may be solid before it stops running: less for metal that freezes over a long range. */
  runsUntilSolidShare: number;
  /** 0: sets with a clean front, as pure metals and eutectics do; 1: pasty over a long range. */
  pasty: number;
}

/** A pure metal or a eutectic runs until it is half solid, one with a long range until a quarter is. From memory. */
const RUNS_PURE = 0.45;
const RUNS_LONG = 0.25;
const LONG_RANGE_K = 40;
const pastyAt = (rangeK: number) => Math.min(1, rangeK / LONG_RANGE_K);
const runsAt = (pasty: number) => RUNS_PURE - (RUNS_PURE - RUNS_LONG) * pasty;

/** Lead-antimony eutectic: 11.1 % at 252 C. Phase diagram, from memory. */
const EUTECTIC_C = 252;
const EUTECTIC_PERCENT = 11.1;
/** Cast metal is not in balance: from about one percent on, some of it freezes last, at the eutectic. From memory. */
const CORED_FROM_PERCENT = 1;

export interface LeadComposition {
  antimonyPercent: number;
  tinPercent: number;
}

/**
 * Lead with antimony and a little tin: density by ideal mixing, liquidus falling in a straight line from 327.46 C to
 * the eutectic, latent heat 23 + 0.9 kJ/kg per % Sb. Without either it is soft lead, exactly. Range: 0 to 11.1 % Sb, 0
 * to 5 % Sn.
 * @example leadAlloy({ antimonyPercent: 3, tinPercent: 0.5 }).liquidusC // 307.1
 */
export function leadAlloy({ antimonyPercent, tinPercent }: LeadComposition): Alloy {
  const sb = inRange('antimonyPercent', antimonyPercent, '%', 0, EUTECTIC_PERCENT);
  const sn = inRange('tinPercent', tinPercent, '%', 0, 5);
  const densityKgM3 = idealMixtureKgM3([
    { massFraction: 1 - (sb + sn) / 100, densityKgM3: LEAD_SOLID_KG_M3 },
    { massFraction: sb / 100, densityKgM3: ANTIMONY_KG_M3 },
    { massFraction: sn / 100, densityKgM3: TIN_KG_M3 },
  ]);
  const fall = LEAD_MELTING_C - EUTECTIC_C;
  const liquidusC = LEAD_MELTING_C - (fall * sb) / EUTECTIC_PERCENT;
  const solidusC = LEAD_MELTING_C - fall * Math.min(1, sb / CORED_FROM_PERCENT);
  const hard = Math.min(1, sb / CORED_FROM_PERCENT);
  const pasty = pastyAt(liquidusC - Math.min(solidusC, liquidusC));
  const blend = (pure: number, alloyed: number) => pure + (alloyed - pure) * hard;
  return {
    name: sb + sn === 0 ? 'Soft lead' : `Lead with ${sb} % antimony${sn ? `, ${sn} % tin` : ''}`,
    densityKgM3,
    expansionPerK: LEAD_LINEAR_EXPANSION_PER_K,
    liquidKgM3: (LEAD_LIQUID_KG_M3 * densityKgM3) / LEAD_SOLID_KG_M3,
    liquidusC,
    solidusC: Math.min(solidusC, liquidusC),
    latentJKg: LEAD_LATENT_J_KG + 900 * sb,
    solidJKgKAt20C: blend(LEAD_SOLID_J_KG_K_AT_20C, 132),
    solidJKgKAtSolidus: blend(LEAD_SOLID_J_KG_K_AT_MELTING, 132),
    liquidJKgK: blend(LEAD_LIQUID_J_KG_K, 150),
    runsUntilSolidShare: runsAt(pasty),
    pasty,
  };
}

/**
 * A metal with what it lies in: a crucible that is as hot as the metal takes up so much beside it, J/K for each kg of
 * metal.
 * @example withHolder(SOFT_LEAD, 0).solidusC // 327.5
 */
export const withHolder = (alloy: Alloy, holderJPerKgK: number): Alloy => ({
  ...alloy,
  solidJKgKAt20C: alloy.solidJKgKAt20C + holderJPerKgK,
  solidJKgKAtSolidus: alloy.solidJKgKAtSolidus + holderJPerKgK,
  liquidJKgK: alloy.liquidJKgK + holderJPerKgK,
});

export const SOFT_LEAD = leadAlloy({ antimonyPercent: 0, tinPercent: 0 });

/** Tyre weights as they usually come: 3 % antimony, half a percent of tin. Common practice, no source. */
const TYRE_WEIGHT_COMPOSITION: LeadComposition = { antimonyPercent: 3, tinPercent: 0.5 };

/** 58 % bismuth, 42 % tin, by ideal mixing; heats from memory. Liquid density taken 1 % below the solid's. */
const BISMUTH_TIN_KG_M3 = idealMixtureKgM3([
  { massFraction: 0.58, densityKgM3: BISMUTH_KG_M3 },
  { massFraction: 0.42, densityKgM3: TIN_KG_M3 },
]);
/** Of the eutectic. From memory. */
const BISMUTH_TIN_EXPANSION_PER_K = 15e-6;
export const BISMUTH_TIN: Alloy = {
  name: 'Bismuth-tin 58/42',
  densityKgM3: BISMUTH_TIN_KG_M3,
  expansionPerK: BISMUTH_TIN_EXPANSION_PER_K,
  liquidKgM3: BISMUTH_TIN_KG_M3 * 0.99,
  liquidusC: 139,
  solidusC: 139,
  latentJKg: 45_000,
  solidJKgKAt20C: 170,
  solidJKgKAtSolidus: 170,
  liquidJKgK: 190,
  runsUntilSolidShare: RUNS_PURE,
  pasty: 0,
};

/** The metals a lead on the shelf may be; `hard-lead` says its own composition. */
export const METAL_IDS = ['soft-lead', 'tyre-weight', 'hard-lead', 'bismuth-tin'] as const;
export type MetalId = (typeof METAL_IDS)[number];
export const METAL_NAMES: Record<MetalId, string> = {
  'soft-lead': 'Soft lead',
  'tyre-weight': 'Tyre weights, 3 % antimony',
  'hard-lead': 'Hard lead, by its antimony',
  'bismuth-tin': 'Bismuth-tin 58/42',
};

/**
 * The alloy of a metal on the shelf.
 * @throws RangeError for an unknown metal; QuantityError for a composition out of range
 * @example alloyOf('bismuth-tin').liquidusC // 139
 */
export function alloyOf(metalId: string, composition?: LeadComposition | null): Alloy {
  switch (metalId) {
    case 'soft-lead':
      return SOFT_LEAD;
    case 'tyre-weight':
      return leadAlloy(composition ?? TYRE_WEIGHT_COMPOSITION);
    case 'hard-lead':
      return leadAlloy(composition ?? { antimonyPercent: 5, tinPercent: 0 });
    case 'bismuth-tin':
      return BISMUTH_TIN;
    default:
      throw new RangeError(`metal is ${metalId}; allowed: ${METAL_IDS.join(', ')}`);
  }
}

/**
 * Density of the solid where it has just set, kg/m3: a cavity is full then, and what shrinks later leaves its mark.
 * @example densityAtSolidusKgM3(SOFT_LEAD) // 11040
 */
export const densityAtSolidusKgM3 = ({ densityKgM3, expansionPerK, solidusC }: Alloy): number =>
  densityKgM3 * (1 - 3 * expansionPerK * (solidusC - 20));

/**
 * Share of the stamped mass that this metal gives in the same cavity: its density over lead's, each where it sets.
 * @example massShareOfLead(BISMUTH_TIN) // 0.771
 */
export const massShareOfLead = (alloy: Alloy): number => densityAtSolidusKgM3(alloy) / densityAtSolidusKgM3(SOFT_LEAD);

/**
 * Brinell hardness by antimony content: pure 4 to 5, tyre weights 9 to 12, 12 % about 20 where there is tin with it.
 * Rules of thumb, from memory.
 */
const HARDNESS: readonly (readonly [percent: number, brinell: number])[] = [
  [0, 4.5],
  [3, 10.5],
  [12, 20],
];
/** Chill-cast without tin it is softer: 12 % is nearer 15. From memory. */
const HARDNESS_NO_TIN: typeof HARDNESS = [
  [0, 4.5],
  [3, 9],
  [12, 15],
];
const HARDNESS_SPREAD = 1.5;

/** The antimony that goes with a hardness, percent, between the points of a table; held within 0 to 11.1 %. */
function percentAt(table: typeof HARDNESS, brinell: number): number {
  const next = table.findIndex(([, bhn]) => bhn >= brinell);
  const [p0, b0] = table[Math.max(0, (next < 0 ? table.length : next) - 1)]!;
  const [p1, b1] = table[next < 0 ? table.length - 1 : next]!;
  const percent = b1 === b0 ? p0 : p0 + ((p1 - p0) * (brinell - b0)) / (b1 - b0);
  return Math.min(EUTECTIC_PERCENT, Math.max(0, percent));
}

/**
 * Antimony that a hardness test points to, percent, as an estimate with its range: tin, arsenic and age harden lead
 * too, and without tin the same hardness stands for much more. Range: 3 to 22 BHN; held within 0 to 11.1 %.
 * @example antimonyFromHardness(10.5) // { percent: 3, low: 2.25, high: 7.5 }
 */
export function antimonyFromHardness(brinell: number): { percent: number; low: number; high: number } {
  inRange('hardness', brinell, 'BHN', 3, 22);
  return {
    percent: percentAt(HARDNESS, brinell),
    low: percentAt(HARDNESS, brinell - HARDNESS_SPREAD),
    high: percentAt(HARDNESS_NO_TIN, brinell + HARDNESS_SPREAD),
  };
}
