import type { Oven, Product, Ticket } from '@schmelz/contract';
import { bakedHead as knownBakedHead, knownOven, ticketState, type BakedHead, type PastBake } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';
import { setupOf, wholeLog } from '../../shell/line-state.ts';

/** A product as the oven sees it at one of its bakes; null for bare heads and for paint that only dries. */
export const bakedHead = (product: Product, catalogue: Catalogue, step?: string): BakedHead | null =>
  knownBakedHead(catalogue.known(product), step);

/** Every load of a ticket that has come out of the oven. */
export function pastBakes(ticket: Ticket, catalogue: Catalogue, oven: Oven | undefined): PastBake[] {
  const product = catalogue.product(ticket.productId);
  if (!product) return [];
  return ticketState(setupOf(ticket), wholeLog(ticket)).loads.flatMap((load) => {
    const head = bakedHead(product, catalogue, load.step);
    if (load.unloadedAt === null || !head) return [];
    return [
      {
        id: load.id,
        at: load.loadedAt,
        name: `Ticket ${ticket.number}, ${product.name}`,
        heads: load.count,
        setC: load.setC,
        preheated: load.preheated,
        doors: load.doors,
        oven: knownOven(oven),
        seconds: (load.unloadedAt - load.loadedAt) / 1000,
        headLagS: head.headLagS,
        laws: head.laws,
        limitC: head.limitC,
      },
    ];
  });
}
