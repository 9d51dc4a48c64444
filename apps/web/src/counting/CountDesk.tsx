import { forWhom, lookBefore, schoolsFollowed, stationOf, waitingWork } from '@schmelz/core';
import { Link } from 'react-router';
import { useSettings } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { Caution, Waiting } from '../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../design/Page.tsx';
import { Head } from '../drawing/Head.tsx';
import { paintOn, specOf } from '../drawing/product.ts';
import { useNow } from '../shell/clock.ts';
import { benchPath, useLineState } from '../shell/line-state.ts';
import { cautionsOf, needsOf, saysMore } from './words.ts';
import { writeDue, writeTime } from '../units/dates.ts';

/** What waits at one of the stations after the pour, ticket by ticket and step by step. */
export function CountDesk({
  station,
  aside,
  rooms,
}: {
  station: string;
  aside?: React.ReactNode;
  rooms?: React.ReactNode;
}) {
  const now = useNow(2000);
  const line = useLineState(now);
  const { data: settings } = useSettings();
  if (!line || !settings) return <Waiting />;
  const row = stationOf(station);
  const schools = schoolsFollowed(settings.ways.schools);
  const needs = needsOf(station, schools);
  const ticketOf = (id: string) => line.tickets.find((ticket) => ticket.id === id)!;
  const here = waitingWork(line.tickets, now)
    .filter(({ step }) => step.station === station)
    .map((waits) => ({ ...waits, ticket: ticketOf(waits.ticketId) }));
  const coming = line.tickets.filter(
    ({ id, state }) =>
      !here.some(({ ticket }) => ticket.id === id) &&
      state.steps.some((step) => step.station === station && step.status !== 'done'),
  );
  const [first] = here;
  return (
    <Page
      stub={
        <>
          <TheNumber value={line.waiting[station] ?? 0}>heads {row.verb}</TheNumber>
          {first && (
            <Button look="main" asChild className="self-start">
              <Link to={benchPath(station, first.ticket.id, first.step.key)}>
                Begin with ticket {first.ticket.number}
              </Link>
            </Button>
          )}
          {needs.length > 0 && (
            <p className="text-ink-2">
              <span className="block text-sm font-medium">To lay ready</span>
              {needs.join(', ')}.
            </p>
          )}
          {cautionsOf(station, schools).map((caution) => (
            <Caution key={caution}>{caution}</Caution>
          ))}
        </>
      }
    >
      {rooms}
      <Heading>Waiting here</Heading>
      <ul>
        {here.map(({ ticket, step, heads, free, toLook, readyAt, takes }) => {
          const { product } = ticket;
          return (
            <li key={ticket.id + step.key} className="border-b border-rule">
              <Link
                to={benchPath(station, ticket.id, step.key)}
                className="grid grid-cols-[44px_110px_minmax(0,1fr)_auto] items-center gap-3 py-2.5 hover:bg-sheet"
              >
                <span className="fig text-[25px]">{ticket.number}</span>
                <Head
                  {...specOf(product)}
                  paint={paintOn(product)}
                  state={lookBefore(ticket.route, step.key)}
                  scale={2}
                />
                <span className="min-w-0">
                  <span className="block truncate font-medium">{product.name}</span>
                  <span className="quiet">
                    {saysMore(step.does, row) && <b className="text-ink">{step.does}, </b>}
                    {takes ? 'off the shelf, ' : readyAt !== null ? `ready at ${writeTime(readyAt)}, ` : ''}
                    {!takes && free < heads && `${heads - free} in the oven, `}
                    {toLook > 0 && `${toLook} out, to look at, `}
                    {forWhom(ticket.customer)}
                    {writeDue(ticket.dueOn)}
                  </span>
                </span>
                <span className="text-right">
                  <b className="fig text-[29px]">{heads}</b>
                  <span className="quiet block">{takes ? 'to take' : `of ${step.arrived}`}</span>
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
      {here.length === 0 && <p className="quiet">Nothing waits here.</p>}
      {coming.length > 0 && (
        <p className="quiet mt-4">
          On the way: {coming.map((ticket) => `ticket ${ticket.number} (${ticket.quantity})`).join(', ')}.
        </p>
      )}
      {aside}
    </Page>
  );
}
