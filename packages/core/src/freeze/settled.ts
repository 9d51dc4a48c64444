import { cavitySolid } from '../geometry/solid.ts';
import type { StyleId } from '../geometry/styles.ts';
import { type Alloy, SOFT_LEAD } from '../metal/alloy.ts';
import type { MoldBlock } from '../mold/block.ts';
import { cavityShotKg } from '../mold/known-mold.ts';
import { steadyMoldC } from '../mold/pace.ts';
import { shotSeconds, type HandSeconds } from '../mold/shot-seconds.ts';
import { interfaceWPerM2K } from './freeze.ts';
import { headOpening, type HeadOpening } from './opening.ts';

interface SettledInput {
  block: MoldBlock;
  /** Cavities that are poured. */
  cavities: readonly { position: number; style: StyleId; nominalMassKg: number }[];
  shotsSinceSmoked: number;
  metalC: number;
  roomC: number;
  /** The maker's own pace. */
  hands: HandSeconds;
  alloy?: Alloy;
  /** The maker's own count until it is opened. */
  ownOpenS?: number | null;
}
/** How a mold runs once it has settled. */
interface Settled {
  moldC: number;
  /** From the pour until it is opened, by the cavity that is last. */
  openS: number;
  cycleS: number;
  last: HeadOpening & { position: number };
}

const ROUNDS = 6;
/** What a cavity may be reckoned to freeze in: hotter, the metal would not set at all. */
const HOTTEST_BELOW_SOLIDUS_K = 40;

/**
 * The heat that a mold settles at by the maker's own pace, with the seconds of one shot: the pace goes by when it may
 * be opened, which goes by its heat, so both are found together. One pace and one loss for plan, pages, bench and
 * coach. Check: five cavities of 12 g in half a kilogram, some 170 s a shot, settle at 48 to 57 C (physics, common
 * practice).
 * @example settledMold({ block: smallBlock, cavities: smallMold.cavities, shotsSinceSmoked: 20, metalC: 371,
 *   roomC: 20, hands: { loadS: 17, inspectS: 12 } }).moldC // 51.13
 */
export function settledMold(input: SettledInput): Settled {
  const { block, cavities, metalC, roomC, alloy = SOFT_LEAD } = input;
  const interfaceW = interfaceWPerM2K(input.shotsSinceSmoked);
  const solids = cavities.map((cavity) => {
    const { position, style, nominalMassKg } = cavity;
    return { position, nominalMassKg, solid: cavitySolid(style, nominalMassKg) };
  });
  const shotKg = cavities.reduce((sum, cavity) => sum + cavityShotKg(cavity), 0);
  const hottestC = Math.min(metalC, alloy.solidusC - HOTTEST_BELOW_SOLIDUS_K);
  const at = (moldC: number): Settled => {
    const heat = {
      ...{ metalC, moldC: Math.min(moldC, hottestC), interfaceWPerM2K: interfaceW, alloy },
      ...{ moldMetal: block.metal, ownOpenS: input.ownOpenS, together: cavities.length },
    };
    const last = solids
      .map(({ position, solid, nominalMassKg }) => ({ position, ...headOpening(solid, nominalMassKg, heat) }))
      .reduce((a, b) => (b.openS > a.openS ? b : a));
    return { moldC, openS: last.openS, cycleS: shotSeconds(input.hands, cavities.length, last.openS), last };
  };
  let now = at((roomC + hottestC) / 3);
  for (let i = 0; i < ROUNDS; i++) {
    const closedS = now.openS;
    now = at(steadyMoldC({ block, shotKg, metalC, roomC, closedS, alloy }, Math.max(1, now.cycleS)));
  }
  return now;
}
