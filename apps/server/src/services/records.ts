import { randomUUID } from 'node:crypto';
import type { Noted, RecordInput, RecordKind } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';

const THING: Record<RecordKind, { table: 'molds' | 'pots' | 'products'; one: string }> = {
  care: { table: 'molds', one: 'mold' },
  trial: { table: 'molds', one: 'mold' },
  dial: { table: 'pots', one: 'pot' },
  heating: { table: 'products', one: 'product' },
  sample: { table: 'products', one: 'product' },
};

/** Dated notes of one kind, of one thing or of all, oldest first; struck ones are marked. */
export async function listRecords<R extends RecordInput>(
  store: Store,
  kind: R['kind'],
  thingId?: string,
): Promise<Noted<R>[]> {
  const where = thingId ? { kind, thingId } : { kind };
  const rows = await rowsOf(store.models.records, { where, order: [['at', 'ASC']] });
  return rows.map(
    (row) =>
      ({ ...row.body, kind, id: row.id, thingId: row.thingId, at: row.at, struck: row.struck }) as unknown as Noted<R>,
  );
}

/** Writes a note down; the thing, and for a trial its cavity and hook, must be there. */
export function addRecord(store: Store, input: RecordInput): Promise<Noted<RecordInput>> {
  const { kind, thingId, at, ...body } = input;
  return store.write(async (transaction) => {
    const { table, one } = THING[kind];
    const { models } = store;
    const count = await (models[table] as typeof models.molds).count({ where: { id: thingId }, transaction });
    if (count === 0) throw notFound(one, thingId);
    if (input.kind === 'trial') {
      const cavity = await models.cavities.count({ where: { id: input.cavityId, moldId: thingId }, transaction });
      if (cavity === 0) throw notFound('cavity in this mold', input.cavityId);
      const hook = await models.materials.count({ where: { id: input.hookId, kind: 'hook' }, transaction });
      if (hook === 0) throw notFound('hook', input.hookId);
    }
    const id = randomUUID();
    await models.records.create({ id, kind, thingId, at, body, struck: false }, { transaction });
    return { ...input, id, struck: false };
  });
}

/** Strikes a note out: it stays on record and no longer counts. */
export function strikeRecord(store: Store, id: string): Promise<void> {
  return store.write(async (transaction) => {
    const [row] = await rowsOf(store.models.records, { where: { id }, transaction });
    if (!row) throw notFound('record', id);
    if (row.struck) throw notAllowed('This record is struck out already.');
    await store.models.records.update({ struck: true }, { where: { id }, transaction });
  });
}

/** Keeps a weighing of a jar: its powder, kg. */
export async function noteJar(store: Store, materialId: string, massKg: number, at: number, transaction: Transaction) {
  await store.models.records.create(
    { id: randomUUID(), kind: 'jar', thingId: materialId, at, body: { massKg }, struck: false },
    { transaction },
  );
}
