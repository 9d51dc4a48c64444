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
 * Range that holds an answer nine times in ten, from the spread of what goes in: each input is moved by 1.645 standard
 * deviations either way, and what that does to the answer is added up in squares, up and down apart. First order in
 * each input; checked by Monte Carlo where it is used.
 * @example range90(([a, b]) => a! + b!, [{ value: 1, sd: 0.3 }, { value: 2, sd: 0.4 }]) // { low: 2.1775, high:
 * 3.8225 }
 */
export function range90(answer: (values: readonly number[]) => number, inputs: readonly Unsure[]) {
  const middle = inputs.map(({ value }) => value);
  const value = answer(middle);
  let [down, up] = [0, 0];
  inputs.forEach(({ value: at, sd, least = -Infinity, most = Infinity }, i) => {
    if (sd === 0) return;
    const moved = [-1, 1].map((side) =>
      answer(middle.map((each, k) => (k === i ? Math.min(most, Math.max(least, at + side * Z_90 * sd)) : each))),
    );
    down += Math.max(0, value - Math.min(...moved)) ** 2;
    up += Math.max(0, Math.max(...moved) - value) ** 2;
  });
  return { low: value - Math.sqrt(down), high: value + Math.sqrt(up) };
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
