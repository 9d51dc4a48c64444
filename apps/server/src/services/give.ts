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

/** A mold, a recipe with its powders, or all hooks, as a file for another maker: no records, no stock, no ids. */
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
  const { name, eyeColour, layers } = await readResource(store, 'recipes', id);
  const shelf = new Map((await listResources(store, 'materials')).map((each) => [each.id, each]));
  const named = (powderId: string) => shelf.get(powderId)?.name ?? '';
  const powders = new Set(layers.flatMap(({ powderId, mix }) => [powderId, ...(mix ? [mix.powderId] : [])]));
  return gift({
    recipe: {
      ...{ name, eyeColour },
      layers: layers.map(({ powderId, zone, coats, mix }) => ({
        ...{ powder: named(powderId), zone, coats },
        mix: mix ? { powder: named(mix.powderId), share: mix.share } : null,
      })),
    },
    materials: [...powders].flatMap((each) => shelf.get(each) ?? []).map(bare),
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
  if (given.recipe) {
    const { name, eyeColour, layers } = given.recipe;
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
    await make('recipes', recipe);
    says.push(`The recipe ${recipe.name} is new.`);
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
