import type { Mold, QualityView } from '@schmelz/contract';
import { pareto, standOutsAmong, stationOf, wilson } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { AsCsv } from '../../shell/AsCsv.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { useLotsByQuality } from '../../shell/Findings.tsx';
import { ByCondition } from './ByCondition.tsx';
import { ByHand } from './ByHand.tsx';
import { ByLot } from './ByLot.tsx';
import { PChartView } from './PChartView.tsx';
import { BooksRooms } from './rooms.tsx';
import { ShareColumn } from './ShareColumn.tsx';
import { StandsOut, type JudgedCavity, type QualityCavity } from './StandsOut.tsx';

/** Over all molds no more than this of pure chance is found. Common practice, no source. */
const LEVEL = 0.01;

/** Cavities of each mold, those that are worse than the others of it that cast the same head marked. */
function byMold(
  cavities: QualityView['cavities'],
  molds: readonly Mold[],
): { mold: Mold; cavities: QualityCavity[] }[] {
  const used = molds.filter(({ id }) => cavities.some(({ moldId }) => moldId === id));
  return used.map((mold) => {
    const own = cavities.filter(({ moldId }) => moldId === mold.id);
    const headOf = (cavityId: string) => {
      const cavity = mold.cavities.find(({ id }) => id === cavityId);
      return cavity ? `${cavity.style} ${cavity.nominalMassKg}` : '';
    };
    // Like against like: a large head fills otherwise than a small one beside it.
    const worse = standOutsAmong(
      own.map(({ cavityId, casts, good }) => ({ cavityId, heads: casts, bad: casts - good })),
      ({ cavityId }) => headOf(cavityId),
      LEVEL / used.length,
    );
    return { mold, cavities: own.map((cavity, at) => ({ ...cavity, standsOut: worse[at]! })) };
  });
}

/** Good heads of a cavity as a column, with how sure that is, and most of what went wrong. */
function CavityColumn({ cavity }: { cavity: QualityCavity }) {
  const { position, casts, good, causes, standsOut } = cavity;
  const share = good / casts;
  const [worst] = pareto(causes);
  return (
    <ShareColumn name={position} share={share} {...wilson(share, casts)} bad={standsOut}>
      <p className="quiet truncate">
        {standsOut && (
          <>
            <Icon name="short" size={12} />{' '}
          </>
        )}
        {worst ? `${worst.count} × ${worst.cause}` : 'none bad'}
      </p>
    </ShareColumn>
  );
}

/** What came out bad: by cavity, pour by pour, by cause; what chance does not explain is marked, and nothing else. */
export function QualityPage() {
  const units = useUnits();
  const period = usePeriod();
  const { from, to } = period;
  const { data: molds } = useList('molds');
  const { data, error } = useQuery({
    queryKey: ['books', 'quality', from, to],
    queryFn: () => call('GET /books/quality', { query: { from, to } }),
  });
  const { data: changes } = useQuery({
    queryKey: ['books', 'changes', from, to],
    queryFn: () => call('GET /books/changes', { query: { from, to } }),
  });
  const { data: lots } = useLotsByQuality();
  const catalogue = useCatalogue();
  if (!data || !molds || !catalogue) return <Waiting error={error} />;
  const rows = byMold(data.cavities, molds);
  const casts = data.cavities.reduce((sum, each) => sum + each.casts, 0);
  const good = data.cavities.reduce((sum, each) => sum + each.good, 0);
  const found = rows.flatMap(({ mold, cavities }) =>
    cavities.filter(({ standsOut }) => standsOut).map((cavity): JudgedCavity => ({ mold, cavity })),
  );
  const pours = data.pours.map((pour) => ({ ...pour }));
  const together = [...new Set(pours.map(({ number }) => number))].map((number) => {
    const own = pours.filter((pour) => pour.number === number);
    const sum = (of: 'casts' | 'bad' | 'expected') => own.reduce((all, pour) => all + pour[of], 0);
    return { number, casts: sum('casts'), bad: sum('bad'), expected: sum('expected') };
  });
  return (
    <Page
      stub={
        <>
          <TheNumber value={casts ? `${Math.round((1000 * good) / casts) / 10}` : '–'} unit={casts ? '%' : undefined}>
            of {casts} casts were good {period.says}
          </TheNumber>
          <Years />
          <div className="flex flex-wrap gap-3">
            <AsCsv
              name="cavities"
              rows={() =>
                rows.flatMap(({ mold, cavities }) =>
                  cavities.map(({ position, casts, good: own, causes, standsOut }) => ({
                    ...{ mold: mold.name, cavity: position, casts, good: own, standsOut: standsOut ? 'yes' : '' },
                    ...{
                      causes: pareto(causes)
                        .map(({ cause, count }) => `${count} ${cause}`)
                        .join('; '),
                    },
                  })),
                )
              }
            />
            <Button onClick={() => window.print()}>Print</Button>
          </div>
          <Link className="underline underline-offset-4" to="/trace">
            Which bags are of which lot
          </Link>
          <Link className="underline underline-offset-4" to="/bake/past">
            Past bakes and their cure
          </Link>
        </>
      }
    >
      <BooksRooms />
      {casts === 0 ? (
        <p className="quiet">Nothing was cast {period.says}.</p>
      ) : (
        <div className="flex flex-col gap-7">
          <StandsOut {...{ period, catalogue, lots }} changes={changes} cavities={found} />
          <section>
            <Heading aside="the line is how sure it is, nine times in ten">Cavity by cavity</Heading>
            <ul className="flex flex-wrap gap-x-8 gap-y-4">
              {rows.map(({ mold, cavities }) => (
                <li key={mold.id}>
                  <Link to={`/molds/${mold.id}/care`} className="font-medium hover:underline">
                    {mold.name}
                  </Link>
                  <ul className="mt-1 flex flex-wrap">
                    {cavities.map((cavity) => (
                      <CavityColumn key={cavity.cavityId} cavity={cavity} />
                    ))}
                  </ul>
                </li>
              ))}
            </ul>
          </section>
          <ByCondition molds={rows.map(({ mold }) => mold)} />
          <ByLot lots={lots ?? []} catalogue={catalogue} />
          <ByHand people={changes?.people ?? []} />
          <section>
            <Heading aside="each mark a pour">Pour by pour</Heading>
            <PChartView pours={together} />
          </section>
          <section>
            <Heading aside="those that most comes from first; hands, powder and what does not come back">
              What went wrong, where
            </Heading>
            <div className="grid gap-x-9 gap-y-5 md:grid-cols-2 xl:grid-cols-3">
              {data.stations
                .filter(({ causes }) => Object.keys(causes).length > 0)
                .map(({ station, came, causes, costMinor }) => (
                  <div key={station}>
                    <p>
                      <b className="stamp">{stationOf(station).name}</b>{' '}
                      <span className="quiet">
                        {came} heads came there; what went wrong cost{' '}
                        {units.money(Object.values(costMinor).reduce((sum, minor) => sum + minor, 0))}
                      </span>
                    </p>
                    <ul>
                      {pareto(causes).map(({ cause, count, share }) => (
                        <li key={cause} className="mt-1.5">
                          <span className="flex justify-between gap-3">
                            <span className="min-w-0 flex-1">{cause}</span>
                            <span className="quiet">{units.money(costMinor[cause] ?? 0)}</span>
                            <b className="fig min-w-[2ch] text-right text-[19px]">{count}</b>
                          </span>
                          <span className="block h-2 bg-well">
                            <span
                              className="block h-full"
                              style={{ width: `${100 * share}%`, background: 'var(--lead-shade)' }}
                            />
                          </span>
                        </li>
                      ))}
                    </ul>
                  </div>
                ))}
            </div>
          </section>
        </div>
      )}
    </Page>
  );
}
