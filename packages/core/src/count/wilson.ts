import { inRange } from '../quantity/check.ts';
import { Z_90 } from '../quantity/range.ts';

/**
 * Wilson score interval for a share seen in n trials (Wilson 1927), 90 % by default.
 * @example wilson(0.8, 10, 1.96) // { low: 0.4902, high: 0.9433 }
 */
export function wilson(share: number, n: number, z = Z_90): { low: number; high: number } {
  inRange('share', share, '', 0, 1);
  inRange('trials', n, '', 1, 1e12);
  const z2 = z * z;
  const middle = (share + z2 / (2 * n)) / (1 + z2 / n);
  const half = (z / (1 + z2 / n)) * Math.sqrt((share * (1 - share)) / n + z2 / (4 * n * n));
  return { low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}
