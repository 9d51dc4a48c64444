import { countInRange, inRange } from '../quantity/check.ts';
import { Z_90 } from '../quantity/range.ts';
import { choleskyInverse, choleskySolve } from '../numeric/solve.ts';

/** Casts at one index, and how many of them came out short. */
interface FillRecord {
  index: number;
  casts: number;
  shorts: number;
}
export interface FillThreshold {
  /** Index at which every second cast is short. */
  index: number;
  low: number;
  high: number;
  /** How wide the change from short to full is, in ln(index). */
  spread: number;
  casts: number;
  shorts: number;
  /** Chance of a short at this index. */
  shortShare(index: number): number;
}

/** Index at which every second cast is short, as believed before any record. */
export const THRESHOLD_PRIOR_INDEX = 1.1;
/** Belief before any record: half short there, most of the change between 0.8 and 1.5. It weighs about ten casts. */
const PRIOR = { centre: Math.log(THRESHOLD_PRIOR_INDEX), centreSd: 0.25, logSpread: Math.log(0.16), logSpreadSd: 0.4 };

const logistic = (x: number) => (x >= 0 ? 1 / (1 + Math.exp(-x)) : Math.exp(x) / (1 + Math.exp(x)));

/**
 * Chance of a short by fill index, from a threshold and its spread: what does not cross from a worker is made again
 * here.
 * @example shortShareOf({ index: 1, spread: 0.16 })(1) // 0.5
 */
export const shortShareOf =
  (threshold: { index: number; spread: number }) =>
  (index: number): number =>
    logistic((Math.log(threshold.index) - Math.log(index)) / threshold.spread);

/**
 * Threshold and spread of the fill index from logged shorts: logistic regression of short or not on ln(index) with
 * normal priors on the centre and on ln(spread), so that ten shots already help and records without a short do not blow
 * up. Newton's method with halved steps; the interval is Laplace's, z = 1.96.
 * @example fitThreshold([]).index // 1.1
 */
export function fitThreshold(records: readonly FillRecord[]): FillThreshold {
  for (const { index, casts, shorts } of records) {
    inRange('fillIndex', index, '', 0.01, 100);
    countInRange('casts', casts, 0, 1e7);
    countInRange('shorts', shorts, 0, casts);
  }
  const minusLog = ([centre, logSpread]: readonly number[]) => {
    const spread = Math.exp(logSpread!);
    let sum = ((centre! - PRIOR.centre) / PRIOR.centreSd) ** 2 / 2;
    sum += ((logSpread! - PRIOR.logSpread) / PRIOR.logSpreadSd) ** 2 / 2;
    for (const { index, casts, shorts } of records) {
      const p = Math.min(1 - 1e-12, Math.max(1e-12, logistic((centre! - Math.log(index)) / spread)));
      sum -= shorts * Math.log(p) + (casts - shorts) * Math.log1p(-p);
    }
    return sum;
  };
  const gradient = ([centre, logSpread]: readonly number[]) => {
    const spread = Math.exp(logSpread!);
    let [gc, gs] = [
      (centre! - PRIOR.centre) / PRIOR.centreSd ** 2,
      (logSpread! - PRIOR.logSpread) / PRIOR.logSpreadSd ** 2,
    ];
    for (const { index, casts, shorts } of records) {
      const z = (centre! - Math.log(index)) / spread;
      const over = casts * logistic(z) - shorts;
      gc += over / spread;
      gs -= over * z;
    }
    return [gc, gs];
  };
  const curvature = (at: readonly number[]) => {
    const step = 1e-4;
    const columns = [0, 1].map((i) => {
      const moved = (by: number) => gradient(at.map((value, k) => (k === i ? value + by : value)));
      const [up, down] = [moved(step), moved(-step)];
      return up.map((value, k) => (value - down[k]!) / (2 * step));
    });
    const cross = (columns[0]![1]! + columns[1]![0]!) / 2;
    return [
      [Math.max(1e-6, columns[0]![0]!), cross],
      [cross, Math.max(1e-6, columns[1]![1]!)],
    ];
  };
  let at = [PRIOR.centre, PRIOR.logSpread];
  for (let round = 0; round < 60; round++) {
    const g = gradient(at);
    const step = choleskySolve(curvature(at), g) ?? g.map((value) => value * 1e-3);
    let share = 1;
    const before = minusLog(at);
    let next = at;
    while (share > 1e-6) {
      next = at.map((value, i) => value - share * step[i]!);
      if (minusLog(next) <= before) break;
      share /= 2;
    }
    const moved = Math.hypot(next[0]! - at[0]!, next[1]! - at[1]!);
    at = next;
    if (moved < 1e-9) break;
  }
  const [centre, logSpread] = at as [number, number];
  const covariance = choleskyInverse(curvature(at));
  const sd = Math.sqrt(covariance?.[0]![0] ?? PRIOR.centreSd ** 2);
  const spread = Math.exp(logSpread);
  const total = (of: (record: FillRecord) => number) => records.reduce((sum, record) => sum + of(record), 0);
  return {
    index: Math.exp(centre),
    low: Math.exp(centre - Z_90 * sd),
    high: Math.exp(centre + Z_90 * sd),
    spread,
    casts: total((record) => record.casts),
    shorts: total((record) => record.shorts),
    shortShare: shortShareOf({ index: Math.exp(centre), spread }),
  };
}

/** What is said of a cavity before it is poured. */
export type FillVerdict = 'short expected' | 'marginal' | 'fills';
/** Said by a record of so many casts; before that by the model alone, whose marks are 1 and 1.5. */
const ENOUGH_CASTS = 60;
const SHORT_SHARE = 0.25;
const MARGINAL_SHARE = 0.08;

/**
 * Whether a mold has cast so much that its own shorts outrank the model.
 * @example knowsItsShorts(null) // false
 */
export const knowsItsShorts = (threshold: Pick<FillThreshold, 'casts'> | null): boolean =>
  threshold !== null && threshold.casts >= ENOUGH_CASTS;

/**
 * Indexes at which a cavity goes from short to marginal and on to filled: where by the mold's own record one in four
 * and one in twelve is short; before there is one, 1 and 1.5.
 * @example fillMarks(null) // [1, 1.5]
 */
export function fillMarks(threshold: Pick<FillThreshold, 'index' | 'spread' | 'casts'> | null): [number, number] {
  if (!threshold || !knowsItsShorts(threshold)) return [1, 1.5];
  const at = (share: number) => threshold.index * Math.exp(threshold.spread * Math.log((1 - share) / share));
  return [at(SHORT_SHARE), at(MARGINAL_SHARE)];
}
/**
 * What an index says, between the one where every second cast is short and the one where next to none is.
 * @example fillVerdict(1.2, [1, 1.5]) // 'marginal'
 */
export const fillVerdict = (index: number, [short, filled]: readonly [number, number]): FillVerdict =>
  index < short ? 'short expected' : index < filled ? 'marginal' : 'fills';

export interface CavityFillRecord extends FillRecord {
  cavityId: string;
}
interface FairThreshold {
  threshold: FillThreshold;
  /** Cavities that are short far more often than flow explains: a burr, a closed vent. Left out of the fit. */
  faulty: string[];
}

/** So many standard deviations more shorts than the other cavities lead one to expect are no chance. */
const FAULTY_Z = 4;

/**
 * The threshold of a mold without what its faulty cavities would make of it: as long as one cavity is short by more
 * than {@link FAULTY_Z} standard deviations beyond what the others predict, the worst is left out. At most half are.
 * @example fitFairThreshold([]).faulty // []
 */
export function fitFairThreshold(records: readonly CavityFillRecord[]): FairThreshold {
  const ids = [...new Set(records.map((record) => record.cavityId))];
  const faulty: string[] = [];
  const without = (...out: string[]) => fitThreshold(records.filter((record) => !out.includes(record.cavityId)));
  while (faulty.length + 1 <= ids.length / 2) {
    const judged = ids
      .filter((id) => !faulty.includes(id))
      .map((id) => {
        const { shortShare } = without(...faulty, id);
        const own = records.filter((record) => record.cavityId === id);
        const sum = (of: (record: FillRecord) => number) => own.reduce((total, record) => total + of(record), 0);
        const expected = sum(({ index, casts }) => casts * shortShare(index));
        // One more cast in each pan of the scale keeps a cavity with few casts from being judged.
        const variance = sum(({ index, casts }) => casts * shortShare(index) * (1 - shortShare(index))) + 1;
        // The others' own spread is part of the doubt: a fifth of what is expected.
        return { id, z: (sum(({ shorts }) => shorts) - expected) / Math.sqrt(variance + (0.2 * expected) ** 2) };
      })
      .sort((a, b) => b.z - a.z);
    if (!judged[0] || judged[0].z < FAULTY_Z) break;
    faulty.push(judged[0].id);
  }
  return { threshold: without(...faulty), faulty };
}
