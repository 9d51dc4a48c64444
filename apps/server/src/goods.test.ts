import { randomUUID } from 'node:crypto';
import { PRODUCT_TEMPLATES } from '@schmelz/core';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());
const post = (path: string, body: unknown) => server.call('POST', `/api${path}`, body);
const get = async (path: string) => (await server.call('GET', `/api${path}`)).body;

test('every template becomes a product that can be ordered; its parts are on the shelf once', async () => {
  for (const { id, steps, parts } of PRODUCT_TEMPLATES) {
    const { status, body } = await post('/products/from-template', { template: id });
    expect([id, status]).toEqual([id, 200]);
    expect(body.route.map(({ key }: { key: string }) => key)).toEqual(steps.map(({ key }) => key));
    expect(body.parts).toHaveLength(parts.length);
  }
  const names = (await get('/materials')).map(({ name }: { name: string }) => name) as string[];
  expect(new Set(names).size).toBe(names.length);
  // The maker's own guard of that size takes the place of another.
  const before = names.length;
  const again = await post('/products/from-template', { template: 'guard jig', name: 'Another guard jig' });
  expect(again.status).toBe(200);
  expect((await get('/materials')).length).toBe(before);
});

test('what cannot be taken makes nothing: a name that is there, a template that is none', async () => {
  const count = async () => [(await get('/materials')).length, (await get('/products')).length];
  const before = await count();
  const twice = await post('/products/from-template', { template: 'plain', name: 'Ten' });
  expect(twice.status).toBe(409);
  expect((await post('/products/from-template', { template: 'lure' })).body.detail).toMatch(/template is "lure"/);
  const after = await count();
  expect(after[0]).toBe(before[0]);
});

test('from a bag back to its lots, and from a lot to everybody who has it', async () => {
  const [ten] = things.productIds;
  const order = { customer: 'Lock keeper', dueOn: null, note: '', lines: [{ productId: ten, quantity: 3 }] };
  const { body: made } = await post('/orders', order);
  const [ticket] = (await post(`/orders/${made.id}/release`, {})).body;
  const { body: pour } = await post('/pours', {
    ...{ moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticket.id] },
  });
  let at = Date.now() - 3_600_000;
  const say = (said: object) => post(`/pours/${pour.id}/entries`, { id: randomUUID(), at: (at += 30_000), ...said });
  await say({ kind: 'charge', massKg: 1, potC: 20 });
  await say({ kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
  const back = { sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.9 };
  expect((await say({ kind: 'close', ...back })).status).toBe(204);
  const trace = await get(`/trace/tickets/${ticket.number}`);
  expect(trace).toMatchObject({ number: ticket.number, customer: 'Lock keeper', orderNumber: made.number });
  expect(trace.pours.map(({ number }: { number: number }) => number)).toEqual([pour.number]);
  const kinds = trace.lots.map(({ kind }: { kind: string }) => kind);
  expect(kinds).toEqual(expect.arrayContaining(['hook', 'lead']));
  const hooks = trace.lots.find(({ kind }: { kind: string }) => kind === 'hook');
  expect(hooks.quantity).toBe(3);
  const holders = await get(`/trace/lots/${hooks.lotId}`);
  expect(holders).toEqual([expect.objectContaining({ number: ticket.number, customer: 'Lock keeper', used: 3 })]);
  expect((await server.call('GET', '/api/trace/tickets/99999')).status).toBe(404);
  expect((await server.call('GET', '/api/trace/lots/99999')).status).toBe(404);
  expect((await server.call('GET', '/api/trace/lots/none')).status).toBe(404);
});
