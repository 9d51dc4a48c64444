import { minorUnits, shareMinor } from '../money/money.ts';
import { inRange, QuantityError } from '../quantity/check.ts';
import { takeValueMinor } from './ledger.ts';

/** Finished heads are sold as good, or as what a head with a flaw is worth. */
export const GRADES = ['good', 'second'] as const;
export type Grade = (typeof GRADES)[number];

/** What a head of second grade is worth against a good one. Common practice, no source. */
export const SECOND_GRADE_SHARE = 0.5;

/**
 * Heads that are still to be made so that as many as wanted lie on the shelf, once all that is ordered has been handed
 * over from it.
 * @param heads `keep` wanted on the shelf, `here` on it now, `coming` on the line or ordered to be made, `ordered` by
 *   customers and not handed over
 * @example toKeep({ keep: 20, here: 12, coming: 30, ordered: 30 }) // 8
 */
export const toKeep = (heads: { keep: number; here: number; coming: number; ordered: number }): number =>
  Math.max(0, heads.keep - (heads.here + heads.coming - heads.ordered));

/** What brings finished heads to their shelf, and what takes them off it. */
export type GoodsReason = 'made' | 'sold' | 'given' | 'returned' | 'scrapped' | 'counted';

/** Heads of one ticket and grade on the shelf, and what they cost, minor units. Null: found by a count. */
export interface GoodsLot {
  ticketId: string | null;
  pieces: number;
  valueMinor: number;
}

/**
 * What a ticket's good and second-grade heads cost: all that it spent, by what each would fetch (relative sales value,
 * the usual way to share a joint cost). Where nothing came of it, nothing is worth anything.
 * @param spentMinor what the ticket spent on parts, minor units
 * @param heads pieces of each grade
 * @param secondShare what a second-grade head is worth against a good one, 0 to 1
 * @returns minor units; both together are `spentMinor` to the last one
 * @example goodsValue(1000, { good: 9, second: 2 }, 0.5) // { good: 900, second: 100 }
 */
export function goodsValue(
  spentMinor: number,
  heads: Record<Grade, number>,
  secondShare: number,
): Record<Grade, number> {
  minorUnits('spent', spentMinor);
  inRange('second-grade share', secondShare, '', 0, 1);
  const weights = [heads.good, heads.second * secondShare];
  if (weights[0]! + weights[1]! === 0) return { good: 0, second: heads.second > 0 ? spentMinor : 0 };
  const [good, second] = shareMinor(spentMinor, weights);
  return { good: good!, second: second! };
}

/** Heads on the shelf, over all lots. @example piecesOf([{ ticketId: null, pieces: 3, valueMinor: 0 }]) // 3 */
export const piecesOf = (lots: readonly Pick<GoodsLot, 'pieces'>[]): number =>
  lots.reduce((sum, { pieces }) => sum + pieces, 0);

/**
 * Takes heads off the shelf, oldest ticket first, each at what it cost: so it stays known whose bag holds what.
 * @param lots oldest first
 * @throws QuantityError where fewer are there
 * @example takeGoods([{ ticketId: 'a', pieces: 4, valueMinor: 400 }], 1)[0].valueMinor // 100
 */
export function takeGoods(lots: readonly GoodsLot[], pieces: number): GoodsLot[] {
  const here = piecesOf(lots);
  if (!(pieces <= here)) throw new QuantityError('pieces', pieces, '', `at most ${here}, what is on the shelf`);
  const taken: GoodsLot[] = [];
  let wanted = pieces;
  for (const lot of lots) {
    const now = Math.min(wanted, lot.pieces);
    if (now <= 0) continue;
    const valueMinor = takeValueMinor({ quantity: lot.pieces, valueMinor: lot.valueMinor }, now);
    taken.push({ ticketId: lot.ticketId, pieces: now, valueMinor });
    wanted -= now;
  }
  return taken;
}

/** A line of an order, and what of it is handed over. */
export interface FilledLine {
  productId: string;
  quantity: number;
  handed: number;
  /** Still to be handed over; more than was ordered leaves none. */
  open: number;
}

/**
 * How far an order is filled, line by line.
 * @example filled([{ productId: 'p', quantity: 60 }], { p: 24 })[0].open // 36
 */
export const filled = (
  lines: readonly { productId: string; quantity: number }[],
  handed: Readonly<Record<string, number>>,
): FilledLine[] =>
  lines.map(({ productId, quantity }) => {
    const over = handed[productId] ?? 0;
    return { productId, quantity, handed: over, open: Math.max(0, quantity - over) };
  });

/** How an order stands with who ordered it: what the list of orders says. */
type Handed = 'nothing' | 'part' | 'all';

/** @example handedSays([{ productId: 'p', quantity: 60, handed: 24, open: 36 }]) // 'part' */
export const handedSays = (lines: readonly FilledLine[]): Handed => {
  if (lines.every(({ open }) => open === 0)) return 'all';
  return lines.some(({ handed }) => handed > 0) ? 'part' : 'nothing';
};
