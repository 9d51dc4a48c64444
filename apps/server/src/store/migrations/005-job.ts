import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * The job as data. Parts of any kind lie on the shelf, with the heat that they stand; a product may have a route, other
 * parts and no hook; a ticket keeps the route and the bill that it was released with; logs name the step instead of the
 * station; a head that is not good has one disposition instead of several yes and no.
 */
export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const run = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { transaction, replacements });
  const rows = <Row>(sql: string) =>
    sequelize.query(sql, { transaction, type: QueryTypes.SELECT }) as unknown as Promise<Row[]>;

  await relax(run, rows, [
    ['materials', `kind TEXT NOT NULL CHECK (kind IN ('lead', 'hook', 'powder'))`, 'kind TEXT NOT NULL'],
    ['products', 'hookId TEXT NOT NULL REFERENCES', 'hookId TEXT REFERENCES'],
  ]);
  for (const statement of COLUMNS) await run(statement);
  for (const statement of WORDS) await run(statement);
  await billsOfTickets(run, rows);
}

type Run = (sql: string, replacements?: unknown[]) => Promise<unknown>;
type Rows = <Row>(sql: string) => Promise<Row[]>;

/**
 * Takes a constraint out of a table's definition. SQLite has no statement for it; it is done as its documentation tells
 * for changes that leave what lies in the table alone.
 */
async function relax(run: Run, rows: Rows, changes: [table: string, from: string, to: string][]): Promise<void> {
  const [{ schema_version: version }] = (await rows<{ schema_version: number }>('PRAGMA schema_version')) as [
    { schema_version: number },
  ];
  await run('PRAGMA writable_schema = ON');
  for (const [table, from, to] of changes) {
    await run(`UPDATE sqlite_schema SET sql = replace(sql, ?, ?) WHERE type = 'table' AND name = ?`, [from, to, table]);
  }
  await run(`PRAGMA schema_version = ${version + 1}`);
  await run('PRAGMA writable_schema = OFF');
}

const COLUMNS = [
  'ALTER TABLE materials ADD COLUMN limitC REAL',
  'ALTER TABLE materials ADD COLUMN details JSON',
  'ALTER TABLE products ADD COLUMN route JSON',
  `ALTER TABLE products ADD COLUMN parts JSON NOT NULL DEFAULT '[]'`,
  'ALTER TABLE products ADD COLUMN fromId TEXT REFERENCES materials(id)',
  'ALTER TABLE products ADD COLUMN becomesId TEXT REFERENCES materials(id)',
  `ALTER TABLE tickets ADD COLUMN source TEXT NOT NULL DEFAULT 'pour'`,
  'ALTER TABLE tickets ADD COLUMN fromId TEXT REFERENCES materials(id)',
  'ALTER TABLE tickets ADD COLUMN becomesId TEXT REFERENCES materials(id)',
];

const flag = (name: string) => `COALESCE(json_extract(body, '$.${name}'), 0)`;

const WORDS = [
  // What a hook stands is known of the part; plating and gloss are no "finish", which is a station.
  `UPDATE materials SET limitC = json_extract(hook, '$.finishLimitC'),
     hook = json_remove(json_set(hook, '$.plating', json_extract(hook, '$.finish')), '$.finish', '$.finishLimitC')
   WHERE hook IS NOT NULL AND json_type(hook) = 'object'`,
  `UPDATE materials SET powder = json_remove(json_set(powder, '$.gloss', json_extract(powder, '$.finish')), '$.finish')
   WHERE powder IS NOT NULL AND json_type(powder) = 'object'`,
  `UPDATE settings SET body = json_remove(json_set(body, '$.ways.schools', json(json_extract(body, '$.ways.finish'))),
     '$.ways.finish') WHERE json_type(body, '$.ways.finish') = 'object'`,
  // A route is steps; the keys of the usual ones are the names that logs have used so far.
  `UPDATE tickets SET route = (
     SELECT json_group_array(json_object('key', value, 'station', value,
       'does', upper(substr(value, 1, 1)) || substr(value, 2)))
     FROM (SELECT value FROM json_each(tickets.route) ORDER BY key)
   )`,
  `UPDATE entries SET body = json_remove(json_set(body, '$.step', json_extract(body, '$.station')), '$.station')
   WHERE ticketId IS NOT NULL AND kind NOT IN ('close', 'undo')`,
  `UPDATE entries SET body = json_remove(body, '$.station') WHERE ticketId IS NOT NULL AND kind = 'close'`,
  // One disposition; what was kept outranked the rest, a lost hook outranked a second dip.
  `UPDATE entries SET body = json_remove(json_set(body, '$.goes', CASE
       WHEN ${flag('kept')} THEN 'second grade'
       WHEN ${flag('hookLost')} THEN 'hook lost'
       WHEN ${flag('redipped')} THEN 'parts back'
       ELSE 'melt' END), '$.kept', '$.hookLost', '$.redipped')
   WHERE kind = 'reject'`,
  `UPDATE pours SET setup = json_set(setup, '$.loads', (
     SELECT json_group_array(json_remove(json_set(value, '$.ticketIds', json(json_extract(value, '$.batchIds'))), '$.batchIds'))
     FROM (SELECT value FROM json_each(pours.setup, '$.loads') ORDER BY key)
   ))`,
];

interface OldPlan {
  powders?: { materialId: string; name: string; kgPerHead: number }[];
}

/** What a ticket's heads take stays with it: a product that is changed later no longer moves what was used long ago. */
async function billsOfTickets(run: Run, rows: Rows): Promise<void> {
  const tickets = await rows<{ id: string; planned: string; hookId: string; hook: string }>(
    `SELECT t.id, t.planned, p.hookId, m.name AS hook FROM tickets t JOIN products p ON p.id = t.productId
     JOIN materials m ON m.id = p.hookId`,
  );
  for (const { id, planned, hookId, hook } of tickets) {
    const { powders = [], ...plan } = JSON.parse(planned) as OldPlan;
    const bill = [
      { partId: hookId, name: hook, kind: 'hook', quantity: 1, waste: 0, step: 'pour' },
      ...powders.map(({ materialId, name, kgPerHead }) => {
        return { partId: materialId, name, kind: 'powder', quantity: kgPerHead, waste: 0, step: 'paint' };
      }),
    ];
    await run('UPDATE tickets SET planned = ? WHERE id = ?', [JSON.stringify({ ...plan, bill }), id]);
  }
}
