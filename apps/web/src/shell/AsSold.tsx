import type { PlanProduct } from '@schmelz/core';
import { Dressed } from '../drawing/Dressed.tsx';
import { paintOn, specOf } from '../drawing/product.ts';
import { dressColour, kindsOn } from './dressed.ts';

/** A product drawn as it is sold: in its paint, with everything on. */
export const AsSold = ({ product, scale, className }: { product: PlanProduct; scale: number; className: string }) => (
  <Dressed
    {...specOf(product)}
    paint={paintOn(product)}
    state={product.layers.length > 0 ? 'baked' : 'blank'}
    on={kindsOn(product)}
    colour={dressColour(product)}
    scale={scale}
    label={product.name}
    className={className}
  />
);
