import type { MetalOfPour } from '@schmelz/core';
import { json, type Route } from './route.ts';
import { costQuerySchema, periodQuerySchema } from './schema/runs.ts';
import type { CostOfProduct, MonthOfBooks, QualityView } from './books-views.ts';
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
  'GET /books/months': {
    operation: 'months_of_books',
    summary: 'Money and heads month by month',
    answer: json<MonthOfBooks[]>(),
  },
  'GET /books/quality': {
    operation: 'quality',
    summary: 'What came out bad, by cavity, by pour and by station',
    query: periodQuerySchema,
    answer: json<QualityView>(),
  },
  'GET /books/cost/:id': {
    operation: 'cost_of_product',
    summary: 'What a head of a product costs by plan, with all that the plan goes by, and what its tickets came to',
    query: costQuerySchema,
    answer: json<CostOfProduct>(),
  },
} as const satisfies Record<string, Route>;
