import type { RunView } from '@schmelz/contract';
import { bakeAt, bakeCounts, bakedHead, fitsIn, ovenState, type OvenEntry, type OvenLog } from '@schmelz/core';
import { useCallback } from 'react';
import { useList } from '../../api/queries.ts';
import { sayToLog } from '../../api/outbox.ts';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../../bench/BenchFrame.tsx';
import { undoActions } from '../../bench/undo.ts';
import { Cautions, CountFrame, TicketLine, type BenchProps } from '../../counting/CountFrame.tsx';
import { cautionsOf } from '../../counting/words.ts';
import { Waiting } from '../../design/Notice.tsx';
import { HeadRack } from '../../counting/HeadRack.tsx';
import { LoadSays } from '../../shell/BakeSays.tsx';
import { loadOven } from './loading.ts';
import { OvenAtWork } from './OvenAtWork.tsx';
import { OvenView } from './OvenView.tsx';

/** The loads of this ticket's heads at its step, newest last. */
const loadsHere = ({ ticket, bench }: BenchProps): RunView[] =>
  bench.runs
    .filter((run) =>
      ovenState(run.log as OvenLog).heads.some(
        (heads) => heads.ticketId === ticket.id && heads.step === bench.here.key,
      ),
    )
    .sort((a, b) => ovenState(a.log as OvenLog).loadedAt - ovenState(b.log as OvenLog).loadedAt);

/** Takes back the taking out, as long as nothing was counted since. */
function undoOut(run: RunView | undefined, { bench }: BenchProps): BenchAction[] {
  const out = run && ovenState(run.log as OvenLog).unloadedAt;
  if (!run || out === null || out === undefined || (bench.last?.at ?? 0) > out) return [];
  const entry = (run.log as OvenEntry[]).findLast((each) => each.kind === 'unload');
  const label = 'Not taken out';
  return entry
    ? [
        {
          key: 'B',
          label,
          weight: 'quiet',
          run: () => sayToLog(`/runs/oven/${run.id}`, { kind: 'undo', target: entry.id }),
        },
      ]
    : [];
}

/** Hung up, in the oven, out and looked at: load after load. */
export function BakeBench(props: BenchProps) {
  const { ticket, bench, schools } = props;
  const { data: ovens } = useList('ovens');
  const productOf = useCallback((ticketId: string) => (ticketId === ticket.id ? ticket.product : undefined), [ticket]);
  const step = bench.here.key;
  const loads = loadsHere(props);
  const baking = loads.find((run) => ovenState(run.log as OvenLog).phase === 'baking');
  if (baking) return <OvenAtWork run={baking} productOf={productOf} schools={schools} />;
  const out = loads.at(-1);
  const done = out && ovenState(out.log as OvenLog);
  const hot = done && done.unloadedAt !== null && done.coolS > 0 && (
    <OvenView.CoolDown outAt={done.unloadedAt} coolS={done.coolS} />
  );
  const { toLoad, toInspect } = bakeCounts(bench.state, step);
  const oven = ovens?.[0];
  const program = bakeAt(ticket.product, step);
  // A key that is pressed before the oven is known would be lost.
  if (!ovens) return <Waiting />;
  if (toLoad > 0 && toInspect === 0) {
    const count = Math.min(fitsIn(oven, ticket.product), toLoad);
    const head = bakedHead(ticket.product, step);
    const hang: BenchAction = {
      key: 'Space',
      code: ' ',
      label: 'Door is shut',
      hint: `${count} heads`,
      weight: 'main',
      disabled: !program,
      run: () =>
        void loadOven([{ ticketId: ticket.id, step, count }], head ? [{ ...head, count }] : [], program!, oven),
    };
    return (
      <BenchFrame
        actions={[hang, ...undoActions(bench), ...undoOut(out, props)]}
        stub={
          <>
            <BenchNumber says="Hang up and load" value={String(toLoad)} />
            <TicketLine ticket={ticket} bench={bench} />
            <OvenView.Program product={ticket.product} step={step} />
            {program && <LoadSays heads={[{ product: ticket.product, step, count }]} program={program} oven={oven} />}
            <Unsaved count={bench.unsaved} />
          </>
        }
      >
        {hot}
        <OvenView.Loading ticket={ticket} step={step} heads={toLoad}>
          <HeadRack ticket={ticket} here={bench.here} />
        </OvenView.Loading>
        <Cautions all={cautionsOf('bake', schools)} />
      </BenchFrame>
    );
  }
  return (
    <CountFrame
      {...props}
      countable={toInspect}
      says="Out, to look at"
      above={hot}
      extra={toInspect > 0 ? undoOut(out, props) : []}
    />
  );
}
