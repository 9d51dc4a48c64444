import { coldMold } from '../fill/cold.ts';
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
 * @example knownShorts([], []).faulty // []
 */
export function knownShorts(cavities: Cavities, records: readonly ShortsRecord[]) {
  const { faulty } = fitFairThreshold(shortsByIndex(cavities, records));
  return { faulty, coldBelowC: coldMold(records.filter(({ cavityId }) => !faulty.includes(cavityId))).belowC };
}
