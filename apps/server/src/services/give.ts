import type { Gift, GiftKind, MaterialInput, MoldInput, RecipeInput, TakenGift } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed } from './errors.ts';
import { asRefusal, listResources, makeResource, readResource } from './resources.ts';

const gift = (more: Partial<Gift>): Gift => ({ format: 'schmelz-gift', version: 1, materials: [], ...more }) as Gift;

/** A material without its place on this maker's shelf. */
function bare(row: object): MaterialInput {
  const {
    id: _id,
    version: _version,
    archived: _away,
    ...input
  } = row as MaterialInput & { id: string; version: number };
  return input;
}

/**
 * A mold, a recipe with its powders, a product with its route, or all hooks, as a file for another maker: no records,
 * no stock, no ids.
 */
export async function give(store: Store, kind: GiftKind, id: string): Promise<Gift> {
  if (kind === 'hooks') {
    const all = await listResources(store, 'materials');
    return gift({ materials: all.filter((each) => each.kind === 'hook').map(bare) });
  }
  if (kind === 'mold') {
    const {
      id: _id,
      version: _version,
      learned: _learned,
      archived: _away,
      cavities,
      ...mold
    } = await readResource(store, 'molds', id);
    return gift({ mold: { ...mold, cavities: cavities.map(({ id: _cavity, ...cavity }) => cavity) } as MoldInput });
  }
  const shelf = new Map((await listResources(store, 'materials')).map((each) => [each.id, each]));
  const comes = (ids: Iterable<string>) => [...new Set(ids)].flatMap((each) => shelf.get(each) ?? []).map(bare);
  if (kind === 'product') return giveProduct(store, id, shelf, comes);
  const recipe = await readResource(store, 'recipes', id);
  return gift({ recipe: givenRecipe(recipe, shelf), materials: comes(powdersOf(recipe)) });
}

type Shelf = ReadonlyMap<string, { name: string }>;

/** Every powder of a recipe, those that are mixed in among them. */
const powdersOf = ({ layers }: Pick<RecipeInput, 'layers'>): string[] =>
  layers.flatMap(({ powderId, mix }) => [powderId, ...(mix ? [mix.powderId] : [])]);

/** A recipe with its powders by name. */
const givenRecipe = ({ name, eyeColour, layers }: RecipeInput, shelf: Shelf): NonNullable<Gift['recipe']> => ({
  ...{ name, eyeColour },
  layers: layers.map(({ powderId, zone, coats, mix }) => ({
    ...{ powder: nameOf(shelf, powderId)!, zone, coats },
    mix: mix ? { powder: nameOf(shelf, mix.powderId)!, share: mix.share } : null,
  })),
});
const nameOf = (all: Shelf, id: string | null | undefined): string | null => (id ? (all.get(id)?.name ?? '') : null);

/** A product with its route, and with all that these need, by name. */
async function giveProduct(
  store: Store,
  id: string,
  shelf: Shelf,
  comes: (ids: Iterable<string>) => MaterialInput[],
): Promise<Gift> {
  const [product, recipes, programs] = await Promise.all([
    readResource(store, 'products', id),
    listResources(store, 'recipes'),
    listResources(store, 'bake-programs'),
  ]);
  const {
    name,
    style,
    nominalMassKg,
    hookId,
    variant,
    metal,
    recipeId,
    bakeProgramId,
    ways,
    route,
    parts = [],
    fromId,
  } = product;
  if (fromId) throw notAllowed(`${name} begins with heads off your shelf: give the product that those are.`);
  const steps = route ?? [];
  const used = (ids: readonly (string | null | undefined)[]) => new Set(ids.filter((each) => !!each));
  const painted = used([recipeId, ...steps.map((step) => step.recipeId)]);
  const baked = used([bakeProgramId, ...steps.map((step) => step.programId)]);
  const ofRecipes = recipes.filter((recipe) => painted.has(recipe.id));
  const byId = (all: readonly { id: string; name: string }[]): Shelf => new Map(all.map((each) => [each.id, each]));
  return gift({
    product: {
      ...{ name, style, nominalMassKg, variant: variant ?? null, metal: metal ?? null, ways: ways ?? null },
      hook: nameOf(shelf, hookId),
      recipe: nameOf(byId(recipes), recipeId),
      program: nameOf(byId(programs), bakeProgramId),
      route:
        route?.map(({ recipeId: inStep, programId, ...step }) => ({
          ...step,
          recipe: nameOf(byId(recipes), inStep),
          program: nameOf(byId(programs), programId),
        })) ?? null,
      parts: parts.map(({ partId, ...line }) => ({ ...line, part: nameOf(shelf, partId)! })),
    },
    recipes: ofRecipes.map((recipe) => givenRecipe(recipe, shelf)),
    programs: programs
      .filter((each) => baked.has(each.id))
      .map(({ id: _id, version: _version, ...program }) => program),
    materials: comes([
      ...(hookId ? [hookId] : []),
      ...parts.map(({ partId }) => partId),
      ...ofRecipes.flatMap(powdersOf),
    ]),
  });
}

/** Only to see what would change: it is all taken back. */
class JustLooking extends Error {}

/** A name that nobody has yet: as it is, or as it was given. */
function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  for (let nth = 1; ; nth++) {
    const other = `${name}, given${nth === 1 ? '' : ` ${nth}`}`;
    if (!taken.includes(other)) return other;
  }
}

async function takeAll(store: Store, given: Gift, transaction: Transaction): Promise<TakenGift> {
  const says: string[] = [];
  const made: TakenGift['made'] = [];
  const here = await rowsOf(store.models.materials, { transaction });
  const idOf = new Map<string, string>();
  const make = async (path: TakenGift['made'][number]['path'], doc: Record<string, unknown>) => {
    const { id } = await makeResource(store, path, doc, transaction);
    made.push({ path, id: id as string });
    return id as string;
  };
  for (const material of given.materials) {
    const own = here.find(({ kind, name }) => kind === material.kind && name === material.name);
    if (own) says.push(`${material.name} is on your shelf already: yours stays as it is.`);
    else says.push(`${material.name} is new, with none of it here yet.`);
    idOf.set(material.name, own?.id ?? (await make('materials', material)));
  }
  const ofFile = { recipes: new Map<string, string>(), programs: new Map<string, string>() };
  for (const { name, eyeColour, layers } of [...(given.recipe ? [given.recipe] : []), ...(given.recipes ?? [])]) {
    const powderOf = (powder: string) => {
      const id = idOf.get(powder) ?? here.find((each) => each.kind === 'powder' && each.name === powder)?.id;
      if (!id) throw notAllowed(`The powder ${powder} is neither in the file nor on your shelf.`);
      return id;
    };
    const recipe: RecipeInput = {
      name: freeName(
        name,
        (await rowsOf(store.models.recipes, { transaction })).map((each) => each.name),
      ),
      eyeColour,
      layers: layers.map(({ powder, zone, coats, mix }) => ({
        ...{ powderId: powderOf(powder), zone, coats },
        mix: mix ? { powderId: powderOf(mix.powder), share: mix.share } : null,
      })),
    };
    ofFile.recipes.set(name, await make('recipes', recipe));
    says.push(`The recipe ${recipe.name} is new.`);
  }
  for (const program of given.programs ?? []) {
    const all = await rowsOf(store.models.bakePrograms, { transaction });
    const own = all.find(({ name, setC, seconds }) => {
      return name === program.name && setC === program.setC && seconds === program.seconds;
    });
    if (own) {
      says.push(`The bake ${program.name} is one of yours.`);
      ofFile.programs.set(program.name, own.id);
      continue;
    }
    const name = freeName(
      program.name,
      all.map((each) => each.name),
    );
    ofFile.programs.set(program.name, await make('bake-programs', { ...program, name }));
    says.push(`The bake ${name} is new.`);
  }
  if (given.product) {
    const { hook, recipe, program, route, parts, ...input } = given.product;
    const from = (what: string, ids: ReadonlyMap<string, string>, name: string | null | undefined) => {
      if (!name) return null;
      const id = ids.get(name);
      if (!id) throw notAllowed(`The ${what} ${name} is not in the file.`);
      return id;
    };
    const name = freeName(
      input.name,
      (await rowsOf(store.models.products, { transaction })).map((each) => each.name),
    );
    await make('products', {
      ...{ ...input, name, hookId: from('hook', idOf, hook), priceMinor: null },
      ...{ recipeId: from('recipe', ofFile.recipes, recipe), bakeProgramId: from('bake', ofFile.programs, program) },
      route:
        route?.map(({ recipe: inStep, program: ofStep, ...step }) => ({
          ...step,
          recipeId: from('recipe', ofFile.recipes, inStep),
          programId: from('bake', ofFile.programs, ofStep),
        })) ?? null,
      parts: parts.map(({ part, ...line }) => ({ ...line, partId: from('part', idOf, part) })),
    });
    says.push(`The product ${name} is new, with ${route ? `${route.length} steps of its own` : 'the usual steps'}.`);
  }
  if (given.mold) {
    const { cavities, ...input } = given.mold;
    const name = freeName(
      input.name,
      (await rowsOf(store.models.molds, { transaction })).map((each) => each.name),
    );
    const own = cavities.map(({ id: _id, ...cavity }) => cavity);
    await make('molds', { ...input, name, learned: null, archived: null, cavities: own });
    says.push(`The mold ${name} is new, with ${cavities.length} cavities and no records.`);
  }
  return { says, made };
}

/** Takes what another maker has given: all of it or nothing. What is here already stays; looked at, nothing is kept. */
export async function take(store: Store, given: Gift, look: boolean): Promise<TakenGift> {
  let taken: TakenGift = { says: [], made: [] };
  try {
    await asRefusal('gift', () =>
      store.write(async (transaction) => {
        taken = await takeAll(store, given, transaction);
        if (look) throw new JustLooking();
      }),
    );
  } catch (error) {
    if (!(error instanceof JustLooking)) throw error;
    return { ...taken, made: [] };
  }
  return taken;
}
