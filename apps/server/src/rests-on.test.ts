import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What is refused because something else rests on it, and what is found by what it rests on.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());
test('heads that were taken off the shelf since are not taken back from it; those that still lie there are', async () => {
  const head = { kind: 'bare head', name: 'Ball 10 g, bare', note: '', metalId: null, hook: null, powder: null };
  const { id: shelfId } = (await post('/materials', head)).body;
  const ahead = await bareProduct({ becomesId: shelfId });
  const { ticketId } = await ticketOf(ahead.id, 6);
  await pour(ticketId, things.moldId, 6);
  const say = (id: string, said: object) => post(`/tickets/${id}/entries`, entry(said));
  await say(ticketId, { kind: 'good', step: 'trim', count: 6 });
  const close = entry({ kind: 'close' });
  expect((await post(`/tickets/${ticketId}/entries`, close)).status).toBe(204);
  const onShelf = async () => (await get('/materials')).find(({ id }: { id: string }) => id === shelfId).quantity;
  expect(await onShelf()).toBe(6);

  const later = await bareProduct({ fromId: shelfId });
  const second = await ticketOf(later.id, 4);
  const take = entry({ kind: 'take', count: 4 });
  expect((await post(`/tickets/${second.ticketId}/entries`, take)).status).toBe(204);
  expect(await onShelf()).toBe(2);
  const reopen = () => say(ticketId, { kind: 'undo', target: close.id });
  const refused = await reopen();
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toMatch(/4 of its heads were taken off the shelf meanwhile/);
  expect(await onShelf()).toBe(2);
  // Brought back, the shelf has them again, and the first ticket can be opened.
  expect((await say(second.ticketId, { kind: 'undo', target: take.id })).status).toBe(204);
  expect(await onShelf()).toBe(6);
  expect((await reopen()).status).toBe(204);
  expect(await onShelf()).toBe(0);
});

test('pours are found by their mold, and by the moment that they went on at', async () => {
  const { id: _id, version: _version, ...five } = await get(`/molds/${things.moldId}`);
  const cavities = five.cavities.map(({ id: _own, ...cavity }: { id: string }) => cavity);
  const other = (await post('/molds', { ...five, name: 'Another five', cavities })).body;
  const first = await pour((await ticketOf(things.productIds[0]!, 3)).ticketId, things.moldId, 3);
  const second = await pour((await ticketOf(things.productIds[0]!, 3)).ticketId, other.id, 3);
  const ids = async (query: string) => (await get(`/pours/whole?${query}`)).map(({ id }: { id: string }) => id);
  expect(await ids(`mold=${other.id}`)).toEqual([second.id]);
  expect(await ids(`mold=${things.moldId}`)).toContain(first.id);
  expect(await ids(`mold=${things.moldId}`)).not.toContain(second.id);
  const whole = await get(`/pours/${second.id}`);
  // Between its beginning and its end, and not before it began.
  expect(await ids(`at=${whole.startedAt + 1}`)).toContain(second.id);
  expect(await ids(`at=${whole.startedAt - 1}`)).not.toContain(second.id);
});

test('what is used is not deleted, and says by what; what nothing uses is gone', async () => {
  const used = await bareProduct({});
  const unused = await bareProduct({});
  const { orderId } = await ticketOf(used.id, 3);
  const { number } = await get(`/orders/${orderId}`);
  const refused = await call('DELETE', `/products/${used.id}`);
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toMatch(new RegExp(`order ${number}`));
  expect((await call('DELETE', `/products/${unused.id}`)).status).toBe(204);
  expect((await call('GET', `/products/${unused.id}`)).status).toBe(404);
  const recipe = await call('DELETE', `/recipes/${(await get('/recipes'))[0].id}`);
  expect(recipe.body.detail).toMatch(/product/);
  const mold = await call('DELETE', `/molds/${things.moldId}`);
  expect(mold.body.detail).toMatch(/pours?/);
});
