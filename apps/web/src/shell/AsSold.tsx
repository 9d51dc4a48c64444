import type { Product } from '@schmelz/contract';
import { Dressed } from '../drawing/Dressed.tsx';
import type { Catalogue } from './catalogue.ts';
import { dressColour, kindsOn } from './dressed.ts';

/** A product drawn as it is sold: in its paint, with everything on. */
export const AsSold = ({
  product,
  catalogue,
  scale,
  className,
}: {
  product: Product;
  catalogue: Catalogue;
  scale: number;
  className: string;
}) => (
  <Dressed
    {...catalogue.spec(product)}
    paint={catalogue.paint(product)}
    state={product.recipeId ? 'baked' : 'blank'}
    on={kindsOn(catalogue.known(product))}
    colour={dressColour(catalogue.known(product))}
    scale={scale}
    label={product.name}
    className={className}
  />
);
