import {
  costOf,
  freightShares,
  lineMassKg,
  QUANTITY_TOLERANCE,
  takeExactMinor,
  takeValueMinor,
  wholeMinor,
  type Balance,
  type ParcelLine,
  type Posting,
} from '@schmelz/core';
import type { CountInput, Material, ParcelInput, ReceiptInput, StockFlow, StockMove } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';
import { notFound } from './errors.ts';
import { noteJar } from './records.ts';
import { moveStock, settleShelf, struck } from './part-lots.ts';

interface Sums {
  materialId: string;
  quantity: number;
  valueMinor: number;
  /** The same before it was rounded. */
  exactMinor: number;
}
/** A balance with its value before it was rounded. */
type Shelf = Balance & { exactMinor: number };

/** Balance of every material, or of some: the sum of its movements, which the tables keep. */
export async function balances(
  store: Store,
  transaction?: Transaction,
  of?: readonly string[],
): Promise<Map<string, Shelf>> {
  if (of?.length === 0) return new Map();
  const sums = await store.select<Sums>(
    `SELECT materialId, quantity, valueMinor, exactMinor FROM stockBalances ${of ? 'WHERE materialId IN (:of)' : ''}`,
    of ? { of: [...of] } : {},
    transaction,
  );
  return new Map(sums.map(({ materialId, ...balance }) => [materialId, balance]));
}

/** What is left of all that was ever received or counted, by material: of the rest nobody keeps count. */
export async function countedParts(store: Store): Promise<Record<string, number>> {
  const sums = await store.select<Pick<Sums, 'materialId' | 'quantity'>>(
    'SELECT materialId, quantity FROM stockBalances WHERE said > 0',
  );
  return Object.fromEntries(sums.map(({ materialId, quantity }) => [materialId, quantity]));
}

/** What was last paid for a kilogram or a piece; values what is taken beyond an empty shelf. */
async function lastPriceMinor(store: Store, materialId: string, transaction?: Transaction): Promise<number> {
  const [last] = await store.select<{ quantity: number; valueMinor: number }>(
    `SELECT quantity, valueMinor FROM stockMoves WHERE materialId = :materialId AND reason = 'received' AND NOT ${struck('stockMoves')} ORDER BY id DESC LIMIT 1`,
    { materialId },
    transaction,
  );
  return last ? last.valueMinor / last.quantity : 0;
}

/** The same of everything that was ever bought. */
export async function lastPrices(store: Store): Promise<Map<string, number>> {
  const rows = await store.select<{ materialId: string; quantity: number; valueMinor: number }>(
    `SELECT m.materialId, m.quantity, m.valueMinor FROM stockMoves m JOIN (
       SELECT MAX(id) AS id FROM stockMoves WHERE reason = 'received' AND NOT ${struck('stockMoves')} GROUP BY materialId
     ) last ON last.id = m.id`,
  );
  return new Map(rows.map(({ materialId, quantity, valueMinor }) => [materialId, valueMinor / quantity]));
}

/** The same, where more is taken than the shelf has: of what it has nobody need know. */
const priceBeyond = async (
  store: Store,
  materialId: string,
  { quantity }: Balance,
  taken: number,
  transaction: Transaction,
): Promise<number> => (taken > quantity ? lastPriceMinor(store, materialId, transaction) : 0);

export async function listMaterials(store: Store): Promise<Material[]> {
  const [rows, shelf, pots] = await Promise.all([
    rowsOf(store.models.materials),
    balances(store),
    store.select<{ leadId: string; kg: number }>(
      'SELECT leadId, SUM(chargedKg) AS kg FROM pours WHERE closedAt IS NULL GROUP BY leadId',
    ),
  ]);
  return rows.map((row) => {
    const balance = shelf.get(row.id) ?? { quantity: 0, valueMinor: 0 };
    const quantity = Math.abs(balance.quantity) < QUANTITY_TOLERANCE ? 0 : balance.quantity;
    return {
      ...row,
      quantity,
      valueMinor: balance.valueMinor,
      averageMinor: quantity > 0 ? balance.valueMinor / quantity : null,
      inPotKg: pots.find((pot) => pot.leadId === row.id)?.kg ?? 0,
    } as Material;
  });
}

async function existing(store: Store, materialId: string, transaction: Transaction) {
  const [row] = await rowsOf(store.models.materials, { where: { id: materialId }, transaction });
  if (!row) throw notFound('material', materialId);
  return row;
}

/** Says of all movements of a kind of part whether they are the same: what was booked stays, and more is booked. */
export async function movesSign(store: Store, kind: string): Promise<string> {
  const [sign] = await store.select<Record<string, number | null>>(
    `SELECT COUNT(*) AS parts, MAX((SELECT MAX(id) FROM stockMoves WHERE materialId = m.id)) AS last
     FROM materials m WHERE kind = :kind`,
    { kind },
  );
  return Object.values(sign!).join(' ');
}

/** Days are booked at noon, so that no time zone moves them to another. */
export const noon = (day: string) => new Date(`${day}T12:00:00`).getTime();

/** When something came in: at the hour that was said; else at noon of its day, and never later than now. */
export const cameAt = ({ on, time }: { on: string; time?: string | undefined }, now = Date.now()) => {
  const at = time ? new Date(`${on}T${time}:00`).getTime() : noon(on);
  const sameDay = new Date(now).toDateString() === new Date(at).toDateString();
  return sameDay ? Math.min(at, now) : at;
};

/** Whether a purchase or a count is on record by the id it was sent with. */
const isThere = async (store: Store, saidId: string | null, transaction: Transaction): Promise<boolean> =>
  saidId !== null && (await store.models.stockMoves.count({ where: { saidId }, transaction })) > 0;

/** A purchase comes in: its quantity and all that was paid for it. */
export function receive(store: Store, materialId: string, receipt: ReceiptInput): Promise<void> {
  return store.write(async (transaction) => {
    await existing(store, materialId, transaction);
    const { id, quantity, priceMinor, lot } = receipt;
    const saidId = id ?? null;
    if (await isThere(store, saidId, transaction)) return;
    const move = {
      at: cameAt(receipt),
      materialId,
      reason: 'received',
      quantity,
      valueMinor: priceMinor,
      ticketId: null,
      lot,
      saidId,
    };
    await moveStock(store, move, transaction);
  });
}

/** Several purchases that came together: each with its share of the freight; all of them, or none. */
export function receiveParcel(store: Store, parcel: ParcelInput): Promise<{ shares: number[] }> {
  return store.write(async (transaction) => {
    const lines: (Omit<ParcelInput['lines'][number], 'massKg'> & ParcelLine)[] = [];
    for (const line of parcel.lines) {
      const material = await existing(store, line.materialId, transaction);
      lines.push({ ...line, name: material.name, massKg: line.massKg ?? lineMassKg(material, line.quantity) });
    }
    const shares = freightShares(lines, parcel.freightMinor, parcel.by);
    for (const [at, { id, materialId, quantity, priceMinor }] of lines.entries()) {
      if (await isThere(store, id, transaction)) continue;
      const move = {
        ...{ at: cameAt(parcel), materialId, reason: 'received', quantity, valueMinor: priceMinor + shares[at]! },
        ...{ ticketId: null, lot: parcel.lot, saidId: id },
      };
      await moveStock(store, move, transaction);
    }
    return { shares };
  });
}

/** The scale or a count says what is there: the difference is moved, at the moving average. */
export function count(
  store: Store,
  materialId: string,
  { id, quantity, note }: CountInput,
  at = Date.now(),
): Promise<{ difference: number }> {
  const saidId = id ?? null;
  return store.write(async (transaction) => {
    const { kind } = await existing(store, materialId, transaction);
    if (await isThere(store, saidId, transaction)) return { difference: 0 };
    // A jar that weighs what the books say moves nothing, and is known to be right all the same.
    if (kind === 'powder') await noteJar(store, materialId, quantity, at, transaction);
    const balance = (await balances(store, transaction)).get(materialId) ?? { quantity: 0, valueMinor: 0 };
    const difference = quantity - balance.quantity;
    if (Math.abs(difference) <= QUANTITY_TOLERANCE) return { difference: 0 };
    const price = await lastPriceMinor(store, materialId, transaction);
    const valueMinor = countedMinor(balance, quantity, price) - balance.valueMinor;
    const move = {
      at,
      materialId,
      reason: 'counted',
      quantity: difference,
      valueMinor,
      ticketId: null,
      lot: note,
      saidId,
    };
    await moveStock(store, move, transaction);
    return { difference };
  });
}

/**
 * What a shelf is worth once it was counted: as before for each kilogram or piece; where the books had nothing of it,
 * or less, what was last paid.
 */
function countedMinor(before: Balance, quantity: number, lastPrice: number): number {
  if (quantity <= QUANTITY_TOLERANCE) return 0;
  if (before.quantity <= QUANTITY_TOLERANCE) return costOf(lastPrice, quantity);
  const difference = quantity - before.quantity;
  if (difference < 0) return before.valueMinor - takeValueMinor(before, -difference);
  return before.valueMinor + costOf(Math.max(0, before.valueMinor / before.quantity), difference);
}

/** All that ever came and went of a material, by reason. */
export async function listFlows(store: Store, materialId: string): Promise<StockFlow[]> {
  return store.select<StockFlow>(
    `SELECT reason, SUM(quantity) AS quantity, SUM(valueMinor) AS valueMinor FROM stockMoves
     WHERE materialId = :materialId GROUP BY reason ORDER BY quantity DESC`,
    { materialId },
  );
}

/** SQL: whether a movement settles a shelf after a purchase that was struck out. */
const STRUCK_WITH = '(m.settles IS NOT NULL AND EXISTS (SELECT 1 FROM stockMoves s WHERE s.strikes = m.settles))';

export async function listMoves(store: Store, materialId: string): Promise<StockMove[]> {
  const moves = await store.select<Omit<StockMove, 'struck'> & { struck: number }>(
    `SELECT m.id, m.at, m.materialId, m.reason, m.quantity, m.valueMinor, m.lot, t.number AS ticketNumber,
            m.strikes IS NOT NULL OR ${struck('m')} OR ${STRUCK_WITH} AS struck
     FROM stockMoves m LEFT JOIN tickets t ON t.id = m.ticketId WHERE m.materialId = :materialId ORDER BY m.id DESC LIMIT 500`,
    { materialId },
  );
  return moves.map((move) => ({ ...move, struck: move.struck === 1 }));
}

/**
 * Posts for one ticket the difference between what its counts ask for and what was posted before. What comes back is
 * valued as it was taken; heads that are made are worth `madeMinor` of what the ticket spent.
 */
export async function postDifference(
  store: Store,
  ticketId: string,
  wanted: readonly Posting[],
  at: number,
  transaction: Transaction,
  madeMinor: (spentMinor: number) => number,
): Promise<void> {
  const posted = await store.select<Sums & { reason: string }>(
    `SELECT materialId, reason, SUM(quantity) AS quantity, SUM(valueMinor) AS valueMinor,
            SUM(COALESCE(exactMinor, valueMinor)) AS exactMinor
     FROM stockMoves WHERE ticketId = :ticketId GROUP BY materialId, reason`,
    { ticketId },
    transaction,
  );
  const keyOf = (posting: { materialId: string; reason: string }) => `${posting.materialId} ${posting.reason}`;
  const targets = new Map<string, { materialId: string; reason: string; quantity: number }>();
  for (const { materialId, reason } of posted)
    targets.set(keyOf({ materialId, reason }), { materialId, reason, quantity: 0 });
  for (const posting of wanted) {
    const before = targets.get(keyOf(posting))?.quantity ?? 0;
    targets.set(keyOf(posting), { ...posting, quantity: before + posting.quantity });
  }
  const changes = [...targets.values()].flatMap((target) => {
    const before = posted.find((each) => keyOf(each) === keyOf(target));
    const quantity = target.quantity - (before?.quantity ?? 0);
    return Math.abs(quantity) <= QUANTITY_TOLERANCE ? [] : [{ target, before, quantity }];
  });
  if (changes.length === 0) return;
  const shelf = await balances(
    store,
    transaction,
    changes.map(({ target }) => target.materialId),
  );
  const moved = new Set<string>();
  for (const { target, before, quantity } of changes) {
    const { materialId, reason } = target;
    const balance = shelf.get(materialId) ?? { quantity: 0, valueMinor: 0, exactMinor: 0 };
    const said = { valueMinor: before?.valueMinor ?? 0, exactMinor: before?.exactMinor ?? 0 };
    const worth = async () => {
      // What is taken back whole goes back at just what it was posted at.
      if (Math.abs(target.quantity) <= QUANTITY_TOLERANCE) return -said.exactMinor;
      if (reason === 'made') return madeMinor(Math.max(0, spentMinor(posted)));
      const exact = { quantity: balance.quantity, valueMinor: balance.exactMinor };
      if (quantity > 0) return returnedMinor(posted, materialId, quantity, exact);
      return -takeExactMinor(exact, -quantity, await priceBeyond(store, materialId, balance, -quantity, transaction));
    };
    const exactMinor = await worth();
    // All of it so far is rounded once: taps, keys and undos in any order come to the same.
    const valueMinor = wholeMinor(said.exactMinor + exactMinor) - said.valueMinor;
    const row = { at, materialId, reason, quantity, valueMinor, exactMinor, ticketId, lot: '' };
    await moveStock(store, row, transaction);
    shelf.set(materialId, {
      quantity: balance.quantity + quantity,
      valueMinor: balance.valueMinor + valueMinor,
      exactMinor: balance.exactMinor + exactMinor,
    });
    moved.add(materialId);
  }
  for (const materialId of moved) {
    await settleShelf(store, { materialId, at, balance: shelf.get(materialId)! }, transaction);
  }
}

/** What a ticket's heads are worth as stock: all that it has spent on parts. */
const spentMinor = (posted: readonly (Sums & { reason: string })[]): number =>
  -posted.reduce((sum, each) => sum + (each.reason === 'made' ? 0 : each.valueMinor), 0);

/** Value of what a ticket gives back, before it is rounded: what the ticket paid for it on average. */
function returnedMinor(posted: readonly Sums[], materialId: string, quantity: number, balance: Balance): number {
  const own = posted.filter((each) => each.materialId === materialId);
  const taken = -own.reduce((sum, each) => sum + each.quantity, 0);
  const paid = -own.reduce((sum, each) => sum + each.exactMinor, 0);
  if (taken > QUANTITY_TOLERANCE) return Math.min(paid, (paid / taken) * quantity);
  return balance.quantity > QUANTITY_TOLERANCE ? (balance.valueMinor / balance.quantity) * quantity : 0;
}
