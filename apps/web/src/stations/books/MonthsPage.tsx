import { byYear, cashView, currencyDigits } from '@schmelz/core';
import type { MonthOfBooks } from '@schmelz/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { AsCsv, csvOf } from '../../shell/AsCsv.tsx';
import { writeLongMonth } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { BooksRooms } from './rooms.tsx';

/** Months as rows of a table, money in whole units. */
const rowsOf = (months: readonly MonthOfBooks[], digits: number) =>
  months.map(({ month, madeHeads, paperHeads, tickets, soldHeads, ownHeads, ...minor }) => ({
    ...{ month, tickets, madeHeads, paperHeads, soldHeads, ownHeads },
    ...Object.fromEntries(
      Object.entries(minor).map(([name, value]) => [
        name.replace(/Minor$/, ''),
        (value / 10 ** digits).toFixed(digits),
      ]),
    ),
  }));

export const monthsCsv = (months: readonly MonthOfBooks[], digits: number): string => csvOf(rowsOf(months, digits));

/** Money out and in, month by month: when the tools and all that was bought are paid by what was sold or kept. */
export function MonthsPage() {
  const units = useUnits();
  const [years, setYears] = useState(false);
  const { data, error } = useQuery({ queryKey: ['books', 'months'], queryFn: () => call('GET /books/months') });
  if (!data) return <Waiting error={error} />;
  const { months, reached } = cashView(
    data.map(({ month, toolsMinor, boughtMinor, soldMinor, ownMinor }) => {
      return { month, toolsMinor, boughtMinor, inMinor: soldMinor + ownMinor };
    }),
  );
  const stands = months.at(-1)?.standsMinor ?? 0;
  const most = Math.max(1, ...months.map(({ standsMinor }) => Math.abs(standsMinor)));
  const shown = years ? byYear(data) : data;
  const rows = [...shown].reverse();
  // What stands at the end of a year is what stands at the end of its last month.
  const standsAt = new Map(months.map(({ month, standsMinor }) => [years ? month.slice(0, 4) : month, standsMinor]));
  return (
    <Page
      stub={
        <>
          <TheNumber value={<span className="text-[0.58em]">{units.money(stands)}</span>}>
            {stands < 0 ? 'are still to come in' : 'more came in than went out'}
          </TheNumber>
          <p>
            {reached
              ? `All that was spent has been paid since ${writeLongMonth(`${reached}-15`)}: tools, and packs bought whole.`
              : 'What was spent on tools and packs is not paid yet.'}
          </p>
          <p className="quiet">
            What was given away or kept counts with the price that it has: it did not have to be bought. Your own hours
            are not in it.
          </p>
          <div className="flex flex-wrap gap-3">
            <AsCsv name={years ? 'years' : 'months'} rows={() => rowsOf(shown, currencyDigits(units.currency))} />
            <Button onClick={() => window.print()}>Print</Button>
          </div>
        </>
      }
    >
      <BooksRooms />
      <Heading
        aside={
          <Button look="quiet" onClick={() => setYears(!years)}>
            {years ? 'Month by month' : 'Year by year'}
          </Button>
        }
      >
        {years ? 'Year by year' : 'Month by month'}
      </Heading>
      <div
        className="relative overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label={years ? 'Money year by year' : 'Money month by month'}
      >
        <table className="sheet-table min-w-[620px]">
          <thead>
            <tr>
              <th>{years ? 'Year' : 'Month'}</th>
              <th className="num">Made</th>
              <th className="num">One cost</th>
              <th className="num">Sold</th>
              <th className="num">Came in</th>
              <th className="num">Bought, and tools</th>
              <th className="num">Stands</th>
              <th className="w-[18%]">
                <span className="sr-only">Drawn</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const standing = standsAt.get(row.month) ?? 0;
              const wide = `${(50 * Math.abs(standing)) / most}%`;
              return (
                <tr key={row.month}>
                  <td>{years ? row.month : writeLongMonth(`${row.month}-15`)}</td>
                  <td className="num">
                    {row.madeHeads || '–'}
                    {row.paperHeads > 0 && <span className="quiet block">{row.paperHeads} on paper</span>}
                  </td>
                  <td className="num">{row.madeHeads ? units.money(row.costMinor / row.madeHeads, 1) : '–'}</td>
                  <td className="num">
                    {row.soldHeads || '–'}
                    {row.ownHeads > 0 && <span className="quiet block">{row.ownHeads} given or kept</span>}
                  </td>
                  <td className="num">{units.money(row.soldMinor + row.ownMinor)}</td>
                  <td className="num">
                    {units.money(row.boughtMinor + row.toolsMinor)}
                    {row.toolsMinor > 0 && <span className="quiet block">{units.money(row.toolsMinor)} tools</span>}
                  </td>
                  <td className="num font-semibold">{units.money(standing)}</td>
                  <td>
                    <span className="relative block h-3 bg-well">
                      <span className="absolute inset-y-0 left-1/2 w-px bg-contour" />
                      <span
                        className={`absolute inset-y-0 ${standing < 0 ? 'hatch border border-contour' : 'bg-good'}`}
                        style={standing < 0 ? { right: '50%', width: wide } : { left: '50%', width: wide }}
                      />
                    </span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {rows.length === 0 && <p className="quiet">Nothing was bought, made or sold yet.</p>}
    </Page>
  );
}
