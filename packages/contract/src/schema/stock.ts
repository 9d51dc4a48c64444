import { FREIGHT_BY, GRADES } from '@schmelz/core';
import type * as yup from 'yup';
import { across, choice, day, hour, id, list, note, number, record, whole } from './field.ts';

export const receiptSchema = record({
  /** Made by whoever sends it: sent twice, the purchase counts once. */
  id: id().optional(),
  /** kg of lead or powder, or pieces. */
  quantity: number('kg or pieces', 0.001, 100_000),
  priceMinor: whole('minor units', 0, 1_000_000_000),
  on: day(),
  /** So that what is bought and used in one morning comes from its lot. */
  time: hour(),
  lot: note(60),
});
export type ReceiptInput = yup.InferType<typeof receiptSchema>;

/** An evening that was kept on paper. */
export const paperEveningSchema = record({
  on: day(),
  /** What the paper calls what was cast. */
  name: note(80),
  /** All that was cast; null: only good ones were written down. */
  casts: whole('casts', 0, 20_000).nullable().defined(),
  good: whole('heads', 0, 20_000),
  minutes: number('min', 0, 2880).nullable().defined(),
  note: note(200),
}).test(
  across(
    'evening',
    'must be no more than casts',
    ({ good, casts }: { good: number; casts: number | null }) => casts === null || good <= casts,
    'good',
  ),
);

/** Several purchases that came together, with what was paid for the way: all of it is booked, or nothing. */
export const parcelSchema = record({
  on: day(),
  time: hour(),
  /** Of all lines. */
  lot: note(60),
  freightMinor: whole('minor units', 0, 100_000_000),
  by: choice(FREIGHT_BY),
  lines: list(
    record({
      /** Made by whoever sends it: sent twice, the line counts once. */
      id: id(),
      materialId: id(),
      quantity: number('kg or pieces', 0.001, 100_000),
      priceMinor: whole('minor units', 0, 1_000_000_000),
      /** Of all of it; left out: by its kind, where that is known. */
      massKg: number('kg', 0, 100_000).optional(),
    }),
    1,
    50,
  ),
});
export type ParcelInput = yup.InferType<typeof parcelSchema>;

/** Which ticket took from a lot, where it was another than the oldest. */
export const lotOfTicketSchema = record({ ticketId: id() });

export const countSchema = record({
  /** Made by whoever sends it: sent twice, the count counts once. */
  id: id().optional(),
  /** What the scale or the count says is there now: kg or pieces. */
  quantity: number('kg or pieces', 0, 100_000),
  note: note(200),
});
export type CountInput = yup.InferType<typeof countSchema>;

/** What a person does with finished heads; that they were made is booked by their ticket. */
export const GOODS_DEEDS = ['sold', 'given', 'returned', 'scrapped', 'counted'] as const;
export type GoodsDeed = (typeof GOODS_DEEDS)[number];

/** Finished heads go, or come back; `counted` says how many are really there. */
export const goodsSchema = record({
  /** Made by whoever sends it: sent twice, it counts once. */
  id: id(),
  what: choice(GOODS_DEEDS),
  /** The order that is filled by it, or that they come back from. */
  orderId: id().nullable().defined(),
  /** Who has them now, or brings them back. */
  party: note(80),
  on: day(),
  note: note(200),
  lines: list(
    record({
      productId: id(),
      grade: choice(GRADES),
      pieces: whole('heads', 0, 100_000),
      /** For the whole line: asked where they were sold, paid back where they return. */
      priceMinor: whole('minor units', 0, 1_000_000_000).nullable().defined(),
    }),
    1,
    40,
  ).test(
    across('once', 'must name each product and grade once', (lines: { productId: string; grade: string }[]) => {
      return new Set(lines.map((line) => `${line.productId} ${line.grade}`)).size === lines.length;
    }),
  ),
});
export type GoodsInput = yup.InferType<typeof goodsSchema>;
