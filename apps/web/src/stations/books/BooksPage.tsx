import { COST_PARTS, currencyDigits, stackTotal } from '@schmelz/core';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { useSettings, useTickets } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { AsCsv } from '../../shell/AsCsv.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { isoDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { CostBar } from '../../drawing/CostStack.tsx';
import { BooksRooms } from './rooms.tsx';

const CostChart = lazy(() => import('./CostChart.tsx').then((module) => ({ default: module.CostChart })));

/** Tickets that are listed at first. */
const FIRST = 25;

/** Closed tickets with what a head cost, and everything as files. */
export function BooksPage() {
  const period = usePeriod();
  const [all, setAll] = useState(false);
  const { data: tickets, error } = useTickets(period);
  const { data: settings } = useSettings();
  const catalogue = useCatalogue();
  const units = useUnits();
  if (!tickets || !catalogue) return <Waiting error={error} />;
  const closed = tickets.flatMap((ticket) => {
    const { perHead, closedAt } = ticket;
    return closedAt !== null && perHead ? [{ ticket, perHead, at: closedAt }] : [];
  });
  const heads = closed.reduce((sum, { ticket }) => sum + ticket.good, 0);
  const spent = closed.reduce((sum, { ticket }) => sum + ticket.totalMinor, 0);
  const notTimed = closed.filter(({ ticket }) => ticket.notTimed);
  const digits = currencyDigits(units.currency);
  const moneyOf = (minor: number) => (minor / 10 ** digits).toFixed(digits + 2);
  const dearest = Math.max(...closed.map(({ perHead }) => stackTotal(perHead)), 1e-9);
  return (
    <Page
      stub={
        <>
          <TheNumber value={heads ? units.money(spent / heads, 1) : '–'}>is what one head cost {period.says}</TheNumber>
          <p className="text-ink-2">
            {heads} heads in {closed.length} closed tickets, {units.money(spent)}: metal, hooks, powder, electricity and
            time.
          </p>
          {notTimed.length > 0 && (
            <p className="quiet">
              {notTimed.length === 1 ? 'One ticket was' : `${notTimed.length} tickets were`} not timed at some step:
              there the minutes are by your ways.{' '}
              <Link to={`/tickets/${notTimed[0]!.ticket.id}`} className="underline underline-offset-4">
                Say what ticket {notTimed[0]!.ticket.number} took
              </Link>
              .
            </p>
          )}
          <Years />
          <div className="flex flex-wrap gap-4">
            <Button asChild>
              <a href="/api/export">Everything as JSON</a>
            </Button>
            <AsCsv
              name="tickets"
              rows={() =>
                closed.map(({ ticket, perHead, at }) => ({
                  ...{ ticket: ticket.number, closed: isoDay(at), good: ticket.good },
                  product: catalogue.product(ticket.productId)?.name ?? '',
                  ...Object.fromEntries(COST_PARTS.map((part) => [part, moneyOf(perHead[part] ?? 0)])),
                  ...{ oneCost: moneyOf(stackTotal(perHead)), all: moneyOf(ticket.totalMinor) },
                  notTimed: ticket.notTimed ? 'yes' : '',
                }))
              }
            />
            <Button onClick={() => window.print()}>Print</Button>
          </div>
          <p className="quiet break-all">Your data: {settings?.dataFolder}</p>
        </>
      }
    >
      <BooksRooms />
      <Heading aside="each dot a closed ticket">What one head cost, ticket by ticket</Heading>
      <Suspense fallback={<div className="h-[220px]" />}>
        <CostChart
          points={closed.map(({ ticket, perHead, at }) => ({
            at,
            cost: stackTotal(perHead),
            name: `Ticket ${ticket.number}`,
          }))}
          write={(minor) => units.money(minor)}
        />
      </Suspense>
      <div className="mt-4 overflow-x-auto">
        <table className="sheet-table min-w-[520px]">
          <thead>
            <tr>
              <th>Ticket</th>
              <th>Product</th>
              <th className="num">Good</th>
              <th className="num">One cost</th>
              <th className="w-[26%]">of that</th>
            </tr>
          </thead>
          <tbody>
            {closed.slice(0, all ? undefined : FIRST).map(({ ticket, perHead }) => (
              <tr key={ticket.id}>
                <td>
                  <Link to={`/tickets/${ticket.id}`} className="fig text-[19px] hover:underline">
                    {ticket.number}
                  </Link>
                </td>
                <td>{catalogue.product(ticket.productId)?.name}</td>
                <td className="num">{ticket.good}</td>
                <td className="num font-semibold">
                  {units.money(stackTotal(perHead), 1)}
                  {ticket.notTimed && <span className="quiet block font-normal">not timed</span>}
                </td>
                <td>
                  <CostBar stack={perHead} of={dearest} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {closed.length > FIRST && (
        <Button look="quiet" className="mt-3" onClick={() => setAll(!all)}>
          {all ? `Only the last ${FIRST}` : `All ${closed.length} tickets`}
        </Button>
      )}
      {closed.length === 0 && <p className="quiet">No ticket was closed {period.says}.</p>}
    </Page>
  );
}
