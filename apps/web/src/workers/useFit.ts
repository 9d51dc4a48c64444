import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { FitTasks } from './tasks.ts';
import { startFitWorker } from './start.ts';

export type FitState<Result> =
  | { status: 'idle' }
  | { status: 'running'; share: number }
  | { status: 'done'; result: Result }
  | { status: 'failed'; error: unknown };

/** A fit in a worker: started, watched, stopped; leaving the screen stops it. */
export function useFit<K extends keyof FitTasks>(task: K) {
  type Input = Parameters<FitTasks[K]>[0];
  type Result = Awaited<ReturnType<FitTasks[K]>>;
  const [state, setState] = useState<FitState<Result>>({ status: 'idle' });
  const worker = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState((now) => (now.status === 'running' ? { status: 'idle' } : now));
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);
  const run = useCallback(
    async (input: Input) => {
      worker.current?.terminate();
      const mine = startFitWorker();
      worker.current = mine;
      setState({ status: 'running', share: 0 });
      const fits = wrap<FitTasks>(mine) as Remote<FitTasks>;
      const tell = proxy((share: number) =>
        setState((now) => (now.status === 'running' ? { status: 'running', share } : now)),
      );
      try {
        const fit = fits[task] as unknown as (input: Input, tell: (share: number) => void) => Promise<Result>;
        const result = await fit(input, tell);
        if (worker.current === mine) setState({ status: 'done', result });
      } catch (error) {
        if (worker.current === mine) setState({ status: 'failed', error });
      } finally {
        mine.terminate();
      }
    },
    [task],
  );
  return { state, run, stop };
}
