import { orderSchema, type OrderInput } from '@schmelz/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { useBuiltForm } from '../../design/useForm.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { gridColumns, gridRows, productAt, productFor } from '../products/grid.ts';
import { HeadGrid } from '../products/HeadGrid.tsx';

/** A quantity as it is typed; nothing is none, and what is no number is said by the order's own rules. */
const headsIn = (text: string): number => (text.trim() === '' ? 0 : Number(text));

function Grid({ catalogue }: { catalogue: Catalogue }) {
  const units = useUnits();
  const navigate = useNavigate();
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const rows = gridRows(catalogue, units);
  const columns = gridColumns(catalogue);
  const cells = rows.flatMap((row) =>
    columns.flatMap((column) => {
      const quantity = headsIn(texts[`${row.key} ${column.key}`] ?? '');
      return quantity === 0 ? [] : [{ row, column, quantity }];
    }),
  );
  const heads = cells.reduce((sum, { quantity }) => sum + (Number.isFinite(quantity) ? quantity : 0), 0);
  const fresh = cells.filter(({ row, column }) => !productAt(row, column, catalogue));
  // A head in a paint that it was never ordered in becomes a product first.
  const order = useWrite(async (input: OrderInput) => {
    const lines = [];
    for (const { row, column, quantity } of cells) {
      const there = productAt(row, column, catalogue);
      const product = there ?? (await call('POST /products', { body: productFor(row, column, catalogue) }));
      lines.push({ productId: product.id, quantity });
    }
    return call('POST /orders', { body: { ...input, lines } });
  });
  const form = useBuiltForm<{ customer: string; dueOn: string; note: string }, OrderInput>({
    defaults: { customer: '', dueOn: '', note: '' },
    schema: orderSchema,
    build: ({ customer, dueOn, note }) => ({
      ...{ customer, note, dueOn: dueOn || null },
      // Judged before anything is made: a cell without a product stands for itself.
      lines: cells.map(({ row, column, quantity }, at) => ({
        productId: productAt(row, column, catalogue)?.id ?? `00000000-0000-4000-8000-${String(at).padStart(12, '0')}`,
        quantity,
      })),
    }),
    send: (input) => order.mutate(input, { onSuccess: (saved) => void navigate(`/orders/${saved.id}`) }),
  });
  return (
    <Page
      stub={
        <>
          <TheNumber value={heads}>{heads === 1 ? 'head ordered' : 'heads ordered'}</TheNumber>
          {fresh.length > 0 && (
            <p className="text-ink-2">
              {fresh.length === 1
                ? 'One of them is no product yet; it becomes'
                : `${fresh.length} of them are no products yet; they become`}{' '}
              one with the order.
            </p>
          )}
          <Button
            look="main"
            type="submit"
            form="order-grid"
            className="self-start"
            disabled={order.isPending || cells.length === 0}
          >
            See the plan
          </Button>
          <ProblemNote error={form.problem ?? order.error} />
          <p className="quiet">
            Down the heads, across the paints. One line at a time is the{' '}
            <Link to="/orders/new" className="underline">
              usual form
            </Link>
            .
          </p>
        </>
      }
    >
      <form id="order-grid" onSubmit={form.onSubmit} className="flex flex-col gap-5" noValidate>
        <div className="grid max-w-[760px] gap-4 sm:grid-cols-3">
          <TextField label="For whom" hint="Empty: for the shelf" {...form.register('customer')} autoFocus />
          <TextField label="Due" type="date" {...form.register('dueOn')} />
          <TextField label="Note" {...form.register('note')} />
        </div>
        <div>
          <Heading>How many of each</Heading>
          <HeadGrid
            {...{ rows, columns, catalogue }}
            label="Heads ordered, by head and paint"
            cell={(row, column) => {
              const cell = `${row.key} ${column.key}`;
              const there = productAt(row, column, catalogue);
              return (
                <input
                  inputMode="numeric"
                  aria-label={`${row.name}, ${column.name}: heads`}
                  value={texts[cell] ?? ''}
                  placeholder={there ? '0' : ''}
                  onChange={(event) => setTexts({ ...texts, [cell]: event.target.value })}
                  className={`h-11 w-[72px] border px-2 text-right tabular-nums ${there ? 'border-rule-2 bg-sheet' : 'border-dotted border-rule-2 bg-transparent'}`}
                />
              );
            }}
          />
        </div>
      </form>
    </Page>
  );
}

/** An order of many heads in many paints, written as it is thought. */
export function OrderGridPage() {
  const catalogue = useCatalogue();
  return catalogue ? <Grid catalogue={catalogue} /> : <Waiting />;
}
