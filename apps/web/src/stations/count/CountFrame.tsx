import type { Ticket } from '@schmelz/contract';
import { STATION_CAUSES, writeSpan, type CountStation, type FinishWays } from '@schmelz/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../../bench/BenchFrame.tsx';
import { Button } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Caution } from '../../design/Notice.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { HeadRack } from './HeadRack.tsx';
import type { TicketBench } from './useTicketBench.ts';
import { cautionsOf, checksOf, WORDS } from './words.ts';

/** What every bench after the pour is given: a ticket at a station, with everything that can be said of it. */
export interface BenchProps {
  ticket: Ticket;
  bench: TicketBench;
  catalogue: Catalogue;
  finish: FinishWays;
}

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

/** Ticket, counts and time at work. */
export function TicketLine({ ticket, bench: { here }, catalogue }: Omit<BenchProps, 'finish'>) {
  return (
    <>
      <p className="text-lg">
        Ticket {ticket.number}, {catalogue.product(ticket.productId)!.name}
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
    </>
  );
}

export function Cautions({ all }: { all: readonly string[] }) {
  return (
    <div className="mt-4 flex flex-col gap-1">
      {all.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
    </div>
  );
}

/** Heads counted good and bad at a station; a station adds its own keys, and what stands beside and above the heads. */
export function CountFrame({
  ticket,
  bench,
  catalogue,
  finish,
  station,
  countable = bench.here.left,
  says = WORDS[station].left,
  extra = [],
  checks = checksOf(station, finish),
  cautions = cautionsOf(station, finish),
  beside,
  above,
}: BenchProps & {
  station: CountStation;
  /** Heads that can be judged now. */
  countable?: number;
  says?: string;
  extra?: readonly BenchAction[];
  /** Where the station's own do not fit the work. */
  checks?: readonly string[];
  cautions?: readonly string[];
  beside?: ReactNode;
  above?: ReactNode;
}) {
  const { here } = bench;
  const finished = here.left === 0;
  const actions = countActions(bench, station, countable);
  return (
    <BenchFrame
      actions={finished ? [...actions.filter((action) => action.key === 'Z'), ...extra] : [...actions, ...extra]}
      stub={
        finished ? (
          <Done ticket={ticket} bench={bench} station={station} />
        ) : (
          <>
            <BenchNumber says={here.status === 'paused' ? 'Paused' : says} value={String(countable)} />
            <TicketLine ticket={ticket} bench={bench} catalogue={catalogue} />
            {beside}
            {checks.length > 0 && (
              <ul className="text-lg text-ink-2">
                {checks.map((check) => (
                  <li key={check} className="border-b border-rule py-1">
                    {check}
                  </li>
                ))}
              </ul>
            )}
            <Unsaved count={bench.unsaved} />
          </>
        )
      }
    >
      {above}
      <HeadRack ticket={ticket} station={station} here={here} catalogue={catalogue} />
      <ul className="mt-4 flex flex-wrap gap-x-5 text-lg text-stop">
        {Object.entries(here.rejects).map(([cause, count]) => (
          <li key={cause} className="flex items-center gap-1.5">
            <Icon name={causeIcon(cause)} /> {count} {cause}
          </li>
        ))}
      </ul>
      <Cautions all={cautions} />
    </BenchFrame>
  );
}
