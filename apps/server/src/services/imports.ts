import { createHash, randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import { parseWith, receiptSchema, type ImportOnRecord, type ImportResult } from '@schmelz/contract';
import { currencyDigits, parseNumber, partKind } from '@schmelz/core';
import type { Transaction } from 'sequelize';
import type { ImportRow, MaterialRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { moveStock } from './part-lots.ts';
import { readSettings } from './settings.ts';
import { noon } from './stock.ts';

const COLUMNS = ['material', 'quantity', 'price', 'on', 'lot'] as const;

const notCsv = (detail: string) => new Refused(422, 'This is no list of purchases', detail);

/** One way to end a line, whatever wrote the file. */
const lines = (csv: string) => csv.trim().replaceAll(/\r\n?/g, '\n');

/** A table from CSV, its headings each once; `refuse` says what is wrong with it. */
export function readCsv(csv: string, refuse: (detail: string) => Refused) {
  const text = lines(csv);
  const [first] = Papa.parse<string[]>(text, { preview: 1 }).data;
  const headings = (first ?? []).map((heading) => heading.trim());
  const twice = headings.find((heading, at) => heading !== '' && headings.indexOf(heading) !== at);
  if (twice) throw refuse(`Two columns are named ${JSON.stringify(twice.slice(0, 40))}; allowed: each name once.`);
  const odd = headings.find((heading) => heading in Object.prototype);
  if (odd) throw refuse(`A column is named ${JSON.stringify(odd)}; allowed: any other name.`);
  const parsed = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  return { headings, rows: parsed.data, errors: parsed.errors };
}

/** The same contents, whatever the ends of its lines. */
export const digestOf = (csv: string) => createHash('sha256').update(lines(csv)).digest('hex');

/** An import of the same contents that stands; null where there is none. */
export async function takenBefore(store: Store, digest: string, transaction?: Transaction): Promise<ImportRow | null> {
  const [known] = await rowsOf(store.models.imports, { where: { digest, struck: false }, transaction });
  return known ?? null;
}

export const takenAlready = ({ at, name }: ImportRow) =>
  new Refused(
    409,
    'Taken already',
    `The same file was taken on ${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC${name && `, as ${name}`}. ` +
      'To take it once more, say so (again=true); to undo the first, strike it out.',
  );

/** The rows of a list with these columns; `refuse` says what is wrong with it. */
export function rowsUnder(
  csv: string,
  { columns, optional }: { columns: readonly string[]; optional: readonly string[] },
  refuse: (detail: string) => Refused,
): Record<string, string>[] {
  const { headings, rows, errors } = readCsv(csv, refuse);
  const missing = columns.filter((column) => !optional.includes(column) && !headings.includes(column));
  if (missing.length) {
    const found = headings.slice(0, 8).map((each) => each.slice(0, 40));
    throw refuse(
      `The first line must name the columns ${columns.join(', ')}; missing: ${missing.join(', ')}; found: ${found.join(', ') || 'nothing'}.`,
    );
  }
  const [broken] = errors;
  if (broken)
    throw refuse(`Line ${(broken.row ?? 0) + 2}: ${broken.message}. A cell with a comma in it stands in quotes.`);
  if (rows.length === 0) throw refuse('There is no row below the names of the columns.');
  return rows;
}

/**
 * Takes a list in: with `look` nothing is taken, and nothing twice unless `again` is said. All rows are taken or none.
 * @returns the id of the import, and when the same contents were taken before; null where they were not
 */
export async function takeList(
  store: Store,
  { csv, kind, entries }: { csv: string; kind: ImportRow['kind']; entries: number },
  { look = false, again = false, at = Date.now() }: TakeOptions,
  take: (importId: string, transaction: Transaction) => Promise<void>,
): Promise<{ id: string | null; takenAt: number | null }> {
  const digest = digestOf(csv);
  const takenAt = (await takenBefore(store, digest))?.at ?? null;
  if (look) return { id: null, takenAt };
  const id = randomUUID();
  await store.write(async (transaction) => {
    const before = await takenBefore(store, digest, transaction);
    if (before && !again) throw takenAlready(before);
    await store.models.imports.create({ id, kind, name: '', at, digest, entries, struck: false }, { transaction });
    await take(id, transaction);
  });
  return { id, takenAt };
}
export interface TakeOptions {
  look?: boolean;
  again?: boolean;
  at?: number;
}

/** The rows of a list of purchases, checked; the first wrong one is named by its line, as it was written. */
async function purchasesIn(store: Store, csv: string) {
  const rows = rowsUnder(csv, { columns: COLUMNS, optional: ['lot'] }, notCsv);
  const materials = await rowsOf(store.models.materials);
  const { settings } = await readSettings(store);
  const scale = 10 ** currencyDigits(settings.currency);
  return rows.map((row, index) => purchaseIn(row, index + 2, materials, scale));
}

function purchaseIn(row: Record<string, string>, line: number, materials: readonly MaterialRow[], scale: number) {
  const cell = (column: string) => row[column]?.trim() ?? '';
  const material = materials.find((each) => each.name.toLowerCase() === cell('material').toLowerCase());
  if (!material) {
    throw notCsv(
      `Line ${line}: material is ${JSON.stringify(cell('material'))}; allowed: the name of a material in Stock.`,
    );
  }
  const number = (column: string, allowed: string) => {
    const value = parseNumber(cell(column));
    if (value === null)
      throw notCsv(`Line ${line}: ${column} is ${JSON.stringify(cell(column))}; allowed: ${allowed}.`);
    return value;
  };
  const receipt = {
    quantity: number('quantity', `a number of ${partKind(material.kind).unit}, such as 12.5 or 12,5`),
    priceMinor: Math.round(number('price', 'a sum, such as 31.20 or 31,20') * scale),
    on: cell('on'),
    lot: cell('lot'),
  };
  try {
    return { line, material, ...parseWith(receiptSchema, receipt) };
  } catch (error) {
    throw notCsv(`Line ${line}: ${(error as Error).message}.`);
  }
}

/**
 * Purchases from CSV with the columns material, quantity (kg or pieces), price (in the workshop's currency), on
 * (2026-05-31), lot. With `look` nothing is taken: it says what would be. All rows are taken or none; the same contents
 * once, unless `again` is said.
 */
export async function importReceipts(store: Store, csv: string, options: TakeOptions = {}): Promise<ImportResult> {
  const purchases = await purchasesIn(store, csv);
  const list = { csv, kind: 'receipts', entries: purchases.length } as const;
  const taken = await takeList(store, list, options, async (importId, transaction) => {
    for (const { material, quantity, priceMinor, on, lot } of purchases) {
      const move = { at: noon(on), materialId: material.id, reason: 'received', quantity, valueMinor: priceMinor };
      await moveStock(store, { ...move, ticketId: null, lot, importId }, transaction);
    }
  });
  const said = purchases.map(({ material: { name, kind }, ...rest }) => ({ ...rest, material: name, kind }));
  return { ...taken, rows: said.length, purchases: said };
}

/** Files that were taken in, newest first. */
export async function listImports(store: Store): Promise<ImportOnRecord[]> {
  const rows = await rowsOf(store.models.imports, { order: [['at', 'DESC']], limit: 100 });
  return rows.map(({ id, kind, name, at, entries, struck }) => ({ id, kind, name, at, entries, struck }));
}
