import { bakeCounts } from '@schmelz/core';
import { BenchFrame, BenchNumber, Unsaved } from '../../bench/BenchFrame.tsx';
import { Cautions, CountFrame, TicketLine, type BenchProps } from '../count/CountFrame.tsx';
import { cautionsOf } from '../count/words.ts';
import { HeadRack } from '../count/HeadRack.tsx';
import { OvenView } from './OvenView.tsx';
import { useRunningLoad } from './useBake.ts';
import { useOvenActions } from './useOvenActions.ts';

/** Hung up, in the oven, out and looked at: load after load. */
export function BakeBench(props: BenchProps) {
  const { ticket, bench, catalogue, schools } = props;
  const running = useRunningLoad(ticket, bench, catalogue);
  const actions = useOvenActions(ticket, bench, running, catalogue);
  const { toLoad, toInspect } = bakeCounts(bench.state, bench.here.key);
  const out = bench.state.loads.findLast((load) => load.step === bench.here.key && load.unloadedAt !== null);
  const hot = out && out.unloadedAt !== null && out.coolS > 0 && (
    <OvenView.CoolDown outAt={out.unloadedAt} coolS={out.coolS} />
  );
  if (running) {
    return (
      <BenchFrame actions={actions} stub={<OvenView.Stub ticket={ticket} running={running} />}>
        {hot}
        <OvenView.Chart running={running} />
        <Cautions all={cautionsOf('bake', schools)} />
      </BenchFrame>
    );
  }
  if (toLoad > 0 && toInspect === 0) {
    return (
      <BenchFrame
        actions={actions}
        stub={
          <>
            <BenchNumber says="Hang up and load" value={String(toLoad)} />
            <TicketLine ticket={ticket} bench={bench} catalogue={catalogue} />
            <OvenView.Program ticket={ticket} step={bench.here.key} catalogue={catalogue} />
            <Unsaved count={bench.unsaved} />
          </>
        }
      >
        {hot}
        <OvenView.Loading ticket={ticket} heads={toLoad} catalogue={catalogue}>
          <HeadRack ticket={ticket} here={bench.here} catalogue={catalogue} />
        </OvenView.Loading>
        <Cautions all={cautionsOf('bake', schools)} />
      </BenchFrame>
    );
  }
  return <CountFrame {...props} countable={toInspect} says="Out, to look at" above={hot} />;
}
