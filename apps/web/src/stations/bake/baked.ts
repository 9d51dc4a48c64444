import type { BakeOnRecord, Oven, Product } from '@schmelz/contract';
import { bakedHead as knownBakedHead, knownOven, type BakedHead, type PastBake } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

/** A product as the oven sees it at one of its bakes; null for bare heads and for paint that only dries. */
export const bakedHead = (product: Product, catalogue: Catalogue, step?: string): BakedHead | null =>
  knownBakedHead(catalogue.known(product), step);

/** A load on record with what is known of what hung in it; none where nothing in it cures, or its product is gone. */
export function pastBakes(bake: BakeOnRecord, catalogue: Catalogue, oven: Oven | undefined): PastBake[] {
  const product = catalogue.product(bake.productId);
  const head = product && bakedHead(product, catalogue, bake.step);
  if (!product || !head) return [];
  const { id, heads, setC, preheated, doors, loadedAt, unloadedAt } = bake;
  const { headLagS, heatJK, laws, limitC } = head;
  return [
    {
      ...{ id, heads, setC, preheated, doors, headLagS, heatJK, laws, limitC },
      at: loadedAt,
      name: `Ticket ${bake.ticketNumber}, ${product.name}`,
      seconds: (unloadedAt - loadedAt) / 1000,
      oven: knownOven(oven),
    },
  ];
}
