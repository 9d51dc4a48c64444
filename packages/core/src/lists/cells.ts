import { parseNumber } from '../quantity/parse.ts';

/** A row of a maker's own list: its cells by heading. */
export type ListRow = Readonly<Record<string, string>>;

export const DAY_ORDERS = ['year-month-day', 'day.month.year', 'month/day/year'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

/**
 * Letters and figures of a name alone: how a list and a workshop may write the same thing.
 * @example plain('Keel-Lead ') // 'keel lead'
 */
export const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Numbers of a day as it is written, apart. */
const numbersOf = (day: string) =>
  day
    .trim()
    .split(/[^\d]+/)
    .filter(Boolean)
    .map(Number);

/**
 * How these days are written: which number is a year, and which cannot be a month.
 * @example guessDays(['14.3.2026']) // 'day.month.year'
 */
export function guessDays(days: readonly string[]): DayOrder {
  const all = days.map(numbersOf).filter((numbers) => numbers.length >= 3);
  if (all.length > 0 && all.every(([first]) => first! > 31)) return 'year-month-day';
  if (all.some(([first]) => first! > 12)) return 'day.month.year';
  if (all.some(([, second]) => second! > 12)) return 'month/day/year';
  return days.some((day) => day.includes('/')) ? 'month/day/year' : 'day.month.year';
}

/**
 * A day as the workshop writes it; as it stands where it is none, so that it is refused by its line.
 * @example isoDayOf('14.3.26', 'day.month.year') // '2026-03-14'
 */
export function isoDayOf(text: string, days: DayOrder): string {
  const numbers = numbersOf(text);
  if (numbers.length < 3) return text.trim();
  const [a, b, c] = numbers as [number, number, number];
  const [year, month, day] = days === 'year-month-day' ? [a, b, c] : days === 'day.month.year' ? [c, b, a] : [c, a, b];
  const two = (number: number) => String(number).padStart(2, '0');
  return `${year < 100 ? 2000 + year : year}-${two(month)}-${two(day)}`;
}

/**
 * A number out of a cell, whatever stands around it: 1,234.50, 1.234,50 and 31,20 are what they look like; null where
 * there is none.
 * @example numberOf('EUR 31,20') // 31.2
 */
export function numberOf(cell: string): number | null {
  const digits = cell.replaceAll(/[^\d.,/ -]/g, '').trim();
  const decimal = Math.max(digits.lastIndexOf(','), digits.lastIndexOf('.'));
  const both = digits.includes(',') && digits.includes('.');
  return parseNumber(
    both ? `${digits.slice(0, decimal).replaceAll(/[.,]/g, '')}.${digits.slice(decimal + 1)}` : digits,
  );
}

/** Whether a cell looks like a day, like a number, like words. */
export const LOOKS = {
  day: (cell: string) => /^\D*\d{1,4}\D\d{1,2}\D\d{2,4}\b/.test(cell),
  number: (cell: string) => !LOOKS.day(cell) && /^\D{0,4}[\d.,/ ]*\d/.test(cell.trim()),
  words: (cell: string) => /\p{L}{2}/u.test(cell) && !LOOKS.number(cell),
} as const;

/** Whether most cells under a heading look like something. */
const mostly = (rows: readonly ListRow[], heading: string, looks: (cell: string) => boolean) =>
  rows.filter((row) => looks(row[heading] ?? '')).length > rows.length / 2;

/** A field of a list: words that its heading may hold, and how its cells look where no heading tells. */
export interface ListField<F extends string> {
  field: F;
  likely: RegExp;
  looks?: keyof typeof LOOKS;
  /** What its cells never look like, whatever the heading says. */
  never?: keyof typeof LOOKS;
  /** Names that the workshop knows: a column that mostly has these is it, whatever it is called. */
  names?: readonly string[];
}

/**
 * Which column is meant by what: full of names that are known, named as the field itself, or like it, or as its cells
 * look; null: none is.
 * @param fields in the order in which they take what fits several of them
 * @example guessColumns(['Tag', 'Gut'], [{ Tag: '1.2.2026', Gut: '40' }], [{ field: 'on', likely: /date/i,
 *   looks: 'day' }]).on // 'Tag'
 */
export function guessColumns<F extends string>(
  headings: readonly string[],
  rows: readonly ListRow[],
  fields: readonly ListField<F>[],
): Record<F, string | null> {
  const free = new Set(headings);
  const columns = Object.fromEntries(fields.map(({ field }) => [field, null])) as Record<F, string | null>;
  const take = (field: F, fits: (heading: string) => boolean) => {
    if (columns[field] !== null) return;
    const found = [...free].find(fits);
    if (found === undefined) return;
    columns[field] = found;
    free.delete(found);
  };
  for (const { field, names } of fields) {
    const known = new Set((names ?? []).map(plain));
    const isKnown = (cell: string) => known.has(plain(cell));
    if (known.size > 0) take(field, (heading) => mostly(rows, heading, isKnown));
  }
  for (const { field } of fields) take(field, (heading) => plain(heading) === field);
  for (const { field, likely, never } of fields) {
    take(field, (heading) => likely.test(heading) && !(never && mostly(rows, heading, LOOKS[never])));
  }
  // Days by their look, then words, then numbers as they come.
  for (const look of ['day', 'words', 'number'] as const) {
    for (const { field, looks } of fields) {
      if (looks === look) take(field, (heading) => mostly(rows, heading, LOOKS[look]));
    }
  }
  return columns;
}

/**
 * What stands in a column, each once, with what it means to the workshop; null where nobody knows.
 * @example namesIn([{ Item: 'keel-lead' }, { Item: 'tar' }], 'Item', ['Keel lead'])
 *   // { 'keel-lead': 'Keel lead', tar: null }
 */
export function namesIn(
  rows: readonly ListRow[],
  column: string | null,
  known: readonly string[],
): Record<string, string | null> {
  const said = column === null ? [] : rows.map((row) => (row[column] ?? '').trim()).filter(Boolean);
  return Object.fromEntries(
    [...new Set(said)].map((name) => [name, known.find((each) => plain(each) === plain(name)) ?? null]),
  );
}
