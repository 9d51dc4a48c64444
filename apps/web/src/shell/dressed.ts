import { placeOf, POUR_STEP, type RouteStep } from '@schmelz/core';
import type { Product } from '@schmelz/contract';
import type { Catalogue } from './catalogue.ts';

/** Kinds of parts that are on a product once this step is done; all of them where no step is named. */
export function kindsOn(
  product: Product,
  catalogue: Catalogue,
  route: readonly RouteStep[] = product.route ?? [],
  upTo?: string,
): string[] {
  const last = upTo === undefined ? Infinity : placeOf(route, upTo);
  return (product.parts ?? [])
    .filter(({ step }) => step === POUR_STEP || placeOf(route, step) <= last)
    .flatMap(({ partId }) => catalogue.materials.get(partId)?.kind ?? []);
}

/** The colour that its skirt or hair is drawn in: the liveliest of its paint. */
export function dressColour(product: Product, catalogue: Catalogue): string {
  const { back, speckle, base } = catalogue.paint(product);
  return (back ?? speckle ?? base)?.colour ?? 'var(--lead)';
}
