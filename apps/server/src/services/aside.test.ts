import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eveningAt } from '../test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from '../test/server.ts';
import { aside, ASIDE, type Aside, type AsideKey } from './aside.ts';

/** The built thread: one of Node's own takes no TypeScript. */
const SCRIPT = join(__dirname, '..', '..', 'dist', 'aside-worker.js');

let server: TestServer;
let beside: Aside;
let made: Awaited<ReturnType<typeof smallWorkshop>>;
let orderId: string;

beforeAll(async () => {
  server = await testServer();
  made = await smallWorkshop(server);
  beside = aside(SCRIPT, server.running.store);
  const lines = [{ productId: made.productIds[0], quantity: 6 }];
  orderId = (await server.call('POST', '/api/orders', { customer: 'Shed', dueOn: null, note: '', lines })).body.id;
});
afterAll(async () => {
  await beside.stop();
  await server.stop();
});

const PARAMS: Partial<Record<AsideKey, () => Record<string, string>>> = {
  'GET /orders/:id/plan': () => ({ id: orderId }),
  'GET /books/cost/:id': () => ({ id: made.productIds[0]! }),
};
/** Asked of the thread, and of the server, which in these tests reads by itself. */
async function bothAnswers(key: AsideKey) {
  const params = PARAMS[key]?.() ?? {};
  const query = key === 'GET /books/cost/:id' ? { heads: 12 } : {};
  const path = key.slice(4).replace(':id', params['id'] ?? '') + (query.heads ? `?heads=${query.heads}` : '');
  const one = JSON.parse(await beside.ask(key, { params, query })) as unknown;
  return [one, (await server.call('GET', `/api${path}`)).body];
}

test.each(ASIDE)('%s is answered by the thread as the server answers it', async (key) => {
  const [one, other] = await bothAnswers(key);
  expect(one).toEqual(other);
});

test('what was tapped is in the next answer: a ticket poured, trimmed and closed, opened again and closed with less', async () => {
  const { post, entry, ticketOf, pour, bareProduct } = eveningAt(server, made);
  const tickets = async () => JSON.parse(await beside.ask('GET /tickets', { params: {}, query: {} })) as unknown[];
  expect(await tickets()).toEqual([]);
  const { ticketId } = await ticketOf((await bareProduct({})).id as string, 6);
  await pour(ticketId, made.moldId, 6);
  const say = async (said: object) => {
    const sent = entry(said);
    expect(await post(`/tickets/${ticketId}/entries`, sent)).toMatchObject({ status: 204, body: '' });
    return sent.id;
  };
  await say({ kind: 'good', step: 'trim', count: 5 });
  const sixth = await say({ kind: 'good', step: 'trim', count: 1 });
  const closed = await say({ kind: 'close' });
  expect(await tickets()).toMatchObject([{ good: 6, closedAt: expect.any(Number) as number }]);
  await say({ kind: 'undo', target: closed });
  expect(await tickets()).toMatchObject([{ closedAt: null }]);
  await say({ kind: 'undo', target: sixth });
  await say({ kind: 'reject', step: 'trim', cause: 'gate', count: 1, goes: 'scrap' });
  await say({ kind: 'close' });
  expect(await tickets()).toMatchObject([{ good: 5, closedAt: expect.any(Number) as number }]);
  for (const key of ASIDE) {
    const [one, other] = await bothAnswers(key);
    expect({ key, answer: one }).toEqual({ key, answer: other });
  }
});

test('a copy put back is another workshop, whatever the thread had read', async () => {
  const { call } = server;
  await call('POST', '/api/backups');
  const [{ name }] = (await call('GET', '/api/backups')).body;
  const lines = [{ productId: made.productIds[1], quantity: 3 }];
  const { body } = await call('POST', '/api/orders', { customer: 'Later', dueOn: null, note: '', lines });
  const plan = () => beside.ask('GET /orders/:id/plan', { params: { id: body.id as string }, query: {} });
  expect(JSON.parse(await plan())).toMatchObject({ plan: { lines: [{ quantity: 3 }] } });
  await call('POST', '/api/backups/restore', { name });
  await expect(plan()).rejects.toMatchObject({ name: 'Refused', status: 404 });
});

test('a thread that fell over tells those who waited, and the next one is asked of a new one', async () => {
  const fragile = join(mkdtempSync(join(tmpdir(), 'schmelz-aside-')), 'fragile.mjs');
  writeFileSync(
    fragile,
    `import { parentPort } from 'node:worker_threads';
     parentPort.on('message', (sent) => {
       if (sent === 'end') process.exit();
       if (sent.key === 'GET /bakes') throw new Error('fell over');
       parentPort.postMessage({ id: sent.id, json: '"stood"' });
     });`,
  );
  const one = aside(fragile, server.running.store);
  await expect(one.ask('GET /bakes', { params: {}, query: {} })).rejects.toThrow('fell over');
  expect(await one.ask('GET /tickets', { params: {}, query: {} })).toBe('"stood"');
  await one.stop();
});
