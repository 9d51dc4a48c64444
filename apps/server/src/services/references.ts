import { POUR_STEP, QuantityError, SOURCE_KINDS, type RouteStep } from '@schmelz/core';
import type {
  OrderInput,
  ProductInput,
  PutAwayInput,
  RecipeInput,
  ResourcePath,
  SupplierInput,
  ToolInput,
} from '@schmelz/contract';
import { Op, type Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';

/** Refuses a reference to a part that is not there, or is of another kind. */
async function partsJudge(store: Store, transaction: Transaction) {
  const rows = await rowsOf(store.models.materials, { transaction });
  const kindOf = new Map(rows.map((row) => [row.id, row.kind]));
  return (field: string, id: string, kinds: readonly string[]) => {
    const kind = kindOf.get(id);
    if (!kind) throw new QuantityError(field, id, '', 'the id of a part on record');
    if (kinds.length && !kinds.includes(kind))
      throw new QuantityError(field, `a ${kind}`, '', `a ${kinds.join(' or a ')}`);
  };
}

/** Refuses a reference to a record that is not there. */
async function recordJudge(store: Store, table: 'recipes' | 'bakePrograms' | 'products', transaction: Transaction) {
  const one = { recipes: 'recipe', bakePrograms: 'bake program', products: 'product' }[table];
  const rows = await store.select<{ id: string }>(`SELECT id FROM ${table}`, {}, transaction);
  const known = new Set(rows.map((row) => row.id));
  return (field: string, id: string | null | undefined) => {
    if (id && !known.has(id)) throw new QuantityError(field, id, '', `the id of a ${one} on record`);
  };
}

/**
 * What a product says of parts and steps must be there: a bill that names a step of its route, bare heads where heads
 * come from the shelf, a hook where it says hook.
 * @throws QuantityError that names the field
 */
export async function judgeProduct(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const { hookId, recipeId, bakeProgramId, fromId, becomesId, parts = [], route } = doc as ProductInput;
  const must = await partsJudge(store, transaction);
  const recipe = await recordJudge(store, 'recipes', transaction);
  const program = await recordJudge(store, 'bakePrograms', transaction);
  if (hookId) must('hookId', hookId, ['hook']);
  if (fromId) must('fromId', fromId, SOURCE_KINDS);
  if (becomesId) must('becomesId', becomesId, ['bare head']);
  recipe('recipeId', recipeId);
  program('bakeProgramId', bakeProgramId);
  for (const [at, step] of ((route ?? []) as RouteStep[]).entries()) {
    recipe(`route[${at}].recipeId`, step.recipeId);
    program(`route[${at}].programId`, step.programId);
  }
  parts.forEach((line, index) => {
    must(`parts[${index}].partId`, line.partId, []);
    if (!route) return;
    const steps = [POUR_STEP, ...(route as RouteStep[]).map((step) => step.key)];
    if (!steps.includes(line.step)) throw new QuantityError(`parts[${index}].step`, line.step, '', steps.join(', '));
  });
}

/** Layers are of powder, or liquid paint, that is on record. */
export async function judgeRecipe(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const must = await partsJudge(store, transaction);
  (doc as RecipeInput).layers.forEach(({ powderId, mix }, at) => {
    must(`layers[${at}].powderId`, powderId, ['powder']);
    if (mix) must(`layers[${at}].mix.powderId`, mix.powderId, ['powder']);
  });
}

/** Lines are of products on record. */
export async function judgeOrder(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const product = await recordJudge(store, 'products', transaction);
  (doc as OrderInput).lines.forEach(({ productId }, at) => product(`lines[${at}].productId`, productId));
}

/** Packs are of materials on record. */
export async function judgeSupplier(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const must = await partsJudge(store, transaction);
  (doc as SupplierInput).offers.forEach(({ materialId }, at) => must(`offers[${at}].materialId`, materialId, []));
}

/** A tool serves products on record. */
export async function judgeTool(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const product = await recordJudge(store, 'products', transaction);
  (doc as ToolInput).productIds.forEach((id, at) => product(`productIds[${at}]`, id));
}

/** A part that something rests on stays of its kind. */
export async function judgeMaterial(store: Store, doc: object, transaction: Transaction, now?: object): Promise<void> {
  const { id, kind } = (now ?? {}) as { id?: string; kind?: string };
  const wanted = (doc as { kind: string }).kind;
  if (id === undefined || kind === wanted) return;
  const uses = await usesOf(store, 'materials', id, transaction);
  const moved = await store.models.stockMoves.count({ where: { materialId: id }, transaction });
  if (uses.length || moved) {
    const why = uses.length ? `it is used by ${uses.slice(0, 3).join(', ')}` : 'it was bought or counted already';
    throw new QuantityError('kind', wanted, '', `${kind}, as it is: ${why}`);
  }
}

/** What names a record where no key of the tables would hold it: parts and steps of products, mixtures of recipes. */
export async function usesOf(
  store: Store,
  path: ResourcePath,
  id: string,
  transaction: Transaction,
): Promise<string[]> {
  const { models } = store;
  const uses: string[] = [];
  if (path === 'materials' || path === 'recipes' || path === 'bake-programs') {
    for (const row of await rowsOf(models.products, { transaction })) {
      const { name, hookId, recipeId, bakeProgramId, fromId, becomesId, parts, route } = row;
      const steps = ((route ?? []) as RouteStep[]).flatMap((step) => [step.recipeId, step.programId]);
      const named = [
        hookId,
        recipeId,
        bakeProgramId,
        fromId,
        becomesId,
        ...steps,
        ...(parts ?? []).map((line) => line.partId),
      ];
      if (named.includes(id)) uses.push(`product ${name}`);
    }
  }
  if (path === 'materials') {
    for (const { name, offers } of await rowsOf(models.suppliers, { transaction })) {
      if (offers.some(({ materialId }) => materialId === id)) uses.push(`supplier ${name}`);
    }
    const recipes = new Map((await rowsOf(models.recipes, { transaction })).map((row) => [row.id, row['name']]));
    for (const { recipeId, powderId, mix } of await rowsOf(models.recipeLayers, { transaction })) {
      const mixed = (mix as { powderId?: string } | null)?.powderId;
      if (powderId === id || mixed === id) uses.push(`recipe ${String(recipes.get(recipeId))}`);
    }
  }
  if (path === 'products') {
    for (const { orderId, productId } of await rowsOf(models.orderLines, { transaction })) {
      const [order] = productId === id ? await rowsOf(models.orders, { where: { id: orderId }, transaction }) : [];
      if (order) uses.push(`order ${order.number}`);
    }
    for (const { name, productIds } of await rowsOf(models.tools, { transaction })) {
      if (productIds.includes(id)) uses.push(`tool ${name}`);
    }
  }
  if (path === 'molds') {
    const poured = await models.pourMolds.count({ where: { moldId: id }, transaction });
    if (poured) uses.push(poured === 1 ? 'one pour' : `${poured} pours`);
  }
  return [...new Set(uses)];
}

/** What is under way with a thing: open orders and tickets of a product, open pours of a mold, products of a part. */
export async function workOf(
  store: Store,
  kind: PutAwayInput['kind'],
  id: string,
  transaction: Transaction,
): Promise<string[]> {
  const numbers = async (what: string, sql: string) =>
    (await store.select<{ number: number }>(sql, { id }, transaction)).map(({ number }) => `${what} ${number}`);
  if (kind === 'molds') {
    return numbers(
      'pour',
      `SELECT p.number FROM pours p JOIN pourMolds m ON m.pourId = p.id WHERE m.moldId = :id AND p.closedAt IS NULL`,
    );
  }
  if (kind === 'products') {
    const tickets = 'SELECT number FROM tickets WHERE productId = :id AND closedAt IS NULL';
    const orders = `SELECT o.number FROM orders o JOIN orderLines l ON l.orderId = o.id
      WHERE l.productId = :id AND o.status = 'open'`;
    return [...(await numbers('ticket', tickets)), ...(await numbers('order', orders))];
  }
  const products = await rowsOf(store.models.products, { where: { archived: { [Op.not]: true } }, transaction });
  const uses = new Set(await usesOf(store, 'materials', id, transaction));
  return products.map(({ name }) => `product ${name}`).filter((use) => uses.has(use));
}
