import type { RunView } from '@schmelz/contract';
import type { Schools } from '@schmelz/core';
import { BenchFrame, Unsaved } from '../../bench/BenchFrame.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { Cautions } from '../count/CountFrame.tsx';
import { cautionsOf } from '../count/words.ts';
import type { InLoad } from './course.ts';
import { OvenView } from './OvenView.tsx';
import { useOvenRun } from './useOvenRun.ts';

/** One load of the oven while it bakes: one clock, one door, one taking out, for however many tickets hang in it. */
export function OvenAtWork({
  run,
  productOf,
  catalogue,
  schools,
}: {
  run: RunView;
  productOf: InLoad;
  catalogue: Catalogue;
  schools: Schools;
}) {
  const oven = useOvenRun(run, productOf, catalogue);
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
