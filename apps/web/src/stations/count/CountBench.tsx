import type { Ticket } from '@schmelz/contract';
import { bakeCounts, STATION_CAUSES, writeSpan, type CountStation } from '@schmelz/core';
import { Link, useParams } from 'react-router';
import { useTicket } from '../../api/queries.ts';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../../bench/BenchFrame.tsx';
import { Button } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { OvenView } from '../bake/OvenView.tsx';
import { useOvenActions } from '../bake/useOvenActions.ts';
import { HeadRack } from './HeadRack.tsx';
import { useTicketBench, type TicketBench } from './useTicketBench.ts';
import { WORDS } from './words.ts';

const NEXT: Record<CountStation, CountStation | null> = { trim: 'paint', paint: 'bake', bake: 'finish', finish: null };

/** Counting keys: Space for one good head, a digit for a bad one and why. */
function countActions(bench: TicketBench, station: CountStation, countable: number): BenchAction[] {
  const { here } = bench;
  const stopped = countable <= 0 || here.status === 'paused';
  return [
    {
      key: 'Space',
      code: ' ',
      label: WORDS[station].good,
      weight: stopped ? 'quiet' : 'main',
      disabled: stopped,
      run: () => bench.good(1),
    },
    {
      key: 'G',
      label: WORDS[station].all,
      hint: countable > 0 ? String(countable) : undefined,
      weight: 'quiet',
      disabled: stopped,
      run: bench.goodRest,
    },
    ...STATION_CAUSES[station].map((cause, index): BenchAction => ({
      key: String(index + 1),
      label: cause,
      icon: causeIcon(cause),
      weight: 'quiet',
      disabled: stopped,
      run: () => bench.reject(cause),
    })),
    {
      key: 'H',
      label: 'Its hook is lost',
      weight: 'quiet',
      disabled: bench.last?.kind !== 'reject' || !!bench.last.hookLost,
      run: bench.hookLost,
    },
    { key: 'Z', label: 'Undo', hint: bench.last?.kind, weight: 'quiet', disabled: !bench.last, run: bench.undo },
    {
      key: 'P',
      label: here.status === 'paused' ? 'On again' : 'Pause',
      weight: here.status === 'paused' ? 'due' : 'quiet',
      run: bench.togglePause,
    },
  ];
}

function Done({ ticket, bench, station }: { ticket: Ticket; bench: TicketBench; station: CountStation }) {
  const route = ticket.route;
  const next = route[route.indexOf(station) + 1] ?? NEXT[station];
  return (
    <>
      <h1 className="voice text-2xl font-normal">{bench.here.arrived ? 'All seen here' : 'Nothing here yet'}</h1>
      <p className="fig text-[150px]">{bench.here.good}</p>
      <p className="text-lg">
        good heads
        {bench.here.rejected > 0 && `, ${bench.here.rejected} thrown back: their lead and hooks are on the shelf again`}
        .
      </p>
      <Button look="main" asChild className="h-16 text-lg">
        {bench.here.arrived === 0 ? (
          <Link to={`/${station}`}>Back</Link>
        ) : next && route.includes(next) ? (
          <Link to={`/${next}/${ticket.id}`}>On to {next}</Link>
        ) : (
          <Link to={`/tickets/${ticket.id}`}>Look and close the ticket</Link>
        )}
      </Button>
    </>
  );
}

function Running({ ticket, station, catalogue }: { ticket: Ticket; station: CountStation; catalogue: Catalogue }) {
  const bench = useTicketBench(ticket, station);
  const oven = useOvenActions(ticket, bench, catalogue);
  if (!bench) return <p className="p-8">This product does not go through {station}.</p>;
  const { here, state } = bench;
  const product = catalogue.product(ticket.productId)!;
  const atBake = station === 'bake' ? bakeCounts(state) : null;
  const countable = atBake ? atBake.toInspect : here.left;
  const ovenBusy = atBake && (atBake.inOven > 0 || (atBake.toLoad > 0 && atBake.toInspect === 0));
  const actions = ovenBusy ? oven : countActions(bench, station, countable);
  const finished = here.left === 0;
  return (
    <BenchFrame
      actions={finished ? actions.filter((action) => action.key === 'Z') : actions}
      stub={
        finished ? (
          <Done ticket={ticket} bench={bench} station={station} />
        ) : atBake?.inOven ? (
          <OvenView.Stub ticket={ticket} bench={bench} catalogue={catalogue} />
        ) : (
          <>
            <BenchNumber
              says={
                here.status === 'paused'
                  ? 'Paused'
                  : ovenBusy
                    ? 'Hang up and load'
                    : atBake
                      ? 'Out, to look at'
                      : WORDS[station].left
              }
              value={String(ovenBusy ? atBake.toLoad : countable)}
            />
            <p className="text-lg">
              Ticket {ticket.number}, {product.name}
            </p>
            <p className="flex flex-wrap gap-x-5 text-lg text-ink-2">
              <span className="flex items-center gap-1.5 text-good">
                <Icon name="good" /> {here.good} good
              </span>
              <span className="flex items-center gap-1.5 text-stop">
                <Icon name="short" /> {here.rejected} bad
              </span>
              <span>{writeSpan(here.workS)}</span>
            </p>
            {ovenBusy && <OvenView.Program ticket={ticket} catalogue={catalogue} />}
            <Unsaved count={bench.unsaved} />
          </>
        )
      }
    >
      {atBake?.inOven ? (
        <OvenView.Chart ticket={ticket} bench={bench} catalogue={catalogue} />
      ) : (
        <>
          <HeadRack ticket={ticket} station={station} here={here} catalogue={catalogue} />
          <ul className="mt-4 flex flex-wrap gap-x-5 text-lg text-stop">
            {Object.entries(here.rejects).map(([cause, count]) => (
              <li key={cause} className="flex items-center gap-1.5">
                <Icon name={causeIcon(cause)} /> {count} {cause}
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-4 flex flex-col gap-1">
        {WORDS[station].cautions.map((caution) => (
          <Caution key={caution}>{caution}</Caution>
        ))}
      </div>
    </BenchFrame>
  );
}

export function CountBenchPage({ station }: { station: CountStation }) {
  const { id = '' } = useParams();
  const { data: ticket, error } = useTicket(id);
  const catalogue = useCatalogue();
  if (!ticket || !catalogue) return <Waiting error={error} />;
  return <Running key={ticket.id + station} ticket={ticket} station={station} catalogue={catalogue} />;
}
