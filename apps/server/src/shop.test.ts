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

test('a parcel: freight by value or by mass, all of it or nothing, and each line once', async () => {
  const { leadId, hookIds } = things;
  const at = async (id: string) => {
    const all = (await get('/materials')) as { id: string; quantity: number; valueMinor: number }[];
    return all.find((each) => each.id === id)!;
  };
  const line = (materialId: string, quantity: number, priceMinor: number) => {
    return { id: crypto.randomUUID(), materialId, quantity, priceMinor };
  };
  const parcel = (by: string, lines: object[], more: object = {}) => {
    return post('/parcels', { on: '2026-02-07', lot: 'parcel', freightMinor: 1200, by, lines, ...more });
  };
  const [lead, hook] = [await at(leadId), await at(hookIds[0]!)];
  const lines = [line(leadId, 10, 3000), line(hookIds[0]!, 100, 1000)];
  const { status, body } = await parcel('value', lines);
  expect([status, body]).toEqual([200, { shares: [900, 300] }]);
  expect((await at(leadId)).valueMinor - lead.valueMinor).toBe(3900);
  expect((await at(hookIds[0]!)).valueMinor - hook.valueMinor).toBe(1300);
  expect((await at(hookIds[0]!)).quantity - hook.quantity).toBe(100);
  // Sent again, because the answer was lost: nothing comes twice.
  await parcel('value', lines);
  expect((await at(leadId)).quantity - lead.quantity).toBeCloseTo(10, 9);
  // By mass: 100 hooks of a gram or so beside ten kilograms.
  const { shares } = (await parcel('mass', [line(leadId, 10, 3000), line(hookIds[0]!, 100, 1000)])).body;
  expect(shares[0] + shares[1]).toBe(1200);
  expect(shares[1]).toBeGreaterThan(3);
  expect(shares[1]).toBeLessThan(40);
  // One line that cannot be, and none is booked.
  const before = await at(leadId);
  const wrong = await parcel('value', [line(leadId, 5, 100), line(things.moldId, 5, 100)]);
  expect(wrong.status).toBe(404);
  const guard = await post('/materials', {
    kind: 'guard',
    name: 'Brush',
    note: '',
    metalId: null,
    hook: null,
    powder: null,
  });
  const unknown = await parcel('mass', [line(leadId, 5, 100), line(guard.body.id, 5, 100)]);
  expect(unknown.status).toBe(422);
  expect(unknown.body.detail).toMatch(/mass of Brush is not known/);
  expect((await at(leadId)).quantity).toBe(before.quantity);
  expect((await parcel('weight', lines)).body.detail).toMatch(/by is "weight"; allowed: value, mass/);
});
