import {
  filled,
  goodsValue,
  GRADES,
  piecesOf,
  SECOND_GRADE_SHARE,
  takeGoods,
  type GoodsLot,
  type GoodsReason,
  type Grade,
  type TicketState,
} from '@schmelz/core';
import {
  type GoodsInput,
  type GoodsMove,
  type GoodsOnShelf,
  type OrderGoods,
  type TracedTicket,
} from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import type { GoodsRow, TicketRow } from '../store/rows.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';
import { readResource } from './resources.ts';
import { readSettings } from './settings.ts';
import { cameAt } from './stock.ts';

const PAGE = 60;
/** Tickets of a product that are named: those that go first. After years a shelf has heads of hundreds. */
const LOTS_SHOWN = 12;
type Line = GoodsInput['lines'][number];
type Lot = GoodsLot & { at: number; ticketNumber: number | null };
type LotOf = Lot & { productId: string; grade: Grade };

/** Heads that a ticket keeps of each grade, once it is closed. */
export function headsKept(state: TicketState, secondAtPot: number): Record<Grade, number> {
  if (state.closedAt === null) return { good: 0, second: 0 };
  const second = state.steps.reduce((sum, { gone }) => sum + (gone['second grade'] ?? 0), secondAtPot);
  return { good: state.good, second };
}

/** What a head of second grade is worth against a good one. */
export async function readSecondShare(store: Store): Promise<number> {
  const { settings } = await readSettings(store);
  return settings.secondGradeShare ?? SECOND_GRADE_SHARE;
}

const LOTS = `SELECT g.productId, g.grade, g.ticketId, t.number AS ticketNumber, MIN(g.at) AS at,
    SUM(g.pieces) AS pieces, SUM(g.valueMinor) AS valueMinor
  FROM goodsMoves g LEFT JOIN tickets t ON t.id = g.ticketId`;
const BY_LOT = 'GROUP BY g.productId, g.grade, g.ticketId HAVING SUM(g.pieces) <> 0 ORDER BY t.closedAt, t.number';

/** What lies of one product and grade, oldest ticket first; what a count has found comes before. */
const lotsOf = (store: Store, { productId, grade }: Pick<Line, 'productId' | 'grade'>, transaction: Transaction) =>
  store.select<LotOf>(
    `${LOTS} WHERE NOT g.struck AND g.productId = :productId AND g.grade = :grade ${BY_LOT}`,
    { productId, grade },
    transaction,
  );

/** No ticket has more heads sold than it made; what was taken off the shelf must be taken back first. */
async function shelfHolds(store: Store, productIds: readonly string[], transaction: Transaction) {
  const [short] = await store.select<LotOf>(
    `${LOTS} WHERE NOT g.struck AND g.productId IN (:productIds)
     GROUP BY g.productId, g.grade, g.ticketId HAVING SUM(g.pieces) < 0`,
    { productIds: [...productIds] },
    transaction,
  );
  if (!short) return;
  const whose = short.ticketNumber === null ? 'that were found by a count' : `of ticket ${short.ticketNumber}`;
  throw notAllowed(
    `Not possible: ${-short.pieces} of the heads ${whose} are handed over already. Strike that out first, at the finished heads.`,
  );
}

/** What came back of heads from whom, by order and by name, beyond what they were ever given. */
const BACK_BEYOND = (by: 'orderId' | 'party', ofReturns: string) =>
  `SELECT g.${by} AS who, MAX(g.party) AS party, SUM(g.pieces) AS pieces FROM goodsMoves g
   WHERE NOT g.struck AND g.productId IN (:productIds) AND g.reason IN ('sold', 'given', 'returned')
     AND g.${by} IS NOT NULL
   GROUP BY g.productId, g.grade, g.ticketId, g.${by}
   HAVING SUM(g.pieces) > 0 AND SUM(g.reason = 'returned' AND ${ofReturns}) > 0`;

/** Nobody brings back what was never handed to them: a sale goes only before what came back of it. */
async function returnsHold(store: Store, productIds: readonly string[], transaction: Transaction) {
  for (const sql of [BACK_BEYOND('orderId', '1'), BACK_BEYOND('party', 'g.orderId IS NULL')]) {
    const [beyond] = await store.select<{ party: string; pieces: number }>(
      sql,
      { productIds: [...productIds] },
      transaction,
    );
    if (!beyond) continue;
    throw notAllowed(
      `Not possible: ${beyond.pieces} of these heads came back from ${beyond.party || 'them'} since. Strike that out first.`,
    );
  }
}

/** Brings the shelf of finished heads in step with a ticket: made when it is closed, gone when it is opened again. */
export async function postGoods(
  store: Store,
  row: TicketRow,
  heads: Record<Grade, number>,
  secondShare: number,
  at: number,
  transaction: Transaction,
): Promise<void> {
  const posted = await store.select<{ grade: Grade; pieces: number; valueMinor: number }>(
    `SELECT grade, SUM(pieces) AS pieces, SUM(valueMinor) AS valueMinor FROM goodsMoves
     WHERE ticketId = :id AND reason = 'made' GROUP BY grade`,
    { id: row.id },
    transaction,
  );
  const before = (grade: Grade) => posted.find((each) => each.grade === grade) ?? { pieces: 0, valueMinor: 0 };
  // Bare heads lie on the shelf of parts, those of second grade here.
  const wanted = { good: row.becomesId ? 0 : heads.good, second: heads.second };
  if (GRADES.every((grade) => before(grade).pieces === wanted[grade])) return;
  const [spent] = await store.select<{ minor: number | null }>(
    `SELECT -SUM(valueMinor) AS minor FROM stockMoves WHERE ticketId = :id AND reason <> 'made'`,
    { id: row.id },
    transaction,
  );
  const value = goodsValue(Math.max(0, spent?.minor ?? 0), heads, secondShare);
  if (row.becomesId) value.good = 0;
  const rows = GRADES.map((grade) => ({
    ...move(at, row.productId, grade, 'made'),
    pieces: wanted[grade] - before(grade).pieces,
    valueMinor: value[grade] - before(grade).valueMinor,
    ticketId: row.id,
  })).filter(({ pieces, valueMinor }) => pieces !== 0 || valueMinor !== 0);
  await store.models.goodsMoves.bulkCreate(rows, { transaction });
  await shelfHolds(store, [row.productId], transaction);
}

const move = (at: number, productId: string, grade: Grade, reason: GoodsReason): GoodsRow => ({
  ...{ at, productId, grade, reason, pieces: 0, valueMinor: 0, priceMinor: null, ticketId: null, orderId: null },
  ...{ party: '', note: '', saidId: null, struck: false },
});

const wantedBy = (store: Store) =>
  store.select<{ productId: string; wanted: number }>(
    `SELECT l.productId, SUM(MAX(0, l.quantity - COALESCE(
        (SELECT -SUM(g.pieces) FROM goodsMoves g WHERE g.orderId = o.id AND g.productId = l.productId AND NOT g.struck), 0
      ))) AS wanted
     FROM orders o JOIN orderLines l ON l.orderId = o.id
     WHERE o.status <> 'done' GROUP BY l.productId`,
  );

/** Finished heads that lie there, product by product, with the tickets that made them. */
export async function listGoods(store: Store): Promise<GoodsOnShelf[]> {
  const [lots, wanted] = await Promise.all([
    store.select<LotOf>(`${LOTS} WHERE NOT g.struck ${BY_LOT}`),
    wantedBy(store),
  ]);
  const shelf = new Map<string, GoodsOnShelf>();
  for (const { productId, grade, ...lot } of lots) {
    const key = `${productId} ${grade}`;
    const waits = grade === 'good' ? (wanted.find((each) => each.productId === productId)?.wanted ?? 0) : 0;
    const there = shelf.get(key) ?? { productId, grade, pieces: 0, valueMinor: 0, lots: [], more: 0, wanted: waits };
    there.pieces += lot.pieces;
    there.valueMinor += lot.valueMinor;
    if (there.lots.length < LOTS_SHOWN) there.lots.push(lot);
    else there.more += 1;
    shelf.set(key, there);
  }
  return [...shelf.values()];
}

const MOVES = `SELECT g.id, g.saidId, g.at, g.productId, g.grade, g.reason, g.pieces, g.valueMinor, g.priceMinor,
    t.number AS ticketNumber, o.number AS orderNumber, g.party, g.note, g.struck
  FROM goodsMoves g LEFT JOIN tickets t ON t.id = g.ticketId LEFT JOIN orders o ON o.id = g.orderId`;

async function movesWhere(store: Store, where: string, values: Record<string, unknown>): Promise<GoodsMove[]> {
  const rows = await store.select<Omit<GoodsMove, 'struck'> & { struck: number }>(
    `${MOVES} WHERE ${where} ORDER BY g.id DESC LIMIT ${PAGE}`,
    values,
  );
  return rows.map((row) => ({ ...row, struck: row.struck === 1 }));
}

/** What came to the shelf of finished heads and went, newest first; before an id only older ones. */
export const goodsMoves = (store: Store, before = 2 ** 31) => movesWhere(store, 'g.id < :before', { before });

/** Heads that are handed over by order and product, struck ones left out. */
export async function handedBy(
  store: Store,
  orderIds: readonly string[],
  transaction?: Transaction,
): Promise<Map<string, Record<string, number>>> {
  const handed = new Map<string, Record<string, number>>(orderIds.map((id) => [id, {}]));
  if (orderIds.length === 0) return handed;
  const sums = await store.select<{ orderId: string; productId: string; pieces: number }>(
    `SELECT orderId, productId, -SUM(pieces) AS pieces FROM goodsMoves
     WHERE orderId IN (:orderIds) AND NOT struck GROUP BY orderId, productId`,
    { orderIds: [...orderIds] },
    transaction,
  );
  for (const { orderId, productId, pieces } of sums) handed.get(orderId)![productId] = pieces;
  return handed;
}

/** How far an order is filled, what of it lies on the shelf, and what was handed over when. */
export async function orderGoods(store: Store, orderId: string): Promise<OrderGoods> {
  const order = await readResource(store, 'orders', orderId);
  const [handed, shelf, moves] = await Promise.all([
    handedBy(store, [orderId]),
    listGoods(store),
    movesWhere(store, 'g.orderId = :orderId', { orderId }),
  ]);
  const products = await rowsOf(store.models.products, { where: { id: order.lines.map((line) => line.productId) } });
  const lines = filled(order.lines, handed.get(orderId)!).map((line) => ({
    ...line,
    here: shelf.find(({ productId, grade }) => productId === line.productId && grade === 'good')?.pieces ?? 0,
    priceMinor: products.find(({ id }) => id === line.productId)?.priceMinor ?? null,
  }));
  return { lines, moves };
}

/** Whole minor units for each lot of a line, so that they add up to what was asked for it. */
function pricesOf(priceMinor: number | null, lots: readonly GoodsLot[]): (number | null)[] {
  const all = piecesOf(lots);
  let [gone, asked] = [0, 0];
  return lots.map(({ pieces }) => {
    if (priceMinor === null) return null;
    gone += pieces;
    const part = Math.round((priceMinor * gone) / all) - asked;
    asked += part;
    return part;
  });
}

/** Heads that were handed to somebody, or by an order, and may come back: the last that went come first. */
const outThere = (store: Store, { productId, grade }: Line, input: GoodsInput, transaction: Transaction) =>
  store.select<GoodsLot>(
    `SELECT ticketId, -SUM(pieces) AS pieces, -SUM(valueMinor) AS valueMinor FROM goodsMoves
     WHERE NOT struck AND productId = :productId AND grade = :grade AND reason IN ('sold', 'given', 'returned')
       AND ${input.orderId ? 'orderId = :orderId' : 'party = :party'}
     GROUP BY ticketId HAVING SUM(pieces) < 0 ORDER BY MAX(id) DESC`,
    { productId, grade, orderId: input.orderId, party: input.party },
    transaction,
  );

/** What one line of what was said moves: by lot, with what each cost. Negative pieces leave the shelf. */
async function moved(store: Store, line: Line, input: GoodsInput, transaction: Transaction): Promise<GoodsLot[]> {
  const goes = (lots: readonly GoodsLot[], pieces: number) =>
    takeGoods(lots, pieces).map((lot) => ({ ...lot, pieces: -lot.pieces, valueMinor: -lot.valueMinor }));
  if (input.what === 'returned') {
    const out = await outThere(store, line, input, transaction);
    const there = piecesOf(out);
    if (line.pieces > there) {
      throw notAllowed(
        `pieces is ${line.pieces}; allowed: 1 to ${there}, what ${input.party || 'this order'} has of them`,
      );
    }
    return takeGoods(out, line.pieces);
  }
  const lots = await lotsOf(store, line, transaction);
  const here = piecesOf(lots);
  if (input.what !== 'counted') return goes(lots, line.pieces);
  if (line.pieces < here) return goes(lots, here - line.pieces);
  return line.pieces === here ? [] : [{ ticketId: null, pieces: line.pieces - here, valueMinor: 0 }];
}

/** Books what a person says of finished heads: all lines, or none where one of them cannot be. */
export function moveGoods(store: Store, input: GoodsInput): Promise<void> {
  return store.write(async (transaction) => {
    const { models } = store;
    const { id: saidId, what, orderId, party, note } = input;
    if ((await models.goodsMoves.count({ where: { saidId }, transaction })) > 0) return;
    const order = orderId ? await readResource(store, 'orders', orderId, transaction) : null;
    const at = cameAt({ on: input.on });
    const rows: GoodsRow[] = [];
    for (const line of input.lines) {
      const { productId, grade, pieces, priceMinor } = line;
      await readResource(store, 'products', productId, transaction);
      if (pieces === 0 && what !== 'counted') throw notAllowed('pieces is 0; allowed: 1 or more');
      const lots = await moved(store, line, input, transaction);
      const prices = pricesOf(
        priceMinor === null || what === 'returned' ? priceMinor && -priceMinor : priceMinor,
        lots,
      );
      lots.forEach((lot, index) => {
        const by = { orderId, party: party || order?.customer || '', note, saidId, priceMinor: prices[index]! };
        rows.push({ ...move(at, productId, grade, what), ...lot, ...by });
      });
    }
    await models.goodsMoves.bulkCreate(rows, { transaction });
    if (order?.status === 'open') await doneWhenFilled(store, order.id, order.version, transaction);
  });
}

/** An order that was filled from the shelf before anything was released for it is done. */
async function doneWhenFilled(store: Store, orderId: string, version: number, transaction: Transaction) {
  const order = await readResource(store, 'orders', orderId, transaction);
  const handed = (await handedBy(store, [orderId], transaction)).get(orderId)!;
  if (filled(order.lines, handed).some(({ open }) => open > 0)) return;
  await store.models.orders.update({ status: 'done', version: version + 1 }, { where: { id: orderId }, transaction });
}

/** Strikes out what was said in one go; it stays on record. An order that it filled is to be made again. */
export function strikeGoods(store: Store, saidId: string): Promise<void> {
  return store.write(async (transaction) => {
    const { models } = store;
    const rows = await rowsOf(models.goodsMoves, { where: { saidId }, transaction });
    if (rows.length === 0) throw notFound('movement of finished heads', saidId);
    if (rows.every(({ struck }) => struck)) throw notAllowed('This is struck out already.');
    await models.goodsMoves.update({ struck: true }, { where: { saidId }, transaction });
    const productIds = rows.map(({ productId }) => productId);
    await shelfHolds(store, productIds, transaction);
    await returnsHold(store, productIds, transaction);
    for (const orderId of new Set(rows.flatMap((row) => row.orderId ?? []))) {
      const tickets = await models.tickets.count({ where: { orderId }, transaction });
      if (tickets === 0) await models.orders.update({ status: 'open' }, { where: { id: orderId }, transaction });
    }
  });
}

/** Who has the heads of tickets, and how many still lie on the shelf. */
export async function wentTo(
  store: Store,
  ticketIds: readonly string[],
): Promise<Map<string, Pick<TracedTicket, 'went' | 'onShelf'>>> {
  const found = new Map<string, Pick<TracedTicket, 'went' | 'onShelf'>>(
    ticketIds.map((id) => [id, { went: [], onShelf: 0 }]),
  );
  if (ticketIds.length === 0) return found;
  const rows = await store.select<TracedTicket['went'][number] & { ticketId: string }>(
    `SELECT g.ticketId, g.reason, g.party, o.number AS orderNumber, MAX(g.at) AS at, SUM(g.pieces) AS pieces
     FROM goodsMoves g LEFT JOIN orders o ON o.id = g.orderId
     WHERE g.ticketId IN (:ids) AND NOT g.struck
     GROUP BY g.ticketId, g.reason, g.party, g.orderId HAVING SUM(g.pieces) <> 0 ORDER BY MIN(g.id)`,
    { ids: [...ticketIds] },
  );
  for (const { ticketId, ...went } of rows) {
    const there = found.get(ticketId)!;
    there.onShelf += went.pieces;
    if (went.reason !== 'made') there.went.push(went);
  }
  return found;
}
