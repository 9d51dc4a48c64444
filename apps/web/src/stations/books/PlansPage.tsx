import { HELD, planSays, standingOf, STATIONS, type HeldMeasure, type PlanHeld, type Standing } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Icon } from '../../design/Icon.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { BooksRooms } from './rooms.tsx';

const NAMES: Record<HeldMeasure, string> = { minutes: 'Minutes', cost: 'Cost', casts: 'Casts', hooks: 'Hooks' };

/** Left half of what came was planned, right twice as much. */
const placeOf = (ratio: number): number => Math.min(100, Math.max(0, 50 + (50 * Math.log(ratio)) / Math.log(2)));
const percent = (ratio: number) => `${Math.round(100 * ratio)} %`;

/** Plan to actual on one line: the middle half as a bar, the middle ticket as a mark, what is right in the middle. */
function Rule({ of }: { of: Standing }) {
  const left = placeOf(of.low);
  return (
    <svg viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden className="h-6 w-full">
      <rect x={placeOf(0.95)} width={placeOf(1.05) - placeOf(0.95)} y={0} height={12} className="fill-good-wash" />
      <rect x={0} width={100} y={5.6} height={0.8} className="fill-rule" />
      <rect x={left} width={Math.max(0.4, placeOf(of.high) - left)} y={3.5} height={5} className="fill-lead" />
      <rect x={placeOf(of.median) - 0.4} width={0.8} y={0} height={12} className="fill-ink" />
    </svg>
  );
}

function Row({ name, of }: { name: string; of: Standing }) {
  const says = planSays(of);
  return (
    <tr>
      <td className="stamp">{name}</td>
      <td className="num fig text-[22px]">{percent(of.median)}</td>
      <td>
        <Rule of={of} />
      </td>
      <td className="num text-ink-2">
        {percent(of.low)} to {percent(of.high)}
      </td>
      <td className="num text-ink-2">{of.tickets}</td>
      <td className={says === 'right' ? 'text-good' : says ? 'text-watch' : 'quiet'}>
        {says === null ? 'too few to say' : says}
      </td>
    </tr>
  );
}

const Table = ({ what, rows }: { what: string; rows: readonly { name: string; of: Standing | null }[] }) => (
  <div className="mb-8 overflow-x-auto">
    <table className="sheet-table min-w-[640px] table-fixed">
      <colgroup>
        {['15%', '13%', '34%', '15%', '8%', '15%'].map((width, at) => (
          <col key={at} style={{ width }} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <th>{what}</th>
          <th className="num">Planned</th>
          <th>
            <span className="flex justify-between">
              <span>half as much</span>
              <span>twice as much</span>
            </span>
          </th>
          <th className="num">Middle half</th>
          <th className="num">Tickets</th>
          <th>So it is</th>
        </tr>
      </thead>
      <tbody>{rows.flatMap(({ name, of }) => (of ? [<Row key={name} name={name} of={of} />] : []))}</tbody>
    </table>
  </div>
);

/** The station that is furthest off, of those with enough tickets. */
function furthestOff(rows: readonly { name: string; of: Standing | null }[]) {
  const off = rows.filter(({ of }) => of && planSays(of) !== null && planSays(of) !== 'right');
  const far = (of: Standing | null) => Math.abs(Math.log(of!.median));
  return off.sort((a, b) => far(b.of) - far(a.of))[0];
}

const standings = (held: readonly PlanHeld[]) => ({
  measures: HELD.map((measure) => ({
    name: NAMES[measure],
    of: standingOf(held.flatMap(({ measures }) => measures[measure] ?? [])),
  })),
  stations: STATIONS.map(({ id, name }) => ({
    name,
    of: standingOf(held.flatMap(({ stations }) => stations.filter(({ station }) => station === id))),
  })),
});

/** Plans of closed tickets against what they came to: whether minutes and cost can be believed, and where not. */
export function PlansPage() {
  const period = usePeriod();
  const { from, to } = period;
  const { data, error } = useQuery({
    queryKey: ['books', 'plans', from, to],
    queryFn: () => call('GET /books/plans', { query: { from, to } }),
  });
  if (!data) return <Waiting error={error} />;
  const { measures, stations } = standings(data);
  const minutes = measures[0]!.of;
  const off = furthestOff(stations);
  return (
    <Page
      stub={
        minutes ? (
          <>
            <TheNumber value={Math.round(100 * minutes.median)} unit="%">
              of the minutes that came were planned
            </TheNumber>
            <p>
              That is the middle one of {minutes.tickets} {minutes.tickets === 1 ? 'ticket' : 'tickets'}; half of them
              lie between {percent(minutes.low)} and {percent(minutes.high)}.
            </p>
            {off ? (
              <p className="flex items-start gap-2 text-watch">
                <Icon name="watch" className="mt-1 shrink-0" /> Furthest off: {off.name.toLowerCase()}, planned{' '}
                {percent(Math.abs(off.of!.median - 1))} too {off.of!.median < 1 ? 'little' : 'much'}.
              </p>
            ) : (
              <p className="flex items-center gap-2 text-good">
                <Icon name="good" /> No station is off.
              </p>
            )}
            <Years />
            <p className="quiet">
              What your hands took goes back into the next plan by itself; a time that you have typed in the setup does
              not move.
            </p>
          </>
        ) : (
          <>
            <TheNumber value="–">nothing was closed in this time</TheNumber>
            <p>
              Once tickets are closed, their plans are held against what they came to here.{' '}
              <Link to="/" className="underline decoration-rule-2 underline-offset-4">
                To the line
              </Link>
            </p>
          </>
        )
      }
    >
      <BooksRooms />
      {minutes && (
        <>
          <Heading aside="100 %: what came was what was planned">Plan against what came</Heading>
          <Table what="Of a ticket" rows={measures} />
          <Heading>Hands, station by station</Heading>
          <Table what="At" rows={stations} />
        </>
      )}
    </Page>
  );
}
