import type { BakeOnRecord, Oven, Product } from '@schmelz/contract';
import { bakedHead as knownBakedHead, knownOven, type BakedHead, type PastBake } from '@schmelz/core';
import type { Catalogue } from './catalogue.ts';

/** A product as the oven sees it at its last bake; null for bare heads and for paint that only dries. */
export const bakedHead = (product: Product, catalogue: Catalogue): BakedHead | null =>
  knownBakedHead(catalogue.known(product));

/** A load on record with what hung in it that day; none where nothing in it cures. */
export function pastBakes(bake: BakeOnRecord, oven: Oven | undefined): PastBake[] {
  const { id, head, heads, setC, preheated, doors, loadedAt, unloadedAt } = bake;
  if (!head) return [];
  const { name, headLagS, heatJK, laws, limitC } = head;
  return [
    {
      ...{ id, heads, setC, preheated, doors, headLagS, heatJK, laws, limitC },
      at: loadedAt,
      name: `Ticket ${bake.ticketNumber}, ${name}`,
      seconds: (unloadedAt - loadedAt) / 1000,
      oven: knownOven(oven),
    },
  ];
}
