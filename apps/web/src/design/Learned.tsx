import type { Channel } from '@schmelz/contract';
import type { FitState } from '../workers/useFit.ts';
import { Button } from './Button.tsx';
import { ProblemNote } from './Notice.tsx';

/** A fit under way: how far it is, and a way to stop it. */
export function FitProgress({ state, onStop }: { state: FitState<unknown>; onStop: () => void }) {
  if (state.status === 'failed') return <ProblemNote error={state.error} />;
  if (state.status !== 'running') return null;
  return (
    <div className="flex items-center gap-3">
      <div
        role="progressbar"
        aria-label="Fitting"
        aria-valuenow={Math.round(state.share * 100)}
        className="h-2.5 grow border border-rule-2 bg-well"
      >
        <div className="h-full bg-lead" style={{ width: `${Math.max(4, state.share * 100)}%` }} />
      </div>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

/** The channel with most to learn from. */
export const richest = (channels: readonly Channel[]): Channel | undefined =>
  [...channels].sort((a, b) => b.count - a.count)[0];
