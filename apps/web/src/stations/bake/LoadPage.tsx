import type { RunView } from '@schmelz/contract';
import { ovenState, schoolsFollowed, writeSpan, type OvenEntry, type OvenLog } from '@schmelz/core';
import { useCallback, useMemo } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { useLine, useSettings } from '../../api/queries.ts';
import { useRunOnServer, useRuns } from '../../api/runs.ts';
import { BenchFrame } from '../../bench/BenchFrame.tsx';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { benchPath } from '../../shell/line-state.ts';
import { useUnits } from '../../units/Units.tsx';
import { OvenAtWork } from './OvenAtWork.tsx';
import { OvenView } from './OvenView.tsx';
import { useOvenRun } from './useOvenRun.ts';

/** Out of the oven: ticket by ticket to look at. */
function Out({ run }: { run: RunView }) {
  const { data: line } = useLine();
  const units = useUnits();
  const productOf = useCallback(() => undefined, []);
  const oven = useOvenRun(run, productOf);
  const { load } = oven;
  return (
    <BenchFrame
      actions={oven.actions}
      stub={
        <>
          <h1 className="voice text-2xl font-normal">Out, to look at</h1>
          <p className="fig text-[150px]">{load.count}</p>
          <p className="text-lg">
            {units.temperature(load.setC)} for {writeSpan(load.seconds)}. Count them ticket by ticket.
          </p>
        </>
      }
    >
      {load.unloadedAt !== null && load.coolS > 0 && <OvenView.CoolDown outAt={load.unloadedAt} coolS={load.coolS} />}
      <ul className="mt-4">
        {load.heads.map(({ ticketId, step, count }) => {
          const ticket = line?.tickets.find((each) => each.id === ticketId);
          const product = ticket?.product;
          return (
            <li
              key={ticketId + step}
              className="grid grid-cols-[90px_1fr_auto_auto] items-center gap-4 border-b border-rule py-3 text-lg"
            >
              {product ? <Head {...specOf(product)} paint={paintOn(product)} state="baked" scale={1.8} /> : <span />}
              <span>
                {ticket ? `Ticket ${ticket.number}` : 'A closed ticket'}
                <span className="quiet block">{product?.name}</span>
              </span>
              <b className="fig text-[34px]">{count}</b>
              <Button look="main" asChild className="h-16">
                <Link to={benchPath('bake', ticketId, step)}>Look at them</Link>
              </Button>
            </li>
          );
        })}
      </ul>
    </BenchFrame>
  );
}

/** Where a load that was taken back is made anew: at its ticket, or where loads of several are drawn. */
function backTo(run: RunView | null): string {
  const load = (run?.log as OvenEntry[] | undefined)?.findLast((entry) => entry.kind === 'load');
  const [only] = load?.heads ?? [];
  return only && load?.heads.length === 1 ? benchPath('bake', only.ticketId, only.step) : '/bake/loads';
}

/** The bench of one load of the oven, whatever tickets hang in it. */
export function LoadBenchPage() {
  const { id = '' } = useParams();
  const { data: found, error } = useRunOnServer('oven', id);
  const { data: line } = useLine();
  const { data: settings } = useSettings();
  const onServer = useMemo(() => (found ? [found] : []), [found]);
  const run = useRuns(onServer).find((each) => each.id === id);
  const productOf = useCallback(
    (ticketId: string) => line?.tickets.find((ticket) => ticket.id === ticketId)?.product,
    [line],
  );
  if (found === undefined || !line || !settings) return <Waiting error={error} />;
  if (!run) return <Navigate to={backTo(found)} replace />;
  const { phase, heads } = ovenState(run.log as OvenLog);
  // Heads of one ticket are looked at where they were hung up.
  const [only] = heads;
  if (phase === 'out' && heads.length === 1)
    return <Navigate to={benchPath('bake', only!.ticketId, only!.step)} replace />;
  if (phase === 'out') return <Out run={run} />;
  const schools = schoolsFollowed(settings.ways.schools);
  return <OvenAtWork run={run} productOf={productOf} schools={schools} />;
}
