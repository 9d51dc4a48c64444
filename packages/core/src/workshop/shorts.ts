import { coldByPace, coldMold } from '../fill/cold.ts';
import { settledMold } from '../freeze/settled.ts';
import { workingBlock, type WorkedMold } from '../freeze/opening.ts';
import type { HandSeconds } from '../mold/shot-seconds.ts';
import type { PlanMold } from '../plan/types.ts';
import { benchSettings, fillIndex } from '../fill/fill-index.ts';
import { fillCavityOf } from '../fill/known-cavity.ts';
import { fitFairThreshold, type CavityFillRecord } from '../fill/threshold.ts';
import type { StyleId } from '../geometry/styles.ts';

/** What one cavity gave in one pour while its mold was so warm. */
export interface ShortsRecord {
  cavityId: string;
  pourC: number;
  roomC: number;
  moldC: number;
  shotsSinceSmoked: number;
  casts: number;
  shorts: number;
}
type Cavities = readonly { id: string; style: StyleId; nominalMassKg: number; hookSize: string; wire?: string }[];

/**
 * Casts and shorts by the fill index as the bench read it: with the heat that the mold had, and cold hooks.
 * @example shortsByIndex([], []) // []
 */
export const shortsByIndex = (cavities: Cavities, records: readonly ShortsRecord[]): CavityFillRecord[] =>
  records.flatMap(({ cavityId, pourC: metalC, roomC, moldC, shotsSinceSmoked, casts, shorts }) => {
    const cavity = cavities.find((each) => each.id === cavityId);
    if (!cavity) return [];
    const { index } = fillIndex(fillCavityOf(cavity), benchSettings({ metalC, moldC, roomC, shotsSinceSmoked }));
    return [{ cavityId, index, casts, shorts }];
  });

/**
 * What is known of a mold by its own shorts: cavities with a fault of their own, and when the others are too cold.
 * @param usualC what is too cold for it by its pace, C; see {@link usualColdC}
 * @example knownShorts([], []).faulty // []
 */
export function knownShorts(cavities: Cavities, records: readonly ShortsRecord[], usualC?: number) {
  const { faulty } = fitFairThreshold(shortsByIndex(cavities, records));
  const sound = records.filter(({ cavityId }) => !faulty.includes(cavityId));
  return { faulty, coldBelowC: coldMold(sound, usualC).belowC };
}

/**
 * What is too cold for a mold until its own shorts say otherwise, C: by what it settles at with all its sound cavities,
 * at this maker's pace; null where none is open.
 * @example usualColdC(smallMold, { metalC: 371, roomC: 20, hands: { loadS: 17, inspectS: 12 } }) // 39.08
 */
export function usualColdC(
  mold: Omit<WorkedMold, 'cavities'> & Pick<PlanMold, 'cavities' | 'shotsSinceSmoked'>,
  of: { metalC: number; roomC: number; hands: HandSeconds },
): number | null {
  const cavities = mold.cavities.filter(({ condition }) => condition === 'good');
  if (cavities.length === 0) return null;
  const { block } = workingBlock(mold);
  const { shotsSinceSmoked, ownOpenS } = mold;
  const { moldC } = settledMold({ ...of, block, cavities, shotsSinceSmoked, ownOpenS });
  return coldByPace({ settledC: moldC, roomC: of.roomC });
}
