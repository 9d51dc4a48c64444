/** An input of an answer that is not known for sure. */
interface Unsure {
  value: number;
  /** Standard deviation of what is believed of it. */
  sd: number;
  least?: number;
  most?: number;
}

/**
 * A normal value that cannot be below zero.
 * @example aboveZero(200, 0.1) // { value: 200, sd: 20, least: 0 }
 */
export const aboveZero = (value: number, share: number): Unsure => ({ value, sd: share * value, least: 0 });

/** A normal value lies within so many standard deviations nine times in ten. */
export const Z_90 = 1.645;

/**
 * Where a standard normal value lies below with chance `p`: Wichura (1988), algorithm AS 241, PPND7, from memory.
 * Range: 1e-9 to 1 - 1e-9. Check: npm jstat to 1e-6.
 * @example normalQuantile(0.95) // 1.645
 */
export function normalQuantile(p: number): number {
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    const over = ((59.10937472 * r + 159.29113202) * r + 50.434271938) * r + 3.3871327179;
    return (q * over) / (((67.1875636 * r + 78.757757664) * r + 17.895169469) * r + 1);
  }
  const r = Math.sqrt(-Math.log(Math.min(p, 1 - p))) - 1.6;
  const over = ((0.17023821103 * r + 1.3067284816) * r + 2.75681539) * r + 1.4234372777;
  return (Math.sign(q) * over) / ((0.12021132975 * r + 0.7370016425) * r + 1);
}

/** Cases of a range: a prime, and the generator of their lattice, so that all inputs are spread evenly and together. */
const CASES = 101;
const GENERATOR = 39;
/** Beyond the range lie so many cases on either side, and half of the next. */
const BEYOND = 4;
/** The i-th case of an input that nobody knows for sure, in standard deviations. */
const scores = Array.from({ length: CASES }, (_, i) => normalQuantile((i + 0.5) / CASES));
function stepOf(input: number): number {
  let step = 1;
  for (let i = 0; i < input; i++) step = (step * GENERATOR) % CASES;
  return step;
}

/**
 * Range that holds an answer nine times in ten, from the spread of what goes in, all of it moved together: the answer
 * in 101 cases that lie evenly in the spreads (a lattice, Korobov 1959), less the lowest and the highest 4.5. One
 * unsure input is moved to either end. Checked by Monte Carlo (ranges.test.ts).
 * @example range90(([a, b]) => a! + b!, [{ value: 1, sd: 0.3 }, { value: 2, sd: 0.4 }]) // { low: 2.1775, high:
 * 3.8225 }
 */
export function range90(answer: (values: readonly number[]) => number, inputs: readonly Unsure[]) {
  const unsure = inputs.flatMap(({ sd }, i) => (sd > 0 ? [i] : []));
  const within = ({ least = -Infinity, most = Infinity }: Unsure, at: number) => Math.min(most, Math.max(least, at));
  const moved = (sds: (input: number) => number) =>
    answer(inputs.map((input, i) => (input.sd > 0 ? within(input, input.value + sds(i) * input.sd) : input.value)));
  const value = answer(inputs.map((input) => input.value));
  if (unsure.length <= 1) {
    const ends = unsure.length === 0 ? [value] : [-Z_90, 0, Z_90].map((sds) => moved(() => sds));
    return { low: Math.min(...ends), high: Math.max(...ends) };
  }
  const steps = inputs.map((_, i) => stepOf(unsure.indexOf(i) + 1));
  const cases = Float64Array.from({ length: CASES }, (_, at) => moved((i) => scores[(at * steps[i]!) % CASES]!)).sort();
  const between = (at: number) => (cases[at]! + cases[at + 1]!) / 2;
  return { low: Math.min(value, between(BEYOND)), high: Math.max(value, between(CASES - 2 - BEYOND)) };
}

/**
 * Range of a value that is a product of inputs, each unsure by a share of its own; what divides goes in as well.
 * @example productRange90(100, [0.1]) // { low: 83.55, high: 116.5 }
 */
export const productRange90 = (value: number, shares: readonly number[]): { low: number; high: number } =>
  range90(
    (factors) => factors.reduce((product, factor) => product * factor, value),
    shares.map((share) => aboveZero(1, share)),
  );
