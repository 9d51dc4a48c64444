import { randomUUID } from 'node:crypto';
import {
  filled,
  heatMinor,
  knownBill,
  paintHeat,
  planOrder,
  productAtRelease,
  routeOf,
  paceOfStep,
  stepSeconds,
  stepsOf,
  type Plan,
  type PlanLine,
} from '@schmelz/core';
import type { Order, OrderOnList, PlanView, TicketPlan } from '@schmelz/contract';
import { Op, type FindOptions, type Transaction } from 'sequelize';
import type { TicketRow } from '../store/models.ts';
import type { Store } from '../store/store.ts';
import { notAllowed } from './errors.ts';
import { handedBy } from './goods.ts';
import { listResources, readResource } from './resources.ts';
import { loadSolver } from './solver.ts';
import { castingLead, firstTools, readWorkshop, type Workshop } from './workshop.ts';

const readOrder = async (store: Store, id: string, transaction?: Transaction) =>
  readResource(store, 'orders', id, transaction);

/** Orders that are done come in pages of so many. */
const PAGE = 50;

/** Orders with what their closed tickets ended short of. */
async function withMissing(store: Store, orders: readonly Order[]): Promise<OrderOnList[]> {
  if (orders.length === 0) return [];
  const short = await store.select<{ orderId: string; missing: number }>(
    `SELECT orderId, SUM(MAX(0, quantity - good)) AS missing FROM tickets
     WHERE closedAt IS NOT NULL AND good IS NOT NULL AND orderId IN (:ids) GROUP BY orderId`,
    { ids: orders.map(({ id }) => id) },
  );
  const missing = new Map(short.map((each) => [each.orderId, each.missing]));
  const handed = await handedBy(
    store,
    orders.map(({ id }) => id),
  );
  return orders.map((order) => ({ ...order, missing: missing.get(order.id) ?? 0, handed: handed.get(order.id)! }));
}

/** Every order that is still to do, and the last that are done, newest first; before a number only older done ones. */
export async function listOrders(store: Store, before: number | null = null): Promise<OrderOnList[]> {
  const of = async (which: FindOptions<Record<string, unknown>>) =>
    withMissing(store, await listResources(store, 'orders', { ...which, order: [['number', 'DESC']] }));
  const older = before === null ? {} : { number: { [Op.lt]: before } };
  const done = await of({ where: { status: 'done', ...older }, limit: PAGE });
  if (before !== null) return done;
  const toDo = await of({ where: { status: { [Op.ne]: 'done' } } });
  return [...toDo, ...done].sort((a, b) => b.number - a.number);
}

/** What of an order is still to be made: while it is not released, what is handed over from the shelf is not. */
async function toMake(store: Store, order: Order, transaction?: Transaction): Promise<Order['lines']> {
  if (order.status !== 'open') return order.lines;
  const handed = (await handedBy(store, [order.id], transaction)).get(order.id)!;
  return filled(order.lines, handed).flatMap(({ productId, open }) =>
    open > 0 ? [{ productId, quantity: open }] : [],
  );
}

const linesOf = (lines: Order['lines'], workshop: Workshop): PlanLine[] =>
  lines.map(({ productId, quantity }) => ({ product: workshop.products.get(productId)!, quantity }));

export async function planFor(store: Store, wanted: Order['lines'], workshop: Workshop): Promise<Plan> {
  const { pot, oven } = firstTools(workshop);
  const { molds, ways, stock, afterPour, pins } = workshop;
  const lead = castingLead(workshop);
  const lines = linesOf(wanted, workshop);
  const tools = await listResources(store, 'tools');
  return planOrder({ lines, molds, pot, oven, ways, lead, stock, tools, afterPour, pins }, await loadSolver());
}

/**
 * The next free number of a numbered table, from `first` on. It is asked for inside the transaction that takes it:
 * writes take turns, so nobody else takes the same.
 */
export async function nextNumber(
  store: Store,
  table: 'orders' | 'tickets' | 'pours',
  first: number,
  transaction: Transaction,
): Promise<number> {
  const [row] = await store.select<{ top: number | null }>(`SELECT MAX(number) AS top FROM ${table}`, {}, transaction);
  return Math.max(first, (row?.top ?? 0) + 1);
}

const isOpen = (order: Order) => {
  if (order.status !== 'open') throw notAllowed('This order is released already.');
};

/** Makes the plan of an order. */
export type Planned = (orderId: string) => Promise<PlanView>;

/** The plan of an order that is not released: one that is stands as it was released, ticket by ticket. */
export async function planView(store: Store, orderId: string): Promise<PlanView> {
  const order = await readOrder(store, orderId);
  isOpen(order);
  return { plan: await planFor(store, await toMake(store, order), await readWorkshop(store)) };
}

/** What stays with a ticket of what was planned, with the rates of that day. */
export function ticketPlan(plan: Plan, productId: string, workshop: Workshop): TicketPlan {
  const line = plan.lines.find((each) => each.productId === productId)!;
  const product = workshop.products.get(productId)!;
  const { labourMinorPerHour, energyMinorPerKWh, transferEfficiency } = workshop.ways;
  return {
    casts: line.casts.value,
    coming: line.coming,
    upTo: line.casts.high ?? line.casts.value,
    ...(line.molds.length > 0 ? { molds: line.molds } : {}),
    yieldShare: line.yieldShare.value,
    stack: line.stack,
    ...(line.unpriced.length > 0 ? { unpriced: line.unpriced } : {}),
    workS: line.workS * line.quantity,
    leadKgPerHead: line.leadKgPerHead.value,
    bill: knownBill(product, workshop.ways),
    transferEfficiency,
    labourMinorPerHour,
    energyMinorPerKWh,
    paintHeatMinor: heatMinor(workshop.ways, paintHeat(workshop.ways, product)),
    handsS: Object.fromEntries(stepsOf(product).map((step) => [step.key, stepSeconds(step, workshop.ways, product)])),
    pace: Object.fromEntries(
      stepsOf(product).map((step) => [step.key, paceOfStep(step, workshop.ways, product.id).factor]),
    ),
  };
}

/**
 * Releases an order: one ticket a line goes on the line. Refused, and nothing is made, where a product cannot be cast.
 * What was planned is what was ordered: an order that was changed meanwhile is refused inside the transaction.
 * @param planned makes the plan of an order, wherever that is done
 */
export async function releaseOrder(
  store: Store,
  orderId: string,
  at = Date.now(),
  planned: Planned = (id) => planView(store, id),
): Promise<TicketRow[]> {
  const order = await readOrder(store, orderId);
  isOpen(order);
  const workshop = await readWorkshop(store);
  const wanted = await toMake(store, order);
  const { plan } = await planned(orderId);
  if (plan.problems.length) {
    const named = plan.problems.map(({ productId, text }) => `${workshop.products.get(productId)!.name}: ${text}`);
    throw notAllowed(named.join(' '));
  }
  return store.write(async (transaction) => {
    const now = await readOrder(store, orderId, transaction);
    isOpen(now);
    if (now.version !== order.version) throw notAllowed('This order was changed meanwhile; look at its plan again.');
    if (JSON.stringify(await toMake(store, now, transaction)) !== JSON.stringify(wanted)) {
      throw notAllowed('Some of it was handed over meanwhile; look at its plan again.');
    }
    const first = await nextNumber(store, 'tickets', 101, transaction);
    const tickets = wanted.map(({ productId, quantity }, index): TicketRow => {
      const product = workshop.products.get(productId)!;
      const record = workshop.records.get(productId)!;
      const kept = productAtRelease(product, workshop.ways.schools);
      return {
        id: randomUUID(),
        number: first + index,
        orderId,
        productId,
        quantity,
        product: kept,
        route: routeOf(kept),
        source: product.source ?? 'pour',
        fromId: record.fromId ?? null,
        becomesId: record.becomesId ?? null,
        planned: ticketPlan(plan, productId, workshop),
        createdAt: at,
        closedAt: null,
        good: null,
        ovenPowerW: null,
        version: 1,
      };
    });
    const changed = { status: 'released' as const, version: order.version + 1 };
    await store.models.orders.update(changed, { where: { id: orderId }, transaction });
    await store.models.tickets.bulkCreate(tickets, { transaction });
    return tickets;
  });
}
