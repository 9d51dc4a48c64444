import {
  goodsValue,
  hookLostShare,
  partsRefusal,
  QUANTITY_TOLERANCE,
  ticketPostings,
  ticketRefusal,
  ticketState,
  ticketUndoRefusal,
  type Balance,
  type CastForTicket,
  type TicketEntry,
  type TicketSetup,
  type TicketState,
  type UndoEntry,
  withShares,
  yieldAfterPour,
  type YieldTonight,
} from '@schmelz/core';
import type { RunView } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import type { PourTicketRow, TicketRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { append, readLogs, type Keeper } from './append.ts';
import { notAllowed, notFound } from './errors.ts';
import { headsKept, postGoods, readSecondShare } from './goods.ts';
import { readRuns } from './run-views.ts';
import { balances, postDifference } from './stock.ts';

type Log = (TicketEntry | UndoEntry)[];
type PourShare = PourTicketRow & { closed: number; leadId: string; metalShare: number | null };

/** A ticket as it lies in the tables: its row, its log, and what pours and runs have done for it. */
export interface LoadedTicket {
  row: TicketRow;
  log: Log;
  pours: PourShare[];
  runs: RunView[];
}

/** What a ticket's state is folded from: its own log, and what its runs say of it. */
export const ticketLog = ({ row, log, runs }: LoadedTicket): Log => withShares<TicketEntry>(row.id, log, runs);

export async function loadTickets(
  store: Store,
  where: Record<string, unknown>,
  transaction?: Transaction,
): Promise<LoadedTicket[]> {
  const rows = await rowsOf(store.models.tickets, { where, order: [['number', 'DESC']], transaction });
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.id);
  const logs = await readLogs<TicketEntry>(store, 'ticket', ids, transaction);
  const shares = await store.select<PourShare>(
    `SELECT pt.*, p.closedAt IS NOT NULL AS closed, p.leadId, json_extract(p.setup, '$.metalShare') AS metalShare FROM pourTickets pt JOIN pours p ON p.id = pt.pourId
     WHERE pt.ticketId IN (:ids) ORDER BY p.number`,
    { ids },
    transaction,
  );
  const parts = await rowsOf(store.models.runTickets, { where: { ticketId: ids }, transaction });
  const runs = parts.length ? await readRuns(store, { id: parts.map((part) => part.runId) }, transaction) : [];
  const runOf = new Map(runs.map((run) => [run.id, run]));
  // What is read past the models comes as it is stored.
  for (const share of shares) share.causes = JSON.parse(String(share.causes)) as PourShare['causes'];
  const sharesOf = grouped(shares, (share) => share.ticketId);
  const partsOf = grouped(parts, (part) => part.ticketId);
  return rows.map((row) => ({
    row,
    log: logs.get(row.id)!,
    pours: sharesOf.get(row.id) ?? [],
    runs: [...new Set((partsOf.get(row.id) ?? []).map((part) => part.runId))].map((runId) => runOf.get(runId)!),
  }));
}

export function grouped<T>(all: readonly T[], keyOf: (each: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const each of all) {
    const own = groups.get(keyOf(each));
    if (own) own.push(each);
    else groups.set(keyOf(each), [each]);
  }
  return groups;
}

export const sumOf = <T>(all: readonly T[], value: (each: T) => number) =>
  all.reduce((sum, each) => sum + value(each), 0);

/** What the ticket's steps start from: heads poured, and whether more will come. */
export function setupOf({ row, pours }: Pick<LoadedTicket, 'row' | 'pours'>): TicketSetup {
  return {
    route: row.route,
    source: row.source,
    ...(row.planned.handsS ? { handsS: row.planned.handsS } : {}),
    poured: sumOf(pours, (pour) => pour.good),
    pourClosed: pours.length > 0 && pours.every((pour) => pour.closed),
  };
}

/** So many closed tickets say what the steps after the pour leave of the heads. */
const LAST_CLOSED = 60;

/** What the steps after the pour leave of heads that were cast good, by the tickets that were closed last. */
export const readYieldAfterPour = async (store: Store, transaction?: Transaction): Promise<Required<YieldTonight>> =>
  yieldAfterPour(
    await store.select<{ good: number; casts: number }>(
      `SELECT t.good, SUM(pt.good) AS casts FROM tickets t JOIN pourTickets pt ON pt.ticketId = t.id
       WHERE t.closedAt IS NOT NULL AND t.good IS NOT NULL AND t.source = 'pour'
       GROUP BY t.id ORDER BY t.closedAt DESC LIMIT ${LAST_CLOSED}`,
      {},
      transaction,
    ),
  );

/** Of heads that were thrown back at the pot, the share that lost its hook; null until one was thrown back. */
export async function readHookLostShare(store: Store): Promise<number | null> {
  const [sum] = await store.select<{ lost: number | null; rejects: number | null }>(
    'SELECT SUM(hooksLost) AS lost, SUM(rejects) AS rejects FROM pourTickets',
  );
  return sum?.rejects ? hookLostShare({ lost: sum.lost ?? 0, rejects: sum.rejects }) : null;
}

/** What closed pours gave to a ticket, and took for it; null until one is closed. */
function castFor({ pours }: LoadedTicket): CastForTicket | null {
  const closed = pours.filter((pour) => pour.closed);
  const [first] = closed;
  if (!first) return null;
  return {
    leadMaterialId: first.leadId,
    metalShare: first.metalShare ?? 1,
    good: sumOf(closed, (pour) => pour.good),
    secondGrade: sumOf(closed, (pour) => pour.secondGrade),
    hooksLost: sumOf(closed, (pour) => pour.hooksLost),
    drossKg: sumOf(closed, (pour) => pour.drossKg),
    unexplainedKg: sumOf(closed, (pour) => pour.unexplainedKg),
  };
}

/** Metal that its pours left unexplained, of all their tickets, less sprues that others of them have weighed since. */
async function sprueRoom(store: Store, { row, pours }: LoadedTicket, transaction: Transaction): Promise<number> {
  const of = { ids: pours.filter((pour) => pour.closed).map(({ pourId }) => pourId), ticketId: row.id };
  const [left] = await store.select<{ kg: number }>(
    `SELECT (SELECT COALESCE(SUM(unexplainedKg), 0) FROM pourTickets WHERE pourId IN (:ids))
          - (SELECT COALESCE(SUM(quantity), 0) FROM stockMoves WHERE reason = 'sprue back' AND ticketId <> :ticketId
               AND ticketId IN (SELECT ticketId FROM pourTickets WHERE pourId IN (:ids))) AS kg`,
    of,
    transaction,
  );
  return left!.kg;
}

/** What this ticket should have moved, from its whole log. */
async function wantedPostings(store: Store, loaded: LoadedTicket, state: TicketState, transaction: Transaction) {
  const { source, fromId, becomesId, planned } = loaded.row;
  const { bill, leadKgPerHead } = planned;
  const closed = castFor(loaded);
  const weighed = state.steps.some(({ sprueKg }) => sprueKg > 0);
  const cast = closed && weighed ? { ...closed, sprueRoomKg: await sprueRoom(store, loaded, transaction) } : closed;
  return ticketPostings({ bill, leadKgPerHead, cast, source, sourceId: fromId, becomesId, state });
}

/** Brings stock and closing in step with a ticket's log and pours. */
export async function syncTicket(store: Store, ticketId: string, at: number, transaction: Transaction): Promise<void> {
  const [loaded] = await loadTickets(store, { id: ticketId }, transaction);
  if (!loaded) throw notFound('ticket', ticketId);
  await syncLoaded(store, loaded, at, transaction);
}

/** The same of a ticket that was read in this transaction. */
async function syncLoaded(store: Store, loaded: LoadedTicket, at: number, transaction: Transaction): Promise<void> {
  const state = ticketState(setupOf(loaded), ticketLog(loaded));
  const { row } = loaded;
  const ticketId = row.id;
  const heads = headsKept(state, castFor(loaded)?.secondGrade ?? 0);
  const share = await readSecondShare(store);
  const goodMinor = (spent: number) => goodsValue(spent, heads, share).good;
  const wanted = await wantedPostings(store, loaded, state, transaction);
  await postDifference(store, ticketId, wanted, at, transaction, goodMinor);
  await postGoods(store, row, heads, share, at, transaction);
  if (row.closedAt === state.closedAt) return;
  const [oven] = await rowsOf(store.models.ovens, { transaction });
  const ovenPowerW = state.closedAt === null ? null : Number(oven?.['powerW'] ?? 0);
  const good = state.closedAt === null ? null : state.good;
  const changed = { closedAt: state.closedAt, good, ovenPowerW, version: row.version + 1 };
  await store.models.tickets.update(changed, { where: { id: ticketId }, transaction });
  const all = await rowsOf(store.models.tickets, { where: { orderId: row.orderId }, transaction });
  const status = all.every((ticket) => ticket.closedAt !== null) ? 'done' : 'released';
  await store.models.orders.update({ status }, { where: { id: row.orderId }, transaction });
}

/** Tickets as a pour (or a run) sees them that they are in. */
export async function downTheLine(store: Store, ids: readonly string[], transaction: Transaction, pourId?: string) {
  if (ids.length === 0) return [];
  return (await loadTickets(store, { id: [...ids] }, transaction)).map((loaded) => {
    const { row, log, pours, runs } = loaded;
    return {
      id: row.id,
      name: `Ticket ${row.number}`,
      setup: setupOf(loaded),
      setupWith: (good: number, closed: boolean) =>
        setupOf({
          row,
          pours: pours.map((pour) => (pour.pourId === pourId ? { ...pour, good, closed: Number(closed) } : pour)),
        }),
      logWith: (instead: Pick<RunView, 'id' | 'kind' | 'log'> | null) =>
        withShares<TicketEntry>(row.id, log, [
          ...runs.filter((run) => run.id !== instead?.id),
          ...(instead ? [instead] : []),
        ]),
    };
  });
}

/** Shelves that a ticket takes its heads from, or puts them on. */
const shelvesOf = ({ fromId, becomesId }: TicketRow): string[] => [fromId, becomesId].filter((id) => id !== null);

/** After something was taken or brought back: no shelf that a ticket takes from or fills holds less than nothing. */
async function shelvesHold(store: Store, row: TicketRow, before: Map<string, Balance>, transaction: Transaction) {
  const now = await balances(store, transaction, shelvesOf(row));
  for (const id of shelvesOf(row)) {
    const [was, is] = [before.get(id)?.quantity ?? 0, now.get(id)?.quantity ?? 0];
    if (is < was && is < -QUANTITY_TOLERANCE) {
      throw notAllowed(`Not possible: ${Math.ceil(-is)} of its heads were taken off the shelf meanwhile.`);
    }
  }
}

/** What the bill of a ticket refuses: parts that its step does not use. */
function ofParts({ planned: { bill } }: TicketRow, entry: TicketEntry): string | null {
  if (entry.kind === 'spoiled') return partsRefusal(bill, entry.step, 'partId', [entry.partId]);
  return entry.kind === 'reject' ? partsRefusal(bill, entry.step, 'spared', entry.spared ?? []) : null;
}

/** What the shelf refuses: more heads than lie on it. */
async function shelfRefusal(store: Store, row: TicketRow, entry: TicketEntry, transaction: Transaction) {
  if (entry.kind !== 'take' || !row.fromId) return null;
  const here = Math.floor((await balances(store, transaction, [row.fromId])).get(row.fromId)?.quantity ?? 0);
  return entry.count > here ? `count is ${entry.count}; allowed: 1 to ${here}, the heads on the shelf` : null;
}

/** Appends entries to a ticket's log; an id that is there already is skipped. All or none are taken. */
export async function addTicketEntries(
  store: Store,
  ticketId: string,
  entries: Log,
  deviceNow: number | null = null,
): Promise<void> {
  const keep = async (transaction: Transaction): Promise<Keeper<TicketEntry>> => {
    const [loaded] = await loadTickets(store, { id: ticketId }, transaction);
    if (!loaded) throw notFound('ticket', ticketId);
    const setup = setupOf(loaded);
    const before = await balances(store, transaction, shelvesOf(loaded.row));
    return {
      kind: 'ticket',
      id: ticketId,
      log: loaded.log,
      async judge(log, entry) {
        if (entry.kind === 'undo') {
          const theirs = loaded.runs.some((run) => run.log.some((each) => each.id === entry.target));
          if (theirs) return 'That was said of a run of several tickets: take it back there.';
        }
        const whole = ticketLog({ ...loaded, log: [...log] });
        if (entry.kind === 'undo') return ticketUndoRefusal(setup, whole, entry);
        return (
          ticketRefusal(setup, whole, entry) ??
          ofParts(loaded.row, entry) ??
          (await shelfRefusal(store, loaded.row, entry, transaction))
        );
      },
      async sync(log, at) {
        await syncLoaded(store, { ...loaded, log: [...log] }, at, transaction);
        if (log.at(-1)?.kind === 'undo') await shelvesHold(store, loaded.row, before, transaction);
      },
    };
  };
  await append<TicketEntry>(store, entries, keep, deviceNow);
}
