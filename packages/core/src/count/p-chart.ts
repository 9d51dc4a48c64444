import { countInRange, inRange } from '../quantity/check.ts';

/** Bad ones of so many, in the order in which they were made. */
export interface Counted {
  casts: number;
  bad: number;
  /** Bad ones that such casts have on the whole, by their cavities; left out: as all casts have. */
  expected?: number;
}
export interface PChartPoint extends Counted {
  share: number;
  /** What is expected of it, and its limits. */
  centre: number;
  low: number;
  high: number;
  /** Which rule it breaks, in words; null: none. */
  signal: string | null;
}
interface PChart {
  mean: number;
  points: PChartPoint[];
}

/** Points in a row on one side of the mean: more than chance gives one time in some five hundred. */
const RUN = 9;

/**
 * Share of bad ones, point by point, with limits of three standard deviations for as many as were made. Source:
 * NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.3.2: p-bar ± 3 sqrt(p-bar (1 - p-bar) / n); the run rule is of
 * the Western Electric rules as it gives them in 6.3.2, with nine in a row (Nelson 1984; from memory). Where what is
 * expected differs by point, so do its limits, about that: a hard mold is no bad evening (the risk-adjusted p chart of
 * Alemi, Rom and Eisenstein, 1996; from memory).
 * @param evenings whether what is counted is of evenings that differ by themselves, in mold, head and heat: then the
 *   limits are as much wider as neighbours differ more than chance would let them (p' of Laney, Improved Control Charts
 *   for Attributes, Quality Engineering 14, 2002; from memory)
 * @returns limits within 0 and 1; no points: a mean of 0
 * @throws QuantityError for counts out of range
 * @example pChart([{ casts: 50, bad: 5 }, { casts: 50, bad: 5 }]).points[0].high // 0.227
 */
export function pChart(counted: readonly Counted[], evenings = false): PChart {
  for (const { casts, bad, expected } of counted) {
    countInRange('casts', casts, 1, 1e7);
    countInRange('bad', bad, 0, casts);
    if (expected !== undefined) inRange('expected', expected, 'casts', 0, casts);
  }
  const all = counted.reduce((sum, { casts }) => sum + casts, 0);
  const mean = all > 0 ? counted.reduce((sum, { bad }) => sum + bad, 0) / all : 0;
  const centres = counted.map(({ casts, expected }) => (expected === undefined ? mean : expected / casts));
  const spreads = counted.map(({ casts }, at) => Math.sqrt((centres[at]! * (1 - centres[at]!)) / casts));
  const scores = counted.map(({ casts, bad }, at) => (bad / casts - centres[at]!) / spreads[at]!);
  const wider = evenings ? neighboursDiffer(scores) : 1;
  let side = 0;
  let row = 0;
  const points = counted.map(({ casts, bad }, at) => {
    const share = bad / casts;
    const centre = centres[at]!;
    const reach = 3 * wider * spreads[at]!;
    const [low, high] = [Math.max(0, centre - reach), Math.min(1, centre + reach)];
    const now = Math.sign(share - centre);
    row = now !== 0 && now === side ? row + 1 : now === 0 ? 0 : 1;
    side = now;
    const signal =
      share > high
        ? 'more than chance gives'
        : share < low
          ? 'fewer than chance gives'
          : row >= RUN
            ? `${row} in a row ${now > 0 ? 'above' : 'below'} what is expected`
            : null;
    return { casts, bad, share, centre, low, high, signal };
  });
  return { mean, points };
}

/** A mean range of two neighbours over the standard deviation that they come from: d2 of control charts. */
const D2 = 1.128;

/** How much more neighbours differ than their own spread would let them: standard deviations, 1 or more. */
function neighboursDiffer(scores: readonly number[]): number {
  if (scores.length < 3 || scores.some((score) => !Number.isFinite(score))) return 1;
  const ranges = scores.slice(1).map((score, at) => Math.abs(score - scores[at]!));
  return Math.max(1, ranges.reduce((sum, range) => sum + range, 0) / ranges.length / D2);
}

/** One cause among all: the few that most comes from stand first. */
interface ParetoRow {
  cause: string;
  count: number;
  share: number;
  upTo: number;
}

/**
 * Causes by how often they come, each with its share and what the rows so far add up to.
 * @example pareto({ short: 6, 'eye full': 3, pits: 1 })[0].share // 0.6
 */
export function pareto(causes: Readonly<Record<string, number>>): ParetoRow[] {
  const rows = Object.entries(causes)
    .filter(([, count]) => count > 0)
    .sort((a, b) => b[1] - a[1]);
  const all = rows.reduce((sum, [, count]) => sum + count, 0);
  let upTo = 0;
  return rows.map(([cause, count]) => {
    upTo += count / all;
    return { cause, count, share: count / all, upTo };
  });
}
