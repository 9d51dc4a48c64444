import loadHighs from 'highs';
import type { SolveLp } from '../numeric/program.ts';
import { solveWith } from '../numeric/solver.ts';

/** The solver as a worker has it, for tests: exact, without a limit of time. */
export const solver = async (): Promise<SolveLp> => solveWith(await loadHighs(), { gap: 0, limitS: 600 });
