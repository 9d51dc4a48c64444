import type { BakeProgram, Material, Mold, Product, Recipe } from '@schmelz/contract';
import { useMemo } from 'react';
import { useList } from '../api/queries.ts';
import type { HeadSpec } from '../drawing/head-parts.ts';
import { BARE, paintOf, type Paint } from '../drawing/paint.ts';

export interface Catalogue {
  products: Product[];
  materials: Map<string, Material>;
  recipes: Map<string, Recipe>;
  programs: Map<string, BakeProgram>;
  molds: Mold[];
  product(id: string): Product | undefined;
  /** How a product's head is drawn. */
  spec(product: Product): HeadSpec;
  paint(product: Product): Paint;
  paintOfRecipe(recipe: Pick<Recipe, 'layers' | 'eyeColour'>): Paint;
}

/** Everything that names and draws products, once all of it is read. */
export function useCatalogue(): Catalogue | null {
  const { data: products } = useList('products');
  const { data: materials } = useList('materials');
  const { data: recipes } = useList('recipes');
  const { data: programs } = useList('bake-programs');
  const { data: molds } = useList('molds');
  return useMemo(() => {
    if (!products || !materials || !recipes || !programs || !molds) return null;
    const byId = new Map(materials.map((each) => [each.id, each]));
    const recipeById = new Map(recipes.map((each) => [each.id, each]));
    const paintOfRecipe = (recipe: Pick<Recipe, 'layers' | 'eyeColour'>): Paint =>
      paintOf(recipe, (id) => byId.get(id)?.powder);
    return {
      products,
      materials: byId,
      recipes: recipeById,
      programs: new Map(programs.map((each) => [each.id, each])),
      molds,
      product: (id) => products.find((each) => each.id === id),
      spec(product) {
        const hook = byId.get(product.hookId)?.hook;
        return {
          style: product.style,
          massKg: product.nominalMassKg,
          hookSize: hook?.size ?? '2/0',
          wire: hook?.wire,
          eyeAngleDeg: hook?.eyeAngleDeg ?? 60,
        };
      },
      paint(product) {
        const recipe = product.recipeId ? recipeById.get(product.recipeId) : undefined;
        return recipe ? paintOfRecipe(recipe) : BARE;
      },
      paintOfRecipe,
    };
  }, [products, materials, recipes, programs, molds]);
}
