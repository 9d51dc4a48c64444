import { randomUUID } from 'node:crypto';
import { planOrder, routeOf, type Plan, type PlanLine } from '@schmelz/core';
import type { Order, PlanView, TicketPlan } from '@schmelz/contract';
import type { TicketRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed } from './errors.ts';
import { readResource } from './resources.ts';
import { castingLead, firstTools, readWorkshop, type Workshop } from './workshop.ts';

const readOrder = async (store: Store, id: string) => (await readResource(store, 'orders', id)) as unknown as Order;

const linesOf = (order: Order, workshop: Workshop): PlanLine[] =>
  order.lines.map(({ productId, quantity }) => ({ product: workshop.products.get(productId)!, quantity }));

function planFor(order: Order, workshop: Workshop): Plan {
  const { pot, oven } = firstTools(workshop);
  const { molds, ways, stock } = workshop;
  return planOrder({ lines: linesOf(order, workshop), molds, pot, oven, ways, lead: castingLead(workshop), stock });
}

/** The next free number of a numbered table, from `first` on. */
export async function nextNumber(store: Store, table: 'orders' | 'tickets' | 'pours', first: number): Promise<number> {
  const [row] = await store.select<{ top: number | null }>(`SELECT MAX(number) AS top FROM ${table}`);
  return Math.max(first, (row?.top ?? 0) + 1);
}

export async function planView(store: Store, orderId: string): Promise<PlanView> {
  const order = await readOrder(store, orderId);
  const tickets = await rowsOf(store.models.tickets, { where: { orderId } });
  return { plan: planFor(order, await readWorkshop(store)), ticketIds: tickets.map((ticket) => ticket.id) };
}

/** What stays with a ticket of what was planned, with the rates of that day. */
function ticketPlan(plan: Plan, productId: string, workshop: Workshop): TicketPlan {
  const line = plan.lines.find((each) => each.productId === productId)!;
  const { labourMinorPerHour, energyMinorPerKWh, transferEfficiency } = workshop.ways;
  return {
    casts: line.casts.value,
    yieldShare: line.yieldShare.value,
    stack: line.stack,
    workS: line.workS * line.quantity,
    leadKgPerHead: line.leadKgPerHead.value,
    powders: line.powders,
    transferEfficiency,
    labourMinorPerHour,
    energyMinorPerKWh,
  };
}

/**
 * Releases an order: one ticket a line goes on the line. Refused, and nothing is made, where a product cannot be cast.
 */
export async function releaseOrder(store: Store, orderId: string, at = Date.now()): Promise<TicketRow[]> {
  const order = await readOrder(store, orderId);
  if (order.status !== 'open') throw notAllowed('This order is released already.');
  const workshop = await readWorkshop(store);
  const plan = planFor(order, workshop);
  if (plan.problems.length) throw notAllowed(plan.problems.map((problem) => problem.text).join(' '));
  const first = await nextNumber(store, 'tickets', 101);
  const tickets = order.lines.map(({ productId, quantity }, index): TicketRow => {
    const product = workshop.products.get(productId)!;
    const route = routeOf({ painted: product.layers.length > 0, baked: product.bake !== null });
    return {
      id: randomUUID(),
      number: first + index,
      orderId,
      productId,
      quantity,
      route,
      planned: ticketPlan(plan, productId, workshop) as unknown as Record<string, unknown>,
      createdAt: at,
      closedAt: null,
      version: 1,
    };
  });
  await store.write(async (transaction) => {
    const [changed] = await store.models.orders.update(
      { status: 'released', version: order.version + 1 },
      { where: { id: orderId, version: order.version }, transaction },
    );
    if (changed !== 1) throw notAllowed('This order was changed meanwhile; look at its plan again.');
    await store.models.tickets.bulkCreate(tickets, { transaction });
  });
  return tickets;
}
