import Papa from 'papaparse';
import { Readable } from 'node:stream';
import { literal } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';
import { listResources } from './resources.ts';
import { readSettings } from './settings.ts';

const MOVES_AT_A_TIME = 5000;
const MOVE_COLUMNS = ['at', 'material', 'kind', 'reason', 'quantity', 'valueMinor', 'ticket', 'lot'];

async function* movesLines(store: Store): AsyncGenerator<string> {
  yield MOVE_COLUMNS.join(',');
  for (let after = 0; ;) {
    const rows = await store.select<{ id: number }>(
      `SELECT m.id, strftime('%Y-%m-%dT%H:%M:%SZ', m.at / 1000, 'unixepoch') AS at, a.name AS material, a.kind, m.reason,
              m.quantity, m.valueMinor, t.number AS ticket, m.lot
       FROM stockMoves m JOIN materials a ON a.id = m.materialId LEFT JOIN tickets t ON t.id = m.ticketId
       WHERE m.id > :after ORDER BY m.id LIMIT ${MOVES_AT_A_TIME}`,
      { after },
    );
    if (rows.length === 0) return;
    // A text that a spreadsheet would run is kept as text.
    yield `\r\n${Papa.unparse(rows, { escapeFormulae: true, columns: MOVE_COLUMNS, header: false })}`;
    after = rows.at(-1)!.id;
  }
}

/** Every movement of stock as CSV, oldest first, as a stream: ten years of them never lie in memory. */
export const movesCsv = (store: Store): Readable => Readable.from(movesLines(store));

/** Tables that grow with every evening: they are read piece by piece. */
const GROWING = [
  'tickets',
  'pours',
  'runs',
  'runTickets',
  'entries',
  'stockMoves',
  'goodsMoves',
  'imports',
  'lotUses',
] as const;
const ROWS_AT_A_TIME = 1000;

/** The rows of a table as JSON, a piece at a time; what is written meanwhile comes at the end or not at all. */
async function* rowsAsJson(store: Store, name: (typeof GROWING)[number]): AsyncGenerator<string> {
  const table = store.models[name] as unknown as Parameters<typeof rowsOf<{ rowid: number }>>[0];
  for (let after = 0; ;) {
    const rows = await rowsOf(table, {
      attributes: [...Object.keys(table.getAttributes()), [literal('rowid'), 'rowid']],
      where: literal(`rowid > ${after}`),
      order: [[literal('rowid'), 'ASC']],
      limit: ROWS_AT_A_TIME,
    });
    const written = rows.map(({ rowid: _place, ...row }) => JSON.stringify(row)).join(',');
    if (rows.length > 0) yield (after > 0 ? ',' : '') + written;
    if (rows.length < ROWS_AT_A_TIME) return;
    after = rows.at(-1)!.rowid;
  }
}

async function* everythingAsJson(store: Store): AsyncGenerator<string> {
  const { settings } = await readSettings(store);
  const { models } = store;
  const [materials, molds, recipes, orders] = await Promise.all([
    listResources(store, 'materials'),
    listResources(store, 'molds'),
    listResources(store, 'recipes'),
    listResources(store, 'orders'),
  ]);
  const whole = {
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
    suppliers: await rowsOf(models.suppliers),
    tools: await rowsOf(models.tools),
    rules: await rowsOf(models.rules),
    bakePrograms: await rowsOf(models.bakePrograms),
    products: await rowsOf(models.products),
  };
  yield JSON.stringify(whole).slice(0, -1);
  for (const name of GROWING) {
    yield `,"${name}":[`;
    yield* rowsAsJson(store, name);
    yield ']';
  }
  yield '}';
}

/**
 * Everything in the data folder as one JSON document, tables by name, as a stream; its form is described in
 * docs/data-format.md.
 */
export const exportAll = (store: Store): Readable => Readable.from(everythingAsJson(store));
