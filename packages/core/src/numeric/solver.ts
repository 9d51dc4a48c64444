import type { Highs } from 'highs';
import type { LpAnswer, SolveLp } from './program.ts';

/** Loaded by whoever needs it: the core itself brings no program of its own. */
export type Solver = Pick<Highs, 'createModel'>;

/** HiGHS's number for a model that is solved and proved. */
const OPTIMAL = 7;
/** Programs shorter than that are solved to the end: what is tried before that takes longer. */
const SMALL_TEXT = 6000;
const TO_THE_END = 1e-6;
/** It is good enough within this of what is proved: seconds of an evening. */
const GAP = 0.004;

/**
 * HiGHS (Huangfu and Hall 2018) as the casts ask for it: the best answer found within a time, and what is proved of it.
 * @param limitS seconds it may take
 */
export const solveWith =
  (solver: Solver, { gap = GAP, limitS = 20 }: { gap?: number; limitS?: number } = {}): SolveLp =>
  (lp): LpAnswer => {
    const model = solver.createModel({ format: 'lp', data: lp });
    try {
      const small = lp.length < SMALL_TEXT;
      model.options.set({
        ...{ output_flag: false, time_limit: limitS },
        ...{ mip_rel_gap: small ? Math.min(gap, TO_THE_END) : gap, mip_heuristic_run_feasibility_jump: !small },
        presolve: small ? 'off' : 'choose',
      });
      model.run();
      const values = [...model.getSolution().colValue];
      const columns = Object.fromEntries(values.map((value, at) => [model.getColName(at), value]));
      const status = model.getModelStatus();
      const bound = Number(model.info.get('mip_dual_bound'));
      return {
        status: status === OPTIMAL ? 'optimal' : `stopped (${status})`,
        objective: model.getObjectiveValue(),
        bound: Number.isFinite(bound) ? bound : 0,
        columns,
      };
    } finally {
      model.dispose();
    }
  };
