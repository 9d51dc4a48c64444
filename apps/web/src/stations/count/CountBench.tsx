import type { Ticket } from '@schmelz/contract';
import { bakeCounts, finishWays, STATION_CAUSES, writeSpan, type CountStation, type HouseWays } from '@schmelz/core';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useSettings, useTicket } from '../../api/queries.ts';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../../bench/BenchFrame.tsx';
import { Button } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { OvenView } from '../bake/OvenView.tsx';
import { useRunningLoad } from '../bake/useBake.ts';
import { useOvenActions } from '../bake/useOvenActions.ts';
import { LiquidCoats, liquidCoats } from '../paint/LiquidCoats.tsx';
import { PaintPace, StirDue, usePaintRhythm } from '../paint/PaintPace.tsx';
import { SprueBack, SprueForm } from '../trim/Sprue.tsx';
import { HeadRack } from './HeadRack.tsx';
import { useTicketBench, type TicketBench } from './useTicketBench.ts';
import { cautionsOf, checksOf, WORDS } from './words.ts';

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

function Running({
  ticket,
  station,
  catalogue,
  ways,
}: {
  ticket: Ticket;
  station: CountStation;
  catalogue: Catalogue;
  ways: HouseWays;
}) {
  // prettier-ignore
  const bench = useTicketBench(ticket, station);
  const running = useRunningLoad(ticket, bench, catalogue);
  const oven = useOvenActions(ticket, bench, running, catalogue);
  const product = catalogue.product(ticket.productId)!;
  const finish = finishWays(ways.finish, product.ways);
  const paint = usePaintRhythm(product, finish, ways, catalogue);
  const coats = useMemo(() => liquidCoats(product, catalogue), [product, catalogue]);
  const [weighing, setWeighing] = useState(false);
  if (!bench) return <p className="p-8">This product does not go through {station}.</p>;
  const { here, state } = bench;
  const atBake = station === 'bake' ? bakeCounts(state) : null;
  const countable = atBake ? atBake.toInspect : here.left;
  const ovenBusy = atBake && (atBake.inOven > 0 || (atBake.toLoad > 0 && atBake.toInspect === 0));
  const out = atBake ? state.loads.findLast((load) => load.unloadedAt !== null) : undefined;
  const finished = here.left === 0;
  const nextCoat = coats.find(({ coat }) => !state.coats.some((each) => each.coat === coat));
  const extra: BenchAction[] =
    station === 'trim'
      ? [{ key: 'W', label: 'Sprues weighed', weight: 'quiet', run: () => setWeighing(true) }]
      : station === 'paint' && coats.length > 0
        ? nextCoat
          ? [{ key: 'C', label: `Coat ${nextCoat.coat} is on`, hint: nextCoat.paint, weight: 'due', run: () => bench.coat(nextCoat.coat, nextCoat.paint, nextCoat.dryS) }] // prettier-ignore
          : []
        : station === 'paint'
          ? [{ key: 'M', label: 'Metronome', weight: 'quiet', elsewhere: true, run: paint.toggle }]
          : [];
  const actions = ovenBusy ? oven : [...countActions(bench, station, countable), ...extra];
  const checks = checksOf(station, finish);
  return (
    <BenchFrame
      actions={finished ? actions.filter((action) => action.key === 'Z' || (action.key === 'W' && station === 'trim')) : actions} // prettier-ignore
      stub={
        finished ? (
          <Done ticket={ticket} bench={bench} station={station} />
        ) : running && atBake ? (
          <OvenView.Stub ticket={ticket} running={running} />
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
            {station === 'trim' && here.sprueKg > 0 && <SprueBack kg={here.sprueKg} />}
            {station === 'paint' && coats.length === 0 && (
              <StirDue painted={here.good + here.rejected} rhythm={paint} ways={finish} />
            )}
            {ovenBusy && <OvenView.Program ticket={ticket} catalogue={catalogue} />}
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
      {out && out.unloadedAt !== null && out.coolS > 0 && (
        <OvenView.CoolDown outAt={out.unloadedAt} coolS={out.coolS} />
      )}
      {running && atBake ? (
        <OvenView.Chart running={running} />
      ) : (
        <>
          {station === 'paint' &&
            !finished &&
            (coats.length > 0 ? (
              <LiquidCoats coats={coats} on={state.coats} />
            ) : (
              <PaintPace rhythm={paint} finish={finish} />
            ))}
          {ovenBusy && <OvenView.Loading ticket={ticket} heads={atBake.toLoad} catalogue={catalogue} />}
          {!ovenBusy && <HeadRack ticket={ticket} station={station} here={here} catalogue={catalogue} />}
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
        {cautionsOf(station, finish).map((caution) => (
          <Caution key={caution}>{caution}</Caution>
        ))}
      </div>
      <SprueForm open={weighing} onOpenChange={setWeighing} onWeighed={bench.sprue} />
    </BenchFrame>
  );
}

export function CountBenchPage({ station }: { station: CountStation }) {
  const { id = '' } = useParams();
  const { data: ticket, error } = useTicket(id);
  const catalogue = useCatalogue();
  const { data: settings } = useSettings();
  if (!ticket || !catalogue || !settings) return <Waiting error={error} />;
  return (
    <Running key={ticket.id + station} ticket={ticket} station={station} catalogue={catalogue} ways={settings.ways} />
  );
}
