import type { Ticket } from '@schmelz/contract';
import { celsiusToFahrenheit, cureShare, writeClock, writeSpan } from '@schmelz/core';
import { lazy, Suspense, useMemo } from 'react';
import { useList } from '../../api/queries.ts';
import { BenchNumber } from '../../bench/BenchFrame.tsx';
import { Icon } from '../../design/Icon.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { useUnits } from '../../units/Units.tsx';
import type { TicketBench } from '../count/useTicketBench.ts';
import { ovenCurve } from './oven-curve.ts';
import { programOf } from './useOvenActions.ts';

const HeatChart = lazy(() => import('./HeatChart.tsx').then((module) => ({ default: module.HeatChart })));

interface Props {
  ticket: Ticket;
  bench: TicketBench;
  catalogue: Catalogue;
}

const openLoad = (bench: TicketBench) => bench.state.loads.find((load) => load.unloadedAt === null)!;

function useCurve({ ticket, bench, catalogue }: Props) {
  const { data: ovens } = useList('ovens');
  const load = openLoad(bench);
  return useMemo(() => ovenCurve(ticket, load, catalogue, ovens?.[0]), [ticket, load, catalogue, ovens]);
}

/** While heads are in the oven: the clock, how far the cure is, and what the hook's finish stands. */
function Stub(props: Props) {
  const now = useNow(500);
  const units = useUnits();
  const load = openLoad(props.bench);
  const curve = useCurve(props);
  const passedS = Math.max(0, (now - load.loadedAt) / 1000);
  const leftS = load.seconds - passedS;
  const cure = curve.input ? cureShare(curve.input, Math.min(86_400, passedS)) : null;
  const atEnd = curve.input ? cureShare(curve.input, load.seconds) : null;
  return (
    <>
      <BenchNumber says={leftS > 0 ? 'Take out in' : 'Take them out, over by'} value={writeClock(Math.abs(leftS))} />
      <p className="text-lg">
        {load.count} heads at {units.temperature(load.setC)} for {writeSpan(load.seconds)}, ticket {props.ticket.number}
      </p>
      {cure !== null && atEnd !== null && (
        <>
          <div>
            <p className="flex items-baseline justify-between text-lg">
              <span>Cure by the model</span>
              <b className="fig text-[34px]">{Math.round(cure * 100)} %</b>
            </p>
            <div className="mt-1 h-3 bg-well">
              <div className="h-full bg-good" style={{ width: `${Math.min(100, cure * 100)}%` }} />
            </div>
          </div>
          <p className={`flex gap-2 ${atEnd < 0.95 ? 'text-watch' : 'text-good'}`}>
            <Icon name={atEnd < 0.95 ? 'watch' : 'good'} className="mt-1 shrink-0" />
            <span>
              At the end of this program {Math.round(atEnd * 100)} % of a full cure.
              {curve.fullS !== null && ` Full after ${writeSpan(curve.fullS)}.`}
            </span>
          </p>
        </>
      )}
      {curve.finishLimitC !== null && load.setC > curve.finishLimitC && (
        <p className="flex gap-2 text-watch">
          <Icon name="watch" className="mt-1 shrink-0" />
          <span>
            This hook's finish browns above {units.temperature(curve.finishLimitC)}; the oven is set to{' '}
            {units.temperature(load.setC)}.
          </span>
        </p>
      )}
    </>
  );
}

function Chart(props: Props) {
  const now = useNow(2000);
  const { temperatureUnit } = useUnits();
  const load = openLoad(props.bench);
  const curve = useCurve(props);
  const inUnit = (celsius: number) => Math.round(temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  if (!curve.input) return null;
  return (
    <Suspense fallback={<div className="h-[420px]" />}>
      <HeatChart
        points={curve.points.map((point) => ({ ...point, oven: inUnit(point.ovenC), metal: inUnit(point.metalC), cure: Math.round(point.cure * 100) }))} // prettier-ignore
        unit={temperatureUnit}
        nowMinute={(now - load.loadedAt) / 60_000}
        endMinute={load.seconds / 60}
        fullMinute={curve.fullS === null ? null : curve.fullS / 60}
        limit={curve.finishLimitC === null ? null : inUnit(curve.finishLimitC)}
      />
    </Suspense>
  );
}

function Program({ ticket, catalogue }: { ticket: Ticket; catalogue: Catalogue }) {
  const units = useUnits();
  const { data: ovens } = useList('ovens');
  const program = programOf(ticket, catalogue);
  if (!program) return null;
  return (
    <p className="text-lg text-ink-2">
      {units.temperature(program.setC)} for {writeSpan(program.seconds)},{' '}
      {program.preheated ? 'oven hot first' : 'from cold'}; {ovens?.[0]?.places} places.
    </p>
  );
}

export const OvenView = { Stub, Chart, Program };
