/** What was made of records, and those that nothing could be made of, each with the reason. */
export interface Shown<Made> {
  made: Made[];
  odd: { name: string; why: string }[];
}

/**
 * Makes something of every record. One that nothing can be made of is named and left out, so that a page which sums
 * over all of them still shows the rest.
 * @example eachShown([4, -1], String, (n) => { if (n < 0) throw new Error('below zero'); return 2 * n; })
 * // { made: [8], odd: [{ name: '-1', why: 'below zero' }] }
 */
export function eachShown<Record, Made>(
  records: readonly Record[],
  nameOf: (record: Record) => string,
  make: (record: Record) => Made,
): Shown<Made> {
  const shown: Shown<Made> = { made: [], odd: [] };
  for (const record of records) {
    try {
      shown.made.push(make(record));
    } catch (error) {
      shown.odd.push({ name: nameOf(record), why: error instanceof Error ? error.message : String(error) });
    }
  }
  return shown;
}
