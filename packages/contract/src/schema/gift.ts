import { ZONE_SHARE, type PaintZone } from '@schmelz/core';
import type * as yup from 'yup';
import { across, choice, colour, list, number, record, text, whole } from './field.ts';
import { materialSchema, moldSchema } from './workshop.ts';

export const GIFT_KINDS = ['mold', 'recipe', 'hooks'] as const;
export type GiftKind = (typeof GIFT_KINDS)[number];

/** A recipe as it is given to another maker: its powders by their names, which come with it. */
const givenRecipe = record({
  name: text(),
  eyeColour: colour().nullable().defined(),
  layers: list(
    record({
      powder: text(),
      zone: choice(Object.keys(ZONE_SHARE) as PaintZone[]),
      coats: whole('coats', 1, 3),
      mix: record({ powder: text(), share: number('share', 0.05, 0.95) })
        .nullable()
        .defined(),
    }),
    0,
    6,
  ),
});

/** A file from one maker to another: a mold, a recipe with its powders, or a table of hooks; no records, no stock. */
export const giftSchema = record({
  format: choice(['schmelz-gift'] as const),
  version: whole('', 1, 1),
  mold: moldSchema.optional().default(undefined),
  recipe: givenRecipe.optional().default(undefined),
  materials: list(materialSchema, 0, 200),
}).test(
  across(
    'something',
    'must hold a mold, a recipe or materials',
    (gift: { mold?: unknown; recipe?: unknown; materials: unknown[] }) => {
      return Boolean(gift.mold ?? gift.recipe) || gift.materials.length > 0;
    },
  ),
);
export type Gift = yup.InferType<typeof giftSchema>;
