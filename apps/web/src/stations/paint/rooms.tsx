import type { Product } from '@schmelz/contract';
import { castMassKg, coldHeadSolid, headWidthM, typicalHook, type HeatedHead } from '@schmelz/core';
import { SubNav } from '../../design/SubNav.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

export const PaintRooms = () => (
  <SubNav
    label="Rooms of the paint station"
    rooms={[
      { to: '/paint', name: 'Waiting' },
      { to: '/paint/heat', name: 'Seconds of heat' },
      { to: '/paint/order', name: 'Order of colours' },
    ]}
  />
);

/** A product's head as a gun or a flame sees it. */
export function heatedHead(product: Product, catalogue: Catalogue): HeatedHead {
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  const hook = catalogue.materials.get(product.hookId)?.hook;
  const { cooledAreaM2 } = coldHeadSolid(product.style, leadKg);
  return { leadKg, areaM2: cooledAreaM2, wireM: typicalHook(hook?.size ?? '2/0', hook?.wire).wireM, embeddedM: headWidthM(leadKg) }; // prettier-ignore
}
