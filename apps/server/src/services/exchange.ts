import Papa from 'papaparse';
import { parseWith, receiptSchema, type ImportResult } from '@schmelz/contract';
import { currencyDigits } from '@schmelz/core';
import { rowsOf, type Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { listResources } from './resources.ts';
import { readSettings } from './settings.ts';

const COLUMNS = ['material', 'quantity', 'price', 'on', 'lot'] as const;

const notCsv = (detail: string) => new Refused(422, 'This is no list of purchases', detail);

/**
 * Purchases from CSV with the columns material, quantity (kg or pieces), price (in the workshop's currency), on
 * (2026-05-31), lot. All rows are taken or none; the first wrong one is named by its line.
 */
export async function importReceipts(store: Store, csv: string): Promise<ImportResult> {
  const parsed = Papa.parse<Record<string, string>>(csv.trim(), { header: true, skipEmptyLines: true });
  const missing = COLUMNS.filter((column) => column !== 'lot' && !parsed.meta.fields?.includes(column));
  if (missing.length) {
    const found = parsed.meta.fields
      ?.slice(0, 8)
      .map((field) => field.slice(0, 40))
      .join(', ');
    throw notCsv(
      `The first line must name the columns ${COLUMNS.join(', ')}; missing: ${missing.join(', ')}; found: ${found || 'nothing'}.`,
    );
  }
  const [broken] = parsed.errors;
  if (broken) throw notCsv(`Line ${(broken.row ?? 0) + 2}: ${broken.message}.`);
  if (parsed.data.length === 0) throw notCsv('There is no row below the names of the columns.');
  const materials = await rowsOf(store.models.materials);
  const { settings } = await readSettings(store);
  const moves = parsed.data.map((row, index) => {
    const line = `Line ${index + 2}`;
    const material = materials.find((each) => each.name.toLowerCase() === row['material']?.trim().toLowerCase());
    if (!material) {
      throw notCsv(
        `${line}: material is ${JSON.stringify(row['material'])}; allowed: the name of a material in Stock.`,
      );
    }
    const receipt = {
      quantity: Number(row['quantity']),
      priceMinor: Math.round(Number(row['price']) * 10 ** currencyDigits(settings.currency)),
      on: row['on']?.trim() ?? '',
      lot: row['lot']?.trim() ?? '',
    };
    try {
      const { quantity, priceMinor, on, lot } = parseWith(receiptSchema, receipt);
      const at = new Date(`${on}T12:00:00`).getTime();
      return { at, materialId: material.id, reason: 'received', quantity, valueMinor: priceMinor, ticketId: null, lot };
    } catch (error) {
      throw notCsv(`${line}: ${(error as Error).message}.`);
    }
  });
  await store.write((transaction) => store.models.stockMoves.bulkCreate(moves, { transaction }));
  return { rows: moves.length };
}

/** Every movement of stock as CSV, oldest first. */
export async function movesCsv(store: Store): Promise<string> {
  const rows = await store.select(
    `SELECT strftime('%Y-%m-%dT%H:%M:%SZ', m.at / 1000, 'unixepoch') AS at, a.name AS material, a.kind, m.reason,
            m.quantity, m.valueMinor, t.number AS ticket, m.lot
     FROM stockMoves m JOIN materials a ON a.id = m.materialId LEFT JOIN tickets t ON t.id = m.ticketId ORDER BY m.id`,
  );
  return Papa.unparse(rows as object[], {
    columns: ['at', 'material', 'kind', 'reason', 'quantity', 'valueMinor', 'ticket', 'lot'],
  });
}

/** Everything in the data folder as one JSON document, tables by name; its form is described in docs/data-format.md. */
export async function exportAll(store: Store): Promise<Record<string, unknown>> {
  const { settings } = await readSettings(store);
  const { models } = store;
  const [materials, molds, recipes, orders] = await Promise.all([
    listResources(store, 'materials'),
    listResources(store, 'molds'),
    listResources(store, 'recipes'),
    listResources(store, 'orders'),
  ]);
  return {
    format: 'schmelz-workshop',
    version: 1,
    settings,
    materials,
    molds,
    recipes,
    orders,
    pots: await rowsOf(models.pots),
    parts: await rowsOf(models.parts),
    leadLots: await rowsOf(models.leadLots),
    records: await rowsOf(models.records),
    channels: await rowsOf(models.channels),
    ovens: await rowsOf(models.ovens),
    bakePrograms: await rowsOf(models.bakePrograms),
    products: await rowsOf(models.products),
    tickets: await rowsOf(models.tickets),
    pours: await rowsOf(models.pours),
    runs: await rowsOf(models.runs),
    runTickets: await rowsOf(models.runTickets),
    entries: await rowsOf(models.entries),
    stockMoves: await rowsOf(models.stockMoves),
    lotUses: await rowsOf(models.lotUses),
  };
}
