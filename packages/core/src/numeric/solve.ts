/**
 * Solves a small dense symmetric positive definite system A x = b by Cholesky; null where A is not positive definite.
 * @example choleskySolve([[4, 2], [2, 3]], [1, 0]) // [0.375, -0.25]
 */
export function choleskySolve(a: readonly (readonly number[])[], b: readonly number[]): number[] | null {
  const n = b.length;
  const l = a.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i]![j]!;
      for (let k = 0; k < j; k++) sum -= l[i]![k]! * l[j]![k]!;
      if (i === j) {
        if (!(sum > 0)) return null;
        l[i]![i] = Math.sqrt(sum);
      } else l[i]![j] = sum / l[j]![j]!;
    }
  }
  const y: number[] = [];
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= l[i]![k]! * y[k]!;
    y[i] = sum / l[i]![i]!;
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let sum = y[i]!;
    for (let k = i + 1; k < n; k++) sum -= l[k]![i]! * x[k]!;
    x[i] = sum / l[i]![i]!;
  }
  return x;
}

/**
 * Inverse of a small symmetric positive definite matrix, column by column; null where it is none.
 * @example choleskyInverse([[4, 2], [2, 3]]) // [[0.375, -0.25], [-0.25, 0.5]]
 */
export function choleskyInverse(a: readonly (readonly number[])[]): number[][] | null {
  const columns = a.map((_, i) =>
    choleskySolve(
      a,
      a.map((__, k) => (k === i ? 1 : 0)),
    ),
  );
  return columns.some((column) => column === null) ? null : (columns as number[][]);
}
