import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020.js';
import { Sequelize } from 'sequelize';
import { eveningAt } from '../test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from '../test/server.ts';
import { withDatabase } from './database.ts';
import { documentOf } from './document.ts';
import { migrate } from './store.ts';

const servers: TestServer[] = [];
const started = async () => {
  const server = await testServer();
  servers.push(server);
  return server;
};
afterAll(() => Promise.all(servers.map((server) => server.stop())));

const exported = async (server: TestServer) => (await server.call('GET', '/api/export')).body;
const takeIn = (server: TestServer, document: unknown) =>
  server.call('POST', '/api/backups/take-in', typeof document === 'string' ? document : JSON.stringify(document));
const putBack = (server: TestServer, name: string) => server.call('POST', '/api/backups/restore', { name });

/** A workshop with an evening in it: poured, trimmed, a probe read, something bought. */
async function worked() {
  const server = await started();
  const things = await smallWorkshop(server);
  const { ticketOf, pour, bareProduct, post } = eveningAt(server, things);
  const { ticketId } = await ticketOf((await bareProduct({})).id, 3);
  await pour(ticketId, things.moldId, 3);
  await post('/materials', { kind: 'glue', name: '=cmd', note: '{"a":1}', metalId: null, hook: null, powder: null });
  const mapping = {
    ...{ name: 'probe', timeColumn: 's', timeIs: 'seconds', startAt: 1_700_000_000_000 },
    columns: [{ column: 'mold C', place: 'mold', unit: 'C' }],
  };
  const readings = Array.from({ length: 3000 }, (_, at) => `${at},${(20 + (at % 90) / 7).toFixed(1)}`);
  const path = `/api/readings/import?mapping=${encodeURIComponent(JSON.stringify(mapping))}`;
  const read = await server.call('POST', path, ['s,mold C', ...readings].join('\n'), { 'content-type': 'text/csv' });
  expect(read.status).toBe(201);
  return { server, ticketId };
}

const PAGES = ['/materials', '/molds', '/orders', '/line', '/tickets', '/lots', '/channels', '/goods'];

test('a workshop goes into another one without loss, down to the last row; what was there comes back', async () => {
  const { server: from, ticketId } = await worked();
  const to = await started();
  await smallWorkshop(to);
  const [document, own] = [await exported(from), await exported(to)];
  const { status, body } = await takeIn(to, document);
  expect(status).toBe(201);
  expect(body.copy).toMatchObject({ why: 'taken-in' });
  // What would change: a ticket that is not here, and readings; nothing has changed yet.
  const of = (table: string) => body.tables.find((each: { table: string }) => each.table === table);
  expect(of('tickets')).toEqual({ table: 'tickets', now: 0, then: 1 });
  expect(of('readingBlocks').then + of('readingTail').then).toBeGreaterThan(0);
  expect(await exported(to)).toEqual(own);

  const { body: kept } = await putBack(to, body.copy.name);
  expect(await exported(to)).toEqual(document);
  for (const page of PAGES) {
    const [here, there] = await Promise.all([from, to].map((server) => server.call('GET', `/api${page}`)));
    expect([page, there!.body]).toEqual([page, here!.body]);
  }
  const [channel] = (await to.call('GET', '/api/channels')).body;
  const raw = await Promise.all([from, to].map((s) => s.call('GET', `/api/readings/raw?channel=${channel.id}`)));
  expect(raw[1]!.body).toHaveLength(3000);
  expect(raw[1]!.body).toEqual(raw[0]!.body);
  expect((await to.call('GET', `/api/tickets/${ticketId}`)).status).toBe(200);
  // And it can be undone.
  await putBack(to, kept.name);
  expect(await exported(to)).toEqual(own);
}, 60_000);

test('an export that an older Schmelz made comes in with its figures, on the tables of today', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'schmelz-test-')), 'old.sqlite');
  const old = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
  await migrate(old, '010-made-good');
  const [lead, mold, cavity] = [randomUUID(), randomUUID(), randomUUID()];
  await old.query(
    `INSERT INTO materials (id, kind, name, note, version) VALUES ('${lead}', 'lead', 'Old lead', '', 1)`,
  );
  await old.query(`INSERT INTO molds (id, name, bodyKg, version) VALUES ('${mold}', 'Old mold', 0.6, 1)`);
  await old.query(
    `INSERT INTO cavities (id, moldId, position, style, nominalMassKg, hookSize, eyeAngleDeg, condition)
     VALUES ('${cavity}', '${mold}', 1, 'ball', 0.01, '2/0', 60, 'good')`,
  );
  await old.query(
    `INSERT INTO stockMoves (at, materialId, reason, quantity, valueMinor, lot) VALUES (5000, '${lead}', 'received', 12.5, 3125, 'first')`,
  );
  await old.close();
  const text = await withDatabase(file, async ({ ask }) => {
    let all = '';
    for await (const piece of documentOf(ask)) all += piece;
    return all;
  });
  expect(JSON.parse(text)).toMatchObject({ step: '010-made-good', version: 2 });
  expect(text).not.toContain('goodsMoves');

  const to = await started();
  const { status, body } = await takeIn(to, text);
  expect([status, body.detail]).toEqual([201, undefined]);
  await putBack(to, body.copy.name);
  const [material] = (await to.call('GET', '/api/materials')).body;
  // 12.5 kg for 31.25: 2.50 a kilogram.
  expect(material).toMatchObject({ id: lead, quantity: 12.5, averageMinor: 250 });
  expect((await to.call('GET', '/api/molds')).body[0]).toMatchObject({ name: 'Old mold', cavities: [{ id: cavity }] });
  expect((await exported(to)).step).toBe('022-opening');
});

describe('what is no workshop is refused in words', () => {
  let server: TestServer;
  let whole: Record<string, unknown>;
  beforeAll(async () => {
    ({ server } = await worked());
    whole = await exported(server);
  }, 60_000);
  const rows = (table: string) => whole[table] as Record<string, unknown>[];
  const first = (table: string, change: Record<string, unknown>) => {
    const [row, ...others] = rows(table);
    return { ...whole, [table]: [{ ...row, ...change }, ...others] };
  };

  test.each<[string, () => unknown, RegExp]>([
    ['no JSON', () => '{"format":', /The file is no JSON/],
    ['something else', () => ({ format: 'cook book' }), /its format is "cook book", and would be "schmelz-workshop"/],
    ['a list', () => [], /The file is no workshop/],
    ['the first version', () => ({ ...whole, version: 1 }), /of version 1, which left out what pours had given/],
    ['a later version', () => ({ ...whole, version: 3 }), /made by a newer Schmelz \(version 3/],
    ['a later step', () => ({ ...whole, step: '999-moon' }), /newer Schmelz .*999-moon/],
    ['a table too many', () => ({ ...whole, moons: [] }), /has moons, which is no part of a workshop/],
    ['a table that misses', () => ({ ...whole, entries: undefined }), /entries is missing; a list of rows is wanted/],
    ['a table that is none', () => ({ ...whole, entries: 7 }), /entries is number; a list of rows is wanted/],
    ['a row that is none', () => ({ ...whole, entries: ['tap'] }), /entries, row 1 is no row/],
    ['a column too many', () => first('molds', { colour: 'red' }), /molds, row 1 has colour, which no such row has/],
    ['nothing where something must be', () => first('molds', { bodyKg: null }), /molds, row 1: .*molds.bodyKg/],
    ['a value that is not allowed', () => first('molds', { bodyKg: -1 }), /molds, row 1: .*CHECK/],
    ['the same twice', () => ({ ...whole, molds: [...rows('molds'), ...rows('molds')] }), /molds, row 2: .*UNIQUE/],
    [
      'what no page can read',
      () => first('tickets', { route: '[7]' }),
      /The file cannot be used: what it says of tickets cannot be read: ticket \d+: route\[0\] is 7; allowed/,
    ],
    [
      'a text that is no record',
      () => first('molds', { learned: '{"a' }),
      /molds, row 1: learned is .* JSON is wanted/,
    ],
    [
      'a head of no known shape',
      () => first('cavities', { style: 'cube' }),
      /what it says of molds cannot be read: mold .*: cavities\[0\].style is "cube"; allowed: ball/,
    ],
    [
      'a station that is none',
      () => first('tickets', { route: JSON.stringify([{ key: 'a', station: 'moon', does: 'Fly' }]) }),
      /ticket \d+: route\[0\].station is "moon"; allowed: trim/,
    ],
    ['what is not in it', () => ({ ...whole, molds: [] }), /names a row of molds that is not in the file/],
  ])('%s', async (_, made, says) => {
    const document = made();
    const copies = async () => (await server.call('GET', '/api/backups')).body.length as number;
    const before = await copies();
    const { status, body } = await takeIn(server, document);
    expect([status, body.detail]).toEqual([422, expect.stringMatching(says)]);
    expect(await copies()).toBe(before);
  });

  test('nothing of it was changed, and nothing of an export lies about', async () => {
    expect(await exported(server)).toEqual(whole);
    const left = [server.folder, join(server.folder, 'backups')].flatMap((folder) => readdirSync(folder));
    expect(left.filter((name) => /^export-|part|making|judged/.test(name))).toEqual([]);
  });

  test('the schema lets through what is exported, and little else; it is published as it is', async () => {
    const { body: schema } = await server.call('GET', '/api/export/schema');
    const published = join(__dirname, '..', '..', '..', '..', 'docs', 'workshop.schema.json');
    expect(JSON.parse(readFileSync(published, 'utf8'))).toEqual(schema);
    const fits = new Ajv({ strict: true, allowUnionTypes: true }).compile(schema);
    expect([fits(whole), fits.errors]).toEqual([true, null]);
    for (const wrong of [
      first('molds', { bodyKg: 'heavy' }),
      first('molds', { colour: 'red' }),
      first('molds', { name: null }),
      { ...whole, version: 1 },
      { ...whole, entries: undefined },
      { ...whole, moons: [] },
    ]) {
      expect(fits(JSON.parse(JSON.stringify(wrong)))).toBe(false);
    }
  });
});
