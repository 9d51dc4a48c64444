import type { RunView } from '@schmelz/contract';
import type { PlanProduct, Schools } from '@schmelz/core';
import { BenchFrame, Unsaved } from '../../bench/BenchFrame.tsx';
import { Cautions } from '../../counting/CountFrame.tsx';
import { cautionsOf } from '../../counting/words.ts';
import { OvenView } from './OvenView.tsx';
import { useOvenRun } from './useOvenRun.ts';

/** One load of the oven while it bakes: one clock, one door, one taking out, for however many tickets hang in it. */
export function OvenAtWork({
  run,
  productOf,
  schools,
}: {
  run: RunView;
  productOf: (ticketId: string) => PlanProduct | undefined;
  schools: Schools;
}) {
  const oven = useOvenRun(run, productOf);
  return (
    <BenchFrame
      actions={oven.actions}
      stub={
        <>
          <OvenView.Stub oven={oven} />
          <Unsaved count={oven.unsaved} />
        </>
      }
    >
      <OvenView.Chart oven={oven} />
      <Cautions all={cautionsOf('bake', schools)} />
    </BenchFrame>
  );
}
