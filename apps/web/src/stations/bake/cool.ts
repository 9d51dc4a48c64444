import type { Ticket } from '@schmelz/contract';
import { castMassKg, coldHeadSolid, handlingTimeS } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

/** Seconds until a head of this ticket, out of the oven at `fromC`, can be held in a bare hand. */
export function coolDownS(ticket: Pick<Ticket, 'productId'>, fromC: number, catalogue: Catalogue): number {
  const product = catalogue.product(ticket.productId);
  if (!product) return 0;
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  const { cooledAreaM2: areaM2 } = coldHeadSolid(product.style, leadKg);
  return handlingTimeS({ headKg: leadKg, areaM2, fromC: Math.max(20, fromC) });
}
