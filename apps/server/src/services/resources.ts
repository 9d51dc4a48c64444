import { randomUUID } from 'node:crypto';
import { RESOURCES, type PutAwayInput, type ResourcePath, type ResourceReads } from '@schmelz/contract';
import { QuantityError } from '@schmelz/core';
import {
  ForeignKeyConstraintError,
  UniqueConstraintError,
  type FindOptions,
  type Model,
  type ModelStatic,
  type Transaction,
} from 'sequelize';
import type { Models } from '../store/models.ts';
import {
  judgeMaterial,
  judgeOrder,
  judgeProduct,
  judgeRecipe,
  judgeSupplier,
  judgeTool,
  usesOf,
  workOf,
} from './references.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound, Refused } from './errors.ts';

type Doc = Record<string, unknown>;
type AnyTable = ModelStatic<Model<Doc, Doc>>;

/** A list inside a document that lies in a table of its own. */
interface Children {
  field: string;
  table: keyof Models;
  parentKey: string;
  /** Rows with an identity of their own are kept by position when their document is rewritten. */
  identified: boolean;
}
interface Kind {
  table: keyof Models;
  /** Refuses what its schema cannot see: what it says of other things on record. */
  judge?(store: Store, input: Doc, transaction: Transaction, now?: Doc): Promise<void>;
  children?: Children;
}

const KINDS: Record<ResourcePath, Kind> = {
  materials: { table: 'materials', judge: judgeMaterial },
  molds: { table: 'molds', children: { field: 'cavities', table: 'cavities', parentKey: 'moldId', identified: true } },
  pots: { table: 'pots' },
  ovens: { table: 'ovens' },
  parts: { table: 'parts' },
  suppliers: { table: 'suppliers', judge: judgeSupplier },
  tools: { table: 'tools', judge: judgeTool },
  rules: { table: 'rules' },
  recipes: {
    table: 'recipes',
    judge: judgeRecipe,
    children: { field: 'layers', table: 'recipeLayers', parentKey: 'recipeId', identified: false },
  },
  'bake-programs': { table: 'bakePrograms' },
  products: { table: 'products', judge: judgeProduct },
  orders: {
    table: 'orders',
    judge: judgeOrder,
    children: { field: 'lines', table: 'orderLines', parentKey: 'orderId', identified: false },
  },
};

const tableOf = (store: Store, name: keyof Models) => store.models[name] as unknown as AnyTable;

async function withChildren(store: Store, kind: Kind, rows: Doc[], transaction?: Transaction): Promise<Doc[]> {
  const { children } = kind;
  if (!children) return rows;
  const { parentKey, field } = children;
  const all = await rowsOf(tableOf(store, children.table), {
    where: { [parentKey]: rows.map((row) => row['id'] as string) },
    order: [['position', 'ASC']],
    transaction,
  });
  const strip = ({ [parentKey]: _parent, position, ...rest }: Doc) =>
    children.identified ? { position, ...rest } : rest;
  return rows.map((row) => ({
    ...row,
    [field]: all.filter((child) => child[parentKey] === row['id']).map(strip),
  }));
}

/** Database refusals in the maker's words. */
export async function asRefusal<T>(one: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof UniqueConstraintError) {
      const [item] = error.errors;
      const field = item?.path ?? 'name';
      const message = `${field} is ${JSON.stringify(item?.value)}; allowed: one that no other ${one} has`;
      const fields = [{ field, value: item?.value, unit: '', allowed: `one that no other ${one} has`, message }];
      throw new Refused(409, 'Already there', message, { fields });
    }
    if (error instanceof ForeignKeyConstraintError) {
      const words = one === 'mold' ? ' A cavity that was poured in is marked blocked, not removed.' : '';
      throw notAllowed(`This ${one} refers to something that is not there, or something still refers to it.${words}`);
    }
    throw error;
  }
}

/** All of one kind, with the lists inside them; what its schema let through is what lies in its table. */
export async function listResources<P extends ResourcePath>(
  store: Store,
  path: P,
  which: FindOptions<Doc> = {},
): Promise<ResourceReads[P][]> {
  const kind = KINDS[path];
  const rows = await rowsOf(tableOf(store, kind.table), which);
  return (await withChildren(store, kind, rows)) as object[] as ResourceReads[P][];
}

export async function readResource<P extends ResourcePath>(
  store: Store,
  path: P,
  id: string,
  transaction?: Transaction,
): Promise<ResourceReads[P]> {
  return (await readDoc(store, path, id, transaction)) as object as ResourceReads[P];
}

async function readDoc(store: Store, path: ResourcePath, id: string, transaction?: Transaction): Promise<Doc> {
  const kind = KINDS[path];
  const rows = await rowsOf(tableOf(store, kind.table), { where: { id }, transaction });
  const [found] = await withChildren(store, kind, rows, transaction);
  if (!found) throw notFound(RESOURCES[path].one, id);
  return found;
}

async function writeChildren(store: Store, kind: Kind, id: string, input: Doc, transaction: Transaction) {
  const { children } = kind;
  if (!children) return;
  const table = tableOf(store, children.table);
  const { parentKey } = children;
  const before = await rowsOf(table, { where: { [parentKey]: id }, transaction });
  const wanted = (input[children.field] as Doc[]).map((child, at) => ({
    position: at + 1,
    ...child,
    [parentKey]: id,
  }));
  if (!children.identified) {
    await table.destroy({ where: { [parentKey]: id }, transaction });
    await table.bulkCreate(wanted, { transaction });
    return;
  }
  await writeIdentified(table, before, wanted, transaction);
}

/** Rows with an identity: each goes by its id; where none is named at all, as of old, by its position. */
async function writeIdentified(table: AnyTable, before: Doc[], wanted: Doc[], transaction: Transaction): Promise<void> {
  const byId = wanted.some((child) => child['id'] !== undefined);
  const knownOf = (child: Doc) =>
    before.find((row) => (byId ? row['id'] === child['id'] : row['position'] === child['position']));
  for (const [at, { id }] of wanted.entries()) {
    if (id === undefined || before.some((row) => row['id'] === id)) continue;
    throw new QuantityError(
      `cavities[${at}].id`,
      String(id),
      '',
      'the id of a cavity of this mold, or none for a new one',
    );
  }
  const kept = new Set(wanted.flatMap((child) => (knownOf(child)?.['id'] as string | undefined) ?? []));
  if (kept.size < wanted.filter((child) => knownOf(child)).length) {
    throw new QuantityError('cavities', 'one id twice', '', 'each cavity once');
  }
  const gone = before.filter((row) => !kept.has(row['id'] as string)).map((row) => row['id'] as string);
  if (gone.length) await table.destroy({ where: { id: gone }, transaction });
  // Out of each other's way first: no two stand in one place, not even for a moment.
  for (const id of kept) {
    const row = before.find((each) => each['id'] === id)!;
    await table.update({ position: 1000 + Number(row['position']) }, { where: { id }, transaction });
  }
  for (const child of wanted) {
    const known = knownOf(child);
    if (known) await table.update({ ...child, id: known['id'] }, { where: { id: known['id'] as string }, transaction });
    else await table.create({ ...child, id: randomUUID() }, { transaction });
  }
}

const ownColumns = (kind: Kind, input: Doc): Doc => {
  const { [kind.children?.field ?? '']: _children, ...own } = input;
  return own;
};

/** Makes one inside a transaction that makes more than that. */
export async function makeResource(
  store: Store,
  path: ResourcePath,
  input: Doc,
  transaction: Transaction,
  extra: Doc = {},
): Promise<Doc> {
  const kind = KINDS[path];
  const id = randomUUID();
  await kind.judge?.(store, input, transaction);
  await tableOf(store, kind.table).create({ ...ownColumns(kind, input), ...extra, id, version: 1 }, { transaction });
  await writeChildren(store, kind, id, input, transaction);
  return readDoc(store, path, id, transaction);
}

/**
 * Makes one; `extra` gives columns that the maker does not write, such as an order's number: read inside the
 * transaction that makes it.
 */
export const createResource = (
  store: Store,
  path: ResourcePath,
  input: Doc,
  extra: (transaction: Transaction) => Promise<Doc> = async () => ({}),
): Promise<Doc> =>
  asRefusal(RESOURCES[path].one, () =>
    store.write(async (transaction) => makeResource(store, path, input, transaction, await extra(transaction))),
  );

/** What differs between two documents, field by field. */
function changedFields(yours: Doc, now: Doc) {
  return Object.keys(yours)
    .filter((field) => JSON.stringify(yours[field]) !== JSON.stringify(now[field]))
    .map((field) => ({ field, yours: yours[field], now: now[field] }));
}

/** A stale write: someone else was faster. */
export const stale = (one: string, yours: Doc, now: Doc) => {
  const changes = changedFields(yours, now);
  const names = changes.map((change) => change.field).join(', ');
  const detail = changes.length
    ? `This ${one} was changed since you read it; it differs from yours in: ${names}.`
    : `This ${one} was changed since you read it, to what you wrote.`;
  return new Refused(409, 'Changed meanwhile', detail, { changes });
};

export function changeResource(
  store: Store,
  path: ResourcePath,
  id: string,
  version: number,
  input: Doc,
): Promise<Doc> {
  const kind = KINDS[path];
  const { one } = RESOURCES[path];
  return asRefusal(one, () =>
    store.write(async (transaction) => {
      const now = await readDoc(store, path, id, transaction);
      if (now['version'] !== version) throw stale(one, input, now);
      if (path === 'orders' && now['status'] !== 'open') {
        throw notAllowed('This order is released: its tickets are on the line, its lines can no longer change.');
      }
      await kind.judge?.(store, input, transaction, now);
      const row = { ...ownColumns(kind, input), version: version + 1 };
      await tableOf(store, kind.table).update(row, { where: { id }, transaction });
      await writeChildren(store, kind, id, input, transaction);
      return readDoc(store, path, id, transaction);
    }),
  );
}

export function removeResource(store: Store, path: ResourcePath, id: string): Promise<void> {
  const kind = KINDS[path];
  return asRefusal(RESOURCES[path].one, () =>
    store.write(async (transaction) => {
      await readDoc(store, path, id, transaction);
      const uses = await usesOf(store, path, id, transaction);
      if (uses.length) throw notAllowed(`This ${RESOURCES[path].one} is used by ${uses.slice(0, 5).join(', ')}.`);
      await tableOf(store, kind.table).destroy({ where: { id }, transaction });
    }),
  );
}

/** Takes a thing off the lists and out of every plan, or brings it back. What is in work is not put away. */
export function putAway(store: Store, { kind, id, archived }: PutAwayInput): Promise<void> {
  return store.write(async (transaction) => {
    const doc = await readDoc(store, kind, id, transaction);
    const inWork = archived ? await workOf(store, kind, id, transaction) : [];
    if (inWork.length) {
      throw notAllowed(`This ${RESOURCES[kind].one} is in work: ${inWork.slice(0, 5).join(', ')}. Finish that first.`);
    }
    const changed = { archived, version: Number(doc['version']) + 1 };
    await tableOf(store, KINDS[kind].table).update(changed, { where: { id }, transaction });
  });
}
