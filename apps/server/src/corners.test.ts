import { randomUUID } from 'node:crypto';
import { answerTo } from './services/compute.ts';
import { listPours } from './services/pours.ts';
import { readRun } from './services/run-views.ts';
import { bakesOnRecord, bookedPeriod, thrownByTicket, ticketsOnList } from './services/ticket-figures.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What seldom happens, and must be told all the same: what is not there, what was done meanwhile, what is too much.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
const store = () => server.running.store;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());
const say = async (ticketId: string, ...said: object[]) => {
  for (const each of said) {
    const answer = await post(`/tickets/${ticketId}/entries`, entry(each));
    if (answer.status !== 204) throw new Error(JSON.stringify(answer.body));
  }
};
const csv = (path: string, text: string) => server.call('POST', `/api${path}`, text, { 'content-type': 'text/csv' });
const material = async (kind: string, name: string, more: object = {}): Promise<string> =>
  (await post('/materials', { kind, name, note: '', metalId: null, hook: null, powder: null, ...more })).body.id;
const quantityOf = async (id: string) =>
  (await get('/materials')).find((each: { id: string }) => each.id === id).quantity as number;

test.each([
  ['GET', '/tickets/%', undefined, /no ticket/],
  ['GET', '/pours/%', undefined, /no pour/],
  ['POST', '/tickets/%/entries', 'entry', /no ticket/],
  ['POST', '/imports/%/strike', {}, /no import/],
  ['POST', '/lead-lots/%/strike', {}, /no lot/],
  ['POST', '/goods/moves/%/strike', {}, /no movement of finished heads/],
  ['POST', '/channels/4711/strike', {}, /no channel 4711/],
  ['POST', '/moves/4711/strike', {}, /no movement 4711/],
  ['GET', '/runs/oven/%', undefined, /no oven load/i],
] as const)('%s %s of what is not there is told by name', async (method, path, body, says) => {
  const sent = body === 'entry' ? entry({ kind: 'close' }) : body;
  const { status, body: answer } = await call(method, path.replace('%', randomUUID()), sent);
  expect(status).toBe(404);
  expect(answer.detail).toMatch(says);
});

test('a pour names what is not there, what is closed, and what comes off the shelf', async () => {
  const bare = await bareProduct({});
  const { ticketId } = await ticketOf(bare.id, 3);
  const ask = async (more: object) => {
    const wanted = { moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds: [ticketId] };
    return (await post('/pours', { ...wanted, ...more })).body.detail as string;
  };
  expect(await ask({ potId: randomUUID() })).toMatch(/no pot/);
  expect(await ask({ moldIds: [randomUUID()] })).toMatch(/no mold/);
  expect(await ask({ ticketIds: [randomUUID()] })).toMatch(/no ticket/);
  const lone = await post('/molds', {
    ...{ name: 'Big only', bodyKg: 0.5 },
    cavities: [
      { position: 1, style: 'ball', nominalMassKg: 0.05, hookSize: '3/0', eyeAngleDeg: 60, condition: 'good' },
    ],
  });
  expect(await ask({ moldIds: [lone.body.id] })).toMatch(/No mold has a ball cavity of 10\u00a0g; there is 50\u00a0g/);
  await pour(ticketId, things.moldId, 3);
  expect(await ask({})).toMatch(/has all its heads|wants no more|enough/i);
  await say(ticketId, { kind: 'good', step: 'trim', count: 3 }, { kind: 'close' });
  expect(await ask({})).toMatch(/^Ticket \d+ is closed/);
  const shelfId = await material('bare head', 'Bought heads');
  await post(`/materials/${shelfId}/receipts`, { quantity: 9, priceMinor: 900, on: '2026-01-05', lot: '' });
  const fromShelf = await ticketOf((await bareProduct({ fromId: shelfId })).id, 2);
  expect(await ask({ ticketIds: [fromShelf.ticketId] })).toMatch(/come off the shelf/);
});

test('a count that finds more is worth what was paid, one that finds less takes its share; a purchase in use stays', async () => {
  const id = await material('eye', 'Eyes, red');
  const valueOf = async () =>
    (await get('/materials')).find((each: { id: string }) => each.id === id) as {
      quantity: number;
      valueMinor: number;
    };
  await post(`/materials/${id}/receipts`, { quantity: 100, priceMinor: 500, on: '2026-01-05', lot: 'one' });
  await post(`/materials/${id}/counts`, { quantity: 80, note: '' });
  expect(await valueOf()).toMatchObject({ quantity: 80, valueMinor: 400 });
  await post(`/materials/${id}/counts`, { quantity: 90, note: 'behind the jar' });
  expect(await valueOf()).toMatchObject({ quantity: 90, valueMinor: 450 });
  // From an empty shelf, what was last paid is what a piece is worth.
  await post(`/materials/${id}/counts`, { quantity: 0, note: '' });
  await post(`/materials/${id}/counts`, { quantity: 20, note: '' });
  expect(await valueOf()).toMatchObject({ quantity: 20, valueMinor: 100 });
  const moves: { id: number; reason: string; quantity: number }[] = await get(`/materials/${id}/moves`);
  const bought = moves.find(({ reason }) => reason === 'received')!;
  // 20 are there of which 100 were bought: without the purchase there would be less than nothing.
  expect((await post(`/moves/${bought.id}/strike`, {})).body.detail).toMatch(/More of it is used than would be left/);
  expect(await valueOf()).toMatchObject({ quantity: 20 });
});

test('heads that come back are of those who have them, and no more than they have', async () => {
  const bare = await bareProduct({});
  const { ticketId } = await ticketOf(bare.id, 6);
  await pour(ticketId, things.moldId, 6);
  await say(ticketId, { kind: 'good', step: 'trim', count: 6 }, { kind: 'close' });
  const on = new Date().toISOString().slice(0, 10);
  const move = (what: string, pieces: number, more: object = {}) =>
    post('/goods/moves', {
      ...{ id: randomUUID(), what, orderId: null, party: 'Neighbour', on, note: '' },
      lines: [{ productId: bare.id, grade: 'good', pieces, priceMinor: null }],
      ...more,
    });
  const here = async () =>
    (await get('/goods')).find((each: { productId: string }) => each.productId === bare.id)?.pieces ?? 0;
  expect((await move('given', 4)).status).toBe(204);
  expect((await move('returned', 5)).body.detail).toMatch(/pieces is 5; allowed: 1 to 4, what Neighbour has of them/);
  expect((await move('returned', 1, { party: 'Nobody' })).body.detail).toMatch(/allowed: 1 to 0, what Nobody has/);
  expect((await move('returned', 3)).status).toBe(204);
  expect(await here()).toBe(5);
  expect((await move('sold', 6)).status).toBe(422);
  expect((await move('sold', 0)).body.detail).toMatch(/pieces is 0; allowed: 1 or more/);
  // A count takes the oldest off, or adds what nobody knows the ticket of; the same count moves nothing.
  for (const pieces of [2, 2, 7]) {
    expect((await move('counted', pieces)).status).toBe(204);
    expect(await here()).toBe(pieces);
  }
  const lots = (await get('/goods')).find((each: { productId: string }) => each.productId === bare.id).lots;
  const found = lots.map((lot: { pieces: number; ticketNumber: number | null }) =>
    lot.ticketNumber === null ? `${lot.pieces} found` : `${lot.pieces} of a ticket`,
  );
  expect(found.sort()).toEqual(['2 of a ticket', '5 found']);
  // Sent twice it counts once.
  const twice = randomUUID();
  await move('scrapped', 1, { id: twice });
  await move('scrapped', 1, { id: twice });
  expect(await here()).toBe(6);
  await post(`/goods/moves/${twice}/strike`, {});
  expect(await here()).toBe(7);
  expect((await post(`/goods/moves/${twice}/strike`, {})).body.detail).toBe('This is struck out already.');
  expect((await get('/goods/moves')).length).toBeGreaterThan(5);
  expect((await get(`/goods/moves?before=1`)).length).toBe(0);
});

test('a lot that a ticket is to have used must be there, and have enough left', async () => {
  const hookId = things.hookIds[0]!;
  const { ticketId } = await ticketOf((await bareProduct({})).id, 6);
  const name = (receipt: number) => call('PUT', `/materials/${hookId}/lots/${receipt}`, { ticketId });
  const lots = async (): Promise<{ id: number; left: number; lot: string }[]> => get(`/materials/${hookId}/lots`);
  const [first] = await lots();
  expect((await name(first!.id)).body.detail).toMatch(/used nothing of this part yet/);
  await pour(ticketId, things.moldId, 6);
  await say(ticketId, { kind: 'good', step: 'trim', count: 6 });
  expect((await name(4711)).body.detail).toMatch(/no lot 4711/);
  await post(`/materials/${hookId}/receipts`, { quantity: 4, priceMinor: 80, on: '2026-02-01', lot: 'small box' });
  const small = (await lots()).find(({ lot }) => lot === 'small box')!;
  expect((await name(small.id)).body.detail).toMatch(/has 4 left; allowed: a lot with 6 left/);
  await post(`/materials/${hookId}/receipts`, { quantity: 50, priceMinor: 900, on: '2026-02-02', lot: 'large box' });
  const large = (await lots()).find(({ lot }) => lot === 'large box')!;
  expect((await name(large.id)).status).toBe(204);
  expect((await lots()).find(({ id }) => id === large.id)!.left).toBe(44);
  const { body } = await post(`/moves/${large.id}/strike`, {});
  expect(body.detail).toMatch(/Heads of ticket \d+ were made of it: name another lot there first/);
});

test('lots of hooks stand beside each other with what was thrown back of their heads, for what a hook may do', async () => {
  const { ticketId } = await ticketOf((await bareProduct({})).id, 9);
  await pour(ticketId, things.moldId, 12, ['eye full', 'short']);
  await say(ticketId, { kind: 'good', step: 'trim', count: 10 }, { kind: 'close' });
  const lots: { materialId: string; heads: number; bad: number; causes: Record<string, number>; tickets: number }[] =
    await get('/trace/lots');
  const hooks = lots.filter(({ materialId }) => materialId === things.hookIds[0]);
  expect(hooks.length).toBeGreaterThan(0);
  const all = hooks.reduce((sum, { heads }) => sum + heads, 0);
  const cast = await thrownByTicket(store());
  expect(all).toBe(cast.reduce((sum, { came }) => sum + (came['pour'] ?? 0), 0));
  const bad = hooks.reduce((sum, each) => sum + each.bad, 0);
  const named = hooks.reduce((sum, { causes }) => sum + Object.values(causes).reduce((a, b) => a + b, 0), 0);
  expect(bad).toBe(named);
  expect(bad).toBeLessThan(2);
  expect(hooks.every(({ tickets }) => tickets >= 1)).toBe(true);
});

test('books of a time hold what was closed in it, its loads those that were hung in it', async () => {
  const period = await bookedPeriod(store());
  expect(period!.to).toBeGreaterThan(period!.from);
  const all = await ticketsOnList(store());
  const within = async (from: number, to: number) => (await ticketsOnList(store(), { from, to })).length;
  const closed = all.filter(({ closedAt }) => closedAt !== null);
  expect(await within(0, 1e15)).toBe(closed.length);
  expect(await within(0, period!.to)).toBe(closed.filter(({ closedAt }) => closedAt! < period!.to).length);
  expect(await within(period!.to, period!.to + 1)).toBe(1);
  expect(await within(period!.to + 1, 1e15)).toBe(0);
  expect((await thrownByTicket(store(), { from: period!.to + 1, to: 1e15 })).length).toBe(0);
  expect((await bakesOnRecord(store(), { from: 0, to: 1 })).length).toBe(0);
  const orders = await get('/orders');
  const oldest = Math.min(...orders.map(({ number }: { number: number }) => number));
  expect((await get(`/orders?before=${oldest}`)).length).toBe(0);
});

test('a load of another kind is not found, and a pour not by another’s id', async () => {
  await expect(readRun(store(), 'oven', randomUUID())).rejects.toThrow(/no oven load/i);
  expect(await listPours(store(), { id: randomUUID() })).toEqual([]);
  expect((await listPours(store(), { last: 1 })).length).toBe(1);
  expect((await listPours(store(), { open: true })).length).toBe(0);
});

test.each([
  ['/materials/import', 'material,quantity,price,on,lot', /There is no row below the names of the columns/],
  ['/materials/import', '', /The first line must name the columns .* found: nothing/],
  ['/materials/import', 'material,quantity,price,on,lot\n"Lead,1,2,2026-01-01,x', /Line \d+: .* stands in quotes/],
  ['/readings/import?mapping=%7B', 't,a\n0,1', /mapping of the columns is no JSON/],
])('%s with %j is told what is wrong with it', async (path, text, says) => {
  const { status, body } = await csv(path, text);
  expect(status).toBe(422);
  expect(body.detail).toMatch(says);
});
test('a log without rows, and one of a device, are told apart', async () => {
  const mapping = encodeURIComponent(
    JSON.stringify({
      ...{ name: 'Empty', timeColumn: 't', timeIs: 'seconds', startAt: 1.7e12 },
      columns: [{ column: 'a', place: 'oven', unit: 'C' }],
    }),
  );
  const { body } = await csv(`/readings/import?mapping=${mapping}`, 't,a\n');
  expect(body.detail).toMatch(/no row below the headings/);
});

test('a log that is struck out takes no other with it; a chart keeps its highest and its lowest', async () => {
  const send = async (name: string) => {
    const mapping = encodeURIComponent(
      JSON.stringify({
        ...{ name, timeColumn: 't', timeIs: 'seconds', startAt: 1.7e12 },
        columns: [{ column: 'a', place: 'oven', unit: 'C' }],
      }),
    );
    const rows = Array.from({ length: 200 }, (_, nth) => `${nth},${nth === 90 ? 300 : nth === 110 ? 5 : 100}`);
    return (await csv(`/readings/import?mapping=${mapping}&again=true`, `t,a\n${rows.join('\n')}`)).status;
  };
  expect(await send('Struck')).toBe(201);
  expect(await send('Stays')).toBe(201);
  const channels: { id: number; source: string }[] = await get('/channels');
  const [struck, stays] = ['Struck', 'Stays'].map((name) => channels.find(({ source }) => source === name)!);
  const { points } = await get(`/readings?channel=${stays!.id}&from=${1.7e12}&to=${1.7e12 + 200_000}&points=4`);
  expect(points.length).toBeLessThan(8);
  expect(Math.max(...points.map(({ highC }: { highC: number }) => highC))).toBe(300);
  expect(Math.min(...points.map(({ lowC }: { lowC: number }) => lowC))).toBe(5);
  await post(`/channels/${struck!.id}/strike`, {});
  const left: { source: string }[] = await get('/channels');
  expect(left.map(({ source }) => source)).toContain('Stays');
  expect((await get('/imports')).filter(({ struck: gone }: { struck: boolean }) => gone).length).toBe(1);
  expect((await post(`/channels/${struck!.id}/strike`, {})).body.detail).toBe('This log is struck out already.');
});

test('what a calculation refuses is told by its field, whoever reckons it', () => {
  const refused = answerTo(3, 'cast-mass', { nominalMassKg: -4 });
  expect(refused).toMatchObject({ id: 3, invalid: [{ field: 'nominalMassKg', value: -4, unit: 'kg' }] });
  // The schema lets it through, the core does not: it was not held long enough.
  const readings = Array.from({ length: 40 }, (_, nth) => ({ at: 5000 * nth, celsius: Math.min(177, 20 + 5 * nth) }));
  const held = answerTo(4, 'oven-fit', { readings, setC: 177 });
  expect(held).toMatchObject({ id: 4, invalid: [{ field: 'time held' }] });
  const [{ message, allowed }] = (held as unknown as { invalid: [{ message: string; allowed: string }] }).invalid;
  expect(message).toContain(allowed);
  expect(answerTo(5, 'nonesuch', {})).toMatchObject({ id: 5, failed: { name: 'TypeError' } });
});

test('a purchase that is struck out again was never there; a count may be, whatever is left', async () => {
  const id = await material('eye', 'Eyes, green');
  await post(`/materials/${id}/receipts`, { quantity: 10, priceMinor: 100, on: '2026-01-05', lot: '' });
  await post(`/materials/${id}/counts`, { quantity: 4, note: '' });
  const moves: { id: number; reason: string }[] = await get(`/materials/${id}/moves`);
  const of = (reason: string) => moves.find((move) => move.reason === reason)!.id;
  expect((await post(`/moves/${of('received')}/strike`, {})).status).toBe(422);
  expect((await post(`/moves/${of('counted')}/strike`, {})).status).toBe(204);
  expect(await quantityOf(id)).toBe(10);
  // Now nothing rests on it: it goes, to just nothing.
  expect((await post(`/moves/${of('received')}/strike`, {})).status).toBe(204);
  expect(await quantityOf(id)).toBe(0);
});

test('everything as JSON holds every row, also of a table longer than what is read at a time', async () => {
  const id = await material('glue', 'Glue');
  const { models } = store();
  const many = Array.from({ length: 2100 }, (_, nth) => ({
    ...{ at: 1.7e12 + nth, materialId: id, reason: 'counted', quantity: 1, valueMinor: 1, ticketId: null, lot: '' },
  }));
  await store().write((transaction) => models.stockMoves.bulkCreate(many, { transaction }));
  const { body } = await call('GET', '/export');
  const kept = await models.stockMoves.count();
  expect(body.stockMoves.length).toBe(kept);
  expect(new Set(body.stockMoves.map((move: { id: number }) => move.id)).size).toBe(kept);
  expect(body.stockMoves.every((move: object) => !('rowid' in move))).toBe(true);
  expect(await quantityOf(id)).toBe(2100);
});

test('a template takes parts and hooks that do, and makes only what is missing', async () => {
  const before = (await get('/materials')).length;
  expect((await post('/products/from-template', { template: 'nonesuch' })).body.detail).toMatch(
    /template is "?nonesuch"?; allowed: /,
  );
  const take = async (template: string, name?: string) =>
    (await post('/products/from-template', { template, ...(name ? { name } : {}) })).body;
  const first = await take('guard jig');
  expect(first.name).toBeTruthy();
  const after = await get('/materials');
  const second = await take('guard jig', 'Another guard jig');
  // The second takes what the first has made.
  expect((await get('/materials')).length).toBe(after.length);
  expect(second.hookId).toBe(first.hookId);
  expect(second.parts).toEqual(first.parts);
  expect(after.length).toBeGreaterThan(before);
});

test('a purchase typed by mistake is struck out of a shelf that a bench had taken below nothing', async () => {
  const { ticketId } = await ticketOf((await bareProduct({})).id, 6);
  const [hookId] = things.hookIds;
  await post(`/materials/${hookId}/counts`, { quantity: 0, note: '' });
  await pour(ticketId, things.moldId, 6);
  const shelf = async () => (await get('/materials')).find((each: { id: string }) => each.id === hookId);
  const below = await shelf();
  expect(below.quantity).toBeLessThan(0);
  const bought = async () =>
    (await get('/books/months')).reduce(
      (all: number, { boughtMinor }: { boughtMinor: number }) => all + boughtMinor,
      0,
    );
  const paid = await bought();
  await post(`/materials/${hookId}/receipts`, { quantity: 1, priceMinor: 900, on: '2026-01-05', lot: '' });
  const moves: { id: number; reason: string }[] = await get(`/materials/${hookId}/moves`);
  const last = Math.max(...moves.map(({ id }) => id));
  expect((await post(`/moves/${last}/strike`, {})).status).toBe(204);
  expect(await shelf()).toMatchObject({ quantity: below.quantity, valueMinor: below.valueMinor });

  // It comes in at another price than benches took it at: what is there is worth what it cost, and the rest is settled.
  await post(`/materials/${hookId}/receipts`, { quantity: 100, priceMinor: 4000, on: '2026-01-06', lot: '' });
  const left = 100 + below.quantity;
  expect(await shelf()).toMatchObject({ quantity: left, valueMinor: 40 * left, averageMinor: 40 });
  type Move = { id: number; reason: string; quantity: number; valueMinor: number; struck: boolean };
  expect(await bought()).toBe(paid + 4000);
  const [settled, purchase] = (await get(`/materials/${hookId}/moves`)) as Move[];
  expect([settled, purchase]).toMatchObject([
    { reason: 'settled', quantity: 0, valueMinor: 40 * left - 4000 - below.valueMinor, struck: false },
    { reason: 'received', quantity: 100, valueMinor: 4000 },
  ]);
  expect((await post(`/moves/${settled!.id}/strike`, {})).status).toBe(422);
  expect((await post(`/moves/${purchase!.id}/strike`, {})).status).toBe(204);
  expect(await shelf()).toMatchObject({ quantity: below.quantity, valueMinor: below.valueMinor });
  // What was never bought was never paid for, whatever was settled with it.
  expect(await bought()).toBe(paid);
  const after = (await get(`/materials/${hookId}/moves`)) as Move[];
  expect(after.filter(({ id }) => id >= purchase!.id).every(({ struck }) => struck)).toBe(true);
});
