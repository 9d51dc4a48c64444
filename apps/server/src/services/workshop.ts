import {
  curedPowders,
  typicalHook,
  type HouseWays,
  type PlanCavity,
  type PlanMold,
  type PlanOven,
  type PlanPot,
  type PlanLayer,
  type PlanPowder,
  type PlanProduct,
  type StockOnHand,
} from '@schmelz/core';
import type { BakeProgram, Material, Oven, Pot, Product, Recipe } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { listMolds } from './cavities.ts';
import { notAllowed } from './errors.ts';
import { listResources } from './resources.ts';
import { readSettings } from './settings.ts';
import { listMaterials } from './stock.ts';

/** Everything that planning looks at, read once. */
export interface Workshop {
  ways: HouseWays;
  materials: Map<string, Material>;
  products: Map<string, PlanProduct>;
  molds: PlanMold[];
  pots: (PlanPot & { id: string })[];
  ovens: (PlanOven & { id: string })[];
  stock: StockOnHand[];
}

export async function readWorkshop(store: Store): Promise<Workshop> {
  const [{ settings }, materials, molds, pots, ovens, recipes, programs, products] = await Promise.all([
    readSettings(store),
    listMaterials(store),
    listMolds(store),
    rowsOf(store.models.pots),
    rowsOf(store.models.ovens),
    listResources(store, 'recipes') as unknown as Promise<Recipe[]>,
    rowsOf(store.models.bakePrograms) as unknown as Promise<BakeProgram[]>,
    rowsOf(store.models.products) as unknown as Promise<Product[]>,
  ]);
  const byId = new Map(materials.map((material) => [material.id, material]));
  return {
    ways: settings.ways,
    materials: byId,
    products: new Map(products.map((each) => [each.id, planProduct(each, byId, recipes, programs)])),
    molds: molds.map((mold) => ({ ...mold, cavities: mold.cavities as PlanCavity[] })),
    // What was learned from a pot's own readings outranks its plate.
    pots: (pots as unknown as (Pot & Workshop['pots'][number])[]).map((pot) => ({
      ...pot,
      ...(pot.learned ? { powerW: pot.learned.powerW, lossWPerK: pot.learned.lossWPerK } : {}),
    })),
    ovens: (ovens as unknown as (Oven & Workshop['ovens'][number])[]).map((oven) => ({
      ...oven,
      ...(oven.learned ? { lagS: oven.learned.lagS } : {}),
    })),
    stock: materials.map(({ id, name, kind, quantity, averageMinor }) => {
      return { materialId: id, name, kind: kind as StockOnHand['kind'], quantity, averageMinor };
    }),
  };
}

function planProduct(
  product: Product,
  materials: Map<string, Material>,
  recipes: readonly Recipe[],
  programs: readonly BakeProgram[],
): PlanProduct {
  const hook = materials.get(product.hookId)!;
  const recipe = recipes.find((each) => each.id === product.recipeId);
  const program = programs.find((each) => each.id === product.bakeProgramId);
  const details = hook.hook!;
  const planned = (id: string): PlanPowder => {
    const { name, powder } = materials.get(id)!;
    const { specificGravity, label, form, dryS } = powder!;
    return { materialId: id, name, specificGravity, label, ...(form ? { form } : {}), ...(dryS ? { dryS } : {}) };
  };
  const layers = (recipe?.layers ?? []).map(({ powderId, zone, coats, mix }): PlanLayer => ({
    powder: planned(powderId),
    zone,
    coats,
    ...(mix ? { mix: { powder: planned(mix.powderId), share: mix.share } } : {}),
  }));
  return {
    id: product.id,
    name: product.name,
    style: product.style,
    nominalMassKg: product.nominalMassKg,
    hook: {
      materialId: hook.id,
      name: hook.name,
      size: details.size,
      eyeAngleDeg: details.eyeAngleDeg,
      massKg: hookMassKg(details),
    },
    layers,
    ways: product.ways ?? null,
    // What only dries is never baked.
    bake: program && curedPowders(layers).length > 0 ? { ...program, preheated: Boolean(program.preheated) } : null,
  };
}
const hookMassKg = ({ size, wire }: NonNullable<Material['hook']>) => typicalHook(size, wire).massKg;

/** The lead that is poured: the soft lead there is most of. */
export function castingLead(workshop: Workshop): StockOnHand {
  const leads = workshop.stock.filter((each) => each.kind === 'lead');
  const soft = leads.filter((each) => workshop.materials.get(each.materialId)?.metalId === 'soft-lead');
  const [most] = [...(soft.length ? soft : leads)].sort((a, b) => b.quantity - a.quantity);
  if (!most) throw notAllowed('No lead is on record: add a lead to Stock first.');
  return most;
}

/** The pot and the oven that a plan reckons with: the first of each. */
export function firstTools({ pots, ovens }: Workshop) {
  const [pot] = pots;
  const [oven] = ovens;
  if (!pot || !oven) throw notAllowed('A pot and an oven must be on record: add them in Setup first.');
  return { pot, oven };
}
