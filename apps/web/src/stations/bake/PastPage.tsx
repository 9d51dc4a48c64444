import { auditBake, auditMonths, cureWords, pastCureFigure, type AuditedBake, underCuredFigure } from '@schmelz/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useBakes, useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { eachShown } from '../../design/each-shown.ts';
import { LeftOut, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { usePeriod, Years } from '../../design/Period.tsx';
import { monthStart, writeDay, writeLongMonth } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { pastBakes } from '../../shell/past-bakes.ts';
import { BakeRooms } from './rooms.tsx';

const MonthChart = lazy(() => import('./MonthChart.tsx').then((module) => ({ default: module.MonthChart })));

const SHOWN = 14;

function BakeRow({ bake }: { bake: AuditedBake }) {
  const units = useUnits();
  return (
    <tr>
      <td>{writeDay(bake.at)}</td>
      <td>{bake.name}</td>
      <td className="num">{bake.heads}</td>
      <td className="num">
        {units.temperature(bake.setC)}, {Math.round(bake.seconds / 60)} min
      </td>
      <td className="num">
        <Fig
          figure={pastCureFigure(bake)}
          title="Cure"
          className="fig text-[19px]"
        >{`${Math.round(100 * bake.cure)} %`}</Fig>
      </td>
      <td className={bake.underCured ? 'text-stop' : bake.damage.flag === 'none' ? 'text-ink-2' : 'text-watch'}>
        {bake.underCured ? cureWords(bake.cure) : bake.damage.flag === 'none' ? 'full' : `hooks ${bake.damage.flag}`}
      </td>
    </tr>
  );
}

/** The bakes of a year, computed again: which heads went out under-cured, and when. */
export function PastPage() {
  const period = usePeriod();
  const { data: bakes, error } = useBakes(period);
  const { data: ovens } = useList('ovens');
  const [all, setAll] = useState(false);
  const shownOf = useMemo(
    () =>
      bakes && ovens
        ? eachShown(
            bakes,
            (bake) => `the load of ticket ${bake.ticketNumber} on ${writeDay(bake.loadedAt)}`,
            (bake) => pastBakes(bake, ovens[0]).map(auditBake),
          )
        : null,
    [bakes, ovens],
  );
  if (!shownOf) return <Waiting error={error} />;
  const audited = shownOf.made.flat().sort((a, b) => b.at - a.at);
  const months = auditMonths(audited, monthStart);
  const under = audited.filter((bake) => bake.underCured);
  const heads = under.reduce((sum, bake) => sum + bake.heads, 0);
  const worst = [...months].sort((a, b) => b.underCuredHeads - a.underCuredHeads)[0];
  const shown = all ? audited : under.length > 0 ? under.slice(0, SHOWN) : audited.slice(0, SHOWN);
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              <Fig figure={underCuredFigure(audited)} title="Under-cured heads">
                {String(heads)}
              </Fig>
            }
          >
            heads went out under-cured, of {audited.reduce((sum, bake) => sum + bake.heads, 0)} baked {period.says}
          </TheNumber>
          {worst && worst.underCuredHeads > 0 && (
            <p className="flex items-start gap-2 font-medium text-watch">
              <Icon name="watch" className="mt-1 shrink-0" />
              <span>
                Worst in {writeLongMonth(worst.at)}: {worst.underCuredHeads} of {worst.heads} heads. Look at what the
                oven was set to then, and who got them.
              </span>
            </p>
          )}
          <Years />
          <p className="text-ink-2">
            From the programs that were logged and the labels of the jars as they are on record now. Chips on the first
            rock begin below nine tenths.
          </p>
        </>
      }
    >
      <BakeRooms />
      <LeftOut odd={shownOf.odd} />
      <Heading>Heads by month, full and under-cured</Heading>
      <Suspense fallback={<div className="h-[240px]" />}>
        <MonthChart months={months} />
      </Suspense>
      <div className="mt-5">
        <Heading
          aside={
            <Button look="quiet" onClick={() => setAll(!all)}>
              {all ? 'Only those that fall short' : 'All bakes'}
            </Button>
          }
        >
          {all || under.length === 0 ? 'Bakes' : 'Bakes that fall short'}
        </Heading>
        <div className="overflow-x-auto">
          <table className="sheet-table min-w-[640px]">
            <thead>
              <tr>
                <th>Baked</th>
                <th>What</th>
                <th className="num">Heads</th>
                <th className="num">Program</th>
                <th className="num">Cure</th>
                <th>In words</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((bake) => (
                <BakeRow key={bake.id} bake={bake} />
              ))}
            </tbody>
          </table>
        </div>
        {audited.length === 0 && <p className="quiet mt-3">Nothing came out of the oven {period.says}.</p>}
      </div>
    </Page>
  );
}
