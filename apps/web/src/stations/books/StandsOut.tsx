import type { ChangesView, ChangeView, LotQuality, Mold, PersonView, QualityView } from '@schmelz/contract';
import { auditBake, auditMonths, dialDrift, pareto, stationOf } from '@schmelz/core';
import { useMemo } from 'react';
import { useBakes, useList, useRecords } from '../../api/queries.ts';
import { eachShown } from '../../design/each-shown.ts';
import { chanceSays, Found, timesAsOften } from '../../design/Found.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import type { LookedAt } from '../../design/Period.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { monthStart, writeDay, writeDayShort, writeLongMonth } from '../../units/dates.ts';
import { useUnits, type Units } from '../../units/Units.tsx';
import { pastBakes } from '../../shell/past-bakes.ts';
import { Finding } from '../../shell/Findings.tsx';
import { lotSays } from '../../shell/lot-says.ts';
import { pairsOf } from '../../shell/useDial.ts';

/** A cavity with what came of it, and whether that stands out. */
export type QualityCavity = QualityView['cavities'][number] & { standsOut: boolean };

/** A cavity that is worse than those beside it. */
export interface JudgedCavity {
  mold: Mold;
  cavity: QualityCavity;
}

/** No more than this of what went with a change is told. */
const TOLD = 2;
const percent = (share: number) => `${Math.round(100 * share)} %`;

/** What went with a change, in words: a lot, a mold, what the oven was set to; and where to look at it. */
function wentWith(
  { meanwhile, lots }: ChangeView,
  { materials, molds, product }: Catalogue,
  units: Units,
): { says: string; path: string | null }[] {
  const partOf = (id: string) => materials.get(id)?.name ?? 'a part that is gone';
  return meanwhile.slice(0, TOLD).map(({ kind, key, badShare, outsideShare }) => {
    const of = `${percent(badShare)} of them, ${outsideShare === 0 ? 'and of the others none' : `of the others ${percent(outsideShare)}`}`;
    if (kind === 'lot') {
      const lot = lots.find(({ lotId }) => String(lotId) === key);
      return {
        says: `${lot ? `${partOf(lot.materialId)}, ${lotSays(lot)}` : 'one lot'}: ${of}`,
        path: `/trace/lot/${key}`,
      };
    }
    if (kind === 'set') return { says: `Baked at ${units.temperature(Number(key))}: ${of}`, path: '/bake/past' };
    if (kind === 'who') return { says: `By ${key}: ${of}`, path: null };
    if (kind === 'metal') return { says: `Poured in ${partOf(key)}: ${of}`, path: '/lead' };
    if (kind === 'mold') {
      const mold = molds.find(({ id }) => id === key)?.name ?? 'a mold that is gone';
      return { says: `Out of ${mold}: ${of}`, path: `/molds/${key}/care` };
    }
    return { says: `${product(key)?.name ?? 'A product that is gone'}: ${of}`, path: null };
  });
}

/** When it was: until, since, or from a day to another. */
function whenSays({ from, to, fromFirst, toLast }: ChangeView): string {
  if (toLast) return `since ${writeDay(from.at)}`;
  if (fromFirst) return `until ${writeDay(to.at)}, and less since`;
  return `${writeDayShort(from.at)} to ${writeDay(to.at)}`;
}

function Change({ change, catalogue }: { change: ChangeView; catalogue: Catalogue }) {
  const units = useUnits();
  const { station, cause, heads, bad, rest, from, to, chance } = change;
  const went = wentWith(change, catalogue, units);
  const what = station === 'pour' ? 'pours' : 'tickets';
  const path = went.find((each) => each.path !== null)?.path;
  return (
    <Found
      value={bad}
      title={`More “${cause}” at ${stationOf(station).name}, ${whenSays(change)}`}
      to={path ? { path, says: 'Look at it' } : undefined}
    >
      <p>
        {bad} of {heads} heads in {what} {from.number} to {to.number}; of all others {rest.bad} of {rest.heads}
        {timesAsOften(change, rest)}.
      </p>
      {went.map(({ says }, at) => (
        <p key={says}>
          {at === 0 ? 'What went with it: ' : 'And: '}
          {says}.
        </p>
      ))}
      {went.length === 0 && <p>Nothing that is on record went with it.</p>}
      <p className="quiet">{chanceSays(chance, 'such year')}</p>
    </Found>
  );
}

function Worse({ person }: { person: PersonView }) {
  const { station, who, heads, bad, expected, chance } = person;
  return (
    <Found value={bad} title={`${who} at ${stationOf(station).name}`}>
      <p>
        {bad} of {heads} heads were not good; of heads like these one would expect {Math.round(expected)}.
      </p>
      <p className="quiet">{chanceSays(chance, 'person')}</p>
    </Found>
  );
}

function Cavities({ found }: { found: readonly JudgedCavity[] }) {
  return found.map(({ mold, cavity: { cavityId, position, casts, good, causes } }) => {
    const [worst] = pareto(causes);
    return (
      <Found
        key={cavityId}
        value={casts - good}
        title={`${mold.name}, cavity ${position}`}
        to={{ path: `/molds/${mold.id}/care`, says: 'Look at it' }}
      >
        <p>
          {casts - good} of {casts} casts were not good{worst ? `, most as “${worst.cause}”` : ''}: worse than the
          cavities beside it that cast the same head, beyond chance.
        </p>
      </Found>
    );
  });
}

/** A dial of which the same mark gets hotter or colder. */
function Drift({ potId, name }: { potId: string; name: string }) {
  const units = useUnits();
  const { data: marks } = useRecords('dial', potId);
  const drift = useMemo(() => dialDrift(pairsOf(marks ?? [])), [marks]);
  if (!drift?.real) return null;
  return (
    <Found
      value={units.write(Math.abs(drift.kPerMonth), 'K')}
      title={`The dial of ${name} drifts`}
      to={{ path: '/lead/dial', says: 'Look at it' }}
    >
      <p>
        The same mark gets {drift.kPerMonth > 0 ? 'hotter' : 'colder'} by so much a month, from {drift.pairs} readings.
      </p>
    </Found>
  );
}

/** Heads that went out under-cured, by the programs that were logged, in the month with most of them. */
function UnderCured({ period }: { period: LookedAt }) {
  const { data: bakes } = useBakes(period);
  const { data: ovens } = useList('ovens');
  const months = useMemo(() => {
    if (!bakes || !ovens) return [];
    const { made } = eachShown(
      bakes,
      ({ ticketNumber }) => `the load of ticket ${ticketNumber}`,
      (bake) => pastBakes(bake, ovens[0]).map(auditBake),
    );
    return auditMonths(made.flat(), monthStart).filter(({ underCuredHeads }) => underCuredHeads > 0);
  }, [bakes, ovens]);
  if (months.length === 0) return null;
  const heads = months.reduce((sum, { underCuredHeads }) => sum + underCuredHeads, 0);
  const [first, last] = [months[0]!, months.at(-1)!];
  const when = first === last ? writeLongMonth(first.at) : `${writeLongMonth(first.at)} to ${writeLongMonth(last.at)}`;
  return (
    <Found value={heads} title={`Under-cured, ${when}`} to={{ path: '/bake/past', says: 'Look at it' }}>
      <p>
        So many heads came out of the oven before their powder was full, by the programs that were logged and the labels
        of the jars.
      </p>
    </Found>
  );
}

/** All that the records say by themselves: what is beyond chance, with when it was and what went with it. */
export function StandsOut({
  period,
  cavities,
  changes,
  lots,
  catalogue,
}: {
  period: LookedAt;
  cavities: readonly JudgedCavity[];
  changes: ChangesView | undefined;
  lots: readonly LotQuality[] | undefined;
  catalogue: Catalogue;
}) {
  const { data: pots } = useList('pots');
  if (!changes || !lots) return <Waiting />;
  return (
    <section aria-label="What stands out">
      <Heading aside="beyond chance: in a year of nothing but chance, each kind of it comes up once in a hundred">
        What stands out
      </Heading>
      <div className="[&:not(:has(>div))]:before:content-['Nothing_does.']">
        <Cavities found={cavities} />
        {changes.changes.map((change) => (
          <Change key={`${change.station} ${change.cause}`} {...{ change, catalogue }} />
        ))}
        {changes.people
          .filter(({ standsOut }) => standsOut)
          .map((person) => (
            <Worse key={`${person.station} ${person.who}`} person={person} />
          ))}
        {lots
          .filter(({ standsOut }) => standsOut)
          .map((lot) => (
            <Finding key={lot.lotId} {...{ lot, catalogue }} />
          ))}
        <UnderCured period={period} />
        {pots?.map(({ id, name }) => (
          <Drift key={id} potId={id} name={name} />
        ))}
      </div>
    </section>
  );
}
