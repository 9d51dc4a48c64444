import {
  guessColumns,
  guessDays,
  isoDayOf,
  namesIn,
  numberOf,
  type DayOrder,
  type ListField,
  type ListRow,
} from './cells.ts';

/** What a log of evenings on paper says; only the day and some heads must be in it. */
export type EveningField = 'on' | 'what' | 'good' | 'bad' | 'casts' | 'time' | 'note';
export const TIME_UNITS = ['minutes', 'hours'] as const;
export type TimeUnit = (typeof TIME_UNITS)[number];

/** What a name on paper means in the workshop. */
export interface NamedThing {
  kind: 'mold' | 'product';
  name: string;
}
/** How a maker's log is to be read. */
export interface EveningMapping {
  columns: Record<EveningField, string | null>;
  /** What a time without a unit is in. */
  time: TimeUnit;
  days: DayOrder;
  /** What the paper calls a mold or a product, and which it is; null: it is kept by its name alone. */
  names: Record<string, NamedThing | null>;
}
/** An evening as the workshop takes it in; what was not written down is empty. */
interface PaperEvening {
  on: string;
  name: string;
  mold: string;
  product: string;
  good: string;
  casts: string;
  minutes: string;
  note: string;
}

const fieldsOf = (things: readonly NamedThing[]): readonly ListField<EveningField>[] => [
  { field: 'on', likely: /date|day|^on$|when|evening/i, looks: 'day' },
  { field: 'bad', likely: /bad|reject|scrap|short|waste|melted|thrown/i, never: 'words' },
  {
    field: 'good',
    likely: /good|ok|kept|made|heads|jigs|finished|pieces|pcs|qty|count/i,
    never: 'words',
    looks: 'number',
  },
  { field: 'casts', likely: /cast|poured|total|all/i, never: 'words' },
  { field: 'time', likely: /time|min|hour|^h$|took/i, never: 'words' },
  {
    field: 'what',
    likely: /mold|mould|what|poured|head|jig|product|style|size|name/i,
    looks: 'words',
    names: things.map(({ name }) => name),
  },
  { field: 'note', likely: /note|remark|comment|weather/i },
];

/**
 * How a log of evenings is most likely meant, from its headings and its rows.
 * @param things molds and products of the workshop; where both have a name, it is the mold that is meant
 * @param columns what each field is under, where the maker has said it
 * @example guessEvenings(['Date', 'Mold', 'Good', 'Bad'], [{ Date: '2025-03-14', Mold: 'fry six', Good: '40',
 *   Bad: '6' }], [{ kind: 'mold', name: 'Fry six' }]).names // { 'fry six': { kind: 'mold', name: 'Fry six' } }
 */
export function guessEvenings(
  headings: readonly string[],
  rows: readonly ListRow[],
  things: readonly NamedThing[],
  columns: EveningMapping['columns'] = guessColumns(headings, rows, fieldsOf(things)),
): EveningMapping {
  const inOrder = [...things].sort((a, b) => a.kind.localeCompare(b.kind));
  const names = namesIn(
    rows,
    columns.what,
    inOrder.map(({ name }) => name),
  );
  return {
    columns,
    time: /hour|\bh\b/i.test(columns.time ?? '') ? 'hours' : 'minutes',
    days: guessDays(columns.on === null ? [] : rows.map((row) => row[columns.on!] ?? '')),
    names: Object.fromEntries(
      Object.entries(names).map(([said, name]) => [said, inOrder.find((thing) => thing.name === name) ?? null]),
    ),
  };
}

/** Minutes out of a cell: 90, 1:30, 1.5 h, 2h 15; null where there are none. */
function minutesOf(cell: string, unit: TimeUnit): number | null {
  const clock = /^(\d{1,3})\s*(?::|h)\s*(\d{1,2})\s*(?:m|min)?$/i.exec(cell.trim());
  if (clock) return 60 * Number(clock[1]) + Number(clock[2]);
  const value = numberOf(cell);
  if (value === null) return null;
  if (/\d\s*(h|hours?)$/i.test(cell.trim())) return 60 * value;
  return /\d\s*(m|min|minutes?)\.?$/i.test(cell.trim()) || unit === 'minutes' ? value : 60 * value;
}

interface Said {
  text: string;
  value: number | null;
}
/** A number as it was read, or what stands there instead, so that it is refused by its line. */
const told = ({ text, value }: Said) => (value === null ? text : String(value));

/**
 * Good heads and all casts of an evening: of good ones, bad ones and casts, two tell the third.
 * @param bad null where the log has no column of bad ones; an empty cell of it is none
 */
function headsOf(good: Said, bad: Said | null, casts: Said): { good: string; casts: string } {
  const known = bad !== null && bad.text === '' ? 0 : (bad?.value ?? null);
  if (bad !== null && known === null) return { good: told(good), casts: bad.text };
  if (good.text === '') {
    // Only all is said: as far as anybody knows, all of it was good.
    if (casts.value === null || known === null) return { good: told(casts), casts: '' };
    return { good: String(casts.value - known), casts: told(casts) };
  }
  if (casts.text !== '') return { good: told(good), casts: told(casts) };
  return { good: told(good), casts: good.value === null || known === null ? '' : String(good.value + known) };
}

/**
 * A log of evenings as the workshop takes it in. Of good ones, bad ones and all that was cast, two tell the third;
 * where only all is said, nobody knows how many were bad. What is no number or no day stays as it was written, and is
 * refused by its line.
 * @example readEvenings([{ Tag: '14.3.25', Gut: '40', Schlecht: '6' }], { columns: { on: 'Tag', what: null,
 *   good: 'Gut', bad: 'Schlecht', casts: null, time: null, note: null }, time: 'minutes', days: 'day.month.year',
 *   names: {} })
 *   // [{ on: '2025-03-14', name: '', mold: '', product: '', good: '40', casts: '46', minutes: '', note: '' }]
 */
export function readEvenings(rows: readonly ListRow[], { columns, time, days, names }: EveningMapping): PaperEvening[] {
  return rows.map((row) => {
    const cell = (field: EveningField) => (columns[field] === null ? '' : (row[columns[field]!] ?? '').trim());
    const said = (field: EveningField): Said => ({ text: cell(field), value: numberOf(cell(field)) });
    const name = cell('what');
    const thing = names[name];
    const minutes = minutesOf(cell('time'), time);
    return {
      on: isoDayOf(cell('on'), days),
      name,
      mold: thing?.kind === 'mold' ? thing.name : '',
      product: thing?.kind === 'product' ? thing.name : '',
      ...headsOf(said('good'), columns.bad === null ? null : said('bad'), said('casts')),
      minutes: minutes === null ? cell('time') : String(Number(minutes.toPrecision(6))),
      note: cell('note'),
    };
  });
}

/**
 * Cavities of a mold that nobody has cast in here, with what was kept of it on paper shared out among them: the good
 * ones and the casts of the evenings, alike. A mold with casts of its own goes by those.
 * @example countedOnPaper([{ good: 0, casts: 0 }, { good: 0, casts: 0 }], { good: 90, casts: 101 })[0]
 *   // { good: 45, casts: 50 }
 */
export function countedOnPaper<C extends { good: number; casts: number }>(
  cavities: readonly C[],
  paper: { good: number; casts: number } | undefined,
): C[] {
  if (!paper || paper.casts === 0 || cavities.some(({ casts }) => casts > 0)) return [...cavities];
  const casts = Math.floor(paper.casts / cavities.length);
  const good = Math.min(casts, Math.round((casts * paper.good) / paper.casts));
  return cavities.map((cavity) => ({ ...cavity, good, casts }));
}
