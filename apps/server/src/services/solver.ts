import highs from 'highs';
import { solveWith, type SolveLp } from '@schmelz/core';

/** So long a plan waits for the best molds, s: what is found by then is taken, and no tap waits long behind it. */
const LIMIT_S = 0.3;

// Its types describe the CommonJS build, where the loader is a member; what is imported is the loader itself.
const load = highs as unknown as typeof highs.default;
let loaded: Promise<SolveLp> | null = null;

/** The solver of integer programs, read from its file once. */
export const loadSolver = (): Promise<SolveLp> =>
  (loaded ??= load().then((solver) => solveWith(solver, { limitS: LIMIT_S })));
