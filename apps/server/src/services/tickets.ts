import {
  COST_PARTS,
  costOf,
  J_PER_KWH,
  OVEN_DUTY,
  postingsOf,
  refusal,
  sumMinor,
  ticketState,
  type CostPart,
  type CostStack,
  type CountStation,
  type TicketEntry,
  type TicketSetup,
  type TicketState,
  type UndoEntry,
} from '@schmelz/core';
import type { Ticket, TicketActual, TicketPlan } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import type { EntryRow, PourTicketRow, TicketRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';
import { postDifference } from './stock.ts';

type Log = (TicketEntry | UndoEntry)[];
type PourShare = PourTicketRow & { closed: number; leadId: string };

const entryOf = (row: EntryRow) => ({ ...row.body, id: row.id, at: row.at, kind: row.kind }) as TicketEntry | UndoEntry;

interface Loaded {
  row: TicketRow;
  log: Log;
  pours: PourShare[];
}

async function load(store: Store, where: Record<string, unknown>, transaction?: Transaction): Promise<Loaded[]> {
  const rows = await rowsOf(store.models.tickets, { where, order: [['number', 'DESC']], transaction });
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.id);
  const entries = await rowsOf(store.models.entries, {
    where: { ticketId: ids },
    order: [['seq', 'ASC']],
    transaction,
  });
  const shares = await store.select<PourShare>(
    `SELECT pt.*, p.closedAt IS NOT NULL AS closed, p.leadId FROM pourTickets pt JOIN pours p ON p.id = pt.pourId
     WHERE pt.ticketId IN (:ids) ORDER BY p.number`,
    { ids },
    transaction,
  );
  return rows.map((row) => ({
    row,
    log: entries.filter((entry) => entry.ticketId === row.id).map(entryOf),
    pours: shares.filter((share) => share.ticketId === row.id),
  }));
}

const sumOf = <T>(all: readonly T[], value: (each: T) => number) => all.reduce((sum, each) => sum + value(each), 0);

/** What the ticket's stations start from: heads poured, and whether more will come. */
function setupOf({ row, pours }: Loaded): TicketSetup {
  return {
    route: row.route as CountStation[],
    poured: sumOf(pours, (pour) => pour.good),
    pourClosed: pours.length > 0 && pours.every((pour) => pour.closed),
  };
}

const stationTotals = (state: TicketState) => Object.values(state.stations);

/** Seconds at work with both hands, the pour's share included. */
const workSecondsOf = (loaded: Loaded, state: TicketState) =>
  sumOf(loaded.pours, (pour) => pour.workS) + sumOf(stationTotals(state), (station) => station.workS);

/** Electricity of the ticket, kWh: its share of the pot, and its oven loads at the usual duty. */
function energyOf(loaded: Loaded, state: TicketState, ovenPowerW: number): number {
  const oven = sumOf(state.loads, (each) => ((each.unloadedAt ?? each.loadedAt) - each.loadedAt) / 1000);
  return sumOf(loaded.pours, (pour) => pour.energyKWh) + (oven * ovenPowerW * OVEN_DUTY) / J_PER_KWH;
}

/** What this ticket should have moved, from its whole log. */
async function wantedPostings(store: Store, loaded: Loaded, transaction: Transaction) {
  const { row, pours } = loaded;
  const closedPours = pours.filter((pour) => pour.closed);
  const planned = row.planned as unknown as TicketPlan;
  const state = ticketState({ ...setupOf(loaded) }, loaded.log);
  const [product] = await rowsOf(store.models.products, { where: { id: row.productId }, transaction });
  const leadMaterialId = closedPours[0]?.leadId;
  if (!leadMaterialId) return [];
  const stations = stationTotals(state);
  const paint = state.stations.paint;
  return postingsOf({
    leadMaterialId,
    hookMaterialId: product!['hookId'] as string,
    leadKgPerHead: planned.leadKgPerHead,
    poured: sumOf(closedPours, (pour) => pour.good),
    secondGrade: sumOf(closedPours, (pour) => pour.secondGrade),
    hooksLostAtPour: sumOf(closedPours, (pour) => pour.hooksLost),
    rejectedLater: sumOf(stations, (station) => station.rejected),
    hooksLostLater: sumOf(stations, (station) => station.hooksLost),
    sprueBackKg: sumOf(stations, (station) => station.sprueKg),
    drossKg: sumOf(closedPours, (pour) => pour.drossKg),
    unexplainedKg: sumOf(closedPours, (pour) => pour.unexplainedKg),
    powders: planned.powders,
    dipped: paint ? paint.good + paint.rejected : 0,
  });
}

/** Brings stock and closing in step with a ticket's log and pours. */
export async function syncTicket(store: Store, ticketId: string, at: number, transaction: Transaction): Promise<void> {
  const [loaded] = await load(store, { id: ticketId }, transaction);
  if (!loaded) throw notFound('ticket', ticketId);
  await postDifference(store, ticketId, await wantedPostings(store, loaded, transaction), at, transaction);
  const state = ticketState(setupOf(loaded), loaded.log);
  const { row } = loaded;
  if (row.closedAt === state.closedAt) return;
  const changed = { closedAt: state.closedAt, version: row.version + 1 };
  await store.models.tickets.update(changed, { where: { id: ticketId }, transaction });
  const all = await rowsOf(store.models.tickets, { where: { orderId: row.orderId }, transaction });
  const status = all.every((ticket) => ticket.closedAt !== null) ? 'done' : 'released';
  await store.models.orders.update({ status }, { where: { id: row.orderId }, transaction });
}

/** Appends entries to a ticket's log; an id that is there already is skipped. All or none are taken. */
export async function addTicketEntries(store: Store, ticketId: string, entries: Log): Promise<void> {
  await store.write(async (transaction) => {
    const [loaded] = await load(store, { id: ticketId }, transaction);
    if (!loaded) throw notFound('ticket', ticketId);
    const setup = setupOf(loaded);
    const log = [...loaded.log];
    const known = new Set(log.map((entry) => entry.id));
    for (const entry of entries) {
      if (known.has(entry.id)) continue;
      const why =
        entry.kind === 'undo'
          ? log.some((each) => each.id === entry.target)
            ? null
            : 'There is no such entry on this ticket.'
          : refusal(setup, log, entry);
      if (why) throw notAllowed(why);
      const { id, at, kind, ...body } = entry;
      await store.models.entries.create({ id, pourId: null, ticketId, kind, at, body }, { transaction });
      known.add(id);
      log.push(entry);
    }
    await syncTicket(store, ticketId, entries.at(-1)?.at ?? Date.now(), transaction);
  });
}

const PART_OF: Record<string, CostPart> = {
  heads: 'lead',
  'second grade': 'lead',
  dross: 'dross',
  unexplained: 'dross',
  'sprue back': 'dross',
  hooks: 'hook',
  'hooks lost': 'hook',
  powder: 'powder',
};

interface MoveSum {
  ticketId: string;
  materialId: string;
  name: string;
  kind: string;
  reason: string;
  quantity: number;
  valueMinor: number;
}

function actualOf(loaded: Loaded, moves: readonly MoveSum[], ovenPowerW: number): TicketActual {
  const planned = loaded.row.planned as unknown as TicketPlan;
  const state = ticketState(setupOf(loaded), loaded.log);
  const workS = workSecondsOf(loaded, state);
  const energyKWh = energyOf(loaded, state, ovenPowerW);
  const partOf = (move: MoveSum): CostPart => {
    if (move.reason === 'returned') return move.kind === 'hook' ? 'hook' : 'lead';
    return PART_OF[move.reason] ?? 'lead';
  };
  const parts = Object.fromEntries(
    COST_PARTS.map((part) => [
      part,
      sumMinor(moves.filter((move) => partOf(move) === part).map((move) => -move.valueMinor)),
    ]),
  ) as Record<CostPart, number>;
  parts.energy = costOf(planned.energyMinorPerKWh, energyKWh);
  parts.work = costOf(planned.labourMinorPerHour, workS / 3600);
  const totalMinor = sumMinor(Object.values(parts));
  const perHead =
    state.good > 0
      ? (Object.fromEntries(COST_PARTS.map((part) => [part, parts[part] / state.good])) as CostStack)
      : null;
  const materials = new Map<string, TicketActual['materials'][number]>();
  for (const { materialId, name, kind, quantity, valueMinor } of moves) {
    const sum = materials.get(materialId) ?? { materialId, name, kind, quantity: 0, valueMinor: 0 };
    materials.set(materialId, { ...sum, quantity: sum.quantity - quantity, valueMinor: sum.valueMinor - valueMinor });
  }
  return { materials: [...materials.values()], workS, energyKWh, cost: { parts, totalMinor, perHead } };
}

/** Tickets with their logs, plan, and what they really took. */
export async function listTickets(
  store: Store,
  which: { open?: boolean; id?: string; orderId?: string } = {},
): Promise<Ticket[]> {
  const where = {
    ...(which.open ? { closedAt: null } : {}),
    ...(which.id ? { id: which.id } : {}),
    ...(which.orderId ? { orderId: which.orderId } : {}),
  };
  const all = await load(store, where);
  if (all.length === 0) return [];
  const ids = all.map(({ row }) => row.id);
  const [moves, orders, [oven]] = await Promise.all([
    store.select<MoveSum>(
      `SELECT m.ticketId, m.materialId, a.name, a.kind, m.reason, SUM(m.quantity) AS quantity, SUM(m.valueMinor) AS valueMinor
       FROM stockMoves m JOIN materials a ON a.id = m.materialId WHERE m.ticketId IN (:ids)
       GROUP BY m.ticketId, m.materialId, m.reason`,
      { ids },
    ),
    rowsOf(store.models.orders, { where: { id: [...new Set(all.map(({ row }) => row.orderId))] } }),
    rowsOf(store.models.ovens),
  ]);
  return all.map((loaded) => {
    const { row, pours, log } = loaded;
    const order = orders.find((each) => each.id === row.orderId)!;
    const setup = setupOf(loaded);
    return {
      id: row.id,
      version: row.version,
      number: row.number,
      orderId: row.orderId,
      customer: order.customer,
      dueOn: order.dueOn,
      productId: row.productId,
      quantity: row.quantity,
      route: setup.route as CountStation[],
      poured: setup.poured,
      pourRejects: sumOf(pours, (pour) => pour.rejects),
      pourClosed: setup.pourClosed,
      pourId: pours.at(-1)?.pourId ?? null,
      createdAt: row.createdAt,
      log,
      planned: row.planned as unknown as TicketPlan,
      actual: actualOf(
        loaded,
        moves.filter((move) => move.ticketId === row.id),
        Number(oven?.['powerW'] ?? 0),
      ),
    };
  });
}

export async function readTicket(store: Store, id: string): Promise<Ticket> {
  const [ticket] = await listTickets(store, { id });
  if (!ticket) throw notFound('ticket', id);
  return ticket;
}
