import { placeOf, POUR_STEP, type PlanProduct } from '@schmelz/core';
import { paintOn } from '../drawing/product.ts';

/** Kinds of parts that are on a product once this step is done; all of them where no step is named. */
export function kindsOn({ parts = [], steps = [] }: PlanProduct, upTo?: string): string[] {
  const last = upTo === undefined ? Infinity : placeOf(steps, upTo);
  return parts.filter(({ step }) => step === POUR_STEP || placeOf(steps, step) <= last).map(({ kind }) => kind);
}

/** The colour that its skirt or hair is drawn in: the liveliest of its paint. */
export function dressColour(product: PlanProduct): string {
  const { back, speckle, base } = paintOn(product);
  return (back ?? speckle ?? base)?.colour ?? 'var(--lead)';
}
