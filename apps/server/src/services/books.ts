import {
  COST_PARTS,
  castingProblem,
  leadBalance,
  metalFlow,
  productKg,
  rejectMinor,
  serving,
  workPerHead,
  takesOf,
  usualDisposition,
  type CostedTicket,
  type CostStack,
  type MetalOfPour,
  type PlanInput,
  type Sale,
} from '@schmelz/core';
import type {
  CostOfProduct,
  MakeableView,
  MetalEver,
  MonthOfBooks,
  QualityView,
  TicketOnList,
} from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { notFound } from './errors.ts';
import { STANDING_PAPER } from './paper.ts';
import { EVER, thrownByTicket, ticketsOnList, type Period } from './ticket-figures.ts';
import { listResources } from './resources.ts';
import { castingLead, firstTools, readWorkshop } from './workshop.ts';

/** Metal of each pour that was closed, oldest first: what was charged and where it went. */
export async function metalOfPours(store: Store, period: Period | null): Promise<MetalOfPour[]> {
  const { from, to } = period ?? EVER;
  const rows = await store.select<{
    number: number;
    closedAt: number;
    chargedKg: number;
    sprueBackKg: number;
    rejectsBackKg: number;
    drossKg: number;
    heelKg: number;
    unexplainedKg: number;
  }>(
    `SELECT p.number, p.closedAt, p.chargedKg,
            json_extract(e.body, '$.sprueBackKg') AS sprueBackKg, json_extract(e.body, '$.rejectsBackKg') AS rejectsBackKg,
            json_extract(e.body, '$.drossKg') AS drossKg, json_extract(e.body, '$.heelKg') AS heelKg,
            (SELECT SUM(t.unexplainedKg) FROM pourTickets t WHERE t.pourId = p.id) AS unexplainedKg
     FROM pours p JOIN entries e ON e.logKind = 'pour' AND e.logId = p.id AND e.kind = 'close' AND e.at = p.closedAt
     WHERE p.closedAt >= :from AND p.closedAt < :to GROUP BY p.id HAVING e.seq = MAX(e.seq) ORDER BY p.closedAt`,
    { from, to },
  );
  return rows.map(({ number, closedAt, unexplainedKg, ...kg }) => {
    const { chargedKg, sprueBackKg, rejectsBackKg, drossKg, heelKg } = kg;
    // What its tickets were charged with is what was in its heads.
    const headsKg = Math.max(0, chargedKg - sprueBackKg - rejectsBackKg - drossKg - heelKg - (unexplainedKg ?? 0));
    return { number, closedAt, ...leadBalance({ ...kg, headsKg }) };
  });
}

/** Metal of all closed pours together. */
export async function metalEver(store: Store): Promise<MetalEver> {
  const pours = await metalOfPours(store, null);
  return { since: pours[0]?.closedAt ?? null, pours: pours.length, metal: metalFlow(pours) };
}

const MONTH = (column: string) => `strftime('%Y-%m', ${column} / 1000, 'unixepoch', 'localtime')`;

/** Money and heads month by month, oldest first; months without any are left out. */
export async function monthsOfBooks(store: Store): Promise<MonthOfBooks[]> {
  const months = new Map<string, MonthOfBooks>();
  const at = (month: string): MonthOfBooks => {
    const known = months.get(month);
    if (known) return known;
    const fresh = { month, toolsMinor: 0, boughtMinor: 0, soldMinor: 0, soldHeads: 0, ownHeads: 0, ownMinor: 0 };
    const made = { ...fresh, madeHeads: 0, tickets: 0, paperHeads: 0, costMinor: 0 };
    months.set(month, made);
    return made;
  };
  for (const { priceMinor, boughtOn } of await rowsOf(store.models.tools)) {
    at(boughtOn.slice(0, 7)).toolsMinor += priceMinor;
  }
  const bought = await store.select<{ month: string; minor: number }>(
    `SELECT ${MONTH('m.at')} AS month, SUM(CASE WHEN b.id IS NULL THEN m.valueMinor ELSE -b.valueMinor END) AS minor
     FROM stockMoves m LEFT JOIN stockMoves b ON b.id = m.strikes
     WHERE m.reason = 'received' OR b.reason = 'received' GROUP BY month`,
  );
  for (const { month, minor } of bought) at(month).boughtMinor += minor;
  // What is given away or kept did not have to be bought: it is worth what it is sold at otherwise.
  const gone = await store.select<{ month: string; reason: string; heads: number; minor: number; worth: number }>(
    `SELECT ${MONTH('g.at')} AS month, g.reason, -SUM(g.pieces) AS heads, SUM(COALESCE(g.priceMinor, 0)) AS minor,
            -SUM(g.pieces * COALESCE(p.priceMinor, 0)) AS worth
     FROM goodsMoves g JOIN products p ON p.id = g.productId
     WHERE NOT g.struck AND g.reason IN ('sold', 'given', 'returned') GROUP BY month, g.reason`,
  );
  for (const { month, reason, heads, minor, worth } of gone) {
    const own = at(month);
    if (reason === 'given') {
      own.ownHeads += heads;
      own.ownMinor += worth;
    } else {
      own.soldHeads += heads;
      own.soldMinor += minor;
    }
  }
  const onPaper = await store.select<{ month: string; good: number }>(
    `SELECT ${MONTH('at')} AS month, SUM(good) AS good FROM ${STANDING_PAPER} GROUP BY month`,
  );
  for (const { month, good } of onPaper) at(month).paperHeads += good;
  for (const { closedAt, good, totalMinor } of await ticketsOnList(store)) {
    if (closedAt === null) continue;
    const own = at(monthOf(closedAt));
    own.madeHeads += good;
    own.tickets += 1;
    own.costMinor += totalMinor;
  }
  return [...months.values()].sort((a, b) => a.month.localeCompare(b.month));
}

/** What was sold, came back and was given, by product and customer. */
export async function salesOf(store: Store, { from, to }: Period): Promise<Sale[]> {
  const [rows, tickets] = await Promise.all([
    store.select<Omit<Sale, 'workMinor'> & { ticketId: string | null; pieces: number }>(
      `SELECT productId, party, ticketId, -SUM(pieces) AS pieces,
              SUM(CASE WHEN reason = 'given' THEN 0 ELSE -pieces END) AS heads,
              SUM(CASE WHEN reason = 'given' THEN 0 ELSE COALESCE(priceMinor, 0) END) AS minor,
              -SUM(valueMinor) AS costMinor,
              SUM(CASE WHEN reason = 'given' THEN -pieces ELSE 0 END) AS givenHeads
       FROM goodsMoves WHERE NOT struck AND reason IN ('sold', 'given', 'returned') AND at >= :from AND at < :to
       GROUP BY productId, party, ticketId ORDER BY productId, party`,
      { from, to },
    ),
    ticketsOnList(store),
  ]);
  const ticketOf = new Map(tickets.map((ticket) => [ticket.id, ticket]));
  const sales = new Map<string, Sale>();
  for (const { productId, party, ticketId, pieces, heads, minor, costMinor, givenHeads } of rows) {
    const key = JSON.stringify([productId, party]);
    const own = sales.get(key) ?? { productId, party, heads: 0, minor: 0, costMinor: 0, workMinor: 0, givenHeads: 0 };
    // Of heads that no ticket made nobody knows how long they took.
    const ticket = ticketOf.get(ticketId ?? '');
    const stack = ticket?.perHead;
    own.heads += heads;
    own.minor += minor;
    own.costMinor += costMinor;
    own.givenHeads += givenHeads;
    own.workMinor += stack ? workPerHead(stack) * pieces : 0;
    if (ticket?.notTimed) own.notTimedHeads = (own.notTimedHeads ?? 0) + pieces;
    sales.set(key, own);
  }
  return [...sales.values()].map((sale) => ({ ...sale, workMinor: Math.round(sale.workMinor) }));
}

function monthOf(ms: number): string {
  const day = new Date(ms);
  return `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, '0')}`;
}

/** Heads of closed tickets that some tools have served, by product and month, with what they cost without wear. */
function servedBy(
  tools: readonly { productIds: readonly string[] }[],
  tickets: readonly TicketOnList[],
): CostOfProduct['served'] {
  if (tools.length === 0) return [];
  const months = new Map<string, CostOfProduct['served'][number]>();
  for (const { productId, closedAt, good, totalMinor, perHead } of tickets) {
    if (closedAt === null || good === 0 || serving(productId, tools).length === 0) continue;
    const month = monthOf(closedAt);
    const key = `${month} ${productId}`;
    const own = months.get(key) ?? { month, productId, heads: 0, costMinor: 0 };
    own.heads += good;
    own.costMinor += totalMinor - (perHead?.wear ?? 0) * good;
    months.set(key, own);
  }
  return [...months.values()].sort((one, other) => one.month.localeCompare(other.month));
}

/** What one head of a product costs by plan, with all that the plan goes by; and what its tickets came to. */
export async function costOfProduct(store: Store, id: string, heads: number): Promise<CostOfProduct> {
  const workshop = await readWorkshop(store);
  const product = workshop.products.get(id);
  if (!product) throw notFound('product', id);
  const { pot, oven } = firstTools(workshop);
  const { molds, ways, stock, afterPour, pins } = workshop;
  const lead = castingLead(workshop);
  const lines = [{ product, quantity: heads }];
  const used = new Set([
    ...(product.parts ?? []).map(({ partId }) => partId),
    product.hook?.materialId,
    product.from?.materialId,
    lead.materialId,
  ]);
  for (const { powder, mix } of product.layers) [powder, mix?.powder].forEach((each) => used.add(each?.materialId));
  const input: PlanInput = {
    ...{ lines, pot, oven, ways, lead, afterPour, pins, tools: await listResources(store, 'tools') },
    // Molds that cast nothing of it, and stock that it takes nothing of, say nothing of its cost.
    molds: molds.filter(({ cavities }) => cavities.some(({ style }) => style === product.style)),
    stock: stock.filter(({ materialId }) => used.has(materialId)),
  };
  const all = await ticketsOnList(store);
  const closed = all.filter((ticket) => ticket.productId === id && ticket.closedAt !== null && ticket.perHead);
  const good = closed.reduce((sum, ticket) => sum + ticket.good, 0);
  const part = (name: keyof CostStack) =>
    closed.reduce((sum, ticket) => sum + (ticket.perHead![name] ?? 0) * ticket.good, 0) / good;
  const actual = good > 0 ? (Object.fromEntries(COST_PARTS.map((name) => [name, part(name)])) as CostStack) : null;
  return { input, actual, heads: good, tickets: closed.length, served: servedBy(serving(id, input.tools), all) };
}

/** What a head of each product takes off the shelves, of those that can be made at all, and what is there. */
export async function makeables(store: Store): Promise<MakeableView[]> {
  const workshop = await readWorkshop(store);
  const { materialId: leadId } = castingLead(workshop);
  return [...workshop.products.values()].flatMap((product): MakeableView[] => {
    const record = workshop.records.get(product.id)!;
    if (record.archived) return [];
    if (product.source !== 'shelf' && castingProblem(product, workshop.molds) !== null) return [];
    const takes = takesOf(product, workshop.ways, { leadId, leadKg: productKg(product, workshop.molds) });
    // Heads that come off a shelf of parts take one of those.
    if (record.fromId) takes[record.fromId] = 1;
    return [{ id: product.id, takes }];
  });
}

/** Tickets as what is thrown back of them is reckoned: their plans of the day of release. */
async function costedTickets(store: Store, ids: readonly string[]): Promise<Map<string, CostedTicket>> {
  const rows = await rowsOf(store.models.tickets, {
    where: { id: [...ids] },
    attributes: ['id', 'quantity', 'route', 'planned'],
  });
  return new Map(
    rows.map(({ id, quantity, route, planned }) => {
      const { stack, bill, workS, handsS = {}, labourMinorPerHour } = planned;
      return [id, { stack, bill, route, workS: workS / quantity, handsS, labourMinorPerHour }];
    }),
  );
}

/** What came out bad: by cavity, pour by pour, and by station and cause. */
export async function quality(store: Store, period: Period | null): Promise<QualityView> {
  const { from, to } = period ?? EVER;
  const values = { from, to };
  const cavities = await store.select<{
    cavityId: string;
    moldId: string;
    position: number;
    casts: number;
    good: number;
  }>(
    `SELECT c.id AS cavityId, c.moldId, c.position, SUM(pc.casts) AS casts, SUM(pc.good) AS good
     FROM pourCavities pc JOIN pours p ON p.id = pc.pourId JOIN cavities c ON c.id = pc.cavityId
     WHERE p.closedAt >= :from AND p.closedAt < :to GROUP BY c.id HAVING SUM(pc.casts) > 0 ORDER BY c.moldId, c.position`,
    values,
  );
  const pours = await store.select<QualityView['pours'][number]>(
    `WITH own AS (
       SELECT pc.cavityId, 1.0 - 1.0 * SUM(pc.good) / SUM(pc.casts) AS badShare
       FROM pourCavities pc JOIN pours p ON p.id = pc.pourId
       WHERE p.closedAt >= :from AND p.closedAt < :to GROUP BY pc.cavityId HAVING SUM(pc.casts) > 0
     )
     SELECT p.number, p.closedAt AS at, c.moldId, SUM(pc.casts) AS casts, SUM(pc.casts) - SUM(pc.good) AS bad,
            SUM(pc.casts * own.badShare) AS expected
     FROM pourCavities pc JOIN pours p ON p.id = pc.pourId JOIN cavities c ON c.id = pc.cavityId
     JOIN own ON own.cavityId = pc.cavityId
     WHERE p.closedAt >= :from AND p.closedAt < :to GROUP BY p.id, c.moldId HAVING SUM(pc.casts) > 0 ORDER BY p.number`,
    values,
  );
  const byCavity = await store.select<{ cavityId: string; cause: string; count: number }>(
    `SELECT pc.cavityId, r.key AS cause, SUM(r.value) AS count
     FROM pourCavities pc JOIN pours p ON p.id = pc.pourId, json_each(pc.rejects) r
     WHERE p.closedAt >= :from AND p.closedAt < :to GROUP BY pc.cavityId, r.key`,
    values,
  );
  const stations = new Map<string, QualityView['stations'][number]>();
  const thrownBack = await thrownByTicket(store, period ?? EVER);
  const costed = await costedTickets(
    store,
    thrownBack.filter(({ thrown }) => thrown.length > 0).map(({ ticketId }) => ticketId),
  );
  for (const { ticketId, thrown, came } of thrownBack) {
    for (const [station, heads] of Object.entries(came)) {
      const own = stations.get(station) ?? { station, came: 0, causes: {}, costMinor: {} };
      own.came += heads;
      stations.set(station, own);
    }
    for (const { station, cause, heads, goes = usualDisposition(station, cause) } of thrown) {
      const own = stations.get(station);
      if (!own) continue;
      own.causes[cause] = (own.causes[cause] ?? 0) + heads;
      const minor = heads * rejectMinor(costed.get(ticketId)!, station, goes);
      own.costMinor[cause] = (own.costMinor[cause] ?? 0) + minor;
    }
  }
  return {
    cavities: cavities.map((cavity) => ({
      ...cavity,
      causes: Object.fromEntries(
        byCavity.filter(({ cavityId }) => cavityId === cavity.cavityId).map(({ cause, count }) => [cause, count]),
      ),
    })),
    pours,
    stations: [...stations.values()],
  };
}
