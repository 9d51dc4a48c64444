import { parseNumber } from '../quantity/parse.ts';
import { KG_PER_OUNCE, KG_PER_POUND } from '../quantity/units.ts';

/** What a list of purchases must say, and may. */
export const PURCHASE_FIELDS = ['material', 'quantity', 'price', 'on', 'lot'] as const;
export type PurchaseField = (typeof PURCHASE_FIELDS)[number];

/** What amounts of the list are in; of what is counted it is pieces, whatever is said here. */
export const LIST_UNITS = ['kg', 'g', 'oz', 'lb'] as const;
export type ListUnit = (typeof LIST_UNITS)[number];
export const DAY_ORDERS = ['year-month-day', 'day.month.year', 'month/day/year'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

/** How a maker's own list is to be read. */
export interface PurchaseMapping {
  /** The heading that each field is under; null: the list has none. */
  columns: Record<PurchaseField, string | null>;
  unit: ListUnit;
  priceIs: 'for all of it' | 'for each';
  days: DayOrder;
  /** What the list calls a material, and its name in Stock; null: those rows are left out. */
  names: Record<string, string | null>;
}
/** A material as a list may mean it. */
export interface ListedMaterial {
  name: string;
  /** Kept by mass; else by the piece. */
  byMass: boolean;
}
type ListRow = Readonly<Record<string, string>>;

const LIKELY: Record<PurchaseField, RegExp> = {
  material: /material|item|article|what|part|name|descr|goods/i,
  quantity: /qty|quant|amount|pieces|pcs|count|weight|how m/i,
  price: /price|paid|cost|total|sum|spent/i,
  on: /date|day|^on$|when|bought/i,
  lot: /lot|note|supplier|from|shop|order/i,
};
const KG: Record<ListUnit, number> = { kg: 1, g: 0.001, oz: KG_PER_OUNCE, lb: KG_PER_POUND };

const plain = (text: string) =>
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

/** How these days are written: which number is a year, and which cannot be a month. */
function guessDays(days: readonly string[]): DayOrder {
  const all = days.map(numbersOf).filter((numbers) => numbers.length >= 3);
  if (all.length > 0 && all.every(([first]) => first! > 31)) return 'year-month-day';
  if (all.some(([first]) => first! > 12)) return 'day.month.year';
  if (all.some(([, second]) => second! > 12)) return 'month/day/year';
  return days.some((day) => day.includes('/')) ? 'month/day/year' : 'day.month.year';
}

/** The unit that a heading names, as in *Weight (g)*. */
const guessUnit = (heading: string): ListUnit =>
  LIST_UNITS.find((unit) => new RegExp(`(^|[^a-z])${unit}s?([^a-z]|$)`, 'i').test(heading)) ?? 'kg';

/** A number out of a cell, whatever stands around it: 1,234.50, 1.234,50 and 31,20 are what they look like. */
function numberOf(cell: string): number | null {
  const digits = cell.replaceAll(/[^\d.,/ -]/g, '').trim();
  const decimal = Math.max(digits.lastIndexOf(','), digits.lastIndexOf('.'));
  const both = digits.includes(',') && digits.includes('.');
  return parseNumber(
    both ? `${digits.slice(0, decimal).replaceAll(/[.,]/g, '')}.${digits.slice(decimal + 1)}` : digits,
  );
}

/** The unit that stands behind an amount; null where none does. */
const unitIn = (cell: string): ListUnit | null =>
  (/\d\s*(kg|g|oz|lb)s?\.?$/i.exec(cell.trim())?.[1]?.toLowerCase() as ListUnit | undefined) ?? null;

/** Whether most cells under a heading look like something. */
const mostly = (rows: readonly ListRow[], heading: string, looks: (cell: string) => boolean) =>
  rows.filter((row) => looks(row[heading] ?? '')).length > rows.length / 2;
const isDay = (cell: string) => /^\D*\d{1,4}\D\d{1,2}\D\d{2,4}\b/.test(cell);
const isNumber = (cell: string) => !isDay(cell) && /^\D{0,4}[\d.,/ ]*\d/.test(cell.trim());

/** What a column holds where its heading says nothing: days by their look, then words, then numbers as they come. */
const LOOKS: readonly [PurchaseField, (cell: string) => boolean][] = [
  ['on', isDay],
  ['material', (cell) => /\p{L}{2}/u.test(cell) && !isNumber(cell)],
  ['quantity', isNumber],
  ['price', isNumber],
];

/** Which column is meant by what: named as the field itself, or like it, or as its cells look. */
function guessColumns(headings: readonly string[], rows: readonly ListRow[]): PurchaseMapping['columns'] {
  const free = new Set(headings);
  const columns: PurchaseMapping['columns'] = { material: null, quantity: null, price: null, on: null, lot: null };
  const take = (field: PurchaseField, fits: (heading: string) => boolean) => {
    if (columns[field] !== null) return;
    columns[field] = [...free].find(fits) ?? null;
    if (columns[field] !== null) free.delete(columns[field]!);
  };
  for (const field of PURCHASE_FIELDS) take(field, (heading) => plain(heading) === field);
  for (const field of PURCHASE_FIELDS) take(field, (heading) => LIKELY[field].test(heading));
  for (const [field, looks] of LOOKS) take(field, (heading) => mostly(rows, heading, looks));
  return columns;
}

/**
 * How a list is most likely meant, from its headings and its rows: what a maker only looks over.
 * @param rows cells by heading
 * @param columns what each field is under, where the maker has said it
 * @example guessPurchases(['Date', 'Item', 'Qty', 'Paid'], [{ Date: '14.3.2026', Item: 'Keel lead', Qty: '5',
 *   Paid: '9' }], [{ name: 'Keel lead', byMass: true }]).days // 'day.month.year'
 */
export function guessPurchases(
  headings: readonly string[],
  rows: readonly ListRow[],
  materials: readonly ListedMaterial[],
  columns: PurchaseMapping['columns'] = guessColumns(headings, rows),
): PurchaseMapping {
  return {
    columns,
    unit: guessUnit(columns.quantity ?? ''),
    priceIs: /each|unit|per|single/i.test(columns.price ?? '') ? 'for each' : 'for all of it',
    days: guessDays(columns.on === null ? [] : rows.map((row) => row[columns.on!] ?? '')),
    names: namesIn(rows, columns.material, materials),
  };
}

/**
 * What a list calls its materials, with the name in Stock where it is the same but for capitals and signs; null where
 * it is not known.
 * @example namesIn([{ Item: 'keel-lead' }, { Item: 'tar' }], 'Item', [{ name: 'Keel lead', byMass: true }])
 *   // { 'keel-lead': 'Keel lead', tar: null }
 */
export function namesIn(
  rows: readonly ListRow[],
  column: string | null,
  materials: readonly ListedMaterial[],
): Record<string, string | null> {
  const said = column === null ? [] : rows.map((row) => (row[column] ?? '').trim()).filter(Boolean);
  return Object.fromEntries(
    [...new Set(said)].map((name) => [name, materials.find((each) => plain(each.name) === plain(name))?.name ?? null]),
  );
}

/** A day as the workshop writes it; as it stands where it is none, so that it is refused by its line. */
function isoDayOf(text: string, days: DayOrder): string {
  const numbers = numbersOf(text);
  if (numbers.length < 3) return text.trim();
  const [a, b, c] = numbers as [number, number, number];
  const [year, month, day] = days === 'year-month-day' ? [a, b, c] : days === 'day.month.year' ? [c, b, a] : [c, a, b];
  const two = (number: number) => String(number).padStart(2, '0');
  return `${year < 100 ? 2000 + year : year}-${two(month)}-${two(day)}`;
}

/**
 * A maker's own list as the workshop takes purchases in: names of Stock, kilograms or pieces, what was paid for all of
 * a row, days as 2026-03-14. What is no number or no day stays as it was written, and is refused by its line.
 * @returns rows with the fields of {@link PURCHASE_FIELDS}; those of materials that are left out are not among them
 * @example readPurchases([{ Item: 'Tar', Qty: '500', Paid: '9', Day: '14.3.26' }], { columns: { material: 'Item',
 *   quantity: 'Qty', price: 'Paid', on: 'Day', lot: null }, unit: 'g', priceIs: 'for all of it',
 *   days: 'day.month.year', names: { Tar: 'Tar black' } }, [{ name: 'Tar black', byMass: true }])
 *   // [{ material: 'Tar black', quantity: '0.5', price: '9', on: '2026-03-14', lot: '' }]
 */
export function readPurchases(
  rows: readonly ListRow[],
  { columns, unit, priceIs, days, names }: PurchaseMapping,
  materials: readonly ListedMaterial[],
): Record<PurchaseField, string>[] {
  return rows.flatMap((row) => {
    const cell = (field: PurchaseField) => (columns[field] === null ? '' : (row[columns[field]!] ?? '').trim());
    const material = names[cell('material')];
    if (material === null || material === undefined) return [];
    const byMass = materials.find(({ name }) => name === material)?.byMass ?? false;
    const amount = numberOf(cell('quantity'));
    const priced = numberOf(cell('price'));
    const times = priceIs === 'for each' && amount !== null ? amount : 1;
    return [
      {
        material,
        quantity:
          amount === null
            ? cell('quantity')
            : String(Number((byMass ? amount * KG[unitIn(cell('quantity')) ?? unit] : amount).toPrecision(12))),
        price: priced === null ? cell('price') : String(Number((priced * times).toFixed(4))),
        on: isoDayOf(cell('on'), days),
        lot: cell('lot'),
      },
    ];
  });
}
