import { randomUUID } from 'node:crypto';
import {
  bakedHead,
  COST_PARTS,
  eveningsFrom,
  headsOwed,
  heldAgainst,
  mainHand,
  paceFrom,
  pourPace,
  stepOfRoute,
  ticketActual,
  ticketState,
  withShares,
  type CostStack,
  type KnownWays,
  type PaceRecord,
  type PlanHeld,
  type StepState,
  type TicketEntry,
  type TicketMove,
} from '@schmelz/core';
import type { BakeOnRecord, Ticket, TicketOnList } from '@schmelz/contract';
import { Op, type Transaction } from 'sequelize';
import type { HandsAt, PourTicketRow, Thrown, TicketFiguresRow } from '../store/rows.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notFound } from './errors.ts';
import { grouped, loadTickets, readYieldAfterPour, setupOf, ticketLog, type LoadedTicket } from './tickets.ts';

type MoveSum = TicketMove & { ticketId: string };

/** What a plan of before a part of the cost was known lacks, cost nothing. */
const NOTHING = Object.fromEntries(COST_PARTS.map((part) => [part, 0])) as CostStack;

/** Tickets with their logs, plan, and what they really took. */
export async function listTickets(
  store: Store,
  which: { open?: boolean; id?: string | string[]; orderId?: string } = {},
  transaction?: Transaction,
): Promise<Ticket[]> {
  const where = {
    ...(which.open ? { closedAt: null } : {}),
    ...(which.id ? { id: which.id } : {}),
    ...(which.orderId ? { orderId: which.orderId } : {}),
  };
  const all = await loadTickets(store, where, transaction);
  if (all.length === 0) return [];
  const ids = all.map(({ row }) => row.id);
  const [moves, orders, [oven], after] = await Promise.all([
    store.select<MoveSum>(
      `SELECT m.ticketId, m.materialId, a.name, a.kind, m.reason,
              SUM(m.quantity) AS quantity, SUM(m.valueMinor) AS valueMinor
       FROM stockMoves m JOIN materials a ON a.id = m.materialId WHERE m.ticketId IN (:ids)
       GROUP BY m.ticketId, m.materialId, m.reason`,
      { ids },
      transaction,
    ),
    rowsOf(store.models.orders, { where: { id: [...new Set(all.map(({ row }) => row.orderId))] }, transaction }),
    rowsOf(store.models.ovens, { transaction }),
    readYieldAfterPour(store, transaction),
  ]);
  const movesOf = grouped(moves, (move) => move.ticketId);
  const orderOf = new Map(orders.map((order) => [order.id, order]));
  return all.map((loaded) => {
    const { row, pours, log, runs } = loaded;
    const order = orderOf.get(row.orderId)!;
    const setup = setupOf(loaded);
    const state = ticketState(setup, ticketLog(loaded));
    const { id, version, number, orderId, productId, quantity, fromId, becomesId, createdAt, planned } = row;
    return {
      ...{ id, version, number, orderId, productId, quantity, fromId, becomesId, createdAt },
      planned: { ...planned, stack: { ...NOTHING, ...planned.stack } },
      ...setup,
      ...headsOwed({ quantity, ...setup }, state, after),
      product: row.product,
      route: row.route,
      customer: order.customer,
      dueOn: order.dueOn,
      pourCauses: causesOf(pours),
      pourKept: pours.reduce((sum, { secondGrade }) => sum + secondGrade, 0),
      pourId: pours.at(-1)?.pourId ?? null,
      log,
      runs,
      actual: ticketActual({
        state,
        pours,
        moves: movesOf.get(id) ?? [],
        rates: planned,
        ovenPowerW: row.ovenPowerW ?? oven?.powerW ?? 0,
        wearMinor: planned.stack.wear ?? 0,
        paintHeatMinor: planned.paintHeatMinor ?? 0,
        handsS: (step) => planned.handsS?.[step] ?? 0,
      }),
    };
  });
}

/** Heads thrown back at the pot by cause; those of which none is known are called bad. */
function causesOf(pours: LoadedTicket['pours']): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { causes, rejects } of pours) {
    for (const [cause, heads] of Object.entries(causes ?? (rejects ? { bad: rejects } : {}))) {
      counts[cause] = (counts[cause] ?? 0) + heads;
    }
  }
  return counts;
}

const stateOf = ({ route, source, poured, pourClosed, id, log, runs }: Ticket) =>
  ticketState({ route, source, poured, pourClosed }, withShares<TicketEntry>(id, log, runs));
/** To a ten-thousandth of a minor unit: nobody sees more, and a list stays short. */
const written = (minor: number) => Math.round(minor * 1e4) / 1e4;

/** What the lists say of a ticket: what it came to, and its loads that have come out of the oven. */
function figuresOf(ticket: Ticket): TicketFiguresRow['body'] {
  const { id, number, productId, product, quantity, actual } = ticket;
  const { closedAt, good, loads, steps } = stateOf(ticket);
  const { totalMinor, perHead: stack } = actual.cost;
  const perHead = stack && (Object.fromEntries(COST_PARTS.map((part) => [part, written(stack[part])])) as CostStack);
  const bakes = loads.flatMap((load): BakeOnRecord[] => {
    const { step, count: heads, setC, preheated, doors, loadedAt, unloadedAt } = load;
    if (unloadedAt === null) return [];
    return [
      {
        ...{ id: load.id, ticketNumber: number, productId, head: bakedHead(product, step), step, heads },
        ...{ setC, preheated, doors, loadedAt, unloadedAt },
      },
    ];
  });
  const thrownAtPot = Object.entries(ticket.pourCauses).map(([cause, heads]): Thrown => ({
    station: 'pour',
    cause,
    heads,
  }));
  const thrownLater = steps.flatMap(({ station, thrown: own }) => own.map((each): Thrown => ({ station, ...each })));
  const thrown = [...thrownAtPot, ...thrownLater];
  const came: Record<string, number> = { pour: ticket.poured + ticket.pourKept };
  for (const { heads } of thrownAtPot) came['pour']! += heads;
  // Heads that come a second time come to the same station once.
  for (const { station, arrived } of steps) came[station] = Math.max(came[station] ?? 0, arrived);
  const hands = steps.flatMap(({ station, hands: own }) =>
    Object.entries(own).map(([who, counts]): HandsAt => ({ station, who, ...counts })),
  );
  return {
    mark: randomUUID(),
    onList: {
      ...{ id, number, productId, quantity, closedAt, good, totalMinor, perHead },
      ...(actual.notTimed?.length ? { notTimed: true } : {}),
    },
    bakes,
    thrown,
    came,
    ...(hands.length > 0 ? { hands } : {}),
    pace: paceOfTicket(ticket, steps),
    held: closedAt === null ? null : heldAgainst({ ...ticket, closedAt, good, steps, casts: came['pour']! }),
  };
}

/** What the hands took at each step that was timed, against the ways of its day alone; a typed time is its own. */
const paceOfTicket = ({ route, planned, productId }: Ticket, steps: readonly StepState[]): PaceRecord[] =>
  steps.flatMap(({ key, station, does, good, rejected, workS, notTimed, lastAt, hands }): PaceRecord[] => {
    const typed = (stepOfRoute(route, key)?.handsS ?? null) !== null;
    const byWays = ((good + rejected) * (planned.handsS?.[key] ?? 0)) / (planned.pace?.[key] ?? 1);
    if (typed || notTimed > 0 || workS <= 0 || byWays <= 0) return [];
    const who = mainHand(hands, good + rejected);
    const of = { ...(lastAt === null ? {} : { at: lastAt }), ...(who === null ? {} : { who }) };
    return [{ station, does, productId, seconds: workS, waysS: byWays, ...of }];
  });

/** Plans of closed tickets against what they came to, newest first. */
export async function plansHeld(store: Store, period: Period | null): Promise<PlanHeld[]> {
  const figures = await figuresOn(store, { closedAt: period ? within(period) : { [Op.ne]: null } });
  return figures.flatMap(({ held }) => held ?? []);
}

/** So many closed tickets and pours say what a maker's pace is today. */
const PACE_OF = 60;

/** A maker's own pace from the tickets and the pours that were closed last, and how their evenings came out. */
export async function ownPace(store: Store): Promise<Pick<KnownWays, 'pace' | 'evenings'>> {
  const [tickets, pours] = await Promise.all([
    figuresOn(store, { closedAt: { [Op.ne]: null } }, PACE_OF),
    rowsOf(store.models.pours, { where: { closedAt: { [Op.ne]: null } }, order: [['number', 'DESC']], limit: PACE_OF }),
  ]);
  const of = { pourId: pours.map(({ id }) => id) };
  const [molds, shares] = await Promise.all([
    rowsOf(store.models.pourMolds, { where: of }),
    rowsOf(store.models.pourTickets, { where: of }),
  ]);
  const sharesOf = grouped(shares, ({ pourId }) => pourId);
  const sumOf = (id: string, of: (share: PourTicketRow) => number) =>
    (sharesOf.get(id) ?? []).reduce((sum, share) => sum + of(share), 0);
  const workOf = (id: string) => sumOf(id, ({ workS }) => workS);
  const poured = pours.flatMap(({ id, setup, planned, startedAt: at, hands }) => {
    const casts = sumOf(id, ({ good, secondGrade, rejects }) => good + secondGrade + rejects);
    const who = hands && mainHand(hands, casts);
    const of = { workS: workOf(id), at, ...(who ? { who } : {}) };
    return pourPace(setup, planned, { ...of, molds: molds.filter(({ pourId }) => pourId === id) }) ?? [];
  });
  const records = [...tickets.flatMap(({ pace = [] }) => pace), ...poured];
  if (records.length === 0) return {};
  const pace = paceFrom(records);
  const worked = pours.flatMap(({ id, heldUp }) => (heldUp ? [{ workS: workOf(id), heldUp }] : []));
  return { pace, evenings: eveningsFrom(records, pace, worked) };
}

/** So many tickets are folded in one turn: taps that come meanwhile go between. */
const IN_ONE_TURN = 50;

type Figures = TicketFiguresRow['body'];

/**
 * Figures that are kept of tickets, by their id. A row is gone as soon as something that it comes from changes; folded
 * anew it carries another mark, by which a thread that has read the old one knows.
 */
async function figuresHere(store: Store, ids: readonly string[]): Promise<Map<string, Figures>> {
  if (ids.length === 0) return new Map();
  const read = await readFigures(store);
  const there = await store.select<{ ticketId: string; mark: string | null }>(
    "SELECT ticketId, json_extract(body, '$.mark') AS mark FROM ticketFigures WHERE ticketId IN (:ids)",
    { ids },
  );
  const known = (ticketId: string, mark: string | null) => {
    const body = read.get(ticketId);
    return body && (body.mark ?? null) === mark ? body : undefined;
  };
  const fresh = there.filter(({ ticketId, mark }) => !known(ticketId, mark)).map(({ ticketId }) => ticketId);
  if (fresh.length > 0) {
    const rows = await rowsOf(store.models.ticketFigures, { where: { ticketId: fresh } });
    for (const { ticketId, body } of rows) read.set(ticketId, body);
  }
  return new Map(there.flatMap(({ ticketId }) => (read.has(ticketId) ? [[ticketId, read.get(ticketId)!]] : [])));
}

/** What was read of kept figures so far; another workshop's rows are read anew. */
const readFigures = (store: Store) =>
  store.keptWhile('figures that were read', '', () => Promise.resolve(new Map<string, Figures>()));

/** Folds tickets in turns, so that taps go between; those that are closed are kept where figures may be. */
async function foldedAnew(store: Store, ids: readonly string[]): Promise<Figures[]> {
  const all: Figures[] = [];
  for (let first = 0; first < ids.length; first += IN_ONE_TURN) {
    const turn = ids.slice(first, first + IN_ONE_TURN);
    if (store.isOnlyRead) {
      all.push(...(await listTickets(store, { id: turn })).map(figuresOf));
      continue;
    }
    await store.write(async (transaction) => {
      const made = (await listTickets(store, { id: turn }, transaction)).map(figuresOf);
      all.push(...made);
      // One that was opened meanwhile is folded like the others, and not kept.
      const closed = made.filter(({ onList }) => onList.closedAt !== null);
      await store.models.ticketFigures.bulkCreate(
        closed.map((body) => ({ ticketId: body.onList.id, body })),
        { transaction, updateOnDuplicate: ['body'] },
      );
    });
  }
  return all;
}

/** Folds closed tickets whose figures are not kept yet, so that whoever only reads finds them. */
export async function keepFigures(store: Store): Promise<void> {
  const missing = await store.select<{ id: string }>(
    `SELECT t.id FROM tickets t LEFT JOIN ticketFigures f ON f.ticketId = t.id
     WHERE t.closedAt IS NOT NULL AND f.ticketId IS NULL`,
  );
  await foldedAnew(
    store,
    missing.map(({ id }) => id),
  );
}

/**
 * What tickets came to, newest first. Of closed ones it is kept: folded once, and again only after a row that it comes
 * from has changed, which drops it (migration 008).
 */
async function figuresOn(store: Store, where: Record<string | symbol, unknown>, last?: number): Promise<Figures[]> {
  const rows = await rowsOf(store.models.tickets, {
    where,
    attributes: ['id', 'closedAt'],
    order: [['number', 'DESC']],
    ...(last === undefined ? {} : { limit: last }),
  });
  const ids = rows.map(({ id }) => id);
  const figures = await figuresHere(store, ids);
  const keep = (made: readonly Figures[]) => {
    for (const body of made) figures.set(body.onList.id, body);
  };
  // What is still on the line changes with every tap: it is folded, and not kept.
  const open = rows.filter(({ closedAt }) => closedAt === null).map(({ id }) => id);
  if (open.length > 0) keep((await listTickets(store, { id: open })).map(figuresOf));
  const missing = ids.filter((id) => !figures.has(id));
  keep(await foldedAnew(store, missing));
  return ids.flatMap((id) => figures.get(id) ?? []);
}

/** A stretch of time, ms since 1970: from its first moment to before its last. */
export interface Period {
  from: number;
  to: number;
}
/** All that ever was, where no period is named. */
export const EVER: Period = { from: 0, to: 4e12 };
/** From the first moment to before the last. */
const within = ({ from, to }: Period) => ({ [Op.gte]: from, [Op.lt]: to });

/** Tickets with what they came to, newest first; without logs. Of a period those that were closed in it. */
export async function ticketsOnList(store: Store, period: Period | null = null): Promise<TicketOnList[]> {
  const figures = await figuresOn(store, period ? { closedAt: within(period) } : {});
  return figures.map(({ onList }) => onList);
}

/** Loads of the oven that have come out, ticket by ticket, newest ticket first. Of a period those loaded in it. */
export async function bakesOnRecord(store: Store, period: Period | null = null): Promise<BakeOnRecord[]> {
  const lived = period && {
    createdAt: { [Op.lt]: period.to },
    closedAt: { [Op.or]: [null, { [Op.gte]: period.from }] },
  };
  const bakes = (await figuresOn(store, lived ?? {})).flatMap((each) => each.bakes);
  return period ? bakes.filter(({ loadedAt }) => loadedAt >= period.from && loadedAt < period.to) : bakes;
}

/** What was thrown back of each ticket for which cause, with the heads that came to each station and by whose hands. */
export const thrownByTicket = async (store: Store, period: Period | null = null) =>
  (await figuresOn(store, period ? { closedAt: within(period) } : {})).map(
    ({ onList, thrown, came, bakes, hands = [] }) => ({
      ...{ ticketId: onList.id, number: onList.number, productId: onList.productId, closedAt: onList.closedAt ?? 0 },
      ...{ thrown, came, hands, setC: bakes.map(({ setC }) => setC) },
    }),
  );

/** The first and the last moment that a ticket was closed; null where none is. */
export async function bookedPeriod(store: Store): Promise<Period | null> {
  const [row] = await store.select<{ from: number | null; to: number | null }>(
    'SELECT MIN(closedAt) AS "from", MAX(closedAt) AS "to" FROM tickets',
  );
  return !row || row.from === null || row.to === null ? null : { from: row.from, to: row.to };
}

export async function readTicket(store: Store, id: string): Promise<Ticket> {
  const [ticket] = await listTickets(store, { id });
  if (!ticket) throw notFound('ticket', id);
  return ticket;
}
