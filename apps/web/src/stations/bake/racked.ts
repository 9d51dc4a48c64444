import { roomFor, type PlanProduct } from '@schmelz/core';
import { paintOn, specOf } from '../../drawing/product.ts';
import type { RackKind } from '../../drawing/RackView.tsx';

/** How the heads of tickets are drawn on a rack, by ticket. */
export const kindsOf = (
  tickets: readonly { id: string; product: PlanProduct }[],
  state: RackKind['state'],
): Map<string, RackKind> =>
  new Map(
    tickets.map(({ id, product }) => [
      id,
      { spec: specOf(product), paint: paintOn(product), state, pitchM: roomFor(product).pitchM },
    ]),
  );
