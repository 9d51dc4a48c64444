import {
  allotLots,
  QUANTITY_TOLERANCE,
  settlingMinor,
  worthAfterPurchase,
  type Balance,
  type LotLeft,
} from '@schmelz/core';
import type { PartLot } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import type { MoveRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';

/** What brings a lot into the house: a purchase, or bare heads that a ticket has made. */
const RECEIPTS = `('received', 'made')`;

/** SQL: whether a movement was struck out by a later one. */
export const struck = (move: string) => `EXISTS (SELECT 1 FROM stockMoves strike WHERE strike.strikes = ${move}.id)`;

/** Lots of a part with what is left of each, oldest first. */
export const lotsLeft = (store: Store, materialId: string, transaction?: Transaction): Promise<LotLeft[]> =>
  store.select<LotLeft>(
    `SELECT r.id, r.quantity AS of, r.quantity - COALESCE(u.used, 0) AS left
     FROM stockMoves r LEFT JOIN lotsUsed u ON u.receiptId = r.id
     WHERE r.materialId = :materialId AND r.reason IN ${RECEIPTS} AND r.quantity > 0 AND NOT ${struck('r')} ORDER BY r.at, r.id`,
    { materialId },
    transaction,
  );

/** Lots that a ticket has used of a part so far, and how much of each. */
const usedBy = (store: Store, ticketId: string, materialId: string, transaction: Transaction) =>
  store.select<{ id: number; used: number }>(
    `SELECT u.receiptId AS id, SUM(u.quantity) AS used FROM lotUses u JOIN stockMoves m ON m.id = u.moveId
     WHERE m.ticketId = :ticketId AND m.materialId = :materialId GROUP BY u.receiptId HAVING used > 1e-9`,
    { ticketId, materialId },
    transaction,
  );

/** Which lots a movement is of: a ticket goes on with the lot it has begun, and gives back what it took. */
async function lotsOfMove(store: Store, move: MoveRow, transaction: Transaction) {
  const lots = await lotsLeft(store, move.materialId, transaction);
  const own = move.ticketId ? await usedBy(store, move.ticketId, move.materialId, transaction) : [];
  if (move.quantity > 0) {
    // What comes back fills what was taken; a ticket never gives a lot more than it had of it.
    const from = own.length ? own.map(({ id, used }) => ({ id, of: used, left: 0 })) : lots;
    return allotLots(from, -move.quantity);
  }
  const begun = lots.filter((lot) => own.some((each) => each.id === lot.id));
  return allotLots([...begun, ...lots.filter((lot) => !begun.includes(lot))], -move.quantity);
}

/** Settles a shelf that was below nothing when a purchase came in, where that cost more or less than was thought. */
async function settle(store: Store, purchase: MoveRow & { id: number }, transaction: Transaction): Promise<void> {
  const { id: settles, at, materialId } = purchase;
  const [before] = await store.select<Balance & { exactMinor: number }>(
    `SELECT COALESCE(SUM(quantity), 0) AS quantity, COALESCE(SUM(valueMinor), 0) AS valueMinor,
            COALESCE(SUM(COALESCE(exactMinor, valueMinor)), 0) AS exactMinor FROM stockMoves
     WHERE materialId = :materialId AND id <> :settles`,
    { materialId, settles },
    transaction,
  );
  const { quantity, valueMinor: rounded, exactMinor: exact } = before!;
  const settling = (value: number) =>
    worthAfterPurchase({ quantity, valueMinor: value }, purchase) - value - purchase.valueMinor;
  const [valueMinor, exactMinor] = [Math.round(settling(rounded)), settling(exact)];
  if (valueMinor === 0 && Math.abs(exactMinor) < QUANTITY_TOLERANCE) return;
  const row = { at, materialId, reason: 'settled', quantity: 0, valueMinor, exactMinor };
  const settled = { ...row, ticketId: null, lot: '', settles };
  await store.models.stockMoves.create(settled, { transaction });
}

/**
 * Settles a shelf that a bench has moved, as far as it must be. What was settled so before is taken back where it need
 * not be any more, until a person says what is there: so a bench that takes its word back leaves the shelf as it was.
 */
export async function settleShelf(
  store: Store,
  of: { materialId: string; at: number; balance: Balance & { exactMinor: number } },
  transaction: Transaction,
): Promise<void> {
  const { materialId, at, balance } = of;
  const [known] = await store.select<{ minor: number; exact: number }>(
    `SELECT COALESCE(SUM(valueMinor), 0) AS minor, COALESCE(SUM(COALESCE(exactMinor, valueMinor)), 0) AS exact
     FROM stockMoves
     WHERE materialId = :materialId AND reason = 'settled' AND settles IS NULL
       AND id > (SELECT COALESCE(MAX(id), 0) FROM stockMoves
                 WHERE materialId = :materialId AND reason IN ('received', 'counted', 'struck out'))`,
    { materialId },
    transaction,
  );
  const { minor, exact } = known!;
  const { quantity } = balance;
  const settling = (value: number, known: number) => settlingMinor({ quantity, valueMinor: value - known }) - known;
  const valueMinor = settling(balance.valueMinor, minor);
  // Where only rounding left something in the books, what is taken next costs what it did.
  const exactMinor = settling(balance.exactMinor, exact);
  if (valueMinor === 0 && Math.abs(exactMinor) < QUANTITY_TOLERANCE) return;
  const settled = { at, materialId, reason: 'settled', quantity: 0, valueMinor, exactMinor, ticketId: null, lot: '' };
  await store.models.stockMoves.create(settled, { transaction });
}

/** Writes a movement of stock, and the lots that it is of. */
export async function moveStock(store: Store, move: MoveRow, transaction: Transaction): Promise<void> {
  const { models } = store;
  const made = await models.stockMoves.create(move, { transaction });
  if (move.reason === 'received') await settle(store, { ...move, id: made.get('id') as number }, transaction);
  if (move.strikes || move.reason === 'received' || (move.reason === 'made' && move.quantity > 0)) return;
  const moveId = made.get('id') as number;
  const uses = (await lotsOfMove(store, move, transaction)).map(({ id, quantity }) => {
    return { moveId, receiptId: id, quantity };
  });
  if (uses.length) await models.lotUses.bulkCreate(uses, { transaction });
}

/** Allots a movement anew to the lots that are there; what of it stands already stays. */
export async function allotAgain(store: Store, moveId: number, transaction: Transaction): Promise<void> {
  const { models } = store;
  const [move] = await rowsOf(models.stockMoves, { where: { id: moveId }, transaction });
  const kept = await rowsOf(models.lotUses, { where: { moveId }, transaction });
  const rest = move!.quantity + kept.reduce((sum, { quantity }) => sum + quantity, 0);
  const uses = (await lotsOfMove(store, { ...move!, quantity: rest }, transaction)).map(({ id, quantity }) => {
    return { moveId, receiptId: id, quantity };
  });
  for (const use of uses) {
    const known = kept.find(({ receiptId }) => receiptId === use.receiptId);
    if (!known) await models.lotUses.create(use, { transaction });
    else {
      const where = { moveId, receiptId: use.receiptId };
      await models.lotUses.update({ quantity: known.quantity + use.quantity }, { where, transaction });
    }
  }
}

interface Went {
  receiptId: number;
  reason: string;
  ticketId: string | null;
  ticketNumber: number | null;
  quantity: number;
}

/** Lots of a part: what is left of each and where it went, newest first. */
export async function listPartLots(store: Store, materialId: string): Promise<PartLot[]> {
  const [receipts, left, went] = await Promise.all([
    store.select<{ id: number; at: number; lot: string; quantity: number; valueMinor: number }>(
      `SELECT id, at, lot, quantity, valueMinor FROM stockMoves
       WHERE materialId = :materialId AND reason IN ${RECEIPTS} AND quantity > 0 AND NOT ${struck('stockMoves')} ORDER BY at DESC, id DESC`,
      { materialId },
    ),
    lotsLeft(store, materialId),
    store.select<Went>(
      `SELECT u.receiptId, m.reason, m.ticketId, t.number AS ticketNumber, SUM(u.quantity) AS quantity
       FROM lotUses u JOIN stockMoves m ON m.id = u.moveId LEFT JOIN tickets t ON t.id = m.ticketId
       WHERE m.materialId = :materialId GROUP BY u.receiptId, m.ticketId, CASE WHEN m.ticketId IS NULL THEN m.reason END
       HAVING ABS(SUM(u.quantity)) > 1e-9 ORDER BY t.number DESC`,
      { materialId },
    ),
  ]);
  const leftOf = new Map(left.map((lot) => [lot.id, lot.left]));
  return receipts.map((receipt) => ({
    ...receipt,
    left: leftOf.get(receipt.id) ?? 0,
    went: went
      .filter((use) => use.receiptId === receipt.id)
      .map(({ reason, ticketId, ticketNumber, quantity }) => ({ reason, ticketId, ticketNumber, quantity })),
  }));
}

/**
 * Corrects which lot a ticket took a part from: all that it used so far is of that lot from now on, and so is what it
 * uses next. Refused where the lot has not that much left.
 */
export function nameLot(store: Store, materialId: string, receiptId: number, ticketId: string): Promise<void> {
  return store.write(async (transaction) => {
    const { models } = store;
    const moves = await rowsOf(models.stockMoves, { where: { materialId, ticketId }, transaction });
    const used = -moves.reduce((sum, move) => sum + move.quantity, 0);
    if (moves.length === 0) throw notAllowed('This ticket has used nothing of this part yet.');
    await models.lotUses.destroy({ where: { moveId: moves.map((move) => move.id!) }, transaction });
    const lot = (await lotsLeft(store, materialId, transaction)).find((each) => each.id === receiptId);
    if (!lot) throw notFound('lot', String(receiptId));
    if (lot.left < used - 1e-9) {
      const allowed = `a lot with ${Math.round(used * 1e6) / 1e6} left`;
      throw notAllowed(
        `receiptId is ${receiptId}, which has ${Math.round(lot.left * 1e6) / 1e6} left; allowed: ${allowed}`,
      );
    }
    const uses = moves.map((move) => ({ moveId: move.id!, receiptId, quantity: -move.quantity }));
    await models.lotUses.bulkCreate(uses, { transaction });
  });
}
