import { METALS_WANTED, STYLE_IDS, ZONE_SHARE, type PaintZone } from '@schmelz/core';
import type * as yup from 'yup';
import { across, choice, colour, list, number, record, text, whole } from './field.ts';
import { schoolsSchema } from './ways.ts';
import { bakeProgramSchema, billLineSchema, materialSchema, moldSchema, routeStepSchema } from './workshop.ts';

export const GIFT_KINDS = ['mold', 'recipe', 'hooks', 'product'] as const;
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

/** Its name in the file, or on the shelf of who takes it; null: none. */
const named = () => text().nullable().defined();

/** A product with its route, as it is given: what it is made of by name; no price, and none to keep on the shelf. */
const givenProduct = record({
  name: text(),
  style: choice(STYLE_IDS),
  nominalMassKg: number('kg', 0.0003, 0.5),
  hook: named(),
  variant: text(40).nullable().defined(),
  /** Left out by a Schmelz of before. */
  metal: choice(METALS_WANTED).nullable().optional(),
  recipe: named(),
  program: named(),
  ways: schoolsSchema().nullable().defined(),
  route: list(
    routeStepSchema
      .omit(['recipeId', 'programId'])
      .shape({ recipe: text().nullable().optional(), program: text().nullable().optional() })
      .noUnknown(),
    1,
    40,
  )
    .nullable()
    .defined(),
  parts: list(billLineSchema.omit(['partId']).shape({ part: text() }).noUnknown(), 0, 40),
});

/**
 * A file from one maker to another: a mold, a recipe with its powders, a product with its route and what that needs, or
 * a table of hooks; no records, no stock.
 */
export const giftSchema = record({
  format: choice(['schmelz-gift'] as const),
  version: whole('', 1, 1),
  mold: moldSchema.optional().default(undefined),
  recipe: givenRecipe.optional().default(undefined),
  product: givenProduct.optional().default(undefined),
  /** What the product is painted with and baked by. */
  recipes: list(givenRecipe, 0, 20).optional(),
  programs: list(bakeProgramSchema, 0, 20).optional(),
  materials: list(materialSchema, 0, 200),
}).test(
  across(
    'something',
    'must hold a mold, a recipe, a product or materials',
    (gift: { mold?: unknown; recipe?: unknown; product?: unknown; materials: unknown[] }) => {
      return Boolean(gift.mold ?? gift.recipe ?? gift.product) || gift.materials.length > 0;
    },
  ),
);
export type Gift = yup.InferType<typeof giftSchema>;
