import { randomUUID } from 'node:crypto';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What is struck out is judged afterwards, by the shelf, the lots and who has what; sums are of the amounts said here.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());

const say = async (path: string, said: object, headers: Record<string, string> = {}) => {
  const { status, body } = await server.call('POST', `/api${path}/entries`, said, headers);
  return [status, body?.detail] as [number, string | undefined];
};

const DONE = [204, undefined];

describe('a sale', () => {
  const goods = (what: string, productId: string, pieces: number, more: object = {}) => {
    const id = randomUUID();
    const lines = [{ productId, grade: 'good', pieces, priceMinor: what === 'sold' ? 150 : null }];
    const said = { id, what, orderId: null, party: 'Ferry stall', on: '2026-06-01', note: '', lines, ...more };
    return post('/goods/moves', said).then(({ status, body }) => ({ id, status, detail: body?.detail as string }));
  };
  const strike = (id: string) => post(`/goods/moves/${id}/strike`, {});
  const onShelf = async (productId: string): Promise<number> =>
    (await get('/goods')).find((each: { productId: string }) => each.productId === productId)?.pieces ?? 0;
  /** Three heads cast, trimmed and put on the shelf. */
  async function three() {
    const { id: productId } = await bareProduct({});
    const { ticketId, orderId } = await ticketOf(productId, 3, 'Ferry stall');
    await pour(ticketId, things.moldId, 3);
    await say(`/tickets/${ticketId}`, entry({ kind: 'good', step: 'trim', count: 3 }));
    expect(await say(`/tickets/${ticketId}`, entry({ kind: 'close' }))).toEqual(DONE);
    return { productId, orderId };
  }

  test('goes only before what came back of it: never more on the shelf than were made', async () => {
    const { productId } = await three();
    const sale = await goods('sold', productId, 3);
    const back = await goods('returned', productId, 1);
    expect([sale.status, back.status, await onShelf(productId)]).toEqual([204, 204, 1]);
    const { status, body } = await strike(sale.id);
    expect([status, body.detail]).toEqual([
      422,
      'Not possible: 1 of these heads came back from Ferry stall since. Strike that out first.',
    ]);
    expect(await onShelf(productId)).toBe(1);
    expect((await strike(back.id)).status).toBe(204);
    expect((await strike(sale.id)).status).toBe(204);
    expect(await onShelf(productId)).toBe(3);
  });
  test('by an order holds what the order’s heads brought back; one of several that still covers it may go', async () => {
    const { productId, orderId } = await three();
    const first = await goods('sold', productId, 2, { orderId });
    const second = await goods('given', productId, 1, { orderId });
    expect((await goods('returned', productId, 1, { orderId })).status).toBe(204);
    expect((await strike(second.id)).status).toBe(204);
    expect((await strike(first.id)).status).toBe(422);
    expect(await onShelf(productId)).toBe(2);
  });
});

describe('stock', () => {
  const lots = async (id: string): Promise<Record<string, number>> => {
    const all = (await get(`/materials/${id}/lots`)) as { lot: string; left: number }[];
    return Object.fromEntries(all.map(({ lot, left }) => [lot, left]));
  };
  const made = async (name: string): Promise<string> =>
    (await post('/materials', { kind: 'eye', name, note: '', metalId: null, hook: null, powder: null })).body.id;
  const receive = (id: string, lot: string, quantity: number, on: string) =>
    post(`/materials/${id}/receipts`, { quantity, priceMinor: 10 * quantity, on, lot });
  const counted = (id: string, quantity: number) => post(`/materials/${id}/counts`, { quantity, note: '' });
  const moveOf = async (id: string, reason: string, lot?: string): Promise<number> =>
    (await get(`/materials/${id}/moves`)).find(
      (each: { reason: string; lot: string; struck: boolean }) =>
        each.reason === reason && !each.struck && (lot === undefined || each.lot === lot),
    ).id;
  const strike = async (move: number) => {
    const { status, body } = await post(`/moves/${move}/strike`, {});
    return [status, body?.detail] as [number, string | undefined];
  };
  /** A ticket of a product that takes an eye a head, with so many heads through the step that sets them. */
  async function uses(partId: string, heads: number) {
    const route = [
      { key: 'trim', station: 'trim', does: 'Trim' },
      { key: 'eyes', station: 'finish', does: 'Set eyes' },
    ];
    const parts = [{ partId, quantity: 1, waste: 0, step: 'eyes' }];
    const { id } = await bareProduct({ route, parts });
    const { ticketId } = await ticketOf(id, heads);
    await pour(ticketId, things.moldId, heads);
    await say(`/tickets/${ticketId}`, entry({ kind: 'good', step: 'trim', count: heads }));
    expect(await say(`/tickets/${ticketId}`, entry({ kind: 'good', step: 'eyes', count: heads }))).toEqual(DONE);
    return ticketId;
  }

  test('a count that found some is not struck after they were used: no lot gave more than it had', async () => {
    const id = await made('Eyes, found again');
    await receive(id, 'first', 20, '2026-02-01');
    await counted(id, 8);
    await counted(id, 20);
    const found = await moveOf(id, 'counted');
    await receive(id, 'second', 50, '2026-03-01');
    await uses(id, 12);
    expect(await lots(id)).toEqual({ first: 8, second: 50 });
    // Without what was found there are 8 of the first lot, of which 12 were used.
    const [status, detail] = await strike(found);
    expect([status, detail]).toEqual([422, expect.stringMatching(/^Heads of ticket \d+ were made of it since: count/)]);
    expect(await lots(id)).toEqual({ first: 8, second: 50 });
  });
  test('a purchase that a count had taken of: what the count took is of the other one then', async () => {
    const id = await made('Eyes, bought twice');
    await receive(id, 'first', 20, '2026-02-01');
    await receive(id, 'second', 20, '2026-03-01');
    await counted(id, 35);
    expect(await lots(id)).toEqual({ first: 15, second: 20 });
    expect(await strike(await moveOf(id, 'received', 'first'))).toEqual(DONE);
    const { quantity } = (await get('/materials')).find((each: { id: string }) => each.id === id);
    expect([quantity, await lots(id)]).toEqual([15, { second: 15 }]);
  });
});

test('the readings of a struck log go with it, and the same file may come again', async () => {
  const mapping = encodeURIComponent(
    JSON.stringify({
      ...{ name: 'Slipped log', timeColumn: 't', timeIs: 'seconds', startAt: Date.UTC(2026, 1, 1) },
      columns: [{ column: 'a', place: 'pot', unit: 'C' }],
    }),
  );
  const rows = Array.from({ length: 40 }, (_, at) => `${at * 10},${20 + at}`).join('\n');
  const send = () =>
    server.call('POST', `/api/readings/import?mapping=${mapping}`, `t,a\n${rows}`, { 'content-type': 'text/csv' });
  const sent = await send();
  expect([sent.status, sent.body]).toEqual([201, expect.objectContaining({})]);
  const channelOf = async () =>
    (await get('/channels')).find(({ source }: { source: string }) => /Slipped log/.test(source)) as { id: number };
  const { id } = await channelOf();
  expect(await get(`/readings/raw?channel=${id}`)).toHaveLength(40);
  expect((await post(`/channels/${id}/strike`, {})).status).toBe(204);
  expect((await call('GET', `/readings/raw?channel=${id}`)).body).toEqual([]);
  expect(await channelOf()).toBeUndefined();
  expect((await send()).status).toBe(201);
});

describe('what must follow goes by the server’s order, with the clock as a remark', () => {
  const HOUR = 3_600_000;
  const clock = (off: number) => ({ 'schmelz-clock': String(Date.now() + off) });
  /** Three heads that wait at the oven. */
  async function atOven() {
    const { ticketId } = await ticketOf(things.productIds[0]!, 3);
    await pour(ticketId, things.moldId, 3);
    for (const step of ['trim', 'paint']) await say(`/tickets/${ticketId}`, entry({ kind: 'good', step, count: 3 }));
    const heads = [{ ticketId, step: 'bake', count: 3 }];
    return { ticketId, load: { kind: 'load', ovenId: null, heads, setC: 177, seconds: 1200, preheated: true } };
  }
  test.each([
    ['an hour fast', HOUR, 0],
    ['an hour slow at the end', 0, -HOUR],
    ['two hours apart', HOUR, -HOUR],
  ])('a load is taken out by another device: %s', async (_what, loadOff, outOff) => {
    const { ticketId, load } = await atOven();
    const run = `/runs/oven/${randomUUID()}`;
    const at = (off: number, ago: number) => ({ id: randomUUID(), at: Date.now() + off - ago });
    expect(await say(run, { ...at(loadOff, 21 * 60_000), ...load }, clock(loadOff))).toEqual(DONE);
    expect(await say(run, { ...at(outOff, 0), kind: 'unload' }, clock(outOff))).toEqual(DONE);
    const bake = (await get('/bakes')).find(({ heads }: { heads: number }) => heads === 3);
    const { number } = await get(`/tickets/${ticketId}`);
    const own = (await get('/bakes')).find((each: { ticketNumber: number }) => each.ticketNumber === number);
    expect(bake).toBeDefined();
    // In for twenty-one minutes, as both clocks together tell, whichever was wrong.
    expect((own.unloadedAt - own.loadedAt) / 60_000).toBeCloseTo(21, 0);
    expect(Math.abs(own.unloadedAt - Date.now())).toBeLessThan(60_000);
    const { runs } = await get('/line');
    const id = run.split('/').at(-1);
    expect(runs.find((each: { id: string }) => each.id === id).log).toHaveLength(2);
    const [row] = await server.running.store.select<{ startedAt: number; closedAt: number }>(
      'SELECT startedAt, closedAt FROM runs WHERE id = :id',
      { id },
    );
    expect((row!.closedAt - row!.startedAt) / 60_000).toBeCloseTo(21, 0);
    expect(await say(`/tickets/${ticketId}`, entry({ kind: 'good', step: 'bake', count: 3 }))).toEqual(DONE);
  });
});
