import { reorderPoint, type ReorderPoint } from './reorder.ts';

/** A part on the shelf, what the open work takes of it, and what was used of it week by week. */
interface PartOnShelf {
  materialId: string;
  here: number;
  need: number;
  weekly: readonly number[];
  /** Until more is here, days. */
  days: number;
  /** Below this it runs low while nobody knows how it is used; see PART_KINDS. */
  lowAt?: number;
}
export interface PartToBuy {
  materialId: string;
  here: number;
  need: number;
  /** What is left once the open work is done; less than nothing where it is short. */
  free: number;
  point: ReorderPoint | null;
  /** How much to buy: what is short, and stock for a while where little is left. */
  buy: number;
  why: 'short' | 'low' | 'enough';
}

/** Stock is bought for so long, beyond the point at which it is bought. Common practice, no source. */
const BUY_FOR_DAYS = 28;

/**
 * What runs low: short for the work that is open, or below the point at which it is ordered again.
 * @returns in the order given; `buy` in the unit of the part, not rounded to packs
 * @throws QuantityError for use or days out of range
 * @example toBuy([{ materialId: 'hook', here: 20, need: 50, weekly: [0, 0], days: 7 }])[0].buy // 30
 */
export function toBuy(parts: readonly PartOnShelf[]): PartToBuy[] {
  return parts.map(({ materialId, here, need, weekly, days, lowAt = 0 }) => {
    const point = reorderPoint({ weekly, days });
    const free = here - need;
    const low = point ? free <= point.at : free < lowAt;
    const upTo = point && low ? point.at + BUY_FOR_DAYS * point.aDay : low ? lowAt : 0;
    const buy = low || free < 0 ? Math.max(0, upTo - free) : 0;
    return { materialId, here, need, free, point, buy, why: free < 0 ? 'short' : low ? 'low' : 'enough' };
  });
}
