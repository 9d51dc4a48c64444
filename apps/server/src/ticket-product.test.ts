import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, temporaryFolder, testServer, type TestServer } from './test/server.ts';

// A ticket keeps what it was released with: whatever is changed of its product afterwards is done to the next ones.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour } = {} as ReturnType<typeof eveningAt>;
beforeEach(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour } = eveningAt(server, things));
});
afterEach(() => server.stop());

const change = async (path: string, id: string, more: object) => {
  const { id: _id, createdAt: _at, archived: _away, ...own } = await get(`/${path}/${id}`);
  const answer = await call('PUT', `/${path}/${id}`, { ...own, ...more });
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
};
const say = async (ticketId: string, said: object) => {
  const answer = await post(`/tickets/${ticketId}/entries`, entry(said));
  if (answer.status !== 204) throw new Error(JSON.stringify(answer.body));
};
const powder = async (name: string, more: object = {}) => {
  const details = { colour: '#112233', gloss: 'gloss', specificGravity: 1.4, label: [{ metalC: 177, seconds: 1200 }] };
  const part = { kind: 'powder', name, note: '', metalId: null, hook: null, powder: { ...details, ...more } };
  const { id } = (await post('/materials', part)).body as { id: string };
  await post(`/materials/${id}/receipts`, { quantity: 0.5, priceMinor: 3000, on: '2026-01-05', lot: '' });
  return id;
};
/** Another paint, heat, hook, route, way, mold and price, of the shelf and of the hour: all at once. */
async function changeEverything(productId: string) {
  const black = await powder('Black');
  await change('recipes', things.recipeId, { name: 'Black', layers: [{ powderId: black, zone: 'whole', coats: 2 }] });
  await change('bake-programs', things.bakeProgramId, { name: 'Hot', setC: 200, seconds: 600 });
  await change('materials', things.hookIds[0]!, { limitC: 150 });
  const route = [
    { key: 'paint', station: 'paint', does: 'Paint it' },
    { key: 'finish', station: 'finish', does: 'Bag it' },
  ];
  await change('products', productId, { name: 'Another', route, hookId: things.hookIds[1]!, priceMinor: 900 });
  const { version, dataFolder: _folder, passwordSet: _set, sessions: _open, ...settings } = await get('/settings');
  const ways = { ...settings.ways, labourMinorPerHour: 9999, filmM: 1e-4, schools: { sprue: 'wiggle' } };
  expect((await call('PUT', '/settings', { ...settings, version, ways })).status).toBe(200);
  for (const id of [things.leadId, things.hookIds[0]!]) {
    await post(`/materials/${id}/receipts`, { quantity: 50, priceMinor: 99_000, on: '2026-01-06', lot: '' });
  }
  const { cavities, version: now, name, bodyKg } = await get(`/molds/${things.moldId}`);
  const own = (cavities as Record<string, unknown>[]).map(
    ({ id, position, style, nominalMassKg, hookSize, eyeAngleDeg }) => {
      return {
        id,
        position,
        style,
        nominalMassKg,
        hookSize,
        eyeAngleDeg,
        condition: position === 1 ? 'blocked' : 'good',
      };
    },
  );
  const mold = { name, version: now, bodyKg: 2 * bodyKg, cavities: own };
  expect((await call('PUT', `/molds/${things.moldId}`, mold)).status).toBe(200);
}

test('what is under way is as it was released, whatever its product has become', async () => {
  const [productId] = things.productIds as [string];
  const { ticketId } = await ticketOf(productId, 6);
  await pour(ticketId, things.moldId, 6);
  await say(ticketId, { kind: 'good', step: 'trim', count: 6 });
  const before = await get(`/tickets/${ticketId}`);
  const tonight = async () => (await get('/tonight')).wanted.find(({ id }: { id: string }) => id === ticketId);
  const wanted = await tonight();
  await changeEverything(productId);
  const after = await get(`/tickets/${ticketId}`);
  for (const field of ['product', 'route', 'planned', 'actual', 'quantity', 'poured', 'missing', 'toCast'])
    expect({ [field]: after[field] }).toEqual({ [field]: before[field] });
  expect(await tonight()).toEqual(wanted);
  expect(after.product).toMatchObject({
    ...{ name: 'Ten', priceMinor: 200, bake: { setC: 177 }, hook: { name: 'Hook 2/0', limitC: 175 } },
    ways: { sprue: 'nip' },
  });
  // The white that it was released in is what is booked for it, and by the weight that was reckoned then.
  await say(ticketId, { kind: 'good', step: 'paint', count: 6 });
  const { materials } = (await get(`/tickets/${ticketId}`)).actual;
  const paint = materials.filter(({ kind }: { kind: string }) => kind === 'powder');
  expect(paint.map(({ materialId }: { materialId: string }) => materialId)).toEqual([things.powderId]);
  const line = before.planned.bill.find(({ kind }: { kind: string }) => kind === 'powder');
  expect(paint[0].quantity).toBeCloseTo(6 * line.quantity, 12);
});

test('a released order is its tickets: what is on the shelf later plans none of it anew', async () => {
  const { orderId, ticketId } = await ticketOf(things.productIds[0]!, 6);
  const [before] = await get(`/orders/${orderId}/tickets`);
  expect(before.id).toBe(ticketId);
  // All hooks are gone, and lead is dear.
  await post(`/materials/${things.hookIds[0]!}/counts`, { quantity: 0 });
  await post(`/materials/${things.leadId}/receipts`, { quantity: 5, priceMinor: 9000, on: '2026-02-05', lot: '' });
  const [after] = await get(`/orders/${orderId}/tickets`);
  expect(after.planned).toEqual(before.planned);
  const plan = await call('GET', `/orders/${orderId}/plan`);
  expect(plan.status).toBe(422);
  expect(plan.body.detail).toMatch(/released already/);
});

test('it takes over what its product has become where nothing of that is done yet, with the prices of today', async () => {
  const [productId] = things.productIds as [string];
  const { ticketId } = await ticketOf(productId, 6);
  const before = await get(`/tickets/${ticketId}`);
  await changeEverything(productId);
  // Its hook is none that its cavity takes now.
  expect(await post(`/tickets/${ticketId}/product`, {})).toMatchObject({ status: 422 });
  await change('products', productId, { hookId: things.hookIds[0]! });
  const { status, body } = await post(`/tickets/${ticketId}/product`, {});
  expect(status).toBe(200);
  expect(body.product).toMatchObject({ name: 'Another', priceMinor: 900, bake: null, ways: { sprue: 'wiggle' } });
  expect(body.route.map(({ key }: { key: string }) => key)).toEqual(['paint', 'finish']);
  expect(body.planned.labourMinorPerHour).toBe(9999);
  const powders = (plan: typeof body.planned) =>
    plan.bill.flatMap(({ kind, name }: { kind: string; name: string }) => (kind === 'powder' ? [name] : []));
  expect([powders(before.planned), powders(body.planned)]).toEqual([['White'], ['Black']]);
});

test('what is done stays: a head that is cast keeps its hook, a step that has begun its paint', async () => {
  const [productId] = things.productIds as [string];
  const { ticketId } = await ticketOf(productId, 6);
  await pour(ticketId, things.moldId, 6);
  const refused = async () => (await post(`/tickets/${ticketId}/product`, {})).body.detail as string;
  await change('products', productId, { hookId: things.hookIds[1]! });
  expect(await refused()).toMatch(/cast already: head and hook stay/);
  await change('products', productId, { hookId: things.hookIds[0]! });
  await say(ticketId, { kind: 'good', step: 'trim', count: 6 });
  await say(ticketId, { kind: 'good', step: 'paint', count: 2 });
  const black = await powder('Black');
  await change('recipes', things.recipeId, { layers: [{ powderId: black, zone: 'whole', coats: 1 }] });
  expect(await refused()).toMatch(/“Paint” has begun/);
  // The bake has not: its program may be another.
  await change('recipes', things.recipeId, { layers: [{ powderId: things.powderId, zone: 'whole', coats: 1 }] });
  await change('bake-programs', things.bakeProgramId, { setC: 200, seconds: 600 });
  const { body } = await post(`/tickets/${ticketId}/product`, {});
  expect(body.product.bake).toMatchObject({ setC: 200, seconds: 600 });
  // Stock is what it was: so much has been taken, and nothing is taken twice.
  expect(body.actual.materials.find(({ kind }: { kind: string }) => kind === 'hook').quantity).toBe(6);
});

test('powder and lacquer: each step lays on its own, before and after the bake', async () => {
  const lacquer = await powder('Lacquer', { form: 'liquid', label: [], dryS: 7200 });
  await change('recipes', things.recipeId, {
    layers: [things.powderId, lacquer].map((powderId) => ({ powderId, zone: 'whole', coats: 1 })),
  });
  const { ticketId } = await ticketOf(things.productIds[0]!, 6);
  const { product } = await get(`/tickets/${ticketId}`);
  const laid = product.steps.map(({ station, layers }: { station: string; layers: { powder: { name: string } }[] }) => [
    station,
    layers.map(({ powder: { name } }) => name).join(),
  ]);
  expect(laid.filter(([station]: string[]) => ['paint', 'bake'].includes(station!))).toEqual([
    ['paint', 'White'],
    ['bake', ''],
    ['paint', 'Lacquer'],
  ]);
});

test('a folder of before keeps of each ticket what its product is, on the route that it was released with', async () => {
  const [productId] = things.productIds as [string];
  // A name may look like anything.
  await change('products', productId, { name: '[Ten' });
  await change('materials', things.powderId, { name: '{White}' });
  const { ticketId } = await ticketOf(productId, 6);
  await pour(ticketId, things.moldId, 6);
  const before = await get(`/tickets/${ticketId}`);
  // The product goes another way since, under other keys: the ticket is painted and baked as it was shown to be.
  const route = [
    { key: 'other', station: 'paint', does: 'Paint it' },
    { key: 'last', station: 'finish', does: 'Bag it' },
  ];
  await change('products', productId, { route });
  const { folder } = server;
  await server.running.stop();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await sequelize.query('ALTER TABLE tickets DROP COLUMN product');
  await sequelize.query("DELETE FROM migrations WHERE name = '017-ticket-product'");
  await sequelize.close();
  const again = await testServer({}, folder);
  const after = (await again.call('GET', `/api/tickets/${ticketId}`)).body;
  await again.stop();
  server = await testServer({}, temporaryFolder());
  // What it was to be cast in nobody had written down: soft lead, as all was.
  expect(before.product.metal.kind).toBe('soft');
  delete before.product.metal;
  for (const field of ['product', 'route', 'planned', 'actual'])
    expect({ [field]: after[field] }).toEqual({ [field]: before[field] });
});
