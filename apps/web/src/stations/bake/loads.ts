import type { Oven, Ticket } from '@schmelz/contract';
import { castMassKg, ovenLoads, roomOf, type OvenPlan, type OvenRack, type RackBatch } from '@schmelz/core';
import type { RackKind } from '../../drawing/RackView.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { LineTicket } from '../../shell/line-state.ts';
import { programOf } from './useOvenActions.ts';

/** Heads of one ticket that can go in, by what they are baked with. */
export interface WaitingBatch {
  ticket: Pick<Ticket, 'id' | 'productId'>;
  heads: number;
  program: string;
}

export const racksOf = (oven: Oven | undefined): OvenRack[] => oven?.racks ?? [];

/** What waits for the oven, or is on its way there tonight; a product without a bake never does. */
export function waitingForOven(tickets: readonly LineTicket[], catalogue: Catalogue, coming: boolean): WaitingBatch[] {
  return tickets.flatMap((ticket) => {
    const bake = ticket.state.stations.bake;
    if (!bake || bake.status === 'done') return [];
    const here = bake.left - bake.inOven;
    const heads = coming ? here + (ticket.state.stations.paint?.left ?? 0) : here;
    const program = programOf(ticket, catalogue);
    return heads > 0 && program ? [{ ticket, heads, program: program.name }] : [];
  });
}

/** Loads by program and rack for what waits. */
export function packed(batches: readonly WaitingBatch[], racks: readonly OvenRack[], catalogue: Catalogue): OvenPlan {
  return ovenLoads(
    racks,
    batches.map(({ ticket, heads, program }): RackBatch => ({
      id: ticket.id,
      program,
      heads,
      ...roomFor(ticket.productId, catalogue),
    })),
  );
}

/** What a product's head needs on a rack. */
export const roomFor = (productId: string, catalogue: Catalogue) => {
  const product = catalogue.product(productId)!;
  const { style, hookSize, wire } = catalogue.spec(product);
  return roomOf({
    style,
    massKg: castMassKg({ nominalMassKg: product.nominalMassKg }),
    hookSize,
    ...(wire ? { wire } : {}),
  });
};

/** How the heads of a ticket are drawn on a rack. */
export function kindsOf(
  tickets: readonly { id: string; productId: string }[],
  catalogue: Catalogue,
  state: RackKind['state'],
): Map<string, RackKind> {
  return new Map(
    tickets.map(({ id, productId }) => {
      const product = catalogue.product(productId)!;
      return [
        id,
        {
          spec: catalogue.spec(product),
          paint: catalogue.paint(product),
          state,
          pitchM: roomFor(productId, catalogue).pitchM,
        },
      ];
    }),
  );
}
