import { randomUUID } from 'node:crypto';
import { allotLots, standing, type Entry, type LotLeft, type UndoEntry } from '@schmelz/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * Runs: what is done for several tickets at once has a log of its own. A log belongs to anything, not to one of two;
 * loads of the oven leave the logs of their tickets. Every use of a part names the lots that it came from.
 */
export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const run: Run = (sql, replacements = []) => sequelize.query(sql, { transaction, replacements });
  const rows: Rows = (sql) => sequelize.query(sql, { transaction, type: QueryTypes.SELECT }) as never;
  for (const statement of TABLES) await run(statement);
  await loadsBecomeRuns(run, rows);
  await lotsOfUses(run, rows);
}

type Run = (sql: string, replacements?: unknown[]) => Promise<unknown>;
type Rows = <Row>(sql: string) => Promise<Row[]>;

const TABLES = [
  `CREATE TABLE runs (
     id TEXT PRIMARY KEY,
     kind TEXT NOT NULL,
     number INTEGER NOT NULL,
     startedAt INTEGER NOT NULL,
     closedAt INTEGER,
     version INTEGER NOT NULL DEFAULT 1,
     UNIQUE (kind, number)
   )`,
  `CREATE TABLE runTickets (
     runId TEXT NOT NULL REFERENCES runs(id),
     ticketId TEXT NOT NULL REFERENCES tickets(id),
     step TEXT NOT NULL,
     heads INTEGER NOT NULL,
     PRIMARY KEY (runId, ticketId, step)
   )`,
  'CREATE INDEX runTickets_ticket ON runTickets(ticketId)',
  `CREATE TABLE logEntries (
     seq INTEGER PRIMARY KEY AUTOINCREMENT,
     id TEXT NOT NULL UNIQUE,
     logKind TEXT NOT NULL,
     logId TEXT NOT NULL,
     kind TEXT NOT NULL,
     at INTEGER NOT NULL,
     body JSON NOT NULL
   )`,
  `INSERT INTO logEntries (seq, id, logKind, logId, kind, at, body)
     SELECT seq, id, CASE WHEN pourId IS NULL THEN 'ticket' ELSE 'pour' END, COALESCE(pourId, ticketId), kind, at, body
     FROM entries`,
  'DROP TABLE entries',
  'ALTER TABLE logEntries RENAME TO entries',
  'CREATE INDEX entries_log ON entries(logKind, logId, seq)',
  // So much of a movement came from a receipt, or went back to it (negative).
  `CREATE TABLE lotUses (
     moveId INTEGER NOT NULL REFERENCES stockMoves(id),
     receiptId INTEGER NOT NULL REFERENCES stockMoves(id),
     quantity REAL NOT NULL,
     PRIMARY KEY (moveId, receiptId)
   )`,
  'CREATE INDEX lotUses_receipt ON lotUses(receiptId)',
];

interface OldEntry extends Entry {
  ticketId: string;
  body: Record<string, unknown>;
  target?: string;
}
const OF_LOADS: ReadonlySet<string> = new Set(['load', 'warm', 'door', 'unload']);

/** Which load each entry of a ticket belongs to: the one that was open when it was said. */
function loadOf(entries: readonly OldEntry[]): Map<string, string> {
  const stands = new Set(standing<OldEntry>(entries as (OldEntry | UndoEntry)[]).map((entry) => entry.id));
  const of = new Map<string, string>();
  let [open, latest]: [string | null, string | null] = [null, null];
  for (const entry of entries) {
    if (entry.kind === 'undo') {
      const load = of.get(entry.target!);
      if (load) of.set(entry.id, load);
      continue;
    }
    if (!OF_LOADS.has(entry.kind)) continue;
    if (entry.kind === 'load') latest = entry.id;
    if (entry.kind === 'load' && stands.has(entry.id)) open ??= entry.id;
    const load = stands.has(entry.id) ? open : latest;
    if (load) of.set(entry.id, load);
    if (entry.kind === 'unload' && stands.has(entry.id)) open = null;
  }
  return of;
}

async function loadsBecomeRuns(run: Run, rows: Rows): Promise<void> {
  const found = await rows<{ id: string; logId: string; kind: string; at: number; body: string }>(
    `SELECT id, logId, kind, at, body FROM entries WHERE logKind = 'ticket' ORDER BY seq`,
  );
  const byTicket = new Map<string, OldEntry[]>();
  for (const { id, logId, kind, at, body } of found) {
    const parsed = JSON.parse(body) as Record<string, unknown>;
    const entry: OldEntry = { id, at, kind, ticketId: logId, body: parsed, target: parsed['target'] as string };
    byTicket.set(logId, [...(byTicket.get(logId) ?? []), entry]);
  }
  const loads = [...byTicket.values()].flatMap((entries) => {
    const of = loadOf(entries);
    const stands = new Set(standing<OldEntry>(entries as (OldEntry | UndoEntry)[]).map((entry) => entry.id));
    return entries
      .filter((entry) => entry.kind === 'load')
      .map((load) => {
        const own = entries.filter((entry) => of.get(entry.id) === load.id);
        const out = own.find((entry) => entry.kind === 'unload' && stands.has(entry.id));
        return { load, own, closedAt: out?.at ?? null, stands: stands.has(load.id) };
      });
  });
  loads.sort((a, b) => a.load.at - b.load.at);
  for (const [index, { load, own, closedAt, stands }] of loads.entries()) {
    const runId = randomUUID();
    const { step, count } = load.body as { step: string; count: number };
    await run('INSERT INTO runs (id, kind, number, startedAt, closedAt, version) VALUES (?, ?, ?, ?, ?, 1)', [
      runId,
      'oven',
      index + 1,
      load.at,
      closedAt,
    ]);
    if (stands) await run('INSERT INTO runTickets VALUES (?, ?, ?, ?)', [runId, load.ticketId, step, count]);
    for (const { id, kind, body } of own) {
      const { step: _step, count: _count, ...rest } = body;
      const heads = kind === 'load' ? { ovenId: null, heads: [{ ticketId: load.ticketId, step, count }] } : {};
      await run(`UPDATE entries SET logKind = 'oven', logId = ?, body = ? WHERE id = ?`, [
        runId,
        JSON.stringify({ ...heads, ...rest }),
        id,
      ]);
    }
  }
}

/** Everything that was used so far came from the oldest lot that had any; what came back went to the lot used last. */
async function lotsOfUses(run: Run, rows: Rows): Promise<void> {
  const moves = await rows<{
    id: number;
    materialId: string;
    reason: string;
    quantity: number;
    ticketId: string | null;
  }>('SELECT id, materialId, reason, quantity, ticketId FROM stockMoves ORDER BY id');
  const shelves = new Map<string, LotLeft[]>();
  for (const { id, materialId, reason, quantity } of moves) {
    const lots = shelves.get(materialId) ?? [];
    shelves.set(materialId, lots);
    if (reason === 'received') {
      lots.push({ id, left: quantity, of: quantity });
      continue;
    }
    for (const part of allotLots(lots, -quantity)) {
      lots.find((lot) => lot.id === part.id)!.left -= part.quantity;
      await run('INSERT INTO lotUses VALUES (?, ?, ?)', [id, part.id, part.quantity]);
    }
  }
}
