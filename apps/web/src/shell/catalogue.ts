import type { BakeProgram, Material, Mold, Product, Recipe } from '@schmelz/contract';
import { knownLayers, knownProduct, withMetal, type PlanLayer, type PlanProduct, type Shelf } from '@schmelz/core';
import { useMemo } from 'react';
import { useList } from '../api/queries.ts';
import type { HeadSpec } from '../drawing/head-parts.ts';
import { paintOf, type Paint } from '../drawing/paint.ts';
import { paintOn, specOf } from '../drawing/product.ts';

export interface Catalogue {
  /** What can be ordered; products that are put away are found by their id only. */
  products: Product[];
  putAway: Product[];
  materials: Map<string, Material>;
  recipes: Map<string, Recipe>;
  programs: Map<string, BakeProgram>;
  molds: Mold[];
  product(id: string): Product | undefined;
  /** A product with all that is known of what it takes, as plan and models ask for it. */
  known(product: Product): PlanProduct;
  /** The same in another recipe's paint. */
  knownIn(product: Product, recipe: Pick<Recipe, 'layers'>): PlanProduct;
  /** What a recipe lays on, with its powders. */
  layers(recipe: Pick<Recipe, 'layers'>): PlanLayer[];
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
    const shelf: Shelf = {
      part: (id) => byId.get(id),
      recipe: (id) => recipeById.get(id),
      program: (id) => programs.find((each) => each.id === id),
    };
    const known = new Map<string, PlanProduct>();
    const knownOf = (product: Product) => {
      const found = known.get(product.id) ?? withMetal(knownProduct(product, shelf), molds, materials);
      known.set(product.id, found);
      return found;
    };
    return {
      products: products.filter((each) => !each.archived),
      putAway: products.filter((each) => each.archived),
      materials: byId,
      recipes: recipeById,
      programs: new Map(programs.map((each) => [each.id, each])),
      molds,
      product: (id) => products.find((each) => each.id === id),
      known: knownOf,
      knownIn: (product, recipe) => withMetal(knownProduct(product, shelf, recipe), molds, materials),
      layers: (recipe) => knownLayers(recipe, shelf),
      spec: (product) => specOf(knownOf(product)),
      paint: (product) => paintOn(knownOf(product)),
      paintOfRecipe: (recipe) => paintOf(knownLayers(recipe, shelf), recipe.eyeColour),
    };
  }, [products, materials, recipes, programs, molds]);
}
