import { metalFlow, type LeadBalance, type MetalOfPour } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { AsCsv } from '../../shell/AsCsv.tsx';
import { isoDay, writeDay, writeLongMonth } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { MetalFlow } from './MetalFlow.tsx';
import { BooksRooms } from './rooms.tsx';

/** Pours by the month in which they were closed, newest first. */
function byMonth(pours: readonly MetalOfPour[]): [month: string, own: MetalOfPour[]][] {
  const months = new Map<string, MetalOfPour[]>();
  for (const pour of pours) {
    const month = isoDay(pour.closedAt).slice(0, 7);
    months.set(month, [...(months.get(month) ?? []), pour]);
  }
  return [...months].sort(([a], [b]) => b.localeCompare(a));
}

/** Metal of some pours together, in a row. */
function MetalRow({
  says,
  count,
  metal,
  last = false,
}: {
  says: string;
  count: number;
  metal: LeadBalance;
  last?: boolean;
}) {
  const units = useUnits();
  const { chargedKg, headsKg, sprueBackKg, rejectsBackKg, heelKg, drossKg, unexplainedKg } = metal;
  return (
    <tr className={last ? 'border-t-2 border-contour font-medium' : ''}>
      <td>{says}</td>
      <td className="num">{count}</td>
      <td className="num">{units.bulk(chargedKg)}</td>
      <td className="num font-semibold">{units.bulk(headsKg)}</td>
      <td className="num">{units.bulk(sprueBackKg + rejectsBackKg + heelKg)}</td>
      <td className="num">{units.bulk(drossKg)}</td>
      <td className="num">{units.bulk(unexplainedKg)}</td>
    </tr>
  );
}

/** Where the metal went: over a year, month by month, with what nobody can explain. */
export function MetalPage() {
  const units = useUnits();
  const period = usePeriod();
  const { from, to } = period;
  const { data: pours, error } = useQuery({
    queryKey: ['books', 'metal', from, to],
    queryFn: () => call('GET /books/metal', { query: { from, to } }),
  });
  const { data: ever } = useQuery({
    queryKey: ['books', 'metal', 'ever'],
    queryFn: () => call('GET /books/metal/ever'),
  });
  if (!pours) return <Waiting error={error} />;
  const flow = metalFlow(pours);
  const lost = units.bulkParts(flow.drossKg);
  const share = flow.chargedKg > 0 ? flow.unexplainedKg / flow.chargedKg : 0;
  return (
    <Page
      stub={
        <>
          <TheNumber value={lost.figure} unit={lost.unit}>
            of dross and skimmings {period.says}
          </TheNumber>
          <p className="quiet">
            {pours.length} pours.{' '}
            {Math.abs(share) < 0.005 ? 'Nearly all' : `${(100 * (1 - Math.abs(share))).toFixed(1)} %`} of what was
            charged is accounted for; sprues, rejects and the heel are charged again and count each time.
          </p>
          <Years />
          <div className="flex flex-wrap gap-3">
            <AsCsv
              name="metal"
              rows={() =>
                pours.map(({ number, closedAt, ...kg }) => ({ pour: number, closed: isoDay(closedAt), ...kg }))
              }
            />
            <Button onClick={() => window.print()}>Print</Button>
          </div>
          <Caution>
            Keep dross and filings dry, closed and labelled, and hand them in where your place takes lead waste: ask
            there.
          </Caution>
        </>
      }
    >
      <BooksRooms />
      {pours.length === 0 ? (
        <p className="quiet">No pour was closed {period.says}.</p>
      ) : (
        <>
          <Heading aside="↺ is charged again">Where it went</Heading>
          <MetalFlow flow={flow} />
          <div className="mt-7">
            <Heading>Month by month</Heading>
            <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Metal month by month">
              <table className="sheet-table min-w-[560px]">
                <thead>
                  <tr>
                    <th>Month</th>
                    <th className="num">Pours</th>
                    <th className="num">Charged</th>
                    <th className="num">In heads</th>
                    <th className="num">Back to the pot</th>
                    <th className="num">Dross</th>
                    <th className="num">Unexplained</th>
                  </tr>
                </thead>
                <tbody>
                  {byMonth(pours).map(([month, own]) => (
                    <MetalRow
                      key={month}
                      says={writeLongMonth(`${month}-15`)}
                      count={own.length}
                      metal={metalFlow(own)}
                    />
                  ))}
                  {ever && ever.since !== null && (
                    <MetalRow says={`All since ${writeDay(ever.since)}`} count={ever.pours} metal={ever.metal} last />
                  )}
                </tbody>
              </table>
            </div>
          </div>
        </>
      )}
    </Page>
  );
}
