import { randomUUID } from 'node:crypto';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What holds over several lines, tickets, shelves and deliveries: sums by hand, from what the export or the rows hold.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());

interface Named {
  id: string;
  version: number;
}
const said = async (path: string, what: object) => {
  const sent = entry(what);
  expect(await post(`${path}/entries`, sent)).toMatchObject({ status: 204, body: '' });
  return sent.id;
};
/** Trims all heads of a ticket but so many, which go to scrap, and closes it. */
async function trimAndClose(ticketId: string, good: number, scrap = 0) {
  await said(`/tickets/${ticketId}`, { kind: 'good', step: 'trim', count: good });
  if (scrap > 0) {
    await said(`/tickets/${ticketId}`, { kind: 'reject', step: 'trim', cause: 'bent', count: scrap, goes: 'scrap' });
  }
  return said(`/tickets/${ticketId}`, { kind: 'close' });
}
const putAgain = async (path: string, id: string, more: object) => {
  const { id: _id, createdAt: _at, archived: _away, ...own } = await get(`/${path}/${id}`);
  const answer = await call('PUT', `/${path}/${id}`, { ...own, ...more });
  expect(answer.status).toBe(200);
};

describe('an order of two lines', () => {
  let orderId: string;
  let tickets: (Named & { productId: string; quantity: number })[];
  const status = async () => (await get(`/orders/${orderId}`)).status as string;
  const onList = async () => (await get('/orders')).find(({ id }: Named) => id === orderId);
  beforeEach(async () => {
    const products = [await bareProduct({}), await bareProduct({})];
    const lines = products.map(({ id }, nth) => ({ productId: id as string, quantity: 3 * (nth + 1) }));
    orderId = (await post('/orders', { customer: 'Stall', dueOn: null, note: '', lines })).body.id;
    expect(await status()).toBe('open');
    tickets = (await post(`/orders/${orderId}/release`, {})).body;
    tickets.sort((one, other) => one.quantity - other.quantity);
    for (const [nth, { id }] of tickets.entries()) await pour(id, things.moldId, 3 * (nth + 1));
  });

  test('is released until its last ticket is closed, and again where one is opened', async () => {
    expect(tickets).toHaveLength(2);
    expect(await status()).toBe('released');
    await trimAndClose(tickets[0]!.id, 3);
    expect(await status()).toBe('released');
    const closed = await trimAndClose(tickets[1]!.id, 6);
    expect(await status()).toBe('done');
    await said(`/tickets/${tickets[1]!.id}`, { kind: 'undo', target: closed });
    expect(await status()).toBe('released');
    await said(`/tickets/${tickets[1]!.id}`, { kind: 'close' });
    expect(await status()).toBe('done');
  });

  test('lacks what each of its tickets ended short of; more in one makes up for none in another', async () => {
    await trimAndClose(tickets[0]!.id, 1, 2);
    expect(await onList()).toMatchObject({ status: 'released', missing: 2 });
    await trimAndClose(tickets[1]!.id, 5, 1);
    expect(await onList()).toMatchObject({ status: 'done', missing: 3 });
  });

  test('lists each product with what of it was handed over', async () => {
    await trimAndClose(tickets[0]!.id, 3);
    await trimAndClose(tickets[1]!.id, 6);
    const hand = (productId: string, pieces: number) =>
      post('/goods/moves', {
        ...{ id: randomUUID(), what: 'sold', orderId, party: 'Stall', on: '2026-03-01', note: '' },
        lines: [{ productId, grade: 'good', pieces, priceMinor: 100 }],
      });
    expect((await hand(tickets[1]!.productId, 4)).status).toBe(204);
    const { handed } = await onList();
    expect(handed[tickets[1]!.productId]).toBe(4);
    expect(handed[tickets[0]!.productId] ?? 0).toBe(0);
  });
});

test('what a closed ticket cost stays what it cost, whatever pots, ovens, tools, wages and prices become', async () => {
  const product = await bareProduct({ priceMinor: 150 });
  const tool = {
    ...{ name: 'Mold of its own', priceMinor: 5000, boughtOn: '2026-01-02', lifeHeads: 1000, note: '' },
    productIds: [product.id],
  };
  const { body: made } = await post('/tools', tool);
  const { ticketId } = await ticketOf(product.id, 6);
  await pour(ticketId, things.moldId, 6);
  await trimAndClose(ticketId, 6);
  const figures = async () => {
    const { actual } = await get(`/tickets/${ticketId}`);
    const list = (await get('/tickets')).find(({ id }: Named) => id === ticketId);
    return JSON.stringify({ actual, list });
  };
  const before = await figures();
  await putAgain('tools', made.id, { priceMinor: 50_000, lifeHeads: 10 });
  await putAgain('pots', things.potId, { powerW: 2500 });
  const ovens = await get('/ovens');
  await putAgain('ovens', ovens[0].id, { powerW: 4000 });
  await putAgain('products', product.id, { priceMinor: 999, name: 'Dear' });
  const { dataFolder: _f, passwordSet: _p, sessions: _s, version, ...settings } = await get('/settings');
  const ways = { ...settings.ways, labourMinorPerHour: 9000, energyMinorPerKWh: 200 };
  expect((await call('PUT', '/settings', { ...settings, version, ways })).status).toBe(200);
  await post(`/materials/${things.leadId}/receipts`, {
    quantity: 5,
    priceMinor: 90_000,
    on: '2026-03-01',
    lot: 'dear',
  });
  expect(await figures()).toBe(before);
  // And folded anew, as after a row that it comes from has changed.
  await server.running.store.models.ticketFigures.destroy({ where: {} });
  expect(await figures()).toBe(before);
});

describe('books over many tickets', () => {
  /** What months and stations add up to, and what tickets came to, one by one. */
  async function booked(): Promise<Record<string, number>> {
    const months: Record<string, number>[] = await get('/books/months');
    const sum = (of: string) => months.reduce((all, month) => all + month[of]!, 0);
    const list: { totalMinor: number; closedAt: number | null }[] = await get('/tickets');
    const totalMinor = list.reduce((all, each) => all + (each.closedAt === null ? 0 : each.totalMinor), 0);
    const { stations } = await get('/books/quality');
    const trim = stations.find(({ station }: { station: string }) => station === 'trim');
    const made = { madeHeads: sum('madeHeads'), tickets: sum('tickets'), costMinor: sum('costMinor') };
    return { ...made, totalMinor, came: trim?.came ?? 0, bent: trim?.causes.bent ?? 0 };
  }

  test('the cost of a head is a mean of heads, not of tickets', async () => {
    const product = await bareProduct({});
    const moves: { ticketNumber: number | null; valueMinor: number }[] = [];
    const numbers: number[] = [];
    for (const [quantity, price] of [
      [3, 1600],
      [12, 6400],
    ] as const) {
      // Hooks of the second are four times as dear.
      await post(`/materials/${things.hookIds[0]}/receipts`, {
        ...{ quantity: 100, priceMinor: price, on: '2026-02-01', lot: `at ${price}` },
      });
      const { ticketId } = await ticketOf(product.id, quantity);
      await pour(ticketId, things.moldId, quantity);
      await trimAndClose(ticketId, quantity);
      numbers.push((await get(`/tickets/${ticketId}`)).number);
    }
    for (const id of [things.leadId, things.hookIds[0]!]) moves.push(...(await get(`/materials/${id}/moves`)));
    const { actual, heads, tickets } = await get(`/books/cost/${product.id}?heads=15`);
    expect([heads, tickets]).toEqual([15, 2]);
    // All that both took off the shelves, shared over all fifteen.
    const taken = moves
      .filter(({ ticketNumber }) => numbers.includes(ticketNumber ?? 0))
      .reduce((sum, { valueMinor }) => sum - valueMinor, 0);
    expect(actual.lead + actual.hook + (actual.dross ?? 0)).toBeCloseTo(taken / 15, 3);
    const [one, other] = (await get('/tickets')).map(({ perHead }: { perHead: { hook: number } }) => perHead.hook);
    expect(Math.abs(one - other)).toBeGreaterThan(1);
    expect(actual.hook).toBeCloseTo((one * (one > other ? 12 : 3) + other * (one > other ? 3 : 12)) / 15, 6);
  });

  test('a month and what came out bad are sums of all that was closed in it', async () => {
    const product = await bareProduct({});
    const before = await booked();
    for (const [good, scrap] of [
      [5, 1],
      [7, 2],
      [3, 0],
    ] as const) {
      const { ticketId } = await ticketOf(product.id, good + scrap);
      await pour(ticketId, things.moldId, good + scrap);
      await trimAndClose(ticketId, good, scrap);
    }
    const after = await booked();
    const more = Object.fromEntries(Object.entries(after).map(([name, sum]) => [name, sum - before[name]!]));
    expect(more).toEqual({ ...more, madeHeads: 15, tickets: 3, came: 18, bent: 3 });
    // Of the months what of the tickets: 15 heads and 3 tickets for all that each of the three came to.
    expect(more['costMinor']).toBeGreaterThan(0);
    expect(more['costMinor']).toBeCloseTo(more['totalMinor']!, 6);
  });
});

describe('goods on two shelves', () => {
  test('first and second grade lie apart, at their own worth; what is sold of one leaves the other', async () => {
    const product = await bareProduct({});
    const { ticketId } = await ticketOf(product.id, 6);
    await pour(ticketId, things.moldId, 6);
    await said(`/tickets/${ticketId}`, { kind: 'good', step: 'trim', count: 4 });
    const second = { kind: 'reject', step: 'trim', cause: 'bent', count: 2, goes: 'second grade' };
    await said(`/tickets/${ticketId}`, second);
    await said(`/tickets/${ticketId}`, { kind: 'close' });
    const shelf = async (): Promise<Record<string, { pieces: number; valueMinor: number }>> =>
      Object.fromEntries(
        (await get('/goods'))
          .filter((each: { productId: string }) => each.productId === product.id)
          .map((each: { grade: string; pieces: number; valueMinor: number }) => [each.grade, each]),
      );
    const before = await shelf();
    expect([before['good']!.pieces, before['second']!.pieces]).toEqual([4, 2]);
    // What it cost is shared so that a second is worth half of a first: 4 + 2/2 = 5 shares.
    const all = before['good']!.valueMinor + before['second']!.valueMinor;
    expect(all).toBeGreaterThan(0);
    expect(Math.abs(before['second']!.valueMinor - all / 5)).toBeLessThanOrEqual(1);
    const [ticketTook] = await server.running.store.select<{ minor: number }>(
      'SELECT -SUM(valueMinor) AS minor FROM stockMoves WHERE ticketId = :ticketId',
      { ticketId },
    );
    expect(all).toBe(ticketTook!.minor);
    await post('/goods/moves', {
      ...{ id: randomUUID(), what: 'sold', orderId: null, party: 'Stall', on: '2026-03-01', note: '' },
      lines: [{ productId: product.id, grade: 'second', pieces: 2, priceMinor: 80 }],
    });
    const after = await shelf();
    expect(after['second']?.pieces ?? 0).toBe(0);
    expect(after['second']?.valueMinor ?? 0).toBe(0);
    expect(after['good']).toMatchObject({ pieces: 4, valueMinor: before['good']!.valueMinor });
  });
});

describe('what is delivered twice counts once', () => {
  const table = async (name: string) => server.running.store.select(`SELECT * FROM ${name} ORDER BY 1`);
  test('a shot, heads through a step, a parcel, a count, a sale: the answer is the same, and so is every row', async () => {
    const product = await bareProduct({});
    const { ticketId } = await ticketOf(product.id, 6);
    const { body } = await post('/pours', {
      ...{ moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticketId] },
    });
    const pourId = body.id as string;
    await said(`/pours/${pourId}`, { kind: 'charge', massKg: 1, potC: 20 });
    const shot = entry({ kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    for (const each of [shot, shot]) expect((await post(`/pours/${pourId}/entries`, each)).status).toBe(204);
    await said(`/pours/${pourId}`, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    const back = { sprueBackKg: 0.02, rejectsBackKg: 0, drossKg: 0.01, heelKg: 0.8 };
    const closing = entry({ kind: 'close', ...back });
    expect((await post(`/pours/${pourId}/entries`, closing)).status).toBe(204);
    const good = entry({ kind: 'good', step: 'trim', count: 6 });
    await post(`/tickets/${ticketId}/entries`, good);
    const close = entry({ kind: 'close' });
    await post(`/tickets/${ticketId}/entries`, close);
    const on = '2026-03-01';
    const lines = [
      { id: randomUUID(), materialId: things.leadId, quantity: 2, priceMinor: 700 },
      { id: randomUUID(), materialId: things.hookIds[0], quantity: 50, priceMinor: 800 },
    ];
    const sale = { id: randomUUID(), what: 'sold', orderId: null, party: 'Stall', on, note: '' };
    const sold = { ...sale, lines: [{ productId: product.id, grade: 'good', pieces: 2, priceMinor: 300 }] };
    const moveId = randomUUID();
    const all: [string, object][] = [
      [`/pours/${pourId}/entries`, closing],
      [`/tickets/${ticketId}/entries`, good],
      [`/tickets/${ticketId}/entries`, close],
      ['/parcels', { lines, freightMinor: 500, by: 'value', on, lot: 'parcel' }],
      [`/materials/${things.leadId}/counts`, { id: moveId, quantity: 9, note: 'seen' }],
      ['/goods/moves', sold],
    ];
    for (const [path, what] of all) {
      const first = await post(path, what);
      expect([path, first.status < 300]).toEqual([path, true]);
      const rows = async () =>
        JSON.stringify([await table('stockMoves'), await table('goodsMoves'), await table('entries')]);
      const before = await rows();
      const again = await post(path, what);
      expect([path, again.status]).toEqual([path, first.status]);
      expect([path, await rows()]).toEqual([path, before]);
    }
  });
});

describe('smoking', () => {
  const shots = async () =>
    (await get('/molds'))
      .find(({ id }: Named) => id === things.moldId)
      .cavities.map(({ shotsSinceSmoked, everSmoked }: { shotsSinceSmoked: number; everSmoked: boolean }) => [
        shotsSinceSmoked,
        everSmoked,
      ]);
  test('of the whole mold is of each of its cavities, poured or not; of some, of those alone', async () => {
    const { ticketId } = await ticketOf((await bareProduct({})).id, 30);
    const { body } = await post('/pours', {
      ...{ moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticketId] },
    });
    const at = `/pours/${body.id}`;
    const { moldId } = things;
    const shot = (positions: number[]) => said(at, { kind: 'shot', moldId, positions });
    await said(at, { kind: 'charge', massKg: 1, potC: 20 });
    for (let nth = 0; nth < 3; nth++) await shot([1, 2, 3]);
    await said(at, { kind: 'smoked', moldId });
    for (let nth = 0; nth < 2; nth++) await shot([1, 2, 3]);
    await said(at, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.8 });
    const untouched = [0, true];
    // Those that cast nothing were smoked with the others.
    expect(await shots()).toEqual([[2, true], [2, true], [2, true], untouched, untouched]);
    // Afterwards, over the lamp: of one cavity, then of all that there are.
    const note = { kind: 'care', thingId: moldId, what: 'smoked', note: '' };
    const lastAt = entry({}).at;
    await post('/records', { ...note, at: lastAt, positions: [2] });
    expect(await shots()).toEqual([[2, true], untouched, [2, true], untouched, untouched]);
    await post('/records', { ...note, at: lastAt + 1000, positions: [] });
    expect(await shots()).toEqual(Array(5).fill(untouched));
  });
});
