import type { UsedWeekly } from '@schmelz/contract';
import type { Store } from '../store/store.ts';

export const WEEK_MS = 7 * 24 * 3600 * 1000;
/** Half a year: longer ago people worked otherwise. */
const WEEKS = 26;

/** What tickets and pours used of each part, week by week up to now, oldest first; what came back is taken off. */
export async function usedWeekly(store: Store, now = Date.now()): Promise<UsedWeekly[]> {
  const rows = await store.select<{ materialId: string; week: number; used: number }>(
    `SELECT materialId, CAST((:now - at) / ${WEEK_MS} AS INTEGER) AS week, -SUM(quantity) AS used FROM stockMoves
     WHERE at > :from AND at <= :now AND reason NOT IN ('received', 'counted', 'made', 'struck out')
     GROUP BY materialId, week`,
    { now, from: now - WEEKS * WEEK_MS },
  );
  const [first] = await store.select<{ at: number | null }>('SELECT MIN(at) AS at FROM stockMoves');
  // Weeks before the first of all records say nothing.
  const known = Math.min(WEEKS, Math.max(1, Math.ceil((now - (first?.at ?? now)) / WEEK_MS)));
  const parts = new Map<string, number[]>();
  for (const { materialId, week, used } of rows) {
    const weekly = parts.get(materialId) ?? Array.from({ length: known }, () => 0);
    const at = known - 1 - week;
    if (at >= 0) weekly[at] = Math.max(0, used);
    parts.set(materialId, weekly);
  }
  return [...parts].map(([materialId, weekly]) => ({ materialId, weekly }));
}
