import type { Product, Recipe } from '@schmelz/contract';
import type { PlanProduct } from '@schmelz/core';
import type { Catalogue } from './catalogue.ts';

/** A product as the core reckons with it, in its own paint or in another recipe's. */
export const plannedProduct = (product: Product, catalogue: Catalogue, recipe?: Pick<Recipe, 'layers'>): PlanProduct =>
  recipe ? catalogue.knownIn(product, recipe) : catalogue.known(product);

const ON: Record<Recipe['layers'][number]['zone'], string> = {
  whole: '',
  back: ' on the back',
  nose: ' on the nose',
  speckle: ' speckled',
  flake: ' as flake',
};

/** A recipe's layers in words, in the order in which they are laid on. */
export function layersInWords(
  { layers, eyeColour }: Pick<Recipe, 'layers' | 'eyeColour'>,
  catalogue: Catalogue,
): string {
  const name = (id: string) => catalogue.materials.get(id)?.name ?? 'a powder that is gone';
  const words = layers.map(
    ({ powderId, zone, coats, mix }) =>
      `${name(powderId)}${mix ? ` with ${Math.round(100 * mix.share)} % ${name(mix.powderId)}` : ''}${coats > 1 ? `, ${coats} coats` : ''}${ON[zone]}`,
  );
  return [
    ...(layers.some(
      (layer) => layer.zone === 'whole' && catalogue.materials.get(layer.powderId)?.powder?.gloss !== 'clear',
    )
      ? []
      : ['bare lead']),
    ...words,
    ...(eyeColour ? ['eyes'] : []),
  ].join(', ');
}
