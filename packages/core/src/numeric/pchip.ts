import { QuantityError } from '../quantity/check.ts';

/** A curve through measured points that never overshoots them. */
interface Curve {
  at(x: number): number;
  from: number;
  to: number;
}

/** Slope at an end by the three-point formula, kept from turning the curve round (Fritsch & Butland 1984). */
function endSlope(h0: number, h1: number, d0: number, d1: number): number {
  const slope = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1);
  if (slope * d0 <= 0) return 0;
  return d0 * d1 < 0 && Math.abs(slope) > 3 * Math.abs(d0) ? 3 * d0 : slope;
}

/**
 * Piecewise cubic Hermite interpolation that keeps monotone data monotone: PCHIP, Fritsch & Carlson, SIAM J. Numer.
 * Anal. 17 (1980) 238, with the weighted harmonic mean of Fritsch & Butland for inner slopes.
 * @param xs strictly rising, at least two; @param ys as many values
 * @throws QuantityError where xs do not rise; outside [from, to] `at` holds the end value
 * @example pchip([0, 1, 3], [0, 1, 2]).at(2) // 1.631
 */
export function pchip(xs: readonly number[], ys: readonly number[]): Curve {
  const n = xs.length;
  if (n < 2 || ys.length !== n) throw new QuantityError('points', n, '', 'two or more pairs');
  const h = xs.slice(1).map((x, i) => x - xs[i]!);
  if (h.some((step) => !(step > 0))) throw new QuantityError('points', xs.join(' '), '', 'rising values');
  const d = h.map((step, i) => (ys[i + 1]! - ys[i]!) / step);
  const slopes = xs.map((_, i) => {
    if (n === 2) return d[0]!;
    if (i === 0) return endSlope(h[0]!, h[1]!, d[0]!, d[1]!);
    if (i === n - 1) return endSlope(h[n - 2]!, h[n - 3]!, d[n - 2]!, d[n - 3]!);
    const [before, after] = [d[i - 1]!, d[i]!];
    if (before * after <= 0) return 0;
    const w1 = 2 * h[i]! + h[i - 1]!;
    const w2 = h[i]! + 2 * h[i - 1]!;
    return (w1 + w2) / (w1 / before + w2 / after);
  });
  return {
    from: xs[0]!,
    to: xs[n - 1]!,
    at(x) {
      if (x <= xs[0]!) return ys[0]!;
      if (x >= xs[n - 1]!) return ys[n - 1]!;
      let i = 0;
      while (x > xs[i + 1]!) i++;
      const t = (x - xs[i]!) / h[i]!;
      const [t2, t3] = [t * t, t * t * t];
      return (
        (2 * t3 - 3 * t2 + 1) * ys[i]! +
        (t3 - 2 * t2 + t) * h[i]! * slopes[i]! +
        (3 * t2 - 2 * t3) * ys[i + 1]! +
        (t3 - t2) * h[i]! * slopes[i + 1]!
      );
    },
  };
}
