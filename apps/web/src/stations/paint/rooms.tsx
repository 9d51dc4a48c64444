import type { Product } from '@schmelz/contract';
import { productHeated, type HeatedHead } from '@schmelz/core';
import { SubNav } from '../../design/SubNav.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

export const PaintRooms = () => (
  <SubNav
    label="Rooms of the paint station"
    rooms={[
      { to: '/paint', name: 'Waiting' },
      { to: '/paint/recipes', name: 'Recipes' },
      { to: '/paint/order', name: 'Order of colours' },
      { to: '/paint/heat', name: 'Seconds of heat' },
      { to: '/paint/jars', name: 'Jars' },
      { to: '/paint/ways', name: 'Ways' },
    ]}
  />
);

/** A product's head as a gun or a flame sees it. */
export function heatedHead(product: Product, catalogue: Catalogue): HeatedHead {
  const hook = catalogue.materials.get(product.hookId)?.hook;
  return productHeated({ ...product, hook: { size: hook?.size ?? '2/0', ...(hook ? { wire: hook.wire } : {}) } });
}
