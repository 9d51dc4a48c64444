import {
  lookBefore,
  sootLeft,
  stationOf,
  STATIONS,
  stepOfRoute,
  waitingWork,
  type NextThing,
  type RouteStep,
  forWhom,
} from '@schmelz/core';
import { useEffect } from 'react';
import { Link, Navigate, useNavigate } from 'react-router';
import { useList } from '../../api/queries.ts';
import { Button, Key } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Part } from '../../design/Part.tsx';
import { IngotHeap } from '../../drawing/Bodies.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { Mold } from '../../drawing/Mold.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { followed } from '../../shell/followed.ts';
import { isTyping } from '../../shell/Layout.tsx';
import { benchPath, runPath, useLineState, type LineState } from '../../shell/line-state.ts';
import { drawnCavities } from '../../drawing/cavities.ts';
import { ShortShelf } from './ShortShelf.tsx';
import { TicketStrip } from './TicketStrip.tsx';
import { writeDue } from '../../units/dates.ts';

/** What is to be done, in words, and what its button says. */
function doing(
  { what, station, step }: NextThing,
  route: readonly RouteStep[],
): { says: (name: string) => string; button: string } {
  if (what === 'take out') return { says: (name) => `${name} to take out of the oven`, button: 'To the oven' };
  if (what === 'pour on') return { says: () => 'heads still to pour, and the pot is on', button: 'Back to the pot' };
  if (what === 'close') return { says: (name) => `${name} are done; close the ticket`, button: 'Look and close' };
  if (what === 'take') return { says: (name) => `${name} to take off the shelf`, button: 'To the shelf' };
  const row = stationOf(station);
  const own = step === null ? undefined : stepOfRoute(route, step);
  const named = own && own.does !== row.name ? own.does.toLowerCase() : null;
  return {
    says: (name) => (named ? `${name}: ${named}` : `${name} ${row.verb}`),
    button: named ? own!.does : row.says.begin,
  };
}

function whereTo({ what, ticketId, pourId, runId, station, step }: NextThing): string {
  if (what === 'take out') return runPath('oven', runId!);
  if (what === 'pour on') return `/pour/${pourId}`;
  if (what === 'pour') return '/pour';
  if (what === 'close') return `/tickets/${ticketId}`;
  return benchPath(station, ticketId!, step);
}

function Next({ line }: { line: LineState }) {
  const navigate = useNavigate();
  const { next } = line;
  const to = next ? whereTo(next) : '/orders/new';
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== ' ' || isTyping(event) || (event.target as HTMLElement).closest('button, a')) return;
      event.preventDefault();
      void navigate(to);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, to]);
  const ticket = line.tickets.find((each) => each.id === next?.ticketId);
  const name = ticket ? ticket.product.name.split(',')[0]! : 'heads';
  const does = next ? doing(next, ticket?.route ?? []) : null;
  return (
    <>
      {next ? (
        <TheNumber
          eyebrow={followed() ? 'Next, by tonight’s plan' : 'Next'}
          value={next.what === 'pour on' ? line.waiting.pour : next.count}
        >
          {does!.says(name)}
        </TheNumber>
      ) : (
        <TheNumber eyebrow="Next" value={0}>
          heads wait anywhere. Time for an order.
        </TheNumber>
      )}
      {ticket && (
        <p className="text-ink-2">
          Ticket {ticket.number}, {forWhom(ticket.customer)}
          {writeDue(ticket.dueOn)}.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-5">
        <Button look="main" asChild>
          <Link to={to}>
            <Key>Space</Key> {does?.button ?? 'New order'}
          </Link>
        </Button>
        {next && (
          <Button look="quiet" asChild>
            <Link to="/orders/new">New order</Link>
          </Button>
        )}
      </div>
    </>
  );
}

/** The work hangs below its station by the bend, in its true state; one drawn stands for ten. */
function Hanging({ line, catalogue, now }: { line: LineState; catalogue: Catalogue; now: number }) {
  const leadKg = [...catalogue.materials.values()]
    .filter((each) => each.kind === 'lead')
    .reduce((sum, each) => sum + each.quantity, 0);
  const waiting = waitingWork(line.tickets, now);
  /** Heads at a station, as they look there: at the pot their hooks, else those of its first step that has any. */
  const at = (station: string) =>
    line.tickets.flatMap((ticket) => {
      const own = waiting.filter(({ ticketId, step }) => ticketId === ticket.id && step.station === station);
      const heads = station === 'pour' ? ticket.toCast : own.reduce((sum, each) => sum + each.heads, 0);
      if (heads <= 0) return [];
      const [first] = own;
      const look = first ? lookBefore(ticket.route, first.step.key) : ('hook' as const);
      return [{ ticket, product: ticket.product, look, drawn: Math.min(4, Math.ceil(heads / 10)) }];
    });
  return (
    <div
      className="hidden min-h-[150px] lg:grid"
      style={{ gridTemplateColumns: `repeat(${STATIONS.length}, minmax(0, 1fr))` }}
      aria-hidden="true"
    >
      <div className="flex items-end pt-16">
        <IngotHeap kg={leadKg} className="max-w-full" />
      </div>
      <div className="flex flex-col justify-between pt-3 pr-4">
        {catalogue.molds[0] && (
          <Mold
            className="w-full"
            cavities={drawnCavities(catalogue.molds[0], 'g')}
            sootWear={1 - sootLeft(catalogue.molds[0].shotsSinceSmoked)}
            label=""
          />
        )}
        <span className="quiet leading-tight">one drawn head stands for ten</span>
      </div>
      {STATIONS.slice(2).map(({ id: station }) => (
        <div key={station} className="border-l border-rule-2 pr-1">
          {at(station)
            .slice(0, 2)
            .map(({ ticket, product, look, drawn }) => (
              <div
                key={ticket.id}
                className="mb-2 flex h-[92px] items-start gap-0.5 overflow-hidden border-t border-rule-2 pl-1"
              >
                {Array.from({ length: drawn }, (_, i) => (
                  <Head key={i} {...specOf(product)} paint={paintOn(product)} state={look} pose="hang" scale={1.72} />
                ))}
              </div>
            ))}
        </div>
      ))}
    </div>
  );
}

export function LinePage() {
  const now = useNow(2000);
  const line = useLineState(now);
  const catalogue = useCatalogue();
  const { data: orders, error } = useList('orders');
  if (!line || !catalogue || !orders) return <Waiting error={error} />;
  if (orders.length === 0 && catalogue.products.length === 0) return <Navigate to="/start" replace />;
  return (
    <>
      <Page
        stub={
          <div className="flex flex-col gap-4 lg:-mt-[88px]">
            <Next line={line} />
          </div>
        }
      >
        <div className="lg:-mt-5">
          <Hanging line={line} catalogue={catalogue} now={now} />
        </div>
      </Page>
      <section aria-label="Tickets" className="flex flex-col gap-1.5 px-4 md:px-4">
        {line.tickets.map((ticket) => (
          <Part key={ticket.id} of={`Ticket ${ticket.number}`}>
            {() => <TicketStrip ticket={ticket} next={line.next?.ticketId === ticket.id} />}
          </Part>
        ))}
      </section>
      <div className="grid gap-9 px-4 py-6 md:px-8 lg:grid-cols-[300px_minmax(0,1fr)]">
        <div>
          <Heading>Short on the shelf</Heading>
          <ShortShelf catalogue={catalogue} />
        </div>
        <div>
          <Heading>Orders not released yet</Heading>
          <ul>
            {orders
              .filter((order) => order.status === 'open')
              .map((order) => (
                <li
                  key={order.id}
                  className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule py-2"
                >
                  <Link
                    to={`/orders/${order.id}`}
                    className="font-medium underline decoration-rule-2 underline-offset-4"
                  >
                    Order {order.number}, {forWhom(order.customer)}
                  </Link>
                  <span className="quiet">
                    {order.lines.reduce((sum, each) => sum + each.quantity, 0)} heads
                    {writeDue(order.dueOn)}
                  </span>
                </li>
              ))}
            {orders.every((order) => order.status !== 'open') && <li className="quiet">None.</li>}
          </ul>
        </div>
      </div>
    </>
  );
}
