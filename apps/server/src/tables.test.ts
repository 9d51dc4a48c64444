import Papa from 'papaparse';
import { CSV_TABLES } from '@schmelz/contract';
import { tablesOf } from './store/document.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// Every table comes out as CSV, whole, and nothing in it is run by a spreadsheet.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer({ SCHMELZ_LOGGER: 'off' });
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());

/** A table as a reference reader reads it. */
async function tableOf(name: string) {
  const answer = await server.call('GET', `/api/export/tables/${name}`);
  expect(answer.status).toBe(200);
  const { data, errors } = Papa.parse<Record<string, string>>(answer.body as string, { header: true });
  expect(errors.filter(({ type }) => type !== 'Delimiter')).toEqual([]);
  return data;
}

test('every table of the workshop is among them, but for what is packed or reckoned', async () => {
  const names = (await tablesOf(server.running.store)).map(({ name }) => name);
  const packed = ['channels', 'readingBlocks', 'readingTail', 'settings'];
  expect([...CSV_TABLES].filter((name) => name !== 'readings').sort()).toEqual(
    names.filter((name) => !packed.includes(name)).sort(),
  );
});

test.each(CSV_TABLES.filter((name) => name !== 'readings'))('%s: as many rows as there are', async (name) => {
  const [{ rows }] = (await server.running.store.select<{ rows: number }>(`SELECT COUNT(*) AS rows FROM ${name}`)) as [
    { rows: number },
  ];
  expect(await tableOf(name)).toHaveLength(rows);
});

test('what a spreadsheet would run comes out as words; a list in a cell is JSON', async () => {
  const { post } = eveningAt(server, things);
  await post('/orders', {
    ...{ customer: '=1+1', dueOn: null, note: '@home', lines: [{ productId: things.productIds[0]!, quantity: 3 }] },
  });
  const [order] = (await tableOf('orders')).slice(-1);
  expect([order!['customer'], order!['note']]).toEqual(["'=1+1", "'@home"]);
  const hook = (await tableOf('materials')).find(({ kind }) => kind === 'hook');
  expect(JSON.parse(hook!['hook']!)).toMatchObject({ plating: 'bronze' });
});

test('readings are a line each, in their order', async () => {
  const startAt = Date.UTC(2026, 0, 5);
  const rows = Array.from({ length: 700 }, (_, at) => `${at * 10},${20 + at / 10}`);
  const mapping = {
    ...{ name: 'pot log', timeColumn: 's', timeIs: 'seconds', startAt },
    columns: [{ column: 'pot', place: 'pot', unit: 'C' }],
  };
  const path = `/api/readings/import?mapping=${encodeURIComponent(JSON.stringify(mapping))}`;
  const taken = await server.call('POST', path, ['s,pot', ...rows].join('\n'), { 'content-type': 'text/csv' });
  if (taken.status >= 300) throw new Error(JSON.stringify(taken.body));
  const written = await tableOf('readings');
  expect(written).toHaveLength(700);
  expect(written[699]).toMatchObject({ place: 'pot', celsius: '89.9', at: '2026-01-05T01:56:30.000Z' });
});

test('a table that is not there is refused by name', async () => {
  const { status, body } = await server.call('GET', '/api/export/tables/secrets');
  expect(status).toBe(404);
  expect(body.detail).toMatch(/secrets/);
});
