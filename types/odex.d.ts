/** odex ships its source, which our stricter compiler refuses: what the tests use of it. */
type Rates = (t: number, y: number[]) => number[];
export class Solver {
  constructor(unknowns: number);
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(rates: Rates, from: number, start: number[], to: number): { y: number[] };
}
