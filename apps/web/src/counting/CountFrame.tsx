import type { Ticket } from '@schmelz/contract';
import {
  AT,
  disposition,
  DISPOSITIONS,
  stationOf,
  usualDisposition,
  writeClock,
  writeSpan,
  type DispositionId,
  type HouseWays,
  type Schools,
} from '@schmelz/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useList } from '../api/queries.ts';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../bench/BenchFrame.tsx';
import { undoActions } from '../bench/undo.ts';
import { Button, Key } from '../design/Button.tsx';
import { causeIcon, Icon } from '../design/Icon.tsx';
import { Caution } from '../design/Notice.tsx';
import { useNow } from '../shell/clock.ts';
import { benchPath } from '../shell/line-state.ts';
import { HeadRack } from './HeadRack.tsx';
import type { TicketBench } from './useTicketBench.ts';
import { cautionsOf, checksOf, saysMore } from './words.ts';

/** What every bench after the pour is given: a ticket at a step, with everything that can be said of it. */
export interface BenchProps {
  ticket: Ticket;
  bench: TicketBench;
  schools: Schools;
  ways?: HouseWays;
}

/** Keys for what becomes of the last head that was not good. */
const GOES_KEYS: Partial<Record<DispositionId, { key: string; label: string }>> = {
  melt: { key: 'L', label: 'melt down' },
  'hook lost': { key: 'H', label: 'hook lost' },
  'back to step': { key: 'R', label: 'do it again' },
  'second grade': { key: 'K', label: 'second grade' },
  scrap: { key: 'X', label: 'scrap' },
};

const goesActions = (bench: TicketBench): BenchAction[] => {
  const rejected = bench.last?.kind === 'reject' ? bench.last : null;
  return Object.entries(GOES_KEYS).map(([id, { key, label }]) => ({
    key,
    label,
    weight: rejected?.goes === id ? 'due' : 'quiet',
    disabled: rejected === null,
    elsewhere: true,
    run: () => bench.goes(id as DispositionId),
  }));
};

/** Counting keys: Space for one good head, a digit for a bad one and why. */
function countActions(bench: TicketBench, countable: number): BenchAction[] {
  const { here } = bench;
  const { says, causes } = stationOf(here.station);
  const stopped = countable <= 0 || here.status === 'paused';
  const notNow = here.status === 'paused' ? 'You are resting: P goes on' : undefined;
  return [
    {
      key: 'Space',
      code: ' ',
      label: says.good,
      weight: stopped ? 'quiet' : 'main',
      disabled: stopped,
      notNow,
      run: () => bench.good(1),
    },
    {
      key: 'G',
      label: says.all,
      hint: countable > 0 ? String(countable) : undefined,
      weight: 'quiet',
      disabled: stopped,
      run: bench.goodRest,
    },
    ...causes.map(({ id }, index): BenchAction => ({
      key: String(index + 1),
      label: id,
      icon: causeIcon(id),
      weight: 'quiet',
      disabled: stopped,
      run: () => bench.reject(id),
    })),
    ...goesActions(bench),
    ...undoActions(bench),
    {
      key: 'P',
      label: here.status === 'paused' ? 'On again' : 'Pause',
      weight: here.status === 'paused' ? 'due' : 'quiet',
      run: bench.togglePause,
    },
  ];
}

/** What becomes of the head that was thrown back last: as usual, unless a key says otherwise. It keeps its room. */
function Goes({ bench }: { bench: TicketBench }) {
  const rejected = bench.last?.kind === 'reject' ? bench.last : null;
  return (
    <section aria-label="What becomes of it" className="mb-3 min-h-[72px]">
      {rejected && (
        <>
          <p className="text-lg">
            <b className="text-stop">{rejected.cause}</b>, so it is {disposition(rejected.goes).says}
            {rejected.goes === usualDisposition(bench.here.station, rejected.cause) && (
              <span className="quiet"> (as usual)</span>
            )}
          </p>
          <p className="flex flex-wrap gap-2 pt-1">
            {goesActions(bench).map((action) => (
              <button
                key={action.key}
                type="button"
                aria-pressed={action.weight === 'due'}
                onClick={(event) => {
                  action.run();
                  event.currentTarget.blur();
                }}
                className={`cut flex min-h-12 items-center gap-2 px-3 font-semibold ${
                  action.weight === 'due' ? 'bg-ink text-on-ink' : 'bg-sheet hover:bg-well'
                }`}
              >
                <Key>{action.key}</Key> {action.label}
              </button>
            ))}
          </p>
        </>
      )}
    </section>
  );
}

/** Thrown back here, in words: what became of them. */
function goneInWords({ gone }: TicketBench['here']): string {
  const ways = DISPOSITIONS.flatMap(({ id, says }) => (gone[id] ? [`${gone[id]} ${says.split(':')[0]}`] : []));
  return ways.length ? `, ${ways.join(', ')}` : '';
}

function Done({ ticket, bench }: { ticket: Ticket; bench: TicketBench }) {
  const { here, state } = bench;
  const next = state.steps.find((step) => step.left > 0 && step.key !== here.key);
  const after = ticket.route[ticket.route.findIndex((step) => step.key === here.key) + 1];
  const on = next ?? (after && state.at !== AT.close ? state.steps.find((step) => step.key === after.key) : undefined);
  return (
    <>
      <h1 className="voice text-2xl font-normal">{here.arrived ? 'All seen here' : 'Nothing here yet'}</h1>
      <p className="fig text-[150px]">{here.good}</p>
      <p className="text-lg">good heads{goneInWords(here)}.</p>
      {ticket.missing > 0 && ticket.toCast > 0 && here.arrived > 0 && (
        <p className="text-lg">
          <b className="text-watch">{ticket.missing} missing</b> for this ticket.{' '}
          <Link to="/pour" className="underline decoration-rule-2 underline-offset-4">
            Cast {ticket.toCast} more
          </Link>
          , tonight or next week.
        </p>
      )}
      <Button look="main" asChild className="h-16 text-lg">
        {here.arrived === 0 ? (
          <Link to={`/${here.station}`}>Back</Link>
        ) : on ? (
          <Link to={benchPath(on.station, ticket.id, on.key)}>On to {on.does.toLowerCase()}</Link>
        ) : (
          <Link to={`/tickets/${ticket.id}`}>Look and close the ticket</Link>
        )}
      </Button>
    </>
  );
}

/** Heads of this ticket come off the shelf: how many are taken, said before the first is worked on. */
function TakeFromShelf({ ticket, bench }: Omit<BenchProps, 'schools'>) {
  const { data: materials } = useList('materials');
  const part = materials?.find((each) => each.id === ticket.fromId);
  const wanted = Math.max(0, ticket.quantity - bench.state.taken);
  const here = Math.max(0, Math.floor(part?.quantity ?? 0));
  const count = Math.min(wanted, here);
  const actions: BenchAction[] = [
    {
      key: 'Space',
      code: ' ',
      label: `${count} taken`,
      weight: count > 0 ? 'main' : 'quiet',
      disabled: count <= 0,
      run: () => bench.take(count),
    },
    ...undoActions(bench),
  ];
  return (
    <BenchFrame
      actions={actions}
      stub={
        <>
          <BenchNumber says="Take off the shelf" value={String(wanted)} />
          <TicketLine ticket={ticket} bench={bench} />
          <p className={`text-lg ${here < wanted ? 'text-watch' : 'text-ink-2'}`}>
            {part?.name ?? 'They'}: {here} on the shelf{here < wanted ? `, ${wanted - here} short` : ''}.
          </p>
          <Unsaved count={bench.unsaved} />
        </>
      }
    >
      <p className="max-w-[50ch] text-lg text-ink-2">
        Count them out onto the tray before the first is worked on. More can be taken later, when some were lost.
      </p>
    </BenchFrame>
  );
}

/** Ticket, counts and time at work. */
export function TicketLine({ ticket, bench: { here } }: Pick<BenchProps, 'ticket' | 'bench'>) {
  return (
    <>
      <p className="text-lg">
        Ticket {ticket.number}, {ticket.product.name}
      </p>
      <p className="flex flex-wrap gap-x-5 text-lg text-ink-2">
        <span className="flex items-center gap-1.5 text-good">
          <Icon name="good" /> {here.good} good
        </span>
        <span className="flex items-center gap-1.5 text-stop">
          <Icon name="short" /> {here.rejected} bad
        </span>
        <span>{here.notTimed > 0 ? `${here.notTimed} not timed` : writeSpan(here.workS)}</span>
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

/** What dries or sets before this step: said as long as it does. */
function StillWaits({ bench }: { bench: TicketBench }) {
  const now = useNow(1000);
  const { readyAt } = bench.here;
  if (readyAt === null || readyAt <= now) return null;
  return (
    <p role="note" className="bg-watch-wash px-4 py-2 text-xl font-semibold text-watch">
      Not yet: the last ones are ready in {writeClock((readyAt - now) / 1000)}.
    </p>
  );
}

/** Heads counted good and bad at a step; a station adds its own keys, and what stands beside and above the heads. */
export function CountFrame({
  ticket,
  bench,
  schools,
  countable = bench.here.left,
  says = stationOf(bench.here.station).says.left,
  extra = [],
  checks = checksOf(bench.here.station, schools),
  cautions = cautionsOf(bench.here.station, schools),
  beside,
  above,
}: BenchProps & {
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
  const { here, state } = bench;
  if (state.at === AT.take && ticket.route[0]?.key === here.key) return <TakeFromShelf ticket={ticket} bench={bench} />;
  const finished = here.left === 0;
  const actions = countActions(bench, countable);
  const named = saysMore(here.does, stationOf(here.station)) ? here.does : says;
  return (
    <BenchFrame
      actions={finished ? [...actions.filter((action) => action.key === 'Z'), ...extra] : [...actions, ...extra]}
      stub={
        finished ? (
          <Done ticket={ticket} bench={bench} />
        ) : (
          <>
            <BenchNumber says={here.status === 'paused' ? 'Paused' : named} value={String(countable)} />
            <TicketLine ticket={ticket} bench={bench} />
            <StillWaits bench={bench} />
            {beside}
            {checks.length > 0 && (
              <ul
                className={`text-lg text-ink-2 ${checks.length > 3 ? 'xl:grid xl:grid-cols-2 xl:gap-x-5 xl:leading-tight' : ''}`}
              >
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
      {!finished && <Goes bench={bench} />}
      <HeadRack ticket={ticket} here={here} />
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
