import { shareMinor } from '../money/money.ts';
import { inRange } from '../quantity/check.ts';

/** What is in the house of one material: kg or pieces, and what was paid for it in minor units. */
export interface Balance {
  quantity: number;
  valueMinor: number;
}

/** Quantities closer than this are equal: a tenth of a milligram of metal or powder. */
export const QUANTITY_TOLERANCE = 1e-7;

/**
 * Value of taking `quantity` out of a balance at its moving average, minor units. The last of it takes the rest, so
 * that
 * an empty shelf is worth nothing; what is taken beyond the shelf (a count was wrong) is valued at `fallbackMinor` a
 * unit.
 */
export function takeValueMinor(balance: Balance, quantity: number, fallbackMinor = 0): number {
  inRange('quantity taken', quantity, '', 0, 1e9);
  if (quantity === 0) return 0;
  if (balance.quantity <= QUANTITY_TOLERANCE) return Math.round(quantity * fallbackMinor);
  if (quantity >= balance.quantity - QUANTITY_TOLERANCE) {
    return balance.valueMinor + Math.round(Math.max(0, quantity - balance.quantity) * fallbackMinor);
  }
  const [taken] = shareMinor(balance.valueMinor, [quantity, balance.quantity - quantity]);
  return taken!;
}

/** Moving average in minor units a kg or a piece; null for an empty shelf. */
export function averageMinor(balance: Balance): number | null {
  return balance.quantity > QUANTITY_TOLERANCE ? balance.valueMinor / balance.quantity : null;
}

export type PostingReason =
  'heads' | 'second grade' | 'returned' | 'sprue back' | 'dross' | 'unexplained' | 'hooks' | 'hooks lost' | 'powder';

/** What a ticket should have moved, by material and reason; negative leaves the shelf. */
export interface Posting {
  materialId: string;
  reason: PostingReason;
  quantity: number;
}

export interface TicketConsumption {
  leadMaterialId: string;
  hookMaterialId: string;
  leadKgPerHead: number;
  poured: number;
  /** Kept as second grade: gone from the shelf, though no head of this ticket. */
  secondGrade: number;
  hooksLostAtPour: number;
  /** Rejected at trim, paint, bake, finish: their lead and hooks come back. */
  rejectedLater: number;
  hooksLostLater: number;
  /** Sprues cut off and weighed after the pour: clean lead that comes back. */
  sprueBackKg: number;
  /** This ticket's share, once the pour is closed. */
  drossKg: number;
  unexplainedKg: number;
  /** Powder by material: kg a head, and heads that were dipped. */
  powders: { materialId: string; kgPerHead: number }[];
  dipped: number;
}

/**
 * The stock movements that a ticket's counts ask for. They are recomputed from the whole log, and only the difference
 * to
 * what was posted before is posted: an undo at any depth corrects the stock as well.
 */
export function postingsOf(ticket: TicketConsumption): Posting[] {
  const { leadMaterialId, hookMaterialId, leadKgPerHead } = ticket;
  const all: Posting[] = [
    { materialId: leadMaterialId, reason: 'heads', quantity: -ticket.poured * leadKgPerHead },
    { materialId: leadMaterialId, reason: 'second grade', quantity: -ticket.secondGrade * leadKgPerHead },
    { materialId: leadMaterialId, reason: 'returned', quantity: ticket.rejectedLater * leadKgPerHead },
    { materialId: leadMaterialId, reason: 'sprue back', quantity: ticket.sprueBackKg },
    { materialId: leadMaterialId, reason: 'dross', quantity: -ticket.drossKg },
    { materialId: leadMaterialId, reason: 'unexplained', quantity: -ticket.unexplainedKg },
    { materialId: hookMaterialId, reason: 'hooks', quantity: -ticket.poured },
    { materialId: hookMaterialId, reason: 'second grade', quantity: -ticket.secondGrade },
    { materialId: hookMaterialId, reason: 'returned', quantity: ticket.rejectedLater - ticket.hooksLostLater },
    { materialId: hookMaterialId, reason: 'hooks lost', quantity: -ticket.hooksLostAtPour },
    ...ticket.powders.map(({ materialId, kgPerHead }): Posting => {
      return { materialId, reason: 'powder', quantity: -ticket.dipped * kgPerHead };
    }),
  ];
  return all.filter((posting) => Math.abs(posting.quantity) > QUANTITY_TOLERANCE);
}
