import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { FitTasks } from './tasks.ts';
import { startFitWorker } from './start.ts';

export type FitState<Result> =
  | { status: 'idle' }
  | { status: 'running'; share: number }
  | { status: 'done'; result: Result }
  | { status: 'failed'; error: unknown };

/** A fit in a worker: started, watched, stopped; leaving the screen stops it. The worker stays for the next one. */
export function useFit<K extends keyof FitTasks>(task: K) {
  type Input = Parameters<FitTasks[K]>[0];
  type Result = Awaited<ReturnType<FitTasks[K]>>;
  const [state, setState] = useState<FitState<Result>>({ status: 'idle' });
  // The remote is kept with its worker: one that nobody holds is collected, and releases the worker for good.
  const held = useRef<{ worker: Worker; remote: Remote<FitTasks> } | null>(null);
  /** Which fit is going on: what an earlier one still says is not heard. */
  const turn = useRef(0);
  const busy = useRef(false);
  const end = useCallback(() => {
    held.current?.worker.terminate();
    held.current = null;
    busy.current = false;
    turn.current++;
  }, []);
  const stop = useCallback(() => {
    end();
    setState((now) => (now.status === 'running' ? { status: 'idle' } : now));
  }, [end]);
  useEffect(() => end, [end]);
  const run = useCallback(
    async (input: Input) => {
      if (busy.current) end();
      const mine = ++turn.current;
      busy.current = true;
      setState({ status: 'running', share: 0 });
      if (!held.current) {
        const worker = startFitWorker();
        held.current = { worker, remote: wrap<FitTasks>(worker) };
      }
      const { remote } = held.current;
      const tell = proxy((share: number) =>
        setState((now) => (now.status === 'running' ? { status: 'running', share } : now)),
      );
      const settle = (state: FitState<Result>) => {
        if (turn.current !== mine) return;
        busy.current = false;
        setState(state);
      };
      try {
        const fit = remote[task] as unknown as (input: Input, tell: (share: number) => void) => Promise<Result>;
        settle({ status: 'done', result: await fit(input, tell) });
      } catch (error) {
        settle({ status: 'failed', error });
      }
    },
    [end, task],
  );
  return { state, run, stop };
}
