import type * as yup from 'yup';
import { ruleSchema, supplierSchema, toolSchema } from './schema/shop.ts';
import {
  bakeProgramSchema,
  materialSchema,
  moldSchema,
  orderSchema,
  ovenSchema,
  partSchema,
  potSchema,
  productSchema,
  recipeSchema,
} from './schema/workshop.ts';

/** Things that are listed, made, read, changed (with their version) and removed alike: `/api/<path>`. */
export const RESOURCES = {
  materials: { schema: materialSchema, one: 'material' },
  molds: { schema: moldSchema, one: 'mold' },
  pots: { schema: potSchema, one: 'pot' },
  ovens: { schema: ovenSchema, one: 'oven' },
  parts: { schema: partSchema, one: 'part' },
  recipes: { schema: recipeSchema, one: 'recipe' },
  'bake-programs': { schema: bakeProgramSchema, one: 'bake program' },
  products: { schema: productSchema, one: 'product' },
  orders: { schema: orderSchema, one: 'order' },
  suppliers: { schema: supplierSchema, one: 'supplier' },
  tools: { schema: toolSchema, one: 'tool' },
  rules: { schema: ruleSchema, one: 'rule' },
} as const satisfies Record<string, { schema: yup.AnySchema; one: string }>;
export type ResourcePath = keyof typeof RESOURCES;
