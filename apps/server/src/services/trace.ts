import type { LotTicket, TicketTrace, TracedTicket } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { notFound } from './errors.ts';
import { wentTo } from './goods.ts';
import { struck } from './part-lots.ts';

type Row = Omit<TracedTicket, 'went' | 'onShelf'>;

const TICKET = `t.id, t.number, t.productId, t.quantity, t.good, t.closedAt, o.customer, o.number AS orderNumber`;

/** Everything that a ticket was made of and went through: lots of each part, pours, loads of the oven. */
export async function traceTicket(store: Store, number: number): Promise<TicketTrace> {
  const [ticket] = await store.select<Row>(
    `SELECT ${TICKET} FROM tickets t JOIN orders o ON o.id = t.orderId WHERE t.number = :number`,
    { number },
  );
  if (!ticket) throw notFound('ticket', String(number));
  const [[kept], lots, pours, runs] = await Promise.all([
    rowsOf(store.models.tickets, { where: { id: ticket.id }, attributes: ['product'] }),
    store.select<TicketTrace['lots'][number]>(
      `SELECT r.id AS lotId, m.materialId, a.name, a.kind, r.lot, r.at, SUM(u.quantity) AS quantity
       FROM lotUses u JOIN stockMoves m ON m.id = u.moveId JOIN stockMoves r ON r.id = u.receiptId
       JOIN materials a ON a.id = m.materialId
       WHERE m.ticketId = :id GROUP BY r.id HAVING ABS(SUM(u.quantity)) > 1e-9 ORDER BY a.kind, a.name, r.at`,
      { id: ticket.id },
    ),
    store.select<TicketTrace['pours'][number]>(
      `SELECT p.id, p.number, p.startedAt AS at FROM pourTickets pt JOIN pours p ON p.id = pt.pourId
       WHERE pt.ticketId = :id ORDER BY p.number`,
      { id: ticket.id },
    ),
    store.select<TicketTrace['runs'][number]>(
      `SELECT r.id, r.kind, r.number, r.startedAt AS at FROM runTickets rt JOIN runs r ON r.id = rt.runId
       WHERE rt.ticketId = :id ORDER BY r.startedAt`,
      { id: ticket.id },
    ),
  ]);
  const went = (await wentTo(store, [ticket.id])).get(ticket.id)!;
  return { ...ticket, product: kept!.product, ...went, lots, pours, runs };
}

/** Tickets that took from a lot, with who ordered them. */
export async function ticketsOfLot(store: Store, lotId: number): Promise<LotTicket[]> {
  const [lot] = await store.select<{ id: number }>(
    `SELECT id FROM stockMoves WHERE id = :lotId AND reason IN ('received', 'made') AND NOT ${struck('stockMoves')}`,
    { lotId },
  );
  if (!lot) throw notFound('lot', String(lotId));
  const rows = await store.select<Row & { used: number }>(
    `SELECT ${TICKET}, SUM(u.quantity) AS used
     FROM lotUses u JOIN stockMoves m ON m.id = u.moveId JOIN tickets t ON t.id = m.ticketId
     JOIN orders o ON o.id = t.orderId
     WHERE u.receiptId = :lotId GROUP BY t.id HAVING ABS(SUM(u.quantity)) > 1e-9 ORDER BY t.number DESC`,
    { lotId },
  );
  const went = await wentTo(
    store,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => ({ ...row, ...went.get(row.id)! }));
}
