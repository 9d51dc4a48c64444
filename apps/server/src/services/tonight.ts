import {
  filled,
  headsOwed,
  headsToCast,
  headsToCome,
  ticketState,
  toKeep,
  type TonightAsked,
  type PlanProduct,
  type Wanted,
} from '@schmelz/core';
import type { Order } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { handedBy, listGoods } from './goods.ts';
import { pinsInHeads } from './pours.ts';
import { listResources } from './resources.ts';
import { countedParts } from './stock.ts';
import { loadTickets, setupOf, ticketLog, type LoadedTicket } from './tickets.ts';
import { castingLead, firstTools, readWorkshop, type Workshop } from './workshop.ts';

/** A day is over at its end, where the workshop is. */
const endOf = (day: string | null) => (day === null ? null : new Date(`${day}T23:59:00`).getTime());

/** Good heads to cast for so many that are wanted; none of those that come off the shelf. */
const potOwes = ({ source }: PlanProduct, heads: number, { afterPour }: Workshop) =>
  source === 'shelf' ? 0 : headsToCast(heads, afterPour);

/** A line of an order that nobody has released: all that is not handed over from the shelf is still to be made. */
function ofOrder(order: Order, handed: Readonly<Record<string, number>>, workshop: Workshop): Wanted[] {
  return filled(order.lines, handed).flatMap(({ productId, open }, at): Wanted[] => {
    const product = workshop.products.get(productId);
    if (!product || open === 0) return [];
    return [
      {
        ...{ id: `${order.id} ${at}`, name: product.name, customer: order.customer, orderNumber: order.number },
        ...{ ticketNumber: null, orderId: order.id, dueMs: endOf(order.dueOn), product, left: {} },
        ...{ heads: open, toCast: potOwes(product, open, workshop), ...(product.from ? { toTake: open } : {}) },
      },
    ];
  });
}

/** A ticket that is under way: what the pot owes it, and the heads that wait at its steps. */
function ofTicket(loaded: LoadedTicket, order: Order, workshop: Workshop): Wanted[] {
  const { row } = loaded;
  const begins = row.fromId ? workshop.materials.get(row.fromId) : undefined;
  // Tickets of before do not keep what they begin with.
  const from = begins && { materialId: begins.id, name: begins.name, kind: begins.kind };
  const product = { ...row.product, ...(from ? { from } : {}) };
  const setup = setupOf(loaded);
  const state = ticketState(setup, ticketLog(loaded));
  const toTake = row.source === 'shelf' ? Math.max(0, row.quantity - state.taken) : 0;
  const left = headsToCome(state, toTake);
  const { missing, toCast } = headsOwed({ quantity: row.quantity, ...setup }, state, workshop.afterPour);
  if (toCast === 0 && Object.keys(left).length === 0) return [];
  return [
    {
      ...{ id: row.id, name: product.name, customer: order.customer, orderNumber: order.number },
      ...{ ticketNumber: row.number, orderId: row.orderId, dueMs: endOf(order.dueOn), product, left },
      ...{ heads: toCast > 0 ? missing : 0, toCast, ...(toTake > 0 ? { toTake } : {}) },
    },
  ];
}

const sum = (numbers: readonly number[]) => numbers.reduce((all, each) => all + each, 0);

/** Products that are to lie on the shelf, as far as what is there and what comes leaves them short. */
async function forShelf(
  store: Store,
  workshop: Workshop,
  tickets: readonly LoadedTicket[],
  orders: readonly (Order & { handed: Readonly<Record<string, number>> })[],
): Promise<Wanted[]> {
  const goods = await listGoods(store);
  const openIn = (of: typeof orders, id: string) =>
    sum(
      of.flatMap((order) => filled(order.lines, order.handed).map((line) => (line.productId === id ? line.open : 0))),
    );
  return [...workshop.products.values()].flatMap((product): Wanted[] => {
    const { id, name } = product;
    const { keepHeads, archived } = workshop.records.get(id)!;
    if (!keepHeads || archived) return [];
    const lots = goods.filter(({ productId, grade }) => productId === id && grade === 'good');
    const onTheWay = tickets.filter(({ row }) => row.productId === id).map(({ row }) => row.quantity);
    const notReleased = orders.filter(({ status }) => status === 'open');
    // Who ordered takes it from there; what nobody ordered stays.
    const customers = orders.filter(({ customer }) => customer !== '');
    const heads = toKeep({
      keep: keepHeads,
      here: sum(lots.map(({ pieces }) => pieces)),
      coming: sum(onTheWay) + openIn(notReleased, id),
      ordered: openIn(customers, id),
    });
    const nobody = { customer: '', orderNumber: 0, ticketNumber: null, orderId: '', dueMs: null, left: {} };
    const toCast = potOwes(product, heads, workshop);
    const taken = product.from ? { toTake: heads } : {};
    return heads > 0 ? [{ id: `keep ${id}`, name, product, heads, toCast, ...taken, ...nobody }] : [];
  });
}

/** What the labels of glues say of how long a mix can be worked. */
const potLives = ({ materials }: Workshop): Record<string, number> =>
  Object.fromEntries(
    [...materials.values()].flatMap(({ id, details }) =>
      details?.['potLifeS'] === undefined ? [] : [[id, details['potLifeS']]],
    ),
  );

/** Everything that is open: orders that are not released, tickets with heads on the way, and what there is for them. */
export async function readTonight(store: Store): Promise<TonightAsked> {
  const workshop = await readWorkshop(store);
  const { pot, oven } = firstTools(workshop);
  const lead = castingLead(workshop);
  const orders = await listResources(store, 'orders', { where: { status: ['open', 'released'] } });
  const [handed, tickets, hooksHere] = await Promise.all([
    handedBy(
      store,
      orders.map(({ id }) => id),
    ),
    loadTickets(store, { closedAt: null }),
    countedParts(store),
  ]);
  const rows = await rowsOf(store.models.orders, { where: { id: tickets.map(({ row }) => row.orderId) } });
  const orderOf = new Map([...orders, ...rows].map((order) => [order.id, order as Order]));
  const known = orders.map((order) => ({ ...order, handed: handed.get(order.id) ?? {} }));
  const coming = [
    ...tickets.flatMap((loaded) => ofTicket(loaded, orderOf.get(loaded.row.orderId)!, workshop)),
    ...known.filter(({ status }) => status === 'open').flatMap((order) => ofOrder(order, order.handed, workshop)),
  ];
  return {
    wanted: [...coming, ...(await forShelf(store, workshop, tickets, known))],
    ...{ molds: workshop.molds, pot, oven, ways: workshop.ways },
    ...{ pins: workshop.pins, pinsInWork: pinsInHeads(tickets, workshop), potLifeS: potLives(workshop) },
    ...{ hooksHere, leadHereKg: lead.quantity, leadId: lead.materialId, stock: workshop.stock },
  };
}
