import type { Chances, TonightAsked, TonightPlan, TonightWishes } from '@schmelz/core';
import { proxy, wrap, type Remote } from 'comlink';
import { startTransition, useCallback, useEffect, useRef, useState } from 'react';
import { startPlanner, startRefiner } from '../../workers/start.ts';
import type { Planner } from '../../workers/planner.worker.ts';
import type { Refiner } from '../../workers/refine.worker.ts';

export interface PlanState {
  plan: TonightPlan | null;
  chances: Chances | null;
  /** Share of the search that is done; null while none goes on. */
  searching: number | null;
  error: unknown;
}
const NOTHING: PlanState = { plan: null, chances: null, searching: null, error: null };

/**
 * The plan of an evening: answered at once by one worker that stays, refined by another that ends when something else
 * is asked, when it is told to stop, or when the page closes.
 */
export function usePlan(
  asked: TonightAsked | undefined,
  wishes: TonightWishes | null,
): PlanState & { stop: () => void } {
  const [state, setState] = useState<PlanState>(NOTHING);
  const planner = useRef<{ worker: Worker; remote: Remote<Planner> } | null>(null);
  const refiner = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    refiner.current?.terminate();
    refiner.current = null;
    setState((now) => (now.searching === null ? now : { ...now, searching: null }));
  }, []);
  useEffect(
    () => () => {
      planner.current?.worker.terminate();
      planner.current = null;
      refiner.current?.terminate();
      refiner.current = null;
    },
    [],
  );
  useEffect(() => {
    if (!asked || !wishes) return undefined;
    let over = false;
    // Drawing an evening takes its time: a key or a drag goes before it.
    const set = (change: Partial<PlanState>) =>
      startTransition(() => {
        if (!over) setState((now) => ({ ...now, ...change }));
      });
    const go = async () => {
      if (!planner.current) {
        const worker = startPlanner();
        planner.current = { worker, remote: wrap<Planner>(worker) };
      }
      const first = (await planner.current.remote.plan(asked, wishes)) as TonightPlan;
      if (over) return;
      set({ plan: first, chances: null, searching: 0, error: null });
      const worker = startRefiner();
      refiner.current = worker;
      const refine = wrap<Refiner>(worker);
      const tell = proxy((share: number, better: TonightPlan | null) =>
        set({ searching: share, ...(better ? { plan: better } : {}) }),
      );
      const better = (await refine.better(asked, wishes, first.casts, tell)) as TonightPlan;
      set({ plan: better, searching: 1 });
      set({ chances: (await refine.chances(better, asked.ways)) as Chances, searching: null });
      worker.terminate();
      if (refiner.current === worker) refiner.current = null;
    };
    go().catch((error: unknown) => set({ error, searching: null }));
    return () => {
      over = true;
      refiner.current?.terminate();
      refiner.current = null;
    };
  }, [asked, wishes]);
  return { ...state, stop };
}
