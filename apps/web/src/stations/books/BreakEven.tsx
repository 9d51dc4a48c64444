import type { CostOfProduct, Product, Tool } from '@schmelz/contract';
import { breakEvenHeads, currencyDigits, paidIn, savedMinor, servedMonths, serving, wearMinor } from '@schmelz/core';
import { useState } from 'react';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { Heading } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { PutAway } from '../../shell/PutAway.tsx';
import { today, writeLongMonth } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { ToolForm } from './ToolForm.tsx';

/** When the tools are paid: by what each head saves or leaves, against what it would cost to buy. */
export function BreakEven({
  product,
  products,
  tools,
  costMinor,
  served,
}: {
  product: Product;
  products: readonly Product[];
  tools: readonly Tool[];
  /** Of a head, without the wear of its tools. */
  costMinor: number;
  /** Heads that its tools have served, by product and month. */
  served: CostOfProduct['served'];
}) {
  const units = useUnits();
  const digits = 10 ** currencyDigits(units.currency);
  const [shop, setShop] = useState(String((product.priceMinor ?? 0) / digits || ''));
  const [open, setOpen] = useState<Tool | 'new' | null>(null);
  const own = serving(product.id, tools);
  const toolsMinor = own.reduce((sum, { priceMinor }) => sum + priceMinor, 0);
  const wear = wearMinor(own);
  const shopMinor = Number(shop.replace(',', '.')) * digits;
  const saved = savedMinor({ shopMinor, costMinor, tools: own });
  const priceOf = (id: string) =>
    id === product.id ? shopMinor : (products.find((each) => each.id === id)?.priceMinor ?? 0);
  const paid = Number.isFinite(shopMinor)
    ? paidIn({ toolsMinor, months: servedMonths(served, priceOf), now: today().slice(0, 7) })
    : null;
  const also = new Set(served.map(({ productId }) => productId).filter((id) => id !== product.id)).size;
  const heads = Number.isFinite(saved) ? breakEvenHeads({ toolsMinor, savedMinor: saved }) : null;
  return (
    <section>
      <Heading>Make it, or buy it</Heading>
      <div className="flex items-end gap-4">
        <div className="w-40">
          <TextField
            label="In a shop it costs"
            unit={units.currency}
            inputMode="decimal"
            value={shop}
            onChange={(event) => setShop(event.target.value)}
          />
        </div>
        <p className="pb-2">
          {heads === null ? (
            'Making it saves nothing: the tools are never paid.'
          ) : (
            <>
              <b className="fig text-[26px]">{heads}</b> heads, and the tools are paid; each saves{' '}
              {units.money(saved, 1)}.
            </>
          )}
        </p>
      </div>
      <p className="mt-2">
        {paid === null
          ? 'By what was really made they are not paid, and will not be as it goes.'
          : paid.paid
            ? `By what was really made they have been paid since ${writeLongMonth(`${paid.month}-15`)}.`
            : `By what was made in the last twelve months they will be paid in ${writeLongMonth(`${paid.month}-15`)}.`}
        {also > 0 && (
          <span className="quiet">
            {' '}
            {also === 1
              ? 'Another product that they serve counts'
              : `${also} other products that they serve count`}{' '}
            with what they are sold at.
          </span>
        )}
      </p>
      <p className="quiet mt-1">
        Tools for {units.money(toolsMinor)} over what a head saves, not over its price. Their wear,{' '}
        {units.money(wear, 2)} a head, is counted; the first stock is in the cost of a head, and not counted again.
      </p>
      <ul className="mt-3">
        {own.map((tool) => (
          <li key={tool.id} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
            <button
              type="button"
              className="underline decoration-rule-2 underline-offset-4"
              onClick={() => setOpen(tool)}
            >
              {tool.name}
            </button>
            <span className="quiet">
              {tool.lifeHeads === null ? 'lasts' : `${tool.lifeHeads} heads`}, {units.money(tool.priceMinor)}
            </span>
          </li>
        ))}
      </ul>
      <Button className="mt-3" onClick={() => setOpen('new')}>
        Another tool
      </Button>
      <Sheet
        open={open !== null}
        onOpenChange={(on) => !on && setOpen(null)}
        title={open === 'new' || open === null ? 'Another tool' : open.name}
      >
        {open !== null && (
          <>
            <ToolForm tool={open === 'new' ? undefined : open} products={products} onSaved={() => setOpen(null)} />
            {open !== 'new' && (
              <div className="mt-6">
                <PutAway path="tools" thing={open} onGone={() => setOpen(null)} />
              </div>
            )}
          </>
        )}
      </Sheet>
    </section>
  );
}
