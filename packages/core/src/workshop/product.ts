import { hookMassKg } from '../geometry/hook.ts';
import { perHead, POUR_STEP, type BillLine } from '../job/bill.ts';
import { usualRoute, type RouteStep } from '../job/route.ts';
import { curedPowders, powdersByStep } from '../plan/product.ts';
import type {
  HouseWays,
  PlanBake,
  PlanHook,
  PlanLayer,
  PlanPart,
  PlanPowder,
  PlanProduct,
  PlanRecipe,
  PlanStep,
} from '../plan/types.ts';
import type { ProductRecord, ProgramRecord, RecipeRecord, Shelf } from './records.ts';

const powderOf = (id: string, shelf: Shelf): PlanPowder[] => {
  const part = shelf.part(id);
  if (!part?.powder) return [];
  const { specificGravity, label, colour, gloss, form, dryS } = part.powder;
  const { id: materialId, name } = part;
  const looks = { ...(colour ? { colour } : {}), ...(gloss ? { gloss } : {}) };
  return [{ materialId, name, specificGravity, label, ...looks, ...(form ? { form } : {}), ...(dryS ? { dryS } : {}) }];
};

/**
 * The layers of a recipe with what is known of their powders; a powder that is gone is left out.
 * @example knownLayers(undefined, { part: () => undefined, recipe: () => undefined, program: () => undefined }) // []
 */
export const knownLayers = (recipe: Pick<RecipeRecord, 'layers'> | undefined, shelf: Shelf): PlanLayer[] =>
  (recipe?.layers ?? []).flatMap(({ powderId, zone, coats, mix }) => {
    const [powder] = powderOf(powderId, shelf);
    const [other] = mix ? powderOf(mix.powderId, shelf) : [];
    if (!powder) return [];
    return [{ powder, zone, coats, ...(mix && other ? { mix: { powder: other, share: mix.share } } : {}) }];
  });

const bakeOf = (program: ProgramRecord | undefined): PlanBake | null =>
  program
    ? {
        name: program.name,
        setC: program.setC,
        seconds: program.seconds,
        preheated: Boolean(program.preheated),
        ...(program.from ? { from: program.from } : {}),
      }
    : null;

function hookOf(id: string | null, shelf: Shelf): PlanHook | null {
  const part = id ? shelf.part(id) : undefined;
  if (!part?.hook) return null;
  const massKg = hookMassKg(part.hook);
  return { ...part.hook, materialId: part.id, name: part.name, massKg, limitC: part.limitC ?? null };
}

const partsOf = (product: ProductRecord, shelf: Shelf): PlanPart[] =>
  (product.parts ?? []).flatMap((line) => {
    const part = shelf.part(line.partId);
    return part ? [{ ...line, name: part.name, kind: part.kind, limitC: part.limitC ?? null }] : [];
  });

const isAt = ({ only }: RouteStep, { form = 'powder' }: PlanPowder) => !only || only === form;

const recipeOf = (recipe: (Pick<RecipeRecord, 'layers'> & Partial<RecipeRecord>) | undefined): PlanRecipe | null =>
  recipe?.id === undefined ? null : { id: recipe.id, name: recipe.name ?? '', eyeColour: recipe.eyeColour ?? null };

/**
 * A product with all that is known of what it takes: hook, parts, and its steps with their paint and bake. A step takes
 * the product's own recipe and program where it names none; `recipe` stands in for the product's own, to try it on.
 * @example knownProduct({ id: 'p', name: 'Ball', style: 'ball', nominalMassKg: 0.01, hookMaterialId: null,
 *   recipeId: null, programId: null }, { part: () => undefined, recipe: () => undefined,
 *   program: () => undefined }).layers // []
 */
export function knownProduct(product: ProductRecord, shelf: Shelf, recipe?: Pick<RecipeRecord, 'layers'>): PlanProduct {
  const own = recipe ?? (product.recipeId ? shelf.recipe(product.recipeId) : undefined);
  const program = product.bakeProgramId ? shelf.program(product.bakeProgramId) : undefined;
  const source = product.fromId ? ('shelf' as const) : ('pour' as const);
  const taken = product.fromId ? shelf.part(product.fromId) : undefined;
  const from = taken && { materialId: product.fromId!, name: taken.name, kind: taken.kind };
  const painted = (own?.layers.length ?? 0) > 0;
  // What only dries is never baked.
  const cures = curedPowders(knownLayers(own, shelf)).length > 0;
  const lacquered = cures && knownLayers(own, shelf).some(({ powder }) => powder.form === 'liquid');
  const baked = !!program && cures;
  const route = product.route ?? usualRoute({ painted, baked, lacquered, fromShelf: source === 'shelf' });
  const steps = route.map((step): PlanStep => {
    const named = step.station !== 'paint' ? undefined : step.recipeId ? shelf.recipe(step.recipeId) : own;
    const layers = knownLayers(named, shelf).filter(({ powder }) => isAt(step, powder));
    const bake = step.station === 'bake' ? bakeOf(step.programId ? shelf.program(step.programId) : program) : null;
    return { ...step, recipe: recipeOf(named), layers, bake };
  });
  return {
    id: product.id,
    name: product.name,
    style: product.style,
    nominalMassKg: product.nominalMassKg,
    hook: hookOf(product.hookId, shelf),
    variant: product.variant ?? null,
    ...(product.metal ? { wantsMetal: product.metal } : {}),
    layers: steps.flatMap((step) => step.layers),
    bake: steps.findLast((step) => step.bake)?.bake ?? null,
    steps,
    parts: partsOf(product, shelf),
    source,
    ...(from ? { from } : {}),
    ways: product.ways ?? null,
    priceMinor: product.priceMinor ?? null,
  };
}

/**
 * What one head of a product takes, and at which step: its hook, its powders, its other parts.
 * @example knownBill(product(10), ways).length // 2
 */
export function knownBill(product: PlanProduct, ways: Pick<HouseWays, 'filmM' | 'transferEfficiency'>): BillLine[] {
  const { hook } = product;
  const castIn: BillLine[] =
    hook && product.source !== 'shelf'
      ? [{ partId: hook.materialId, name: hook.name, kind: 'hook', quantity: 1, waste: 0, step: POUR_STEP }]
      : [];
  const powders = powdersByStep(product, ways).map(({ materialId, name, kgPerHead, step }): BillLine => {
    return { partId: materialId, name, kind: 'powder', quantity: kgPerHead, waste: 0, step };
  });
  const others = (product.parts ?? []).map(({ limitC: _limit, ...line }): BillLine => line);
  return [...castIn, ...powders, ...others];
}

/**
 * What one good head of a product takes off the shelves, by part: its metal with what is skimmed of it, hook, powder
 * and parts. Sprues and bad heads come back to the pot, and their hooks with them.
 * @param leadKg metal in a head as it is cast; 0 where it comes off a shelf
 * @example takesOf(product(10), ways, { leadId: 'lead', leadKg: 0.01 })['hook-2/0'] // 1
 */
export function takesOf(
  product: PlanProduct,
  ways: Pick<HouseWays, 'filmM' | 'transferEfficiency' | 'drossShare'>,
  { leadId, leadKg }: { leadId: string; leadKg: number },
): Record<string, number> {
  const takes: Record<string, number> = {};
  const add = (partId: string, quantity: number) => {
    if (quantity > 0) takes[partId] = (takes[partId] ?? 0) + quantity;
  };
  if (product.source !== 'shelf') add(product.metal?.materialId ?? leadId, leadKg * (1 + ways.drossShare));
  for (const line of knownBill(product, ways)) add(line.partId, perHead(line));
  return takes;
}
