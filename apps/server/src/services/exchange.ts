import Papa from 'papaparse';
import { Readable } from 'node:stream';
import { documentSchema, wholeWorkshop } from '../store/document.ts';
import type { Store } from '../store/store.ts';

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

/**
 * Everything in the data folder as one JSON document, tables by name, as a stream; its form is described in
 * docs/data-format.md, its schema is `GET /api/export/schema`.
 */
export const exportAll = (store: Store): Readable => Readable.from(wholeWorkshop(store));

/** The schema of that document, for the tables as they are. */
export async function exportSchema(store: Store): Promise<Record<string, unknown>> {
  const ask = <T>(sql: string) => store.select<T>(sql);
  const [{ name }] = (await ask<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1')) as [
    { name: string },
  ];
  return documentSchema(ask, name);
}
