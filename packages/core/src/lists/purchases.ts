import { KG_PER_OUNCE, KG_PER_POUND } from '../quantity/units.ts';
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

/** What a list of purchases must say, and may. */
export const PURCHASE_FIELDS = ['material', 'quantity', 'price', 'on', 'lot'] as const;
export type PurchaseField = (typeof PURCHASE_FIELDS)[number];

/** What amounts of the list are in; of what is counted it is pieces, whatever is said here. */
export const LIST_UNITS = ['kg', 'g', 'oz', 'lb'] as const;
export type ListUnit = (typeof LIST_UNITS)[number];

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
const fieldsOf = (materials: readonly ListedMaterial[]): readonly ListField<PurchaseField>[] => [
  {
    field: 'material',
    likely: /material|item|article|what|part|name|descr|goods/i,
    looks: 'words',
    names: materials.map(({ name }) => name),
  },
  { field: 'quantity', likely: /qty|quant|amount|pieces|pcs|count|weight|how m/i, looks: 'number' },
  { field: 'price', likely: /price|paid|cost|total|sum|spent/i, looks: 'number' },
  { field: 'on', likely: /date|day|^on$|when|bought/i, looks: 'day' },
  { field: 'lot', likely: /lot|note|supplier|from|shop|order/i },
];
const KG: Record<ListUnit, number> = { kg: 1, g: 0.001, oz: KG_PER_OUNCE, lb: KG_PER_POUND };

/** The unit that a heading names, as in *Weight (g)*. */
const guessUnit = (heading: string): ListUnit =>
  LIST_UNITS.find((unit) => new RegExp(`(^|[^a-z])${unit}s?([^a-z]|$)`, 'i').test(heading)) ?? 'kg';

/** The unit that stands behind an amount; null where none does. */
const unitIn = (cell: string): ListUnit | null =>
  (/\d\s*(kg|g|oz|lb)s?\.?$/i.exec(cell.trim())?.[1]?.toLowerCase() as ListUnit | undefined) ?? null;

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
  columns: PurchaseMapping['columns'] = guessColumns(headings, rows, fieldsOf(materials)),
): PurchaseMapping {
  return {
    columns,
    unit: guessUnit(columns.quantity ?? ''),
    priceIs: /each|unit|per|single/i.test(columns.price ?? '') ? 'for each' : 'for all of it',
    days: guessDays(columns.on === null ? [] : rows.map((row) => row[columns.on!] ?? '')),
    names: namesIn(
      rows,
      columns.material,
      materials.map(({ name }) => name),
    ),
  };
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
