import { countInRange, inRange } from '../quantity/check.ts';

/** ln of the beta function for any arguments above 0, by {@link lnGamma}. */
const logBeta = (a: number, b: number) => lnGamma(a) + lnGamma(b) - lnGamma(a + b);

/**
 * ln of the gamma function (Lanczos 1964, g = 7, nine terms; Numerical Recipes' coefficients, from memory; checked
 * against npm jstat).
 * @example lnGamma(6) // 4.787
 */
export function lnGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const y = x - 1;
  const t = y + 7.5;
  let sum = 0.99999999999980993;
  for (let i = 0; i < LANCZOS.length; i++) sum += LANCZOS[i]! / (y + i + 1);
  return 0.5 * Math.log(2 * Math.PI) + (y + 0.5) * Math.log(t) - t + Math.log(sum);
}
const LANCZOS = [
  676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/**
 * ln(n!) by Stirling's series (Abramowitz & Stegun 6.1.41), exact products below 20; relative error under 1e-12.
 * @example logFactorial(5) // 4.787
 */
export function logFactorial(n: number): number {
  if (n < 20) {
    let product = 1;
    for (let i = 2; i <= n; i++) product *= i;
    return Math.log(product);
  }
  const x = n + 1;
  const x2 = x * x;
  return (x - 0.5) * Math.log(x) - x + 0.5 * Math.log(2 * Math.PI) + (1 - (1 / 30 - 1 / (105 * x2)) / x2) / (12 * x);
}

/** So many draws with so many good ones wanted, and how sure one is of the share of good ones. */
interface GoodOutOf {
  n: number;
  atLeast: number;
  /** Mean share of good ones. */
  mean: number;
  /** Of the beta distribution of that share: as sure as after so many draws; left out, it is certain. */
  sure?: number;
}

/** ln of n over k. */
const lnChoose = (n: number, k: number) => logFactorial(n) - logFactorial(k) - logFactorial(n - k);

/** ln P(X = k) for k good out of n: binomial, or beta-binomial where the share itself is unsure. */
function lnExactly(k: number, { n, mean, sure = Infinity }: Omit<GoodOutOf, 'atLeast'>): number {
  if (sure === Infinity) return lnChoose(n, k) + k * Math.log(mean) + (n - k) * Math.log1p(-mean);
  const [a, b] = [mean * sure, (1 - mean) * sure];
  return lnChoose(n, k) + logBeta(k + a, n - k + b) - logBeta(a, b);
}

/**
 * P(X >= atLeast) for n draws: binomial where the share of good ones is certain, beta-binomial (Skellam 1948) where it
 * is not; summed from the nearer tail.
 * @example binomialAtLeast({ n: 10, mean: 0.5, atLeast: 5 }) // 0.623
 */
export function binomialAtLeast({ n, mean, atLeast, sure = Infinity }: GoodOutOf): number {
  countInRange('n', n, 0, 1e7);
  inRange('mean', mean, '', 0, 1);
  if (atLeast <= 0) return 1;
  if (atLeast > n) return 0;
  if (mean === 0) return 0;
  if (mean === 1) return 1;
  const [a, b] = [mean * sure, (1 - mean) * sure];
  /** P(k + 1) over P(k). */
  const step = (k: number) => ((n - k) / (k + 1)) * (sure === Infinity ? mean / (1 - mean) : (k + a) / (n - k - 1 + b));
  // From the nearer tail; where shares are very unsure no tail is thin, and the shorter one is taken.
  const upper = a >= 1 && b >= 1 ? atLeast > n * mean : n - atLeast < atLeast;
  let k = upper ? atLeast : atLeast - 1;
  let term = Math.exp(lnExactly(k, { n, mean, sure }));
  let sum = 0;
  while (k >= 0 && k <= n) {
    sum += term;
    term *= upper ? step(k) : k > 0 ? 1 / step(k - 1) : 0;
    // Shares that are very unsure (a or b below 1) make tails that rise again: what is past all rising may be left out.
    if (term < sum * 1e-17 && a >= 1 && b >= 1) break;
    k += upper ? 1 : -1;
  }
  return upper ? Math.min(1, sum) : Math.max(0, 1 - sum);
}
