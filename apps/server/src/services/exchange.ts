import Papa from 'papaparse';
import { rowsOf, type Store } from '../store/store.ts';
import { listResources } from './resources.ts';
import { readSettings } from './settings.ts';

/** Every movement of stock as CSV, oldest first. */
export async function movesCsv(store: Store): Promise<string> {
  const rows = await store.select(
    `SELECT strftime('%Y-%m-%dT%H:%M:%SZ', m.at / 1000, 'unixepoch') AS at, a.name AS material, a.kind, m.reason,
            m.quantity, m.valueMinor, t.number AS ticket, m.lot
     FROM stockMoves m JOIN materials a ON a.id = m.materialId LEFT JOIN tickets t ON t.id = m.ticketId ORDER BY m.id`,
  );
  return Papa.unparse(rows as object[], {
    // A text that a spreadsheet would run is kept as text.
    escapeFormulae: true,
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
    imports: await rowsOf(models.imports),
    lotUses: await rowsOf(models.lotUses),
  };
}
