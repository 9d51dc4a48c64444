import { QUANTITY_TOLERANCE, settlingMinor, type LotLeft } from '@schmelz/core';
import type { Transaction } from 'sequelize';
import type { MoveRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';
import { allotAgain, lotsLeft, moveStock } from './part-lots.ts';
import { balances } from './stock.ts';

/** What a person has said of the stock, and may strike out; what a ticket moved is taken back on the ticket. */
const SAID_BY_HAND: readonly string[] = ['received', 'counted'];

/** Tickets that took from a purchase. */
const takersOf = (store: Store, receiptId: number, transaction: Transaction) =>
  store.select<{ number: number }>(
    `SELECT DISTINCT t.number FROM lotUses u JOIN stockMoves m ON m.id = u.moveId JOIN tickets t ON t.id = m.ticketId
     WHERE u.receiptId = :receiptId ORDER BY t.number`,
    { receiptId },
    transaction,
  );

/** What the shelf had before a movement, as it was written. */
async function stoodBefore(store: Store, { id, materialId }: MoveRow & { id: number }, transaction: Transaction) {
  const [before] = await store.select<{ quantity: number }>(
    'SELECT COALESCE(SUM(quantity), 0) AS quantity FROM stockMoves WHERE materialId = :materialId AND id < :id',
    { materialId, id },
    transaction,
  );
  return before!.quantity;
}

/** After a strike no lot has had more taken from it than it ever had; one that was short before is left so. */
async function lotsHold(store: Store, materialId: string, before: readonly LotLeft[], transaction: Transaction) {
  for (const { id, left } of await lotsLeft(store, materialId, transaction)) {
    const was = before.find((lot) => lot.id === id)?.left ?? 0;
    if (left >= -QUANTITY_TOLERANCE || left >= was - QUANTITY_TOLERANCE) continue;
    const takers = (await takersOf(store, id, transaction)).slice(0, 5).map(({ number }) => number);
    const whose = takers.length ? `Heads of ticket ${takers.join(', ')} were made of it` : 'It was used';
    throw notAllowed(`${whose} since: count what is really there instead.`);
  }
}

/** Takes a movement back whole, by one against it at the same value as far as that is still there. */
async function strike(store: Store, move: MoveRow & { id: number }, at: number, transaction: Transaction) {
  const { models } = store;
  if (!SAID_BY_HAND.includes(move.reason) || move.ticketId) {
    throw notAllowed('Only purchases and counts are struck out; what a ticket moved is taken back on the ticket.');
  }
  const known = await models.stockMoves.count({ where: { strikes: move.id }, transaction });
  if (known > 0 || move.strikes) throw notAllowed('This is struck out already.');
  const takers = await takersOf(store, move.id, transaction);
  if (takers.length) {
    const tickets = takers.slice(0, 5).map(({ number }) => number);
    throw notAllowed(`Heads of ticket ${tickets.join(', ')} were made of it: name another lot there first.`);
  }
  const before = await lotsLeft(store, move.materialId, transaction);
  await models.lotUses.destroy({ where: { moveId: move.id }, transaction });
  // What a count had taken of this purchase is of the others now.
  const counts = await rowsOf(models.lotUses, { where: { receiptId: move.id }, transaction });
  await models.lotUses.destroy({ where: { receiptId: move.id }, transaction });
  const { id: strikes, materialId, quantity, valueMinor, lot } = move;
  const here = (await balances(store, transaction, [materialId])).get(materialId)!;
  const left = here.quantity - quantity;
  // A shelf that a bench had taken below nothing before this came in may go back to where it was, and no further.
  if (
    quantity > 0 &&
    left < -QUANTITY_TOLERANCE &&
    left < (await stoodBefore(store, move, transaction)) - QUANTITY_TOLERANCE
  ) {
    throw notAllowed('More of it is used than would be left: count what is really there instead.');
  }
  const settled = (await models.stockMoves.sum('valueMinor', { where: { settles: move.id }, transaction })) ?? 0;
  const without = here.valueMinor - valueMinor - settled;
  // What was taken since went at an average that this was part of: no shelf is worth less than nothing for that.
  const worthMinor = without + settlingMinor({ quantity: left, valueMinor: without });
  const against = {
    at,
    materialId,
    reason: 'struck out',
    quantity: -quantity,
    valueMinor: worthMinor - here.valueMinor,
    // The average is of what is left, as it is written.
    exactMinor: worthMinor - here.exactMinor,
    ticketId: null,
  };
  await moveStock(store, { ...against, lot, strikes }, transaction);
  for (const { moveId } of counts) await allotAgain(store, moveId, transaction);
  await lotsHold(store, materialId, before, transaction);
  if (move.reason === 'counted') {
    // A jar's weighing goes with its count.
    await models.records.update(
      { struck: true },
      { where: { kind: 'jar', thingId: materialId, at: move.at }, transaction },
    );
  }
}

/** Strikes a movement that comes with others; one of them may have been struck out before, by itself. */
async function strikeOnce(store: Store, move: MoveRow & { id: number }, at: number, transaction: Transaction) {
  const gone = await store.models.stockMoves.count({ where: { strikes: move.id }, transaction });
  if (gone === 0) await strike(store, move, at, transaction);
}

/** Strikes a purchase or a count out. */
export function strikeMove(store: Store, moveId: number, at = Date.now()): Promise<void> {
  return store.write(async (transaction) => {
    const [move] = await rowsOf(store.models.stockMoves, { where: { id: moveId }, transaction });
    if (!move) throw notFound('movement', String(moveId));
    const where = { label: move.lot, materialId: move.materialId, struck: false };
    const [lot] = await rowsOf(store.models.leadLots, { where, transaction });
    if (lot && move.reason === 'received') throw notAllowed(`This is lot ${lot.label}: strike the lot out.`);
    await strike(store, move as MoveRow & { id: number }, at, transaction);
  });
}

/** Strikes a lot of lead out, with the metal that it brought. */
export function strikeLot(store: Store, id: string, at = Date.now()): Promise<void> {
  return store.write(async (transaction) => {
    const [lot] = await rowsOf(store.models.leadLots, { where: { id }, transaction });
    if (!lot) throw notFound('lot', id);
    if (lot.struck) throw notAllowed(`${lot.label} is struck out already.`);
    const where = { materialId: lot.materialId, lot: lot.label, reason: 'received' };
    for (const move of await rowsOf(store.models.stockMoves, { where, transaction })) {
      await strikeOnce(store, move as MoveRow & { id: number }, at, transaction);
    }
    // Its name is free for the lot that it should have been.
    const label = `${lot.label} (struck out ${new Date(at).toISOString()})`;
    await store.models.leadLots.update(
      { struck: true, label, version: lot.version + 1 },
      { where: { id }, transaction },
    );
  });
}

/** Undoes an import: all that came with the file, or nothing. */
export function strikeImport(store: Store, id: string, at = Date.now()): Promise<void> {
  return store.write(async (transaction) => {
    const { models } = store;
    const [made] = await rowsOf(models.imports, { where: { id }, transaction });
    if (!made) throw notFound('import', id);
    if (made.struck) throw notAllowed('This import is undone already.');
    for (const move of await rowsOf(models.stockMoves, { where: { importId: id }, transaction })) {
      await strikeOnce(store, move as MoveRow & { id: number }, at, transaction);
    }
    await models.imports.update({ struck: true }, { where: { id }, transaction });
  });
}

/** Strikes a log of readings out with all its channels and what they read; its name is free again. */
export function strikeLog(store: Store, channelId: number, at = Date.now()): Promise<void> {
  return store.write(async (transaction) => {
    const { models } = store;
    const [channel] = await rowsOf(models.channels, { where: { id: channelId }, transaction });
    if (!channel) throw notFound('channel', String(channelId));
    if (channel.struck) throw notAllowed('This log is struck out already.');
    const tail = await models.readingTail.count({ where: { channelId }, transaction });
    if (tail > 0) throw notAllowed('This is read from a device, not from a file: its readings stay.');
    const { source } = channel;
    const renamed = `${source} (struck out ${new Date(at).toISOString()})`;
    const all = await rowsOf(models.channels, { where: { source }, transaction });
    await models.readingBlocks.destroy({ where: { channelId: all.map(({ id }) => id!) }, transaction });
    await models.channels.update({ struck: true, source: renamed }, { where: { source }, transaction });
    await models.imports.update({ struck: true }, { where: { kind: 'log', name: source }, transaction });
  });
}
