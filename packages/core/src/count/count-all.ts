/**
 * Heads in all of counts by name: by ticket, by cause.
 * @example
 * ```ts
 * countAll({ short: 3, flash: 1 }) // 4
 * ```
 */
export const countAll = (counts: Readonly<Record<string, number>>): number =>
  Object.values(counts).reduce((sum, count) => sum + count, 0);
