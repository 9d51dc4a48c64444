import { randomUUID } from 'node:crypto';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// Finished heads: made by a ticket, sold, given, back, second grade beside them. The sums are of the amounts said here.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());
const post = (path: string, body: unknown) => server.call('POST', `/api${path}`, body);
const get = async (path: string) => (await server.call('GET', `/api${path}`)).body;
let at = Date.now() - 7_200_000;
const entry = (said: object) => ({ id: randomUUID(), at: (at += 20_000), ...said });

/** An order of bare heads that is cast, trimmed and closed: so many good, so many kept as second grade. */
async function finished(good: number, second: number, customer = 'Lock keeper') {
  const [productId] = things.productIds;
  const route = [{ key: 'trim', station: 'trim', does: 'Trim' }];
  const product = await get(`/products/${productId}`);
  const bare = { ...product, name: `Bare ${randomUUID().slice(0, 6)}`, route, recipeId: null, bakeProgramId: null };
  const { id: _id, version: _version, ...doc } = bare;
  const { body: made } = await post('/products', doc);
  const order = { customer, dueOn: null, note: '', lines: [{ productId: made.id, quantity: good + second }] };
  const { body: ordered } = await post('/orders', order);
  const [ticket] = (await post(`/orders/${ordered.id}/release`, {})).body;
  const { body: pour } = await post('/pours', {
    ...{ moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticket.id] },
  });
  const say = (said: object) => post(`/pours/${pour.id}/entries`, entry(said));
  await say({ kind: 'charge', massKg: 1, potC: 20 });
  for (let shot = 0; shot < Math.ceil((good + second) / 3); shot++) {
    const left = good + second - 3 * shot;
    await say({ kind: 'shot', moldId: things.moldId, positions: [1, 2, 3].slice(0, left) });
  }
  const closed = await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.5 });
  expect(closed.status).toBe(204);
  const step = (said: object) => post(`/tickets/${ticket.id}/entries`, entry({ step: 'trim', ...said }));
  if (second) await step({ kind: 'reject', cause: 'bent hook', count: second, goes: 'second grade' });
  expect((await step({ kind: 'good', count: good })).status).toBe(204);
  const close = entry({ kind: 'close' });
  expect((await post(`/tickets/${ticket.id}/entries`, close)).status).toBe(204);
  return { productId: made.id as string, orderId: ordered.id as string, ticket, close };
}

const shelf = async (productId: string, grade: 'good' | 'second') => {
  const goods = (await get('/goods')) as { productId: string; grade: string; pieces: number; valueMinor: number }[];
  const there = goods.find((each) => each.productId === productId && each.grade === grade);
  return there ? [there.pieces, there.valueMinor] : [0, 0];
};
const line = (productId: string, pieces: number, priceMinor: number | null = null, grade = 'good') => ({
  ...{ productId, grade, pieces, priceMinor },
});
const move = (what: string, lines: object[], more: object = {}) =>
  post('/goods/moves', {
    id: randomUUID(),
    what,
    orderId: null,
    party: '',
    on: '2026-06-01',
    note: '',
    lines,
    ...more,
  });

test('what a ticket made lies on the shelf at what it cost, second grade beside it at half', async () => {
  const worth = async () =>
    (await get('/materials')).reduce((sum: number, each: { valueMinor: number }) => sum + each.valueMinor, 0);
  const before = await worth();
  const { productId } = await finished(9, 2);
  const [[good, goodMinor], [second, secondMinor]] = [await shelf(productId, 'good'), await shelf(productId, 'second')];
  expect([good, second]).toEqual([9, 2]);
  // 9 + 2/2 = 10 shares: nine of them good.
  expect(goodMinor! / (goodMinor! + secondMinor!)).toBeCloseTo(0.9, 1);
  expect(goodMinor! + secondMinor!).toBe(before - (await worth()));
  expect(goodMinor).toBeGreaterThan(0);
});

test('an order is filled in part; the rest later; what comes back opens it again', async () => {
  const { productId, orderId, ticket } = await finished(9, 0);
  const goods = () => get(`/orders/${orderId}/goods`);
  expect((await goods()).lines[0]).toMatchObject({ handed: 0, open: 9, here: 9 });
  expect((await move('sold', [line(productId, 4, 1001)], { orderId })).status).toBe(204);
  expect((await goods()).lines[0]).toMatchObject({ handed: 4, open: 5, here: 5 });
  const onList = async () => (await get('/orders')).find(({ id }: { id: string }) => id === orderId);
  expect((await onList()).handed).toEqual({ [productId]: 4 });
  expect((await move('sold', [line(productId, 5, 1250)], { orderId })).status).toBe(204);
  expect(await shelf(productId, 'good')).toEqual([0, 0]);
  expect((await move('returned', [line(productId, 2, 500)], { orderId })).status).toBe(204);
  expect((await goods()).lines[0]).toMatchObject({ handed: 7, open: 2, here: 2 });
  const { moves } = await goods();
  expect(moves.map(({ priceMinor }: { priceMinor: number }) => priceMinor)).toEqual([-500, 1250, 1001]);
  // The bag says whose they are: the ticket keeps its heads wherever they are.
  const trace = await get(`/trace/tickets/${ticket.number}`);
  expect(trace.onShelf).toBe(2);
  expect(trace.went.map(({ reason, pieces }: { reason: string; pieces: number }) => [reason, pieces])).toEqual([
    ['sold', -9],
    ['returned', 2],
  ]);
});

test('no more go than are there, no more come back than went; all lines or none', async () => {
  const { productId } = await finished(6, 1);
  const more = await move('sold', [line(productId, 1, 100, 'second'), line(productId, 7, 700)]);
  expect(more.status).toBe(422);
  expect(more.body.detail).toMatch(/pieces is 7; allowed: at most 6/);
  expect(await shelf(productId, 'second')).toEqual([1, expect.any(Number)]);
  expect((await move('given', [line(productId, 2)], { party: 'Ferry club' })).status).toBe(204);
  const back = await move('returned', [line(productId, 3)], { party: 'Ferry club' });
  expect(back.body.detail).toMatch(/pieces is 3; allowed: 1 to 2, what Ferry club has of them/);
  expect((await move('sold', [line(productId, 0)])).body.detail).toMatch(/pieces is 0/);
  expect((await move('sold', [line(randomUUID(), 1)])).status).toBe(404);
  expect(await shelf(productId, 'good')).toEqual([4, expect.any(Number)]);
});

test('said twice counts once; struck out it is as if it had never been, unless they have gone on since', async () => {
  const { productId } = await finished(6, 0);
  const before = await shelf(productId, 'good');
  const id = randomUUID();
  await move('sold', [line(productId, 5, 900)], { id, party: 'Ferry club' });
  await move('sold', [line(productId, 5, 900)], { id, party: 'Ferry club' });
  expect((await shelf(productId, 'good'))[0]).toBe(1);
  expect((await post(`/goods/moves/${id}/strike`, {})).status).toBe(204);
  expect(await shelf(productId, 'good')).toEqual(before);
  expect((await post(`/goods/moves/${id}/strike`, {})).status).toBe(422);
  // A count that found four more, of which three are gone since, cannot be struck out.
  const found = randomUUID();
  await move('counted', [line(productId, 10)], { id: found });
  expect((await shelf(productId, 'good'))[0]).toBe(10);
  await move('given', [line(productId, 9)], { party: 'Ferry club' });
  expect((await post(`/goods/moves/${found}/strike`, {})).body.detail).toMatch(/handed over already/);
});

test('a ticket whose heads are sold is not opened again; one whose heads lie there gives them back', async () => {
  const { productId, ticket, close } = await finished(3, 0);
  const undo = () => post(`/tickets/${ticket.id}/entries`, entry({ kind: 'undo', target: close.id }));
  const id = randomUUID();
  await move('sold', [line(productId, 1, 150)], { id });
  const refused = await undo();
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toMatch(/1 of the heads of ticket \d+ are handed over already/);
  await post(`/goods/moves/${id}/strike`, {});
  expect((await undo()).status).toBe(204);
  expect(await shelf(productId, 'good')).toEqual([0, 0]);
});

test('an order that is filled from the shelf is done; in part, only the rest is released', async () => {
  const { productId, orderId } = await finished(6, 0);
  expect((await get(`/orders/${orderId}`)).status).toBe('done');
  const ordered = async (quantity: number) => {
    const order = { customer: 'Ferry club', dueOn: null, note: '', lines: [{ productId, quantity }] };
    return (await post('/orders', order)).body.id as string;
  };
  const whole = await ordered(4);
  const id = randomUUID();
  await move('sold', [line(productId, 4)], { id, orderId: whole });
  expect((await get(`/orders/${whole}`)).status).toBe('done');
  await post(`/goods/moves/${id}/strike`, {});
  expect((await get(`/orders/${whole}`)).status).toBe('open');
  const part = await ordered(9);
  await move('sold', [line(productId, 6)], { orderId: part });
  const [ticket] = (await post(`/orders/${part}/release`, {})).body;
  expect(ticket.quantity).toBe(3);
});
