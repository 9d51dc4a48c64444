import { filled, handedSays, forWhom } from '@schmelz/core';
import type { OrderOnList } from '@schmelz/contract';
import { Link } from 'react-router';
import { useOrders } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Part } from '../../design/Part.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';

const WORDS = { open: 'not released', released: 'on the line', done: 'done' } as const;

/** Where an order stands, in two or three words: what is missing first, then what is not handed over. */
function standing(order: OrderOnList): { says: string; wants: boolean } {
  if (order.missing > 0) return { says: `${order.missing} missing`, wants: true };
  const lines = filled(order.lines, order.handed);
  const handed = handedSays(lines);
  const sum = (of: (line: (typeof lines)[number]) => number) => lines.reduce((all, line) => all + of(line), 0);
  const part = `${sum((line) => line.quantity - line.open)} of ${sum((line) => line.quantity)} with them`;
  const done = order.status === 'done';
  if (handed === 'all') return { says: 'handed over', wants: false };
  if (done) return { says: handed === 'part' ? part : 'to hand over', wants: true };
  return { says: handed === 'part' ? part : WORDS[order.status], wants: order.status === 'open' };
}

export function OrdersPage() {
  const { data: orders, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useOrders();
  const catalogue = useCatalogue();
  if (!orders || !catalogue) return <Waiting error={error} />;
  const open = orders.filter((order) => order.status !== 'done');
  return (
    <Page
      stub={
        <>
          <TheNumber value={open.length}>{open.length === 1 ? 'order to make' : 'orders to make'}</TheNumber>
          <div className="flex flex-wrap items-center gap-5">
            <Button look="main" asChild>
              <Link to="/orders/new">New order</Link>
            </Button>
            <Button look="quiet" asChild>
              <Link to="/products">Products</Link>
            </Button>
          </div>
          <p className="quiet">
            An order is products times quantities. Look at its plan, release it, and each line becomes a ticket on the
            line.
          </p>
        </>
      }
    >
      <Heading>Orders</Heading>
      <ul>
        {orders.map((order) => (
          <Part key={order.id} of={`Order ${order.number}`}>
            {() => (
              <li className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-4 border-b border-rule py-1.5">
                <span className="fig w-10 text-[21px]">{order.number}</span>
                <Link to={`/orders/${order.id}`} className="min-w-0">
                  <span className="block truncate font-medium">{forWhom(order.customer)}</span>
                  <span className="quiet block truncate">
                    {order.lines
                      .map((line) => `${line.quantity} × ${catalogue.product(line.productId)?.name ?? '?'}`)
                      .join('; ')}
                  </span>
                </Link>
                <span className="flex items-center gap-3">
                  <span className="hidden gap-1 sm:flex">
                    {order.lines.map((line) => {
                      const product = catalogue.product(line.productId);
                      return (
                        product && (
                          <Head
                            key={line.productId}
                            {...catalogue.spec(product)}
                            paint={catalogue.paint(product)}
                            state="baked"
                            scale={1.2}
                          />
                        )
                      );
                    })}
                  </span>
                  <span
                    className={`w-[104px] text-right text-sm ${standing(order).wants ? 'font-semibold text-watch' : 'text-ink-3'}`}
                  >
                    {standing(order).says}
                  </span>
                </span>
              </li>
            )}
          </Part>
        ))}
      </ul>
      {hasNextPage && (
        <Button look="quiet" className="mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Older orders
        </Button>
      )}
      {orders.length === 0 && <p className="quiet">No order yet.</p>}
    </Page>
  );
}
