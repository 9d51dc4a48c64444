import type { ProductInput, Recipe } from '@schmelz/contract';
import { curedPowders, headStyle, knownLayers, massesMatch, type StyleId } from '@schmelz/core';
import type { HeadSpec } from '../../drawing/head-parts.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { Units } from '../../units/Units.tsx';

/** One row of the grid: a head with its hook, whatever paint it gets. */
export interface GridRow {
  key: string;
  /** As it is said: style and weight, and what it is cast as where that is not usual. */
  name: string;
  style: StyleId;
  nominalMassKg: number;
  hookId: string | null;
  variant: string | null;
  spec: HeadSpec;
}

/** One column: a paint, or bare lead. */
export interface GridColumn {
  key: string;
  name: string;
  recipe: Recipe | null;
}

export const gridColumns = ({ recipes }: Catalogue): GridColumn[] => [
  ...[...recipes.values()].map((recipe) => ({ key: recipe.id, name: recipe.name, recipe })),
  { key: 'bare', name: 'Bare lead', recipe: null },
];

/** Heads that are products already, and those that the molds can cast besides, by style and weight. */
export function gridRows(catalogue: Catalogue, units: Units): GridRow[] {
  const rows = new Map<string, GridRow>();
  const hookOf = (id: string | null) => (id ? catalogue.materials.get(id)?.hook : undefined);
  const add = (head: Pick<GridRow, 'style' | 'nominalMassKg' | 'hookId' | 'variant'>) => {
    const { style, nominalMassKg, hookId, variant } = head;
    const key = `${style} ${nominalMassKg.toFixed(5)} ${hookId ?? ''} ${variant ?? ''}`;
    const hook = hookOf(hookId);
    const name = `${headStyle(style).name} ${units.head(nominalMassKg)}${variant ? `, ${variant.toLowerCase()}` : ''}`;
    const spec: HeadSpec = {
      ...{ style, massKg: nominalMassKg, hookSize: hook?.size ?? null, eyeAngleDeg: hook?.eyeAngleDeg ?? 60 },
      ...(hook?.wire ? { wire: hook.wire } : {}),
    };
    if (!rows.has(key)) rows.set(key, { ...head, key, name, spec });
  };
  for (const product of catalogue.products) {
    if (product.fromId) continue;
    add({ ...product, style: product.style as StyleId, variant: product.variant ?? null });
  }
  const hooks = [...catalogue.materials.values()].filter(({ kind, archived }) => kind === 'hook' && !archived);
  for (const { style, nominalMassKg, hookSize } of catalogue.molds
    .filter((mold) => !mold.archived)
    .flatMap((mold) => mold.cavities)) {
    const there = [...rows.values()].some((row) => {
      return row.style === style && massesMatch(row.nominalMassKg, nominalMassKg);
    });
    const fitting = hooks.find(({ hook }) => hook?.size === hookSize);
    if (!there && fitting) add({ style: style as StyleId, nominalMassKg, hookId: fitting.id, variant: null });
  }
  return [...rows.values()].sort((a, b) => a.style.localeCompare(b.style) || a.nominalMassKg - b.nominalMassKg);
}

/** The product of a cell, where there is one. */
export const productAt = (row: GridRow, { recipe }: GridColumn, { products }: Catalogue) =>
  products.find((product) => {
    const { style, nominalMassKg, hookId, recipeId, variant = null, fromId = null } = product;
    return (
      style === row.style &&
      massesMatch(nominalMassKg, row.nominalMassKg) &&
      hookId === row.hookId &&
      variant === row.variant &&
      recipeId === (recipe?.id ?? null) &&
      fromId === null
    );
  });

/** The product that a cell stands for and that is not there yet; baked as its paint is elsewhere, or as usual. */
export function productFor(row: GridRow, { recipe }: GridColumn, catalogue: Catalogue): ProductInput {
  const { style, nominalMassKg, hookId, variant, name } = row;
  const shelf = {
    part: (id: string) => catalogue.materials.get(id),
    recipe: (id: string) => catalogue.recipes.get(id),
    program: (id: string) => catalogue.programs.get(id),
  };
  const cures = recipe !== null && curedPowders(knownLayers(recipe, shelf)).length > 0;
  const same = catalogue.products.find((product) => product.recipeId === recipe?.id && product.bakeProgramId);
  const program = cures ? (same?.bakeProgramId ?? [...catalogue.programs.keys()][0] ?? null) : null;
  return {
    name: recipe ? `${name}, ${recipe.name.toLowerCase()}` : name,
    ...{ style, nominalMassKg, hookId, variant },
    recipeId: recipe?.id ?? null,
    bakeProgramId: program,
    priceMinor: null,
  };
}
