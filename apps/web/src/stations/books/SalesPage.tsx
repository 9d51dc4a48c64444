import { currencyDigits, salesBy, sumMinor, type Sale, type SalesOf } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/client.ts';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { AsCsv, csvOf } from '../../shell/AsCsv.tsx';
import { useUnits } from '../../units/Units.tsx';
import { BooksRooms } from './rooms.tsx';

const NOBODY = 'nobody named';

/** Sales line by line as rows of a table. */
const rowsOf = (sales: readonly Sale[], nameOf: (productId: string) => string, digits: number) => {
  const money = (minor: number) => (minor / 10 ** digits).toFixed(digits);
  return sales.map(({ productId, party, heads, minor, costMinor, givenHeads }) => ({
    ...{ product: nameOf(productId), customer: party, sold: heads, given: givenHeads },
    ...{ cameIn: money(minor), took: money(costMinor), left: money(minor - costMinor) },
  }));
};
export const salesCsv = (...of: Parameters<typeof rowsOf>): string => csvOf(rowsOf(...of));

/** One way to put the sales together, what brought most first, drawn beside. */
function Table({ kind, rows, nameOf }: { kind: string; rows: readonly SalesOf[]; nameOf: (key: string) => string }) {
  const units = useUnits();
  const says = `By ${kind.toLowerCase()}`;
  const most = Math.max(1, ...rows.map(({ minor }) => minor));
  return (
    <section>
      <Heading>{says}</Heading>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={says}>
        <table className="sheet-table min-w-[620px]">
          <thead>
            <tr>
              <th>{kind}</th>
              <th className="num">Heads</th>
              <th className="num">Came in</th>
              <th className="num">They took</th>
              <th className="num">Left</th>
              <th className="w-[20%]">
                <span className="sr-only">Drawn</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, heads, minor, costMinor, givenHeads, leftMinor, leftShare }) => (
              <tr key={key}>
                <td>{nameOf(key)}</td>
                <td className="num">
                  {heads || '–'}
                  {givenHeads > 0 && <span className="quiet block">{givenHeads} given or kept</span>}
                </td>
                <td className="num">{units.money(minor)}</td>
                <td className="num">{units.money(costMinor)}</td>
                <td className="num font-semibold">
                  {units.money(leftMinor)}
                  {leftShare !== null && <span className="quiet block">{Math.round(100 * leftShare)} %</span>}
                </td>
                <td>
                  <span className="block h-3 bg-well">
                    <span className="block h-full bg-good" style={{ width: `${(100 * Math.max(0, minor)) / most}%` }} />
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** What was sold, of which product and to whom, and what of it was left over what it took. */
export function SalesPage() {
  const units = useUnits();
  const { from, to, says } = usePeriod();
  const { data: products } = useList('products');
  const { data: sales, error } = useQuery({
    queryKey: ['books', 'sales', from, to],
    queryFn: () => call('GET /books/sales', { query: { from, to } }),
  });
  if (!sales || !products) return <Waiting error={error} />;
  const productOf = (id: string) => products.find((each) => each.id === id)?.name ?? 'a product that is gone';
  const customerOf = (party: string) => party || NOBODY;
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={<span className="text-[0.58em]">{units.money(sumMinor(sales.map(({ minor }) => minor)))}</span>}
          >
            came in for finished heads {says}
          </TheNumber>
          <p className="quiet">
            What they took is what went off the shelves for them; your own hours are not in it. What was given took the
            same, and brings nothing.
          </p>
          <Years />
          <div className="flex flex-wrap gap-3">
            <AsCsv name="sales" rows={() => rowsOf(sales, productOf, currencyDigits(units.currency))} />
            <Button onClick={() => window.print()}>Print</Button>
          </div>
        </>
      }
    >
      <BooksRooms />
      {sales.length === 0 ? (
        <p className="quiet">Nothing was sold or given {says}.</p>
      ) : (
        <div className="flex flex-col gap-8">
          <Table kind="Product" rows={salesBy(sales, ({ productId }) => productId)} nameOf={productOf} />
          <Table kind="Customer" rows={salesBy(sales, ({ party }) => party)} nameOf={customerOf} />
        </div>
      )}
    </Page>
  );
}
