import type { Ticket } from '@schmelz/contract';
import {
  bakeAt,
  celsiusToFahrenheit,
  fitsIn,
  FULL_ENOUGH,
  loadsFor,
  writeClock,
  writeSpan,
  type TicketProduct,
} from '@schmelz/core';
import { lazy, Suspense, useDeferredValue, useMemo } from 'react';
import { useList } from '../../api/queries.ts';
import { BenchNumber } from '../../bench/BenchFrame.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution } from '../../design/Notice.tsx';
import { RackView, rackScale } from '../../drawing/RackView.tsx';
import { useNow } from '../../shell/clock.ts';
import { useUnits } from '../../units/Units.tsx';
import { kindsOf } from './racked.ts';
import type { OvenRun } from './useOvenRun.ts';

const HeatChart = lazy(() => import('./HeatChart.tsx').then((module) => ({ default: module.HeatChart })));

/** At the end of a program this much of a full cure is enough. */
const ENOUGH = FULL_ENOUGH;

function Watch({ children, good = false }: { children: React.ReactNode; good?: boolean }) {
  return (
    <p className={`flex gap-2 ${good ? 'text-good' : 'text-watch'}`}>
      <Icon name={good ? 'good' : 'watch'} className="mt-1 shrink-0" />
      <span>{children}</span>
    </p>
  );
}

/** While heads are in the oven: the clock, how warm the metal is, how far the cure, what its parts stand. */
function Stub({ oven }: { oven: OvenRun }) {
  const units = useUnits();
  const { load, course, probe, now } = oven;
  const tickets = new Set(load.heads.map((each) => each.ticketId)).size;
  const endsAt = course?.endsAt ?? load.endsAt;
  const leftS = (endsAt - now) / 1000;
  const doorOpen = load.doors.at(-1)?.toAt === null;
  const warming = load.from === 'metal' && load.warmAt === null;
  return (
    <>
      <BenchNumber
        says={
          doorOpen
            ? 'The door is open'
            : leftS > 0
              ? warming
                ? 'Warming; take out in about'
                : 'Take out in'
              : 'Take them out, over by'
        }
        value={writeClock(Math.abs(leftS))}
      />
      <p className="text-lg">
        {load.count} heads at {units.temperature(load.setC)} for {writeSpan(load.seconds)}
        {load.from === 'metal' ? ', counted from warm metal' : ''}
        {tickets > 1 ? `, of ${tickets} tickets` : ''}
      </p>
      {course?.state.forgotten && (
        <Caution>
          In the oven for more than eight hours: was the taking out forgotten? The cure is reckoned for the first eight.
          If it was taken out, say so, and look at the heads.
        </Caution>
      )}
      {course && (
        <>
          <div>
            <p className="flex items-baseline justify-between text-lg">
              <span>Metal {course.state.probed ? 'by the probe' : 'by the model'}</span>
              <b className="fig text-[34px]">{units.temperature(course.state.metalC)}</b>
            </p>
            <p className="flex items-baseline justify-between text-lg">
              <span>Cure, {course.powder}</span>
              <Fig figure={course.soFar} title="Cure so far" className="fig text-[34px]">
                {`${Math.round(course.state.cure * 100)} %`}
              </Fig>
            </p>
            <div className="mt-1 h-3 bg-well">
              <div className="h-full bg-good" style={{ width: `${Math.min(100, course.state.cure * 100)}%` }} />
            </div>
          </div>
          <Watch good={course.atEnd >= ENOUGH}>
            At the end of this program {Math.round(course.atEnd * 100)} % of a full cure.
            {course.state.fullAt === null
              ? ' At this heat it is never full.'
              : course.state.fullAt > now
                ? ` Full in ${writeSpan((course.state.fullAt - now) / 1000)}, by the metal’s heat.`
                : ' It is full.'}
          </Watch>
          {course.damage.flag !== 'none' && (
            <Watch>
              {course.limitC !== null && `What hangs there stands ${units.temperature(course.limitC)}; `}the oven is set
              to {units.temperature(load.setC)}: by the end it{' '}
              {course.damage.flag === 'browned' ? 'will have browned' : 'may have coloured'},{' '}
              {writeSpan(course.damage.overS)} over.
            </Watch>
          )}
        </>
      )}
      {probe.elsewhere && <p className="quiet">The oven&apos;s probe reads a room: it is left out.</p>}
    </>
  );
}

function Chart({ oven }: { oven: OvenRun }) {
  const { temperatureUnit } = useUnits();
  const { load, course, now } = oven;
  const inUnit = (celsius: number) => Math.round(temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  const minute = (at: number) => (at - load.loadedAt) / 60_000;
  // A key shows before the curve follows it.
  const points = useDeferredValue(course?.points);
  const shown = useMemo(() => {
    const every = Math.max(1, Math.ceil((points?.length ?? 0) / 240));
    const some = points?.filter((_, i, all) => i % every === 0 || i === all.length - 1) ?? [];
    return some.map((point) => ({
      minute: (point.at - load.loadedAt) / 60_000,
      oven: Math.round(temperatureUnit === 'F' ? celsiusToFahrenheit(point.airC) : point.airC),
      metal: Math.round(temperatureUnit === 'F' ? celsiusToFahrenheit(point.metalC) : point.metalC),
      cure: Math.round(point.share * 100),
    }));
  }, [points, load.loadedAt, temperatureUnit]);
  if (!course) return null;
  // To a tenth of a minute: what the clock moves by less is no other picture.
  const tenth = (at: number) => Math.round(10 * minute(at)) / 10;
  return (
    <Suspense fallback={<div className="h-[420px]" />}>
      <HeatChart
        points={shown}
        unit={temperatureUnit}
        nowMinute={minute(now)}
        endMinute={tenth(course.endsAt)}
        fullMinute={course.state.fullAt === null ? null : tenth(course.state.fullAt)}
        limit={course.limitC === null ? null : inUnit(course.limitC)}
        from={
          course.state.probed
            ? 'Up to now by the probe in the oven, from there by the model.'
            : 'Computed from the program and the door, not measured.'
        }
      />
    </Suspense>
  );
}

function Program({ product, step }: { product: TicketProduct; step: string }) {
  const units = useUnits();
  const { data: ovens } = useList('ovens');
  const program = bakeAt(product, step);
  if (!program) {
    return <Watch>No program is named for this bake: say one at the product, and take it over at the ticket.</Watch>;
  }
  return (
    <p className="text-lg text-ink-2">
      {units.temperature(program.setC)} for {writeSpan(program.seconds)},{' '}
      {program.preheated ? 'oven hot first' : 'from cold'}
      {program.from === 'metal' ? ', counted from warm metal' : ''}; {fitsIn(ovens?.[0], product)} places.
    </p>
  );
}

/** The rack as it goes in, each head in its place; what is given instead where no rack is drawn. */
function Loading({
  ticket,
  step,
  heads,
  children,
}: {
  ticket: Ticket;
  step: string;
  heads: number;
  children: React.ReactNode;
}) {
  const { data: ovens } = useList('ovens');
  const program = bakeAt(ticket.product, step);
  const { loads } = loadsFor(program ? [{ ticket, step, heads, program }] : [], ovens?.[0]?.racks ?? []);
  const [first] = loads;
  if (!first) return children;
  const count = first.bars.flat().reduce((sum, each) => sum + each.heads, 0);
  const kinds = kindsOf([ticket], 'powder');
  return (
    <div>
      <RackView
        rack={first.rack}
        bars={first.bars}
        kinds={kinds}
        pitchM={kinds.get(ticket.id)!.pitchM}
        scale={rackScale(first.rack, 700, 470)}
        label={`${first.rack.name} with ${count} heads`}
      />
      <p className="mt-2 text-lg">
        {first.rack.name}, {first.rack.way}: {count} of {heads}{' '}
        {loads.length > 1 ? `now, ${loads.length} loads in all` : 'in one load'}.
      </p>
    </div>
  );
}

/** Just out of the oven: how long hands stay off. */
function CoolDown({ outAt, coolS }: { outAt: number; coolS: number }) {
  const now = useNow(1000);
  const leftS = coolS - (now - outAt) / 1000;
  if (leftS <= 0) return null;
  return (
    <div role="note" className="bg-watch-wash px-4 py-3 text-watch">
      <p className="text-lg font-semibold">
        Hot. Fit to handle in <span className="fig text-[34px]">{writeClock(leftS)}</span>
      </p>
      <Caution>Gloves, and set the rack on metal: a bare hook is as hot as its head.</Caution>
    </div>
  );
}

export const OvenView = { Stub, Chart, Program, Loading, CoolDown };
