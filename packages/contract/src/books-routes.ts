import type { MetalOfPour, PlanHeld, Sale } from '@schmelz/core';
import { body, document, json, made, oneOf, type Route } from './route.ts';
import { GIFT_KINDS, giftSchema, type Gift } from './schema/gift.ts';
import { lookQuerySchema } from './schema/records.ts';
import { costQuerySchema, periodQuerySchema } from './schema/runs.ts';
import { restoreSchema } from './schema/shop.ts';
import type {
  BackupView,
  ChangesView,
  CostOfProduct,
  MakeableView,
  MetalEver,
  MonthOfBooks,
  QualityView,
  TakenGift,
  TakenInView,
} from './books-views.ts';
import type { Period } from './views.ts';

/** What the records add up to: metal, money, quality, cost. */
export const BOOKS_ROUTES = {
  'GET /books/period': {
    operation: 'booked_period',
    summary: 'When the first and the last ticket were closed',
    answer: json<Period | null>(),
  },
  'GET /books/metal': {
    operation: 'metal_of_pours',
    summary: 'Metal of each closed pour: what was charged and where it went',
    query: periodQuerySchema,
    answer: json<MetalOfPour[]>(),
  },
  'GET /books/metal/ever': {
    operation: 'metal_ever',
    summary: 'Metal of all closed pours together, since the beginning',
    answer: json<MetalEver>(),
  },
  'GET /books/months': {
    operation: 'months_of_books',
    summary: 'Money and heads month by month',
    answer: json<MonthOfBooks[]>(),
  },
  'GET /books/plans': {
    operation: 'plans_held',
    summary: 'Plan of each closed ticket against what it came to: minutes, cost, casts, hooks, and hands by station',
    query: periodQuerySchema,
    answer: json<PlanHeld[]>(),
  },
  'GET /books/sales': {
    operation: 'sales',
    summary: 'Finished heads that were sold, came back or were given, by product and customer',
    query: periodQuerySchema,
    answer: json<Sale[]>(),
  },
  'GET /books/quality': {
    operation: 'quality',
    summary: 'What came out bad, by cavity, by pour and by station',
    query: periodQuerySchema,
    answer: json<QualityView>(),
  },
  'GET /books/changes': {
    operation: 'changes',
    summary: 'What changed and when, with what went with it; and what went through whose hands',
    query: periodQuerySchema,
    answer: json<ChangesView>(),
  },
  'GET /books/cost/:id': {
    operation: 'cost_of_product',
    summary: 'What a head of a product costs by plan, with all that the plan goes by, and what its tickets came to',
    query: costQuerySchema,
    answer: json<CostOfProduct>(),
  },
  'GET /stock/makes': {
    operation: 'makeables',
    summary: 'What one good head of each product takes off the shelves',
    answer: json<MakeableView[]>(),
  },
  'GET /give/:kind/:id': {
    operation: 'give',
    summary: 'A mold, a recipe with its powders, a product with its route, or all hooks (any id), as a small file',
    parts: { kind: oneOf('what is given', GIFT_KINDS) },
    answer: json<Gift>(),
  },
  'POST /take': {
    operation: 'take',
    summary: 'Take what another maker has given, all of it or nothing; with look=true only see what would change',
    query: lookQuerySchema,
    body: body(giftSchema),
    answer: json<TakenGift>(),
  },
  'GET /backups': {
    operation: 'list_backups',
    summary: 'Copies of all data beside them, newest first',
    answer: json<BackupView[]>(),
  },
  'POST /backups': {
    operation: 'back_up',
    summary: 'Make a copy of all data, and look whether it can be opened',
    answer: made<BackupView>(),
  },
  'POST /backups/take-in': {
    operation: 'take_in',
    summary: 'Make a copy of an exported workshop, and say what would change if it were put in the place of this one',
    body: document,
    answer: made<TakenInView>(),
  },
  'GET /export/schema': {
    operation: 'export_schema',
    summary: 'JSON Schema of the document with everything',
    answer: json<Record<string, unknown>>(),
  },
  'POST /backups/restore': {
    operation: 'restore_backup',
    summary: 'Put a copy in the place of what is there, which is copied first',
    body: body(restoreSchema),
    answer: json<BackupView>(),
  },
} as const satisfies Record<string, Route>;
