import { randomUUID } from 'node:crypto';
import { DIRTY_SOURCES, type CleanInput, type LeadLot, type LotInput } from '@schmelz/contract';
import { QuantityError, rangeText, traceLots } from '@schmelz/core';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import type { LotRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound, Refused } from './errors.ts';
import { stale } from './resources.ts';
import { moveStock, struck } from './part-lots.ts';
import { cameAt, movesSign } from './stock.ts';

interface LeadMove {
  id: number;
  at: number;
  materialId: string;
  reason: string;
  quantity: number;
  valueMinor: number;
  lot: string;
}

/** A purchase that was booked on the shelf without a lot of its own. */
const plainLot = (move: LeadMove): LotRow => ({
  id: `move-${move.id}`,
  materialId: move.materialId,
  label: move.lot || `bought ${new Date(move.at).toISOString().slice(0, 10)}`,
  source: 'bought ingots',
  on: new Date(move.at).toISOString().slice(0, 10),
  grossKg: move.quantity,
  priceMinor: move.valueMinor,
  brinell: null,
  note: '',
  cleanKg: move.quantity,
  cleanedOn: null,
  ingots: 0,
  version: 0,
});

/** Lots of lead, newest first: what is left of each and where it went, first in, first out. */
export async function listLots(store: Store): Promise<LeadLot[]> {
  const [rows, moves] = await Promise.all([
    rowsOf(store.models.leadLots, { where: { struck: false } }),
    store.select<LeadMove>(
      `SELECT s.id, s.at, s.materialId, s.reason, s.quantity, s.valueMinor, s.lot
       FROM stockMoves s JOIN materials m ON m.id = s.materialId
       WHERE m.kind = 'lead' AND s.strikes IS NULL AND NOT ${struck('s')} ORDER BY s.id`,
    ),
  ]);
  const lots = new Map(rows.map((row) => [row.label, row]));
  const received = moves.filter((move) => move.reason === 'received');
  const all = [...rows, ...received.filter((move) => !lots.has(move.lot)).map(plainLot)];
  const traces = [...new Set(all.map((lot) => lot.materialId))].flatMap((materialId) => {
    const own = moves.filter((move) => move.materialId === materialId);
    const into = own
      .filter((move) => move.reason === 'received')
      .map((move) => ({ id: lots.get(move.lot)?.id ?? `move-${move.id}`, at: move.at, kg: move.quantity }));
    const flows = own
      .filter((move) => move.reason !== 'received')
      .map((move) => ({ at: move.at, kg: move.quantity, reason: move.reason }));
    return traceLots(into, flows).lots;
  });
  return all
    .map((lot) => {
      const trace = traces.find((each) => each.id === lot.id);
      return { ...lot, leftKg: trace?.leftKg ?? 0, went: trace?.went ?? [] };
    })
    .sort((a, b) => b.on.localeCompare(a.on) || b.label.localeCompare(a.label));
}

/** The same, kept while no lead has moved and no lot was changed. */
export async function lotsKept(store: Store): Promise<LeadLot[]> {
  const [lots] = await store.select<Record<string, number>>(
    'SELECT COUNT(*) AS lots, SUM(version) AS said, SUM(struck) AS struck FROM leadLots',
  );
  const sign = `${await movesSign(store, 'lead')} ${Object.values(lots!).join(' ')}`;
  return store.keptWhile('lead lots', sign, () => listLots(store));
}

const postClean = (
  store: Store,
  lot: LotRow,
  kg: number,
  came: { on: string; time?: string },
  transaction: Transaction,
) =>
  moveStock(
    store,
    {
      at: cameAt(came),
      materialId: lot.materialId,
      reason: 'received',
      quantity: kg,
      valueMinor: lot.priceMinor,
      ticketId: null,
      lot: lot.label,
    },
    transaction,
  );

/** A delivery comes in. Clean metal is on the shelf at once; scrap waits until it is melted down and skimmed. */
export async function addLot(store: Store, input: LotInput): Promise<LeadLot> {
  const dirty = DIRTY_SOURCES.includes(input.source);
  const clean = dirty ? { cleanKg: null, cleanedOn: null } : { cleanKg: input.grossKg, cleanedOn: input.on };
  const { time: _time, ...told } = input;
  const row: LotRow = { ...told, ...clean, id: randomUUID(), ingots: 0, version: 1 };
  try {
    await store.write(async (transaction) => {
      const [material] = await rowsOf(store.models.materials, { where: { id: input.materialId }, transaction });
      if (material?.kind !== 'lead') throw notFound('lead', input.materialId);
      await store.models.leadLots.create({ ...row }, { transaction });
      if (!dirty) await postClean(store, row, input.grossKg, input, transaction);
    });
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
    const allowed = 'one that no other lot has';
    const message = `label is ${JSON.stringify(input.label)}; allowed: ${allowed}`;
    throw new Refused(409, 'Already there', message, {
      fields: [{ field: 'label', value: input.label, unit: '', allowed, message }],
    });
  }
  return lotOnRecord(store, row.id);
}

async function lotOnRecord(store: Store, id: string): Promise<LeadLot> {
  const lot = (await listLots(store)).find((each) => each.id === id);
  if (!lot) throw notFound('lot', id);
  return lot;
}

/** A dirty lot was melted down and skimmed: its clean metal goes on the shelf, at all that the lot cost. */
export async function cleanLot(store: Store, id: string, version: number, input: CleanInput): Promise<LeadLot> {
  await store.write(async (transaction) => {
    const [lot] = await rowsOf(store.models.leadLots, { where: { id }, transaction });
    if (!lot) throw notFound('lot', id);
    if (lot.version !== version) throw stale('lot', { ...input }, { ...lot });
    if (lot.cleanKg !== null) throw notAllowed(`${lot.label} is clean already.`);
    if (input.cleanKg > lot.grossKg)
      throw new QuantityError(
        'cleanKg',
        input.cleanKg,
        'kg',
        `${rangeText(0.01, lot.grossKg, 'kg')}, what the lot weighed dirty`,
      );
    const changed = { cleanKg: input.cleanKg, cleanedOn: input.on, ingots: input.ingots, version: version + 1 };
    await store.models.leadLots.update(changed, { where: { id }, transaction });
    await postClean(store, lot, input.cleanKg, input, transaction);
  });
  return lotOnRecord(store, id);
}
