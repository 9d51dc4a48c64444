import { randomUUID } from 'node:crypto';
import type { TonightAsked } from '@schmelz/core';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What an evening is planned from: orders nobody has released, tickets half done, and what there is for them.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());
const post = (path: string, body: unknown) => server.call('POST', `/api${path}`, body);
const asked = async () => (await server.call('GET', '/api/tonight')).body as TonightAsked;
let at = Date.now() - 3_600_000;
const entry = (said: object) => ({ id: randomUUID(), at: (at += 20_000), ...said });

test('an empty house has nothing open, and says what it has', async () => {
  const { wanted, molds, leadHereKg, hooksHere, leadId, stock } = await asked();
  expect(wanted).toEqual([]);
  expect(molds.map(({ name }) => name)).toEqual(['Five']);
  expect([leadHereKg, leadId]).toEqual([20, things.leadId]);
  expect(Object.values(hooksHere)).toContain(100);
  expect(stock.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['lead', 'hook', 'powder']));
});

test('an order is wanted line by line until it is released; its tickets are, with what waits where and what is owed', async () => {
  const [ten] = things.productIds;
  const order = { customer: 'Stall', dueOn: '2026-12-05', note: '', lines: [{ productId: ten, quantity: 9 }] };
  const { body: made } = await post('/orders', order);
  const [line] = (await asked()).wanted;
  expect(line).toMatchObject({ customer: 'Stall', orderNumber: made.number, ticketNumber: null, heads: 9, left: {} });
  expect(new Date(line!.dueMs!).getHours()).toBe(23);
  expect(line!.product.id).toBe(ten);

  const [ticket] = (await post(`/orders/${made.id}/release`, {})).body;
  const [released] = (await asked()).wanted;
  expect(released).toMatchObject({ id: ticket.id, ticketNumber: ticket.number, left: {} });
  // More than nine: the steps after the pour spoil some.
  expect(released!.heads).toBeGreaterThanOrEqual(9);

  const { body: pour } = await post('/pours', {
    ...{ moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticket.id] },
  });
  const say = (said: object) => post(`/pours/${pour.id}/entries`, entry(said));
  await say({ kind: 'charge', massKg: 1, potC: 20 });
  await say({ kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
  await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.9 });
  await post(`/tickets/${ticket.id}/entries`, entry({ kind: 'good', step: 'trim', count: 2 }));
  const [under] = (await asked()).wanted;
  expect(under!.left).toEqual({ trim: 1, paint: 2 });
  expect(under!.heads).toBeGreaterThanOrEqual(6);
  expect(under!.heads).toBeLessThan(released!.heads);

  // The product loses its trimming: the head that waits there still has it before it, by the route of its ticket.
  const product = (await server.call('GET', `/api/products/${ten}`)).body;
  const route = ['paint', 'bake', 'finish'].map((key) => ({ key, station: key, does: key }));
  const { id, archived: _away, ...doc } = product;
  expect((await server.call('PUT', `/api/products/${id}`, { ...doc, route })).status).toBe(200);
  const [still] = (await asked()).wanted;
  expect(still!.left).toEqual({ trim: 1, paint: 2 });
  expect(still!.product.steps!.map(({ key }) => key)).toEqual(['trim', 'paint', 'bake', 'finish']);
  expect(still!.product.steps!.find(({ key }) => key === 'paint')!.layers).toHaveLength(1);
});

test('heads that come off the shelf wait at the first step until they are taken', async () => {
  const head = { kind: 'bare head', name: 'Bought, bare', note: '', metalId: null, hook: null, powder: null };
  const { id: fromId } = (await post('/materials', head)).body;
  await post(`/materials/${fromId}/receipts`, { quantity: 12, priceMinor: 600, on: '2026-01-05', lot: '' });
  const {
    id: _id,
    version: _version,
    ...ten
  } = (await server.call('GET', `/api/products/${things.productIds[0]}`)).body;
  const route = [{ key: 'finish', station: 'finish', does: 'Count and bag' }];
  const doc = { ...ten, name: 'From the shelf', fromId, recipeId: null, bakeProgramId: null, route };
  const product = (await post('/products', doc)).body;
  const order = { customer: 'Shelf', dueOn: null, note: '', lines: [{ productId: product.id, quantity: 8 }] };
  const { body: made } = await post('/orders', order);
  const of = async () => (await asked()).wanted.find(({ customer }) => customer === 'Shelf')!;
  expect(await of()).toMatchObject({ heads: 8, dueMs: null, product: { source: 'shelf' } });
  const [ticket] = (await post(`/orders/${made.id}/release`, {})).body;
  expect(await of()).toMatchObject({ heads: 0, left: { finish: 8 } });
  await post(`/tickets/${ticket.id}/entries`, entry({ kind: 'take', count: 8 }));
  await post(`/tickets/${ticket.id}/entries`, entry({ kind: 'good', step: 'finish', count: 5 }));
  expect((await of()).left).toEqual({ finish: 3 });
});
