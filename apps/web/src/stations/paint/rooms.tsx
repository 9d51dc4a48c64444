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
export const heatedHead = (product: Product, catalogue: Catalogue): HeatedHead =>
  productHeated(catalogue.known(product));
