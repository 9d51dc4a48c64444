import type { Product, Recipe } from '@schmelz/contract';
import { typicalHook, type PlanPowder, type PlanProduct } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

/** A product as the core reckons with it, in its own paint or in another recipe's. */
export function plannedProduct(product: Product, catalogue: Catalogue, recipe?: Pick<Recipe, 'layers'>): PlanProduct {
  const hook = catalogue.materials.get(product.hookId)!;
  const { size, wire, eyeAngleDeg } = hook.hook!;
  const powder = (materialId: string): PlanPowder => {
    const { name, powder: details } = catalogue.materials.get(materialId)!;
    const { specificGravity, label, form, dryS } = details!;
    return { materialId, name, specificGravity, label, ...(form ? { form } : {}), ...(dryS ? { dryS } : {}) };
  };
  const { layers } = recipe ?? catalogue.recipes.get(product.recipeId ?? '') ?? { layers: [] };
  return {
    ...product,
    hook: { materialId: hook.id, name: hook.name, size, eyeAngleDeg, massKg: typicalHook(size, wire).massKg },
    layers: layers.map(({ powderId, zone, coats, mix }) => ({
      powder: powder(powderId),
      zone,
      coats,
      ...(mix ? { mix: { powder: powder(mix.powderId), share: mix.share } } : {}),
    })),
    bake: catalogue.programs.get(product.bakeProgramId ?? '') ?? null,
  };
}

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
      (layer) => layer.zone === 'whole' && catalogue.materials.get(layer.powderId)?.powder?.finish !== 'clear',
    )
      ? []
      : ['bare lead']),
    ...words,
    ...(eyeColour ? ['eyes'] : []),
  ].join(', ');
}
