import { metalFlow, type MetalOfPour } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { AsCsv } from '../../shell/AsCsv.tsx';
import { isoDay, writeLongMonth } from '../../units/dates.ts';
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

/** Where the metal went: over a year, month by month, with what nobody can explain. */
export function MetalPage() {
  const units = useUnits();
  const period = usePeriod();
  const { from, to } = period;
  const { data: pours, error } = useQuery({
    queryKey: ['books', 'metal', from, to],
    queryFn: () => call('GET /books/metal', { query: { from, to } }),
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
                  {byMonth(pours).map(([month, own]) => {
                    const all = metalFlow(own);
                    return (
                      <tr key={month}>
                        <td>{writeLongMonth(`${month}-15`)}</td>
                        <td className="num">{own.length}</td>
                        <td className="num">{units.bulk(all.chargedKg)}</td>
                        <td className="num font-semibold">{units.bulk(all.headsKg)}</td>
                        <td className="num">{units.bulk(all.sprueBackKg + all.rejectsBackKg + all.heelKg)}</td>
                        <td className="num">{units.bulk(all.drossKg)}</td>
                        <td className="num">{units.bulk(all.unexplainedKg)}</td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </div>
          </div>
        </>
      )}
    </Page>
  );
}
