import { forWhom } from '@schmelz/core';
import type { TracedTicket } from '@schmelz/contract';
import { writeDay } from '../../units/dates.ts';
import { REASON_SAYS } from '../goods/words.ts';

/** Who has heads of a ticket, in a line each; what lies on the shelf last. */
export function Holders({
  ticket,
}: {
  ticket: Pick<TracedTicket, 'went' | 'onShelf' | 'customer' | 'orderNumber' | 'good'>;
}) {
  const { went, onShelf, customer, orderNumber, good } = ticket;
  if (went.length === 0 && onShelf === 0) {
    return (
      <span className="quiet">
        {good ? 'nobody any more' : 'still on the line'}: for {forWhom(customer)}, order {orderNumber}
      </span>
    );
  }
  return (
    <>
      {went.map(({ reason, party, orderNumber: order, at, pieces }) => (
        <span key={`${reason} ${party} ${order}`} className="block">
          <b className="fig">{Math.abs(pieces)}</b> {REASON_SAYS[reason]}
          {party && ` ${reason === 'returned' ? 'from' : 'to'} ${party}`}
          <span className="quiet">
            {order !== null && `, order ${order}`}, {writeDay(at)}
          </span>
        </span>
      ))}
      {onShelf > 0 && (
        <span className="block">
          <b className="fig">{onShelf}</b> on the shelf
        </span>
      )}
    </>
  );
}
