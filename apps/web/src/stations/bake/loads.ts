import type { Oven, Ticket } from '@schmelz/contract';
import { castMassKg, ovenLoads, roomOf, type OvenPlan, type OvenRack, type RackGroup } from '@schmelz/core';
import type { RackKind } from '../../drawing/RackView.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { LineTicket } from '../../shell/line-state.ts';
import { programOf } from './loading.ts';

/** Heads of one ticket that can go in, by what they are baked with. */
export interface WaitingHeads {
  ticket: Pick<Ticket, 'id' | 'productId' | 'route'>;
  /** The bake of its route. */
  step: string;
  heads: number;
  program: string;
}

export const racksOf = (oven: Oven | undefined): OvenRack[] => oven?.racks ?? [];

/** What waits for the oven, or is on its way there tonight; a product without a bake never does. */
export function waitingForOven(tickets: readonly LineTicket[], catalogue: Catalogue, coming: boolean): WaitingHeads[] {
  return tickets.flatMap((ticket) => {
    const { steps } = ticket.state;
    return steps.flatMap((bake, at) => {
      if (bake.station !== 'bake' || bake.status === 'done') return [];
      const here = bake.left - bake.inOven;
      const before = steps[at - 1];
      const heads = coming && before?.station === 'paint' ? here + before.left : here;
      const program = programOf(ticket, bake.key, catalogue);
      return heads > 0 && program ? [{ ticket, step: bake.key, heads, program: program.name }] : [];
    });
  });
}

/** Loads by program and rack for what waits. */
export function packed(groups: readonly WaitingHeads[], racks: readonly OvenRack[], catalogue: Catalogue): OvenPlan {
  return ovenLoads(
    racks,
    groups.map(({ ticket, heads, program }): RackGroup => ({
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
