import { MOST_PACKS } from '@schmelz/core';
import type * as yup from 'yup';
import { across, choice, day, flag, id, list, note, number, record, text, whole } from './field.ts';

/** Money that is paid at once. */
const price = () => whole('minor units', 0, 1_000_000_000);

/** Who sells, what sending costs, how long it takes, and the packs that there are. */
export const supplierSchema = record({
  name: text(60),
  freightMinor: price(),
  /** No freight from this sum on; null: there is always some. */
  freeAboveMinor: price().nullable().defined(),
  days: whole('days', 0, 365),
  note: note(200),
  offers: list(
    record({
      materialId: id(),
      /** kg, pieces, m or ml in a pack. */
      pack: number('kg or pieces', 0.0001, 100_000),
      /** What a pack costs, from so many packs on. */
      prices: list(record({ fromPacks: whole('packs', 1, MOST_PACKS), minor: price() }), 1, 8).test(
        across('prices', 'must begin with 1 pack and rise', (prices: { fromPacks: number }[]) =>
          prices.every(({ fromPacks }, at) => (at === 0 ? fromPacks === 1 : fromPacks > prices[at - 1]!.fromPacks)),
        ),
      ),
    }),
    0,
    200,
  ),
});
export type SupplierInput = yup.InferType<typeof supplierSchema>;

/** What was bought to work with: a mold, a pot, a gun, an oven. */
export const toolSchema = record({
  name: text(60),
  priceMinor: price(),
  boughtOn: day(),
  /** Heads until it is worn out; null: it does not wear. */
  lifeHeads: whole('heads', 1, 10_000_000).nullable().defined(),
  /** Products that it serves; empty: all. */
  productIds: list(id(), 0, 200),
  note: note(200),
});
export type ToolInput = yup.InferType<typeof toolSchema>;

/** What is allowed where heads are used, as the maker has found out: nobody else vouches for it. */
export const ruleSchema = record({
  where: text(80),
  /** Lead of this mass and above, or below, may not be used there; null: no such bound. */
  fromKg: number('kg', 0, 1).nullable().defined(),
  belowKg: number('kg', 0, 1).nullable().defined(),
  noLead: flag(),
  note: note(300),
}).test(
  across('noLead', 'must be said, or a mass from which or below which lead is forbidden', (rule: RuleShape) => {
    return rule.noLead || rule.fromKg !== null || rule.belowKg !== null;
  }),
);
type RuleShape = { noLead: boolean; fromKg: number | null; belowKg: number | null };
export type RuleInput = yup.InferType<typeof ruleSchema>;

/** Which copy is put back. */
export const restoreSchema = record({ name: text(120) });

/** What is put on a price: a tax, a market's share. */
export const priceLineSchema = record({
  name: text(40),
  share: number('', 0, 1),
  of: choice(['price', 'cost'] as const),
});
