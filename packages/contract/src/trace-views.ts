import type { GoodsReason, RunKindId, TicketProduct } from '@schmelz/core';

/** A ticket as somebody asks for it who has one of its bags in the hand. */
export interface TracedTicket {
  id: string;
  number: number;
  productId: string;
  quantity: number;
  good: number | null;
  closedAt: number | null;
  customer: string;
  orderNumber: number;
  /** Who has its heads, and how many still lie on the shelf. */
  went: { reason: GoodsReason; party: string; orderNumber: number | null; at: number; pieces: number }[];
  onShelf: number;
}
/** What it was made of, lot by lot, and what it went through. */
export interface TicketTrace extends TracedTicket {
  /** As it was released. */
  product: TicketProduct;
  lots: { lotId: number; materialId: string; name: string; kind: string; lot: string; at: number; quantity: number }[];
  pours: { id: string; number: number; at: number }[];
  runs: { id: string; kind: RunKindId; number: number; at: number }[];
}
/** A lot by what was thrown back of the heads it went into, against all other lots of its kind. */
export interface LotQuality {
  lotId: number;
  materialId: string;
  kind: string;
  lot: string;
  at: number;
  tickets: number;
  heads: number;
  /** Heads thrown back for a cause that the part may be to blame for, and by which. */
  bad: number;
  causes: Record<string, number>;
  rest: { heads: number; bad: number };
  /** Chance of so many or more, were it like the rest. */
  chance: number;
  standsOut: boolean;
}
/** A ticket that took from a lot, and how much. */
export interface LotTicket extends TracedTicket {
  used: number;
}
