import loadHighs from 'highs';
import type { SolveLp } from '../tonight/cast-model.ts';

/** The solver as a worker has it, for tests: exact, without a limit of time. */
export async function solver(): Promise<SolveLp> {
  const highs = await loadHighs();
  return (lp) => {
    const { Status, ObjectiveValue, Columns } = highs.solve(lp, { mip_rel_gap: 0, mip_abs_gap: 1e-9 });
    const columns = Object.fromEntries(Object.entries(Columns).map(([name, { Primal }]) => [name, Primal ?? 0]));
    return { status: Status, objective: ObjectiveValue, bound: ObjectiveValue, columns };
  };
}
