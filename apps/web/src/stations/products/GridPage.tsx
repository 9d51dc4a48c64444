import type { ProductInput } from '@schmelz/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { gridColumns, gridRows, productAt, productFor } from './grid.ts';
import { HeadGrid } from './HeadGrid.tsx';

function Grid({ catalogue }: { catalogue: Catalogue }) {
  const units = useUnits();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const make = useWrite(async (inputs: readonly ProductInput[]) => {
    for (const body of inputs) await call('POST /products', { body });
  });
  const rows = gridRows(catalogue, units);
  const columns = gridColumns(catalogue);
  const placesOf = new Map(
    rows.flatMap((row) => columns.map((column) => [`${row.key} ${column.key}`, [row, column] as const])),
  );
  const toggle = (cell: string) => {
    const next = new Set(chosen);
    if (!next.delete(cell)) next.add(cell);
    setChosen(next);
  };
  const inputs = [...chosen].flatMap((cell) => {
    const place = placesOf.get(cell);
    return place && !productAt(...place, catalogue) ? [productFor(...place, catalogue)] : [];
  });
  return (
    <Page
      stub={
        <>
          <TheNumber value={inputs.length}>{inputs.length === 1 ? 'product to make' : 'products to make'}</TheNumber>
          <Button
            look="main"
            className="self-start"
            disabled={inputs.length === 0 || make.isPending}
            onClick={() =>
              make.mutate(inputs, {
                onSuccess: () => {
                  toast(`${inputs.length} can be ordered.`);
                  setChosen(new Set());
                },
              })
            }
          >
            Make them
          </Button>
          <ProblemNote error={make.error} />
          <p className="quiet">
            A tick is a product already. Tap what you want to make as well; price, route and other parts are said at
            each one under <Link to="/products">Products</Link>.
          </p>
        </>
      }
    >
      <Heading>Heads by paints</Heading>
      <HeadGrid
        {...{ rows, columns, catalogue }}
        label="Products by head and paint"
        cell={(row, column) => {
          const cell = `${row.key} ${column.key}`;
          const there = productAt(row, column, catalogue);
          const on = chosen.has(cell);
          return (
            <button
              type="button"
              aria-pressed={there ? undefined : on}
              disabled={!!there}
              aria-label={`${row.name}, ${column.name}${there ? ': a product already' : ''}`}
              onClick={() => toggle(cell)}
              className={`grid size-11 place-items-center border ${there ? 'border-transparent text-good' : on ? 'border-ink bg-ink text-on-ink' : 'border-rule hover:bg-well'}`}
            >
              {there ? <Icon name="good" /> : on ? <Icon name="plus" /> : null}
            </button>
          );
        }}
      />
    </Page>
  );
}

/** Many products at once: heads that the molds cast by the paints that are on record. */
export function ProductGridPage() {
  const catalogue = useCatalogue();
  return catalogue ? <Grid catalogue={catalogue} /> : <Waiting />;
}
