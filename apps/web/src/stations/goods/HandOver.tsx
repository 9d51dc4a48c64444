import type { Order } from '@schmelz/contract';
import { handedSays, forWhom } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { GoMoves } from './GoMoves.tsx';
import { MoveForm, type Goes } from './MoveForm.tsx';

/** How far an order is filled, and the way to fill it from what lies finished on the shelf. */
export function HandOver({ order, catalogue }: { order: Order; catalogue: Catalogue }) {
  const [open, setOpen] = useState(false);
  const { data: goods, error } = useQuery({
    queryKey: ['orders', order.id, 'goods'],
    queryFn: () => call('GET /orders/:id/goods', { params: { id: order.id } }),
  });
  if (error) return <ProblemNote error={error} />;
  if (!goods) return null;
  const { lines, moves } = goods;
  const touched = moves.length > 0 || lines.some(({ here }) => here > 0);
  if (!touched) return null;
  const goes = lines.map(({ productId, open: still, here, priceMinor }): Goes => {
    const name = catalogue.product(productId)?.name ?? '?';
    return { productId, grade: 'good', name, here, likely: Math.min(still, here), priceMinor };
  });
  const ready = goes.reduce((sum, { likely }) => sum + likely, 0);
  const says = { nothing: 'nothing handed over yet', part: 'handed over in part', all: 'all of it is handed over' };
  return (
    <section className="mb-7">
      <Heading aside={says[handedSays(lines)]}>With who ordered it</Heading>
      <ul className="mb-3">
        {lines.map(({ productId, quantity, handed, open: still, here }) => (
          <li
            key={productId}
            className="grid grid-cols-[minmax(0,1fr)_minmax(80px,0.8fr)_auto] items-center gap-4 border-b border-rule py-2"
          >
            <span className="min-w-0 truncate">{catalogue.product(productId)?.name ?? '?'}</span>
            <span className="relative h-2.5 bg-well">
              <span
                className="absolute inset-y-0 left-0 bg-good"
                style={{ width: `${Math.min(1, handed / quantity) * 100}%` }}
              />
              <span
                className="hatch absolute inset-y-0"
                style={{
                  left: `${Math.min(1, handed / quantity) * 100}%`,
                  width: `${(Math.min(still, here) / quantity) * 100}%`,
                }}
              />
            </span>
            <span className="text-right">
              <b className="fig text-[19px]">{handed}</b> of {quantity}
              {here > 0 && still > 0 && <span className="quiet">, {here} here</span>}
            </span>
          </li>
        ))}
      </ul>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Order ${order.number}, ${forWhom(order.customer)}`}
        says="The oldest ticket goes first, so that every bag can be traced."
        trigger={<Button disabled={ready === 0 && moves.length === 0}>Hand over, or take back</Button>}
      >
        {open && <MoveForm goes={goes} order={order} onDone={() => setOpen(false)} />}
      </Sheet>
      {moves.length > 0 && (
        <div className="mt-4">
          <GoMoves moves={moves} catalogue={catalogue} />
        </div>
      )}
    </section>
  );
}
