import { usedWeekly, WEEK_MS } from './services/use.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// Who sells, what is used, what is to lie on the shelf.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());
const pack = (materialId: string, more: object = {}) => {
  return { materialId, pack: 100, prices: [{ fromPacks: 1, minor: 1600 }], ...more };
};
const supplier = (name: string, offers: object[]) => {
  return { name, freightMinor: 490, freeAboveMinor: null, days: 2, note: '', offers };
};

test('a supplier is kept with its packs; what it sells is not deleted under it', async () => {
  const hookId = things.hookIds[0]!;
  const { status, body } = await post('/suppliers', supplier('Quay', [pack(hookId)]));
  expect(status).toBe(201);
  expect((await get('/suppliers')).map(({ name }: { name: string }) => name)).toEqual(['Quay']);
  expect((await call('DELETE', `/materials/${hookId}`)).body.detail).toMatch(/supplier Quay/);
  const { id, version } = body;
  const changed = { ...supplier('Quay', [pack(hookId, { pack: 25 })]), version };
  expect((await call('PUT', `/suppliers/${id}`, changed)).status).toBe(200);
  expect((await get(`/suppliers/${id}`)).offers[0].pack).toBe(25);
  const { body: all } = await call('GET', '/export');
  expect(all.suppliers).toHaveLength(1);
});
test.each([
  [(hook: string) => [pack(hook, { pack: 0 })], /offers\[0\]\.pack is 0/],
  [(hook: string) => [pack(hook, { prices: [{ fromPacks: 2, minor: 5 }] })], /prices must begin with 1 pack and rise/],
  [(hook: string) => [pack(hook, { prices: [] })], /prices is .* allowed: 1 to 8/],
  [() => [pack(things.moldId)], /offers\[0\]\.materialId is .* allowed: the id of a part on record/],
] as const)('packs that cannot be are refused by name', async (offersOf, says) => {
  const { status, body } = await post('/suppliers', supplier('Odd', offersOf(things.hookIds[0]!)));
  expect(status).toBe(422);
  expect(body.detail).toMatch(says);
});
test('a rule says at least one thing, a tool serves products on record', async () => {
  const rule = { where: 'Ponds', fromKg: null, belowKg: null, noLead: false, note: '' };
  expect((await post('/rules', rule)).body.detail).toMatch(/noLead|lead is forbidden/);
  expect((await post('/rules', { ...rule, noLead: true })).status).toBe(201);
  const tool = { name: 'Gun', priceMinor: 4500, boughtOn: '2026-01-05', lifeHeads: null, note: '' };
  expect((await post('/tools', { ...tool, productIds: [things.moldId] })).body.detail).toMatch(/productIds\[0\]/);
  expect((await post('/tools', { ...tool, productIds: [things.productIds[1]] })).status).toBe(201);
  expect((await call('DELETE', `/products/${things.productIds[1]}`)).body.detail).toMatch(/tool Gun/);
});

test('what is to lie on the shelf is wanted tonight, less what lies there, comes and is not ordered away', async () => {
  const bare = await bareProduct({ keepHeads: 12 });
  const wanted = async () => {
    const { wanted: all } = await get('/tonight');
    const own = all.filter((each: { product: { id: string } }) => each.product.id === bare.id);
    return own
      .filter(({ id }: { id: string }) => id.startsWith('keep'))
      .map(({ heads, orderId, customer }: { heads: number; orderId: string; customer: string }) => {
        return { heads, orderId, customer };
      });
  };
  expect(await wanted()).toEqual([{ heads: 12, orderId: '', customer: '' }]);
  // What is made for the shelf comes; what is made for somebody goes again.
  const forShelf = await ticketOf(bare.id, 6, '');
  expect((await wanted())[0].heads).toBe(6);
  await ticketOf(bare.id, 3);
  expect((await wanted())[0].heads).toBe(6);
  await pour(forShelf.ticketId, things.moldId, 6);
  await post(`/tickets/${forShelf.ticketId}/entries`, entry({ kind: 'good', step: 'trim', count: 6 }));
  await post(`/tickets/${forShelf.ticketId}/entries`, entry({ kind: 'close' }));
  expect((await wanted())[0].heads).toBe(6);
  const { id, version, ...same } = await get(`/products/${bare.id}`);
  await call('PUT', `/products/${id}`, { ...same, keepHeads: 5, version });
  expect(await wanted()).toEqual([]);
});

test('an order is wanted tonight line by line until it is released, then ticket by ticket; what was handed over is not', async () => {
  const bare = await bareProduct({});
  const of = async () =>
    (await get('/tonight')).wanted
      .filter(({ product }: { product: { id: string } }) => product.id === bare.id)
      .map(({ heads, ticketNumber }: { heads: number; ticketNumber: number | null }) => [heads, ticketNumber === null]);
  const lines = [{ productId: bare.id, quantity: 7 }];
  const { body: order } = await post('/orders', { customer: 'Stall', dueOn: null, note: '', lines });
  expect(await of()).toEqual([[7, true]]);
  await post(`/orders/${order.id}/release`, {});
  const released = await of();
  expect(released).toHaveLength(1);
  expect(released[0][1]).toBe(false);
  expect(released[0][0]).toBeGreaterThanOrEqual(7);
});

test('use is told week by week, and a week before anything was written down is none', async () => {
  // What was said at the benches of this test lies some minutes ahead.
  const soon = Date.now() + 3_600_000;
  const used = await usedWeekly(server.running.store, soon);
  expect((await call('GET', '/stock/use')).status).toBe(200);
  const hooks = used.find(({ materialId }) => materialId === things.hookIds[0])!;
  expect(hooks.weekly.reduce((sum, week) => sum + week, 0)).toBe(6);
  expect(hooks.weekly.at(-1)).toBe(6);
  const later = await usedWeekly(server.running.store, soon + 2 * WEEK_MS);
  const weekly = later.find(({ materialId }) => materialId === things.hookIds[0])!.weekly;
  expect(weekly.slice(-3)).toEqual([6, 0, 0]);
  expect(weekly.length).toBeLessThanOrEqual(26);
  // A purchase is no use.
  expect(used.some(({ weekly: own }) => own.some((week) => week < 0))).toBe(false);
});
