import { finishWays, type CountStation } from '@schmelz/core';
import { Link } from 'react-router';
import { useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { useLineState } from '../../shell/line-state.ts';
import { cautionsOf, needsOf, WORDS } from './words.ts';
import { writeDue } from '../../units/dates.ts';

const DOING: Record<CountStation, string> = {
  trim: 'to trim',
  paint: 'to paint',
  bake: 'to bake',
  finish: 'to count and bag',
};

/** What waits at one of the stations after the pour, ticket by ticket. */
export function CountDesk({
  station,
  aside,
  rooms,
}: {
  station: CountStation;
  aside?: React.ReactNode;
  rooms?: React.ReactNode;
}) {
  const now = useNow(2000);
  const line = useLineState(now);
  const catalogue = useCatalogue();
  const { data: settings } = useSettings();
  if (!line || !catalogue || !settings) return <Waiting />;
  const finish = finishWays(settings.ways.finish);
  const needs = needsOf(station, finish);
  const here = line.tickets.filter((ticket) => (ticket.state.stations[station]?.left ?? 0) > 0);
  const coming = line.tickets.filter(
    (ticket) =>
      ticket.state.stations[station] && !here.includes(ticket) && ticket.state.stations[station].status !== 'done',
  );
  const first = here[0];
  return (
    <Page
      stub={
        <>
          <TheNumber value={line.waiting[station]}>heads {DOING[station]}</TheNumber>
          {first && (
            <Button look="main" asChild className="self-start">
              <Link to={`/${station}/${first.id}`}>Begin with ticket {first.number}</Link>
            </Button>
          )}
          {needs.length > 0 && (
            <p className="text-ink-2">
              <span className="block text-sm font-medium">To lay ready</span>
              {needs.join(', ')}.
            </p>
          )}
          {cautionsOf(station, finish).map((caution) => (
            <Caution key={caution}>{caution}</Caution>
          ))}
        </>
      }
    >
      {rooms}
      <Heading>Waiting here</Heading>
      <ul>
        {here.map((ticket) => {
          const product = catalogue.product(ticket.productId)!;
          const state = ticket.state.stations[station]!;
          return (
            <li key={ticket.id} className="border-b border-rule">
              <Link
                to={`/${station}/${ticket.id}`}
                className="grid grid-cols-[44px_110px_minmax(0,1fr)_auto] items-center gap-3 py-2.5 hover:bg-sheet"
              >
                <span className="fig text-[25px]">{ticket.number}</span>
                <Head
                  {...catalogue.spec(product)}
                  paint={catalogue.paint(product)}
                  state={WORDS[station].before}
                  scale={2}
                />
                <span className="min-w-0">
                  <span className="block truncate font-medium">{product.name}</span>
                  <span className="quiet">
                    {ticket.customer}
                    {writeDue(ticket.dueOn)}
                  </span>
                </span>
                <span className="text-right">
                  <b className="fig text-[29px]">{state.left}</b>
                  <span className="quiet block">of {state.arrived}</span>
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
