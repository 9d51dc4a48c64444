import { lazy, Suspense } from 'react';
import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { castCount, writeSpan } from '@schmelz/core';
import { Link } from 'react-router';
import { useLine } from '../../api/queries.ts';
import { Unsaved } from '../../bench/BenchFrame.tsx';
import { Button } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../molds/drawn.ts';
import type { PourBench } from './usePourBench.ts';

/** Charts come with the page that has one, not with the bench. */
const SessionTimeline = lazy(() =>
  import('./SessionTimeline.tsx').then((module) => ({ default: module.SessionTimeline })),
);

/** After the pour: good heads by ticket, rejects by cavity, and what became of the lead. */
export function PourSummary({ pour, bench, mold }: { pour: Pour; bench: PourBench; mold: StoredMold }) {
  const units = useUnits();
  const { data: line } = useLine();
  const { state } = bench;
  const { balance } = state;
  const good = Object.values(state.goodByBatch).reduce((sum, count) => sum + count, 0);
  const cavities = drawnCavities(mold, units.massUnit);
  const frame = moldFrame(cavities);
  const parts = balance
    ? ([
        ['heads', balance.headsKg, 'bg-lead'],
        ['sprues', balance.sprueBackKg, 'bg-rule-2'],
        ['rejects', balance.rejectsBackKg, 'bg-stop'],
        ['dross', balance.drossKg, 'bg-ink'],
        ['left in the pot', balance.heelKg, 'bg-straw'],
      ] as const)
    : [];
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={`Pour ${pour.number}, closed`} value={good}>
            good heads of {castCount(state)} casts
          </TheNumber>
          <p className="text-ink-2">
            {state.shots.length} shots and {state.blanks} blank ones, {writeSpan(state.workS)} at work,{' '}
            {state.workS > 0 ? Math.round((castCount(state) / state.workS) * 3600) : 0} heads an hour.
          </p>
          <Unsaved count={bench.unsaved} />
          <ul className="border-t border-rule-2">
            {Object.entries(state.goodByBatch).map(([id, count]) => {
              const ticket = line?.tickets.find((each) => each.id === id);
              return (
                <li key={id} className="flex justify-between border-b border-rule py-1.5">
                  <Link to={`/tickets/${id}`} className="underline decoration-rule-2 underline-offset-4">
                    {ticket ? `Ticket ${ticket.number}` : 'A closed ticket'}
                  </Link>
                  <b className="fig text-[19px]">{count}</b>
                </li>
              );
            })}
          </ul>
          <div className="flex gap-4">
            <Button look="main" asChild>
              <Link to="/trim">On to trimming</Link>
            </Button>
            <Button look="quiet" onClick={bench.undo}>
              Open it again
            </Button>
          </div>
        </>
      }
    >
      <Heading>{mold.name}</Heading>
      <Mold className="w-full max-w-[640px]" cavities={cavities} label={mold.name} />
      <ol className="relative mb-6 h-24 max-w-[640px]">
        {mold.cavities.map((cavity, index) => {
          const record = state.byPosition[cavity.position];
          const { left, width } = frame.column(index);
          return (
            <li
              key={cavity.id}
              className="absolute text-sm"
              style={{ left: `${left * 100}%`, width: `${width * 100}%` }}
            >
              <b className="fig text-[25px]">{record?.good ?? '–'}</b>
              {Object.entries(record?.rejects ?? {}).map(([cause, count]) => (
                <span key={cause} className="flex items-center gap-1 whitespace-nowrap text-stop">
                  <Icon name={causeIcon(cause)} size={12} /> {count} {cause}
                </span>
              ))}
            </li>
          );
        })}
      </ol>
      <Suspense fallback={<div className="h-[320px]" />}>
        <SessionTimeline pour={pour} mold={mold} bench={bench} />
      </Suspense>
      {balance && (
        <>
          <Heading aside={`${units.bulk(balance.chargedKg)} charged`}>What became of the lead</Heading>
          <div className="flex h-5">
            {parts.map(([name, kg, fill]) => (
              <span
                key={name}
                className={fill}
                style={{ width: `${(100 * kg) / Math.max(balance.chargedKg, 1e-9)}%` }}
              />
            ))}
          </div>
          <ul className="mt-3 max-w-[420px]">
            {parts.map(([name, kg, fill]) => (
              <li key={name} className="grid grid-cols-[16px_1fr_auto] items-center gap-x-3 py-0.5">
                <span className={`size-3.5 ${fill}`} />
                <span>{name}</span>
                <span>{units.bulk(kg)}</span>
              </li>
            ))}
            <li className="grid grid-cols-[16px_1fr_auto] gap-x-3 py-0.5 font-semibold">
              <span />
              <span>unexplained</span>
              <span>{units.bulk(Math.abs(balance.unexplainedKg) < 5e-8 ? 0 : balance.unexplainedKg)}</span>
            </li>
          </ul>
        </>
      )}
    </Page>
  );
}
