import { cavitySolid, type HeadSolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { enthalpyJKg } from '../metal/enthalpy.ts';
import { LEAD_WARMED_J_KG_K } from '../metal/materials.ts';
import type { MoldMetal } from '../mold/block.ts';
import { knownBlock, type BlockRecord, type KnownBlock } from '../mold/known-mold.ts';
import { inRange } from '../quantity/check.ts';
import { freezing, type Freezing } from './freeze.ts';

/**
 * Freezing is judged by eye: the last of it has gone dull, and a moment more. Heads under an ounce are opened after
 * half a second to two and a half. Common practice, no source.
 */
export const OPENING_MARGIN = 1.15;
/**
 * Heavy heads are given longer than they need to set, so that they can be lifted out: nothing more up to an ounce, some
 * 20 s in all from 4 oz on. Between the two it grows evenly with the head's size. Common practice, no source.
 */
const LIGHT_KG = 0.028;
const HEAVY_KG = 0.113;
const HEAVY_WAIT_S = 15;

/**
 * How long a set head is left to cool before its mold is opened, s.
 * @example waitAfterSetS(0.0142) // 0
 */
export function waitAfterSetS(headKg: number): number {
  const share = Math.min(1, Math.max(0, Math.log(headKg / LIGHT_KG) / Math.log(HEAVY_KG / LIGHT_KG)));
  return HEAVY_WAIT_S * share * share * (3 - 2 * share);
}

/**
 * Once a head is solid it shrinks off its cavity, and the gap lets through only so much, W/m2K. By it 8 oz, opened
 * after the usual 20 s, come out of a mold of 120 C at 190 to 220 C. Common practice, no source.
 */
export const GAP_W_M2K = { usual: 520 };
/** In the open mold a head lies in one half of it by its own weight, W/m2K of that half's surface. Common practice. */
export const LYING_W_M2K = 800;
/** Heads are lifted out one after another, s each. Common practice, no source. */
const LIFT_S = 3;

/** How a cavity is poured and opened. */
export interface OpeningHeat {
  metalC: number;
  moldC: number;
  alloy?: Alloy;
  moldMetal?: MoldMetal;
  /** Skin between metal and mold, W/m2K; left out: as it is so many shots after smoking. */
  interfaceWPerM2K: number;
  /** The maker's own count until this mold is opened; it outranks. */
  ownOpenS?: number | null;
  /** Cavities that are opened together; left out: one. */
  together?: number;
  /** Left out: as usual. */
  gapWPerM2K?: number;
}

/** One head from the pour until it is lifted out. */
export interface HeadOpening {
  head: Freezing;
  sprue: Freezing;
  last: 'head' | 'sprue';
  /** When head and sprue are solid, and when the mold is opened, s after the pour. */
  solidS: number;
  openS: number;
  /** The head when the mold is opened, and when it is lifted out, C. */
  opensC: number;
  leavesC: number;
  /** Of what it was above the mold when it set, so much is left then. */
  keptShare: number;
  /** Heat that a kilogram of it has left in the mold by then, J/kg. */
  givenJKg: number;
}

/**
 * When a mold is opened on a head, how hot that is then and when it is lifted out, and what heat stays in the mold: one
 * calculation, without a step at any mass. Head and sprue freeze ({@link freezing}), then the head comes down toward
 * the mold through the gap that its shrinking leaves, and after opening in the half that it lies in. Range: 0.1 g to
 * 2 kg.
 * @example headOpening(cavitySolid('ball', 0.0142), 0.0142, { metalC: 371, moldC: 60, interfaceWPerM2K: 1500 }).openS
 * // 1.912
 */
export function headOpening(solid: HeadSolid, headKg: number, heat: OpeningHeat): HeadOpening {
  inRange('headKg', headKg, 'kg', 1e-4, 2);
  const { metalC, moldC, alloy = SOFT_LEAD, ownOpenS, together = 1, gapWPerM2K = GAP_W_M2K.usual } = heat;
  const [head, sprue] = [solid, sprueOf(solid)].map(({ modulusM }) => freezing({ ...heat, modulusM, alloy })) as [
    Freezing,
    Freezing,
  ];
  const last = head.seconds >= sprue.seconds ? 'head' : 'sprue';
  const solidS = Math.max(head.seconds, sprue.seconds);
  const openS = ownOpenS ?? OPENING_MARGIN * solidS + waitAfterSetS(headKg);
  const heatJK = headKg * LEAD_WARMED_J_KG_K;
  const areaM2 = solid.cooledAreaM2;
  const shutLags = (Math.max(0, openS - head.seconds) * gapWPerM2K * areaM2) / heatJK;
  const lyingS = (LIFT_S * (together + 1)) / 2;
  const lyingLags = (lyingS * LYING_W_M2K * areaM2) / 2 / heatJK;
  const above = Math.max(0, alloy.solidusC - moldC);
  const keptShare = Math.exp(-shutLags - lyingLags);
  const leavesC = moldC + above * keptShare;
  return {
    ...{ head, sprue, last, solidS, openS, keptShare, leavesC },
    opensC: moldC + above * Math.exp(-shutLags),
    givenJKg: enthalpyJKg(alloy, metalC) - enthalpyJKg(alloy, leavesC),
  };
}

/** Heat at which what heads keep is said of a mold as a whole: poured and ready as usual, some shots after smoking. */
const USUAL = { metalC: 371, moldC: 60, interfaceWPerM2K: 2500 };

/**
 * Of what they are above their mold when they set, heads of these cavities keep so much until they are lifted out; by
 * the mass of each.
 * @example keptOf([{ style: 'ball', nominalMassKg: 0.01 }]) // 0.6
 */
export function keptOf(
  cavities: readonly { style: string; nominalMassKg: number }[],
  ownOpenS?: number | null,
): number {
  const kg = cavities.reduce((sum, { nominalMassKg }) => sum + nominalMassKg, 0);
  const kept = cavities.reduce((sum, { style, nominalMassKg }) => {
    const solid = cavitySolid(style, nominalMassKg);
    const { keptShare } = headOpening(solid, nominalMassKg, { ...USUAL, ownOpenS, together: cavities.length });
    return sum + nominalMassKg * keptShare;
  }, 0);
  return kept / kg;
}

/** A mold on record, as it is worked: its block, its cavities and the maker's own count. */
export interface WorkedMold extends BlockRecord {
  cavities: readonly { style: string; nominalMassKg: number; condition: string }[];
  ownOpenS?: number | null;
}

/**
 * What is known of a mold's block, with what its own heads keep of their heat.
 * @example workingBlock(smallMold).block.keptShare // 0.2
 */
export function workingBlock(mold: WorkedMold): KnownBlock {
  const known = knownBlock(mold);
  const open = mold.cavities.filter(({ condition }) => condition === 'good');
  if (open.length === 0) return known;
  return { ...known, block: { ...known.block, keptShare: keptOf(open, mold.ownOpenS) } };
}
