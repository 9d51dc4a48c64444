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
  return sales.map(({ productId, party, heads, minor, costMinor, workMinor, givenHeads, notTimedHeads = 0 }) => ({
    ...{ product: nameOf(productId), customer: party, sold: heads, given: givenHeads },
    ...{ cameIn: money(minor), parts: money(costMinor) },
    ...{ work: money(workMinor), left: money(minor - costMinor - workMinor) },
    headsNotTimed: notTimedHeads,
  }));
};
export const salesCsv = (...of: Parameters<typeof rowsOf>): string => csvOf(rowsOf(...of));

/** The mark of what stands in a bar, at its heading. */
const Key = ({ className }: { className: string }) => (
  <span aria-hidden="true" className={`mr-1 inline-block h-2.5 w-2.5 ${className}`} />
);

/** One way to put the sales together, what brought most first, drawn beside. */
function Table({ kind, rows, nameOf }: { kind: string; rows: readonly SalesOf[]; nameOf: (key: string) => string }) {
  const units = useUnits();
  const says = `By ${kind.toLowerCase()}`;
  // Of heads that were given or went too cheap the parts may be longer than what came in.
  const most = Math.max(1, ...rows.map(({ minor, costMinor, workMinor }) => Math.max(minor, costMinor + workMinor)));
  const part = (minor: number) => `${(100 * Math.max(0, minor)) / most}%`;
  return (
    <section>
      <Heading>{says}</Heading>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={says}>
        <table className="sheet-table min-w-[680px]">
          <thead>
            <tr>
              <th>{kind}</th>
              <th className="num">Heads</th>
              <th className="num">Came in</th>
              <th className="num">
                <Key className="bg-lead" /> Parts
              </th>
              <th className="num">
                <Key className="hatch border border-rule-2" /> Work
              </th>
              <th className="num">
                <Key className="bg-good" /> Left
              </th>
              <th className="w-[16%]">
                <span className="sr-only">Drawn</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(
              ({ key, heads, minor, costMinor, workMinor, givenHeads, notTimedHeads, leftMinor, leftShare }) => (
                <tr key={key}>
                  <td>{nameOf(key)}</td>
                  <td className="num">
                    {heads || '–'}
                    {givenHeads > 0 && <span className="quiet block">{givenHeads} given or kept</span>}
                  </td>
                  <td className="num">{units.money(minor)}</td>
                  <td className="num">{units.money(costMinor)}</td>
                  <td className="num">
                    {units.money(workMinor)}
                    {notTimedHeads > 0 && <span className="quiet block">{notTimedHeads} not timed: by your ways</span>}
                  </td>
                  <td className="num font-semibold">
                    {units.money(leftMinor)}
                    {leftShare !== null && <span className="quiet block">{Math.round(100 * leftShare)} %</span>}
                  </td>
                  <td>
                    <span className="flex h-3 bg-well" aria-hidden="true">
                      <span className="bg-lead" style={{ width: part(costMinor) }} />
                      <span className="hatch" style={{ width: part(workMinor) }} />
                      <span className="bg-good" style={{ width: part(leftMinor) }} />
                    </span>
                  </td>
                </tr>
              ),
            )}
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
            Parts are what went off the shelves for them; work is hours at your rate, heat and wear of tools, as their
            tickets came to. What was given took the same, and brings nothing.
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
