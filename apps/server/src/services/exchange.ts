import Papa from 'papaparse';
import { Readable } from 'node:stream';
import type { CsvTable } from '@schmelz/contract';
import { documentSchema, tablesOf, wholeWorkshop } from '../store/document.ts';
import type { Store } from '../store/store.ts';
import { readingsOf } from './readings.ts';

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

const ROWS_AT_A_TIME = 5000;
const READING_COLUMNS = ['at', 'source', 'name', 'place', 'celsius'];
/** A text that a spreadsheet would run is kept as text. */
const linesOf = (rows: readonly object[], columns: readonly string[]) =>
  Papa.unparse([...rows], { escapeFormulae: true, columns: [...columns], header: false });

/** Every reading in a line of its own, channel by channel, unpacked a block at a time. */
async function* readingLines(store: Store): AsyncGenerator<string> {
  yield READING_COLUMNS.join(',');
  const channels = await store.select<{ id: number; source: string; name: string; place: string }>(
    'SELECT id, source, name, place FROM channels WHERE NOT struck ORDER BY id',
  );
  for (const { id, ...channel } of channels) {
    for await (const readings of readingsOf(store, id)) {
      const rows = readings.map(({ at, celsius }) => ({ ...channel, at: new Date(at).toISOString(), celsius }));
      yield `\r\n${linesOf(rows, READING_COLUMNS)}`;
    }
  }
}

async function* tableLines(store: Store, name: Exclude<CsvTable, 'readings'>): AsyncGenerator<string> {
  const columns = (await tablesOf(store)).find((table) => table.name === name)!.columns.map((column) => column.name);
  yield columns.join(',');
  for (let after = 0; ;) {
    const rows = await store.select<{ nth: number }>(
      `SELECT rowid AS nth, * FROM "${name}" WHERE rowid > :after ORDER BY rowid LIMIT ${ROWS_AT_A_TIME}`,
      { after },
    );
    if (rows.length === 0) return;
    yield `\r\n${linesOf(rows, columns)}`;
    after = rows.at(-1)!.nth;
  }
}

/** One table as CSV, as a stream: lists inside a cell are JSON, moments are ms since 1970 as in the document. */
export const tableCsv = (store: Store, table: CsvTable): Readable =>
  Readable.from(table === 'readings' ? readingLines(store) : tableLines(store, table));

/**
 * Everything in the data folder as one JSON document, tables by name, as a stream; its form is described in
 * docs/data-format.md, its schema is `GET /api/export/schema`.
 */
export const exportAll = (store: Store): Promise<Readable> => wholeWorkshop(store);

/** The schema of that document, for the tables as they are. */
export async function exportSchema(store: Store): Promise<Record<string, unknown>> {
  const ask = <T>(sql: string) => store.select<T>(sql);
  const [{ name }] = (await ask<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1')) as [
    { name: string },
  ];
  return documentSchema(ask, name);
}
