import { lazy, Suspense } from 'react';
import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import {
  castCount,
  countAll,
  phaseSeconds,
  SESSION_PHASES,
  triedIn,
  triedSays,
  HANDLED_WORDS,
  writeSpan,
  type PourState,
  type SessionPhase,
  type ShortsOf,
} from '@schmelz/core';
import { Link } from 'react-router';
import { useLine } from '../../api/queries.ts';
import { Unsaved } from '../../bench/BenchFrame.tsx';
import { EntryList } from '../../bench/EntryList.tsx';
import { Button } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { specOf } from '../../drawing/product.ts';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import { writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
import type { PourBench } from './usePourBench.ts';

/** Charts come with the page that has one, not with the bench. */
const SessionTimeline = lazy(() =>
  import('./SessionTimeline.tsx').then((module) => ({ default: module.SessionTimeline })),
);

/** What each cavity of a mold gave: good heads under it, by size as it is stamped, and why others were thrown back. */
function MoldGave({ mold, state }: { mold: StoredMold; state: PourState }) {
  const units = useUnits();
  const cavities = drawnCavities(mold, units.massUnit);
  const frame = moldFrame(cavities);
  return (
    <section className="mb-4">
      <Heading>{mold.name}</Heading>
      <Mold className="w-full max-w-[560px]" cavities={cavities} label={mold.name} />
      <ol className="relative mb-2 h-20 max-w-[560px]" aria-label={`What ${mold.name} gave`}>
        {mold.cavities.map((cavity, index) => {
          const record = state.byCavity[cavity.id];
          const { left, width } = frame.column(index);
          return (
            <li
              key={cavity.id}
              className="absolute text-sm"
              style={{ left: `${left * 100}%`, width: `${width * 100}%` }}
            >
              <b className="fig text-[25px]">{record?.good ?? '–'}</b>
              <span className="quiet ml-1.5">{units.head(cavity.nominalMassKg)}</span>
              {record !== undefined && record.kept > 0 && <span className="block">{record.kept} second grade</span>}
              {Object.entries(record?.rejects ?? {}).map(([cause, count]) => (
                <span key={cause} className="flex items-center gap-1 whitespace-nowrap text-stop">
                  <Icon name={causeIcon(cause)} size={12} /> {count} {cause}
                </span>
              ))}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

const PHASE_FILL: Record<SessionPhase, string> = {
  melt: 'bg-[var(--bronze)]',
  'warm-up': 'bg-straw',
  pour: 'bg-ink',
  pause: 'hatch',
  'wind-down': 'bg-lead',
};

/** Minutes by stretch of the session, as one bar. */
function Minutes({ bench }: { bench: PourBench }) {
  const seconds = phaseSeconds(bench.entries, 0);
  const all = Object.values(seconds).reduce((sum, each) => sum + each, 0);
  const shown = SESSION_PHASES.filter((phase) => seconds[phase] >= 1);
  return (
    <section className="mb-7 max-w-[640px]">
      <Heading aside={`${writeSpan(all)} from cold to closed`}>Where the time went</Heading>
      <div className="flex h-5 border border-contour" aria-hidden="true">
        {shown.map((phase) => (
          <span
            key={phase}
            className={PHASE_FILL[phase]}
            style={{ width: `${(100 * seconds[phase]) / Math.max(1, all)}%` }}
          />
        ))}
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
        {shown.map((phase) => (
          <li key={phase} className="inline-flex items-center gap-2">
            <span className={`size-3.5 border border-contour ${PHASE_FILL[phase]}`} /> {phase}{' '}
            {writeSpan(seconds[phase])}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The heads of the evening sorted into their tickets: how many of what goes into which tray. */
function Sorted({ state }: { state: PourState }) {
  const { data: line } = useLine();
  return (
    <ul className="border-t border-rule-2" aria-label="Sort them into their tickets">
      {Object.entries(state.goodByTicket).map(([id, count]) => {
        const ticket = line?.tickets.find((each) => each.id === id);
        const product = ticket?.product;
        const kept = state.keptByTicket[id] ?? 0;
        return (
          <li key={id} className="grid grid-cols-[52px_1fr_auto] items-center gap-2 border-b border-rule py-1.5">
            {product ? <Head {...specOf(product)} state="blank" scale={1.1} /> : <span />}
            <span className="leading-tight">
              <Link to={`/tickets/${id}`} className="underline decoration-rule-2 underline-offset-4">
                {ticket ? `Ticket ${ticket.number}` : 'A closed ticket'}
              </Link>
              <span className="quiet block">
                {product?.name}
                {kept > 0 && ` · ${kept} second grade, kept apart`}
              </span>
            </span>
            <b className="fig text-[23px]">{count}</b>
          </li>
        );
      })}
    </ul>
  );
}

const SAYS = { fewer: 'fewer short', more: 'more short', 'may be chance': 'may be chance' } as const;

/** What was tried against shorts, each with the shorts before it and after it. */
function WhatWasTried({ pour, bench }: { pour: Pour; bench: PourBench }) {
  const tried = triedIn(pour.setup, bench.entries);
  if (tried.length === 0) return null;
  const share = ({ shorts, casts }: ShortsOf) => `${shorts} of ${casts} short`;
  return (
    <section className="mb-7 max-w-[640px]">
      <Heading aside="up to six shots on either side">What was tried</Heading>
      <ul>
        {tried.map((each) => {
          const says = triedSays(each);
          return (
            <li key={each.at} className="flex flex-wrap items-center gap-x-5 border-b border-rule py-2">
              <span className="quiet">{writeTime(each.at)}</span>
              <b className="font-medium">{HANDLED_WORDS[each.what]}</b>
              <span className="ml-auto">
                {share(each.before)}, then {share(each.after)}
              </span>
              <span
                className={`w-36 text-right ${says === 'fewer' ? 'text-good' : says === 'more' ? 'text-stop' : 'text-ink-3'}`}
              >
                {says !== 'may be chance' && <Icon name={says === 'fewer' ? 'good' : 'stop'} />} {SAYS[says]}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** After the pour: good heads by ticket and cavity, rejects by cause, time by stretch, and what became of the lead. */
export function PourSummary({ pour, bench, molds }: { pour: Pour; bench: PourBench; molds: readonly StoredMold[] }) {
  const units = useUnits();
  const { state } = bench;
  const { balance } = state;
  const good = countAll(state.goodByTicket);
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
          <Sorted state={state} />
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
      {molds.map((mold) => (
        <MoldGave key={mold.id} mold={mold} state={state} />
      ))}
      <WhatWasTried pour={pour} bench={bench} />
      <Minutes bench={bench} />
      <Suspense fallback={<div className="h-[320px]" />}>
        <SessionTimeline pour={pour} molds={molds} bench={bench} />
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
      <EntryList log={bench.entries} />
    </Page>
  );
}
