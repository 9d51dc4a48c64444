import { randomUUID } from 'node:crypto';
import { chmodSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { Sequelize } from 'sequelize';
import { asWorkshop, type Judge } from './backups.ts';
import { makeWhole, removeDatabase, type Backup } from './copies-on-disk.ts';
import { openDatabase, quoted, withDatabase, type Ask, type Database } from './database.ts';
import { Fault } from './fault.ts';
import { isStep, migrate, type Store } from './store.ts';

const FORMAT = 'schmelz-workshop';
/** 1 was made of what pages show, and left out what pours had given to tickets: it could not be taken in again. */
const FORMAT_VERSION = 2;

/** Who is logged in, which steps the tables took, and what is reckoned anew when it is asked for. */
const NO_PART_OF_IT: readonly string[] = ['migrations', 'sessions', 'ticketFigures', 'stockBalances', 'lotsUsed'];
const ROWS_AT_A_TIME = 1000;

interface Column {
  name: string;
  type: string;
  notnull: number;
  /** Its place in the primary key; 0: in none. */
  pk: number;
}
export interface Table {
  name: string;
  columns: Column[];
  /** Whether SQLite numbers its rows. */
  numbered: boolean;
}
type Row = Record<string, unknown>;
/** The tables of a workshop, by name. */
async function tablesIn(ask: Ask): Promise<Table[]> {
  const all = await ask<{ name: string; sql: string }>(
    "SELECT name, sql FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
  );
  const own = all.filter(({ name }) => !NO_PART_OF_IT.includes(name));
  return Promise.all(
    own.map(async ({ name, sql }) => ({
      name,
      columns: await ask<Column>(`PRAGMA table_info(${quoted(name)})`),
      numbered: !/WITHOUT ROWID/i.test(sql),
    })),
  );
}

/** The tables of the workshop that is open. */
export const tablesOf = (store: Store): Promise<Table[]> => tablesIn(<T>(sql: string) => store.select<T>(sql));

const SCHEMA_OF: Record<string, Row> = {
  TEXT: { type: 'string' },
  INTEGER: { type: 'integer' },
  REAL: { type: 'number' },
  BOOLEAN: { enum: [0, 1] },
  BLOB: { type: 'string', contentEncoding: 'base64' },
  JSON: { type: ['object', 'array', 'string'] },
};

/** What a column may hold; what may be empty may be null. */
function schemaOf({ type, notnull, pk }: Column): Row {
  const schema = SCHEMA_OF[type];
  if (!schema) throw new Error(`no schema for a column of ${type}`);
  return notnull || pk ? schema : { anyOf: [schema, { type: 'null' }] };
}

/** The JSON Schema (2020-12) of the document, from the tables themselves. */
export async function documentSchema(ask: Ask, step: string): Promise<Row> {
  const tables = await tablesIn(ask);
  const rows = tables.map(({ name, columns }): [string, Row] => {
    const properties = Object.fromEntries(columns.map((column) => [column.name, schemaOf(column)]));
    const row = { type: 'object', properties, required: Object.keys(properties), additionalProperties: false };
    return [name, { type: 'array', items: row }];
  });
  const properties = {
    ...{ format: { const: FORMAT }, version: { const: FORMAT_VERSION }, step: { const: step } },
    ...Object.fromEntries(rows),
  };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    ...{ title: 'A whole workshop of Schmelz', type: 'object', properties },
    ...{ required: Object.keys(properties), additionalProperties: false },
  };
}

/** A row as it is written: what is kept as JSON as what it says, bytes as base64. */
const written = (row: Row, columns: readonly Column[]): Row =>
  Object.fromEntries(
    columns.map(({ name, type }) => {
      const value = row[name];
      if (Buffer.isBuffer(value)) return [name, value.toString('base64')];
      if (type !== 'JSON' || typeof value !== 'string' || !/^[[{]/.test(value)) return [name, value];
      return [name, JSON.parse(value) as unknown];
    }),
  );

/** The same row as a table takes it. */
const stored = (row: Row, { name, type }: Column): unknown => {
  const value = row[name] ?? null;
  if (type === 'BLOB' && typeof value === 'string') return Buffer.from(value, 'base64');
  return typeof value === 'object' && value !== null ? JSON.stringify(value) : value;
};

async function* rowsOfTable(ask: Ask, { name, columns, numbered }: Table): AsyncGenerator<Row[]> {
  for (let read = 0, last = 0; ;) {
    const rows = numbered
      ? await ask<Row & { nth: number }>(
          `SELECT rowid AS nth, * FROM ${quoted(name)} WHERE rowid > ? ORDER BY rowid LIMIT ${ROWS_AT_A_TIME}`,
          [last],
        )
      : await ask<Row & { nth: number }>(
          `SELECT 0 AS nth, * FROM ${quoted(name)} LIMIT ${ROWS_AT_A_TIME} OFFSET ${read}`,
        );
    if (rows.length > 0) yield rows.map((row) => written(row, columns));
    if (rows.length < ROWS_AT_A_TIME) return;
    read += rows.length;
    last = rows.at(-1)!.nth;
  }
}

/** The workshop in a database file as one JSON document, piece by piece. */
export async function* documentOf(ask: Ask): AsyncGenerator<string> {
  const steps = await ask<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1');
  yield JSON.stringify({ format: FORMAT, version: FORMAT_VERSION, step: steps[0]!.name }).slice(0, -1);
  for (const table of await tablesIn(ask)) {
    yield `,${JSON.stringify(table.name)}:[`;
    let first = true;
    for await (const rows of rowsOfTable(ask, table)) {
      yield (first ? '' : ',') + rows.map((row) => JSON.stringify(row)).join(',');
      first = false;
    }
    yield ']';
  }
  yield '}';
}

/**
 * The whole workshop as JSON, as it stands at this moment: from a copy of its own, so that taps that come meanwhile do
 * not stand in one table and miss in another.
 */
export async function wholeWorkshop(store: Store): Promise<Readable> {
  const copy = join(store.folder, `export-${randomUUID()}.sqlite`);
  try {
    // Before anything is answered: on a full disk there is no document, and that is said.
    await store.select('VACUUM INTO :copy', { copy });
    chmodSync(copy, 0o600);
    const { ask, close } = await openDatabase(copy);
    const document = Readable.from(documentOf(ask));
    // However it ends, and whether anybody read it or not.
    return document.once('close', () => void close().then(() => removeDatabase(copy)));
  } catch (error) {
    removeDatabase(copy);
    throw error;
  }
}

const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A document as far as it can be judged before any table is made. @throws Fault in words */
function readDocument(text: string): Row & { step: string } {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new Fault(`The file is no JSON: ${(error as Error).message}.`);
  }
  if (!isRow(document) || document['format'] !== FORMAT) {
    throw new Fault(
      `The file is no workshop: its format is ${JSON.stringify(isRow(document) ? document['format'] : typeof document)}, and would be "${FORMAT}".`,
    );
  }
  const { version, step } = document;
  if (version === 1) {
    throw new Fault(
      'The file is of version 1, which left out what pours had given to their tickets: it cannot be made whole. Start this Schmelz on the data folder that it was made from, and export it again.',
    );
  }
  if (version !== FORMAT_VERSION || typeof step !== 'string' || !isStep(step)) {
    throw new Fault(
      `The file was made by a newer Schmelz (version ${JSON.stringify(version)}, ${JSON.stringify(step)}).`,
    );
  }
  return { ...document, step };
}

/** What a cell of each type may hold: what SQLite calls it, and how it is said. */
const CELLS: Record<string, { kinds: readonly string[]; wanted: string }> = {
  TEXT: { kinds: ['text'], wanted: 'a text' },
  INTEGER: { kinds: ['integer', 'real'], wanted: 'a number' },
  REAL: { kinds: ['integer', 'real'], wanted: 'a number' },
  BOOLEAN: { kinds: ['integer'], wanted: '0 or 1' },
  BLOB: { kinds: ['blob'], wanted: 'bytes as base64' },
  JSON: { kinds: ['text'], wanted: 'JSON' },
};
function kindOf(value: unknown): string {
  if (typeof value === 'number') return Number.isInteger(value) ? 'integer' : 'real';
  if (typeof value === 'string') return 'text';
  return Buffer.isBuffer(value) ? 'blob' : typeof value;
}

/** A value as it is quoted in a refusal. */
export const saidOf = (value: unknown): string => (JSON.stringify(value) ?? 'missing').slice(0, 80);

/** SQLite lets a text lie where a number is wanted; pages do not. @throws Fault that names table, row and column */
export async function judgeCells(ask: Ask): Promise<void> {
  for (const { name, columns, numbered } of await tablesIn(ask)) {
    const nth = numbered ? 'rowid' : '0';
    for (const { name: column, type, notnull } of columns) {
      const { kinds, wanted } = CELLS[type]!;
      const cell = quoted(column);
      const allowed = [...kinds, ...(notnull ? [] : ['null'])].map((kind) => `'${kind}'`).join(', ');
      const json = type === 'JSON' ? ` OR (typeof(${cell}) = 'text' AND NOT json_valid(${cell}))` : '';
      const [odd] = await ask<{ nth: number; value: unknown }>(
        `SELECT ${nth} AS nth, ${cell} AS value FROM ${quoted(name)} WHERE typeof(${cell}) NOT IN (${allowed})${json} LIMIT 1`,
      );
      if (odd) throw new Fault(`${name}, row ${odd.nth}: ${column} is ${saidOf(odd.value)}; ${wanted} is wanted.`);
    }
  }
}

/** One table filled from its rows. @throws Fault that names table, row and column */
async function fill({ raw }: Database, { name, columns }: Table, rows: unknown): Promise<number> {
  if (!Array.isArray(rows))
    throw new Fault(`${name} is ${rows === undefined ? 'missing' : typeof rows}; a list of rows is wanted.`);
  const known = new Set(columns.map((column) => column.name));
  const list = columns.map((column) => quoted(column.name)).join(', ');
  const insert = raw.prepare(`INSERT INTO ${quoted(name)} (${list}) VALUES (${columns.map(() => '?').join(', ')})`);
  try {
    for (const [nth, row] of rows.entries()) {
      const where = `${name}, row ${nth + 1}`;
      if (!isRow(row)) throw new Fault(`${where} is no row.`);
      const strange = Object.keys(row).find((column) => !known.has(column));
      if (strange) throw new Fault(`${where} has ${strange}, which no such row has.`);
      const cells = columns.map((column) => stored(row, column));
      const odd = columns.find(({ type }, at) => cells[at] !== null && !CELLS[type]!.kinds.includes(kindOf(cells[at])));
      if (odd) {
        throw new Fault(`${where}: ${odd.name} is ${saidOf(row[odd.name])}; ${CELLS[odd.type]!.wanted} is wanted.`);
      }
      await new Promise<void>((resolve, reject) =>
        insert.run(cells, (error: Error | null) =>
          error ? reject(new Fault(`${where}: ${error.message}.`)) : resolve(),
        ),
      );
    }
  } finally {
    await new Promise<void>((resolve) => insert.finalize(() => resolve()));
  }
  return rows.length;
}

/** A document that has become a copy beside the others, with how many rows each of its tables has. */
interface TakenIn {
  copy: Backup;
  rows: Record<string, number>;
}

/**
 * Makes a copy of a document, of the tables that it was written from: all of it, or nothing. What is there is not
 * touched; the copy is put in its place like any other, which can be undone.
 * @throws Fault in words, with the table and the row that are wrong
 */
export async function takeIn(folder: string, text: string, judge: Judge, now = Date.now()): Promise<TakenIn> {
  const document = readDocument(text);
  let rows: Record<string, number> = {};
  const write = async (file: string) => {
    const made = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
    try {
      await migrate(made, document.step);
    } finally {
      await made.close();
    }
    rows = await withDatabase(file, (database) => fillAll(database, document));
    await asWorkshop(folder, { file, called: 'The file' }, judge, async () => undefined);
  };
  return { copy: await makeWhole(folder, 'taken-in', write, now), rows };
}

async function fillAll(database: Database, document: Row): Promise<Record<string, number>> {
  const { ask } = database;
  const tables = await tablesIn(ask);
  const known = ['format', 'version', 'step', ...tables.map((table) => table.name)];
  const strange = Object.keys(document).find((key) => !known.includes(key));
  if (strange)
    throw new Fault(`The file has ${strange}, which is no part of a workshop of ${String(document['step'])}.`);
  await ask('PRAGMA foreign_keys = OFF');
  await ask('BEGIN');
  const rows: Record<string, number> = {};
  for (const table of tables) {
    await ask(`DELETE FROM ${quoted(table.name)}`);
    rows[table.name] = await fill(database, table, document[table.name]);
  }
  const [broken] = await ask<{ table: string; rowid: number; parent: string }>('PRAGMA foreign_key_check');
  if (broken) throw new Fault(`${broken.table} names a row of ${broken.parent} that is not in the file.`);
  await ask('COMMIT');
  return rows;
}
