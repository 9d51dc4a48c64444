import {
  knownProduct,
  productAtRelease,
  stepsOf,
  type PlanProduct,
  type RouteStep,
  type Shelf,
  type Source,
} from '@schmelz/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * A ticket keeps the product that it was released with, as it was looked up that day. Those of before kept its route
 * and its bill only: they keep from now on what their product is today on that route, as it was shown for them until
 * now.
 */
export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const run = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { transaction, replacements });
  const rows = <Row>(sql: string) =>
    sequelize.query(sql, { transaction, type: QueryTypes.SELECT }) as unknown as Promise<Row[]>;
  await run('ALTER TABLE tickets ADD COLUMN product JSON');
  const tickets = await rows<{ id: string; productId: string; route: string; source: Source }>(
    'SELECT id, productId, route, source FROM tickets',
  );
  if (tickets.length === 0) return;
  const products = new Map((await rows<Product>('SELECT * FROM products')).map((each) => [each.id, read(each)]));
  const shelf = await shelfOf(rows);
  const [settings] = await rows<{ body: string }>('SELECT body FROM settings');
  const house = settings ? (JSON.parse(settings.body) as { ways?: { schools?: object } }).ways?.schools : {};
  const [program] = await rows<Program>('SELECT * FROM bakePrograms LIMIT 1');
  for (const { id, productId, route, source } of tickets) {
    const product = products.get(productId);
    if (!product) continue;
    const kept = { ...onRoute(product, JSON.parse(route) as RouteStep[], shelf, program), source };
    await run('UPDATE tickets SET product = ? WHERE id = ?', [JSON.stringify(productAtRelease(kept, house)), id]);
  }
}

type Rows = <Row>(sql: string) => Promise<Row[]>;
interface Product {
  id: string;
  [column: string]: unknown;
}
interface Program {
  id: string;
  name: string;
  setC: number;
  seconds: number;
  preheated: number;
  from: 'door' | 'metal';
}

/** Columns that hold JSON; a name may look like it and is none. */
const AS_JSON = ['hook', 'powder', 'mix', 'route', 'parts', 'ways'];
const read = <Row extends object>(row: Row): Row =>
  Object.fromEntries(
    Object.entries(row).map(([name, value]) => [
      name,
      AS_JSON.includes(name) && typeof value === 'string' ? (JSON.parse(value) as unknown) : value,
    ]),
  ) as Row;

async function shelfOf(rows: Rows): Promise<Shelf> {
  const byId = async (table: string) =>
    new Map((await rows<Product>(`SELECT * FROM ${table}`)).map((each) => [each.id, read(each)]));
  const [parts, recipes, programs] = [await byId('materials'), await byId('recipes'), await byId('bakePrograms')];
  const layers = await rows<{ recipeId: string }>('SELECT * FROM recipeLayers ORDER BY recipeId, position');
  for (const layer of layers.map(read)) {
    const recipe = recipes.get(layer.recipeId);
    if (recipe) recipe['layers'] = [...((recipe['layers'] as object[] | undefined) ?? []), layer];
  }
  for (const recipe of recipes.values()) recipe['layers'] ??= [];
  return {
    part: (id) => parts.get(id) as never,
    recipe: (id) => recipes.get(id) as never,
    program: (id) => programs.get(id) as never,
  };
}

/**
 * A product on the route of a ticket, as desks and benches showed it: a step with the recipe and the program that it
 * names, or else the product's own; a bake without any by the first program on record. Which of its paint a step takes
 * was not kept with the ticket: it is what the product's step of that key takes.
 */
function onRoute(record: Product, route: RouteStep[], shelf: Shelf, first: Program | undefined): PlanProduct {
  const now = stepsOf(knownProduct(record as never, shelf));
  const steps = route.map((step) => {
    const only = step.only ?? now.find(({ key }) => key === step.key)?.only;
    return only ? { ...step, only } : step;
  });
  const known = knownProduct({ ...record, route: steps } as never, shelf);
  const usual = first && {
    ...{ name: first.name, setC: first.setC, seconds: first.seconds, preheated: Boolean(first.preheated) },
    ...(first.from === 'metal' ? { from: first.from } : {}),
  };
  const baked = stepsOf(known).map((step) => ({
    ...step,
    bake: step.station === 'bake' ? (step.bake ?? usual ?? null) : null,
  }));
  return { ...known, steps: baked, bake: baked.findLast(({ bake }) => bake)?.bake ?? null };
}
