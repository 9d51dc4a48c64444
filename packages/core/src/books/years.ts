/**
 * Months of a year as one, every count of them added up; the year stands for the month.
 * @param months with a month as 2026-05 and counts
 * @example byYear([{ month: '2025-12', heads: 4 }, { month: '2026-01', heads: 2 }, { month: '2026-03', heads: 5 }])
 *   // [{ month: '2025', heads: 4 }, { month: '2026', heads: 7 }]
 */
export function byYear<T extends { month: string }>(months: readonly T[]): T[] {
  const years = new Map<string, T>();
  for (const month of months) {
    const year = month.month.slice(0, 4);
    const before = years.get(year);
    const sums = Object.entries(month).map(([name, value]) => [
      name,
      name === 'month' ? year : Number(value) + Number(before?.[name as keyof T] ?? 0),
    ]);
    years.set(year, Object.fromEntries(sums) as T);
  }
  return [...years.values()];
}
