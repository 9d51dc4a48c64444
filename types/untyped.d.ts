/** Reference libraries without types of their own; only what the tests use is declared. */
declare module 'periodic-table' {
  interface Element {
    symbol: string;
    density: number | string;
    atomicMass: number | string;
    boilingPoint: number | string;
    meltingPoint: number | string;
  }
  const table: { symbols: Record<string, Element> };
  export default table;
}
declare module 'jstat' {
  export const jStat: {
    gammaln(x: number): number;
    binomial: { cdf(k: number, n: number, p: number): number };
    beta: { inv(p: number, alpha: number, beta: number): number; mean(alpha: number, beta: number): number };
    normal: {
      inv(p: number, mean: number, sd: number): number;
      cdf(x: number, mean: number, sd: number): number;
    };
  };
}
