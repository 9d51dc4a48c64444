// npm run ten-years [folder]: a workshop of ten years out of the one of the demo: some 2,000 tickets, 1,300 pours,
// 100,000 casts and more, 10 million readings. All that is closed is there twice a year, with ids, numbers and times of
// its own; what is still open stays as it is.
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import sqlite3 from 'sqlite3';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

const DAY_MS = 24 * 3600 * 1000;
const YEAR_MS = 365.25 * DAY_MS;
const COPIES = 20;
const READINGS = 10_000_000;
const server = (name) => join(root, 'apps', 'server', 'dist', name);

/** A database whose calls are promises. */
function open(file) {
  const db = new sqlite3.Database(file);
  const call =
    (name) =>
    (sql, ...values) =>
      new Promise((done, failed) => db[name](sql, ...values, (error, rows) => (error ? failed(error) : done(rows))));
  return { all: call('all'), run: call('run'), close: () => new Promise((done) => db.close(done)) };
}

/** Times are moved by `earlierMs`, ids are those of the copy; whatever else a value is, it stays. */
function moved(value, ids, earlierMs) {
  if (typeof value === 'number') return value > 1.5e12 && value < 2.5e12 ? value - earlierMs : value;
  if (typeof value === 'string') {
    if (ids.has(value)) return ids.get(value);
    if (/^\d{4}-\d\d-\d\d$/.test(value)) return new Date(Date.parse(value) - earlierMs).toISOString().slice(0, 10);
    return value;
  }
  if (Array.isArray(value)) return value.map((each) => moved(each, ids, earlierMs));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, each]) => [name, moved(each, ids, earlierMs)]));
}

/** A column that holds JSON is moved from the inside. */
function movedColumn(value, ids, earlierMs) {
  if (typeof value === 'string' && /^[[{]/.test(value)) return JSON.stringify(moved(JSON.parse(value), ids, earlierMs));
  return moved(value, ids, earlierMs);
}

/** Tables with what is closed, in the order in which rows may refer to each other; `own` columns are numbered anew. */
const CLOSED_TICKETS = 'SELECT id FROM tickets WHERE closedAt IS NOT NULL';
const CLOSED_POURS = 'SELECT id FROM pours WHERE closedAt IS NOT NULL';
const CLOSED_RUNS = 'SELECT id FROM runs WHERE closedAt IS NOT NULL';
const TABLES = [
  { name: 'orders', where: "status = 'done'", numbered: true },
  { name: 'orderLines', where: "orderId IN (SELECT id FROM orders WHERE status = 'done')" },
  {
    name: 'tickets',
    where: `id IN (${CLOSED_TICKETS}) AND orderId IN (SELECT id FROM orders WHERE status = 'done')`,
    numbered: true,
  },
  { name: 'pours', where: `id IN (${CLOSED_POURS})`, numbered: true },
  { name: 'pourTickets', where: `pourId IN (${CLOSED_POURS})`, needs: 'ticketId' },
  { name: 'pourCavities', where: `pourId IN (${CLOSED_POURS})` },
  { name: 'pourMolds', where: `pourId IN (${CLOSED_POURS})` },
  { name: 'runs', where: `id IN (${CLOSED_RUNS})`, numbered: true },
  { name: 'runTickets', where: `runId IN (${CLOSED_RUNS})`, needs: 'ticketId' },
  { name: 'entries', where: `logId IN (${CLOSED_TICKETS} UNION ${CLOSED_POURS} UNION ${CLOSED_RUNS})`, serial: 'seq' },
  { name: 'goodsMoves', where: 'NOT struck', serial: 'id', fresh: ['saidId'], needs: 'ticketId' },
  { name: 'stockMoves', where: 'importId IS NULL AND strikes IS NULL', serial: 'id', fresh: ['saidId'] },
];

/** Adds {@link COPIES} earlier copies of what is closed to the database of a workshop. */
async function multiply(file) {
  const db = open(file);
  await db.run('PRAGMA foreign_keys = OFF');
  await db.run('BEGIN');
  const tables = [];
  for (const table of TABLES) {
    tables.push({ ...table, rows: await db.all(`SELECT * FROM "${table.name}" WHERE ${table.where} ORDER BY rowid`) });
  }
  const known = new Set(tables.flatMap(({ rows }) => rows.map((row) => row.id).filter((id) => typeof id === 'string')));
  for (let copy = 1; copy <= COPIES; copy++) {
    const ids = new Map([...known].map((id) => [id, randomUUID()]));
    // Two evenings where there was one: the second copy of a year is three days off.
    const earlierMs = Math.ceil(copy / 2) * YEAR_MS - (copy % 2) * 3 * DAY_MS;
    for (const { name, rows, numbered, serial, fresh = [], needs } of tables) {
      for (const row of rows) {
        if (needs && !known.has(row[needs])) continue;
        if (name === 'stockMoves' && row.ticketId !== null && !known.has(row.ticketId)) continue;
        const made = {};
        for (const [column, value] of Object.entries(row)) {
          if (column === serial) continue;
          made[column] = movedColumn(value, ids, earlierMs);
          if (numbered && column === 'number') made[column] = value + copy * 10_000;
          if (fresh.includes(column) && value !== null) made[column] = randomUUID();
        }
        const columns = Object.keys(made);
        const places = columns.map(() => '?').join(', ');
        await db.run(
          `INSERT INTO "${name}" (${columns.map((column) => `"${column}"`).join(', ')}) VALUES (${places})`,
          Object.values(made),
        );
      }
    }
  }
  await db.run('COMMIT');
  const [counts] = await db.all(
    'SELECT (SELECT count(*) FROM tickets) AS tickets, (SELECT count(*) FROM pours) AS pours, (SELECT count(*) FROM entries) AS entries, (SELECT sum(casts) FROM pourCavities) AS casts',
  );
  await db.close();
  return counts;
}

/** Makes the workshop of ten years in an empty folder and answers what is in it. */
export async function makeTenYears(folder) {
  if (existsSync(join(folder, 'schmelz.sqlite')))
    throw new Error(`${folder} holds a workshop already: name an empty one`);
  mkdirSync(folder, { recursive: true });
  const env = { ...process.env, SCHMELZ_DATA: folder };
  if (spawnSync(process.execPath, [server('demo/main.js')], { env, stdio: 'inherit' }).status !== 0) {
    throw new Error('the demo workshop could not be made');
  }
  const counts = await multiply(join(folder, 'schmelz.sqlite'));
  const { openStore } = await import(server('store/store.js'));
  const { addLog } = await import(server('services/readings.js'));
  const store = await openStore(folder);
  const from = Date.now() - 10 * YEAR_MS;
  const readings = Array.from({ length: READINGS }, (_, i) => ({
    at: Math.round(from + 20_000 * i),
    celsius: 371 + 6 * Math.sin(i / 97) + 0.8 * Math.sin(i * 12.9898),
  }));
  await addLog(store, 'ten years', [{ place: 'pot', name: 'pot', readings }]);
  await store.close();
  return { ...counts, readings: READINGS };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  ensureInstalled();
  ensureBuilt();
  const folder = resolve(process.argv[2] ?? join(root, 'data', 'ten-years'));
  console.log(JSON.stringify(await makeTenYears(folder)), folder);
}
