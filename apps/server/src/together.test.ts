import { randomUUID } from 'node:crypto';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/**
 * Two devices that do the same thing in the same moment: never an error of the server, never two of what may be one.
 */
describe('40 pairs at once', () => {
  let server: TestServer;
  let things: Awaited<ReturnType<typeof smallWorkshop>>;
  beforeAll(async () => {
    server = await testServer();
    things = await smallWorkshop(server);
  });
  afterAll(() => server.stop());

  const PAIRS = 40;
  const pairs = async (send: (pair: number) => Promise<{ status: number; body: unknown }>) => {
    const answers = await Promise.all(Array.from({ length: PAIRS }, (_, pair) => [send(pair), send(pair)]).flat());
    expect(answers.filter(({ status }) => status >= 500)).toEqual([]);
    return Array.from({ length: PAIRS }, (_, pair) => answers.slice(2 * pair, 2 * pair + 2));
  };
  const order = (quantity = 12) => ({
    customer: 'Stall',
    dueOn: null,
    note: '',
    lines: [{ productId: things.productIds[0], quantity }],
  });
  const statuses = (answers: { status: number }[]) => answers.map(({ status }) => status).sort();

  test('orders: each gets a number of its own', async () => {
    const made = (await pairs(() => server.call('POST', '/api/orders', order()))).flat();
    expect(made.every(({ status }) => status === 201)).toBe(true);
    const numbers = made.map(({ body }) => (body as { number: number }).number);
    expect(new Set(numbers).size).toBe(2 * PAIRS);
  }, 60_000);

  test('releases: one of two, and one set of tickets', async () => {
    const orders = await Promise.all(
      Array.from({ length: PAIRS }, async () => (await server.call('POST', '/api/orders', order())).body.id as string),
    );
    const released = await pairs((pair) => server.call('POST', `/api/orders/${orders[pair]}/release`, {}));
    for (const pair of released) expect(statuses(pair)).toEqual([200, 422]);
    const rows = await server.running.store.select<{ n: number; numbers: number }>(
      'SELECT COUNT(*) AS n, COUNT(DISTINCT number) AS numbers FROM tickets',
    );
    expect(rows[0]).toEqual({ n: PAIRS, numbers: PAIRS });
  }, 60_000);

  test('pours of one ticket: one of two, and never two that are open', async () => {
    const tickets = await server.running.store.select<{ id: string }>('SELECT id FROM tickets ORDER BY number');
    const started = await pairs((pair) =>
      server.call('POST', '/api/pours', {
        moldIds: [things.moldId],
        atOnce: 1,
        potId: things.potId,
        ticketIds: [tickets[pair]!.id],
      }),
    );
    for (const pair of started) expect(statuses(pair)).toEqual([201, 422]);
    const open = await server.running.store.select<{ ticketId: string; n: number }>(
      `SELECT pt.ticketId, COUNT(*) AS n FROM pourTickets pt JOIN pours p ON p.id = pt.pourId
       WHERE p.closedAt IS NULL GROUP BY pt.ticketId HAVING n > 1`,
    );
    expect(open).toEqual([]);
  }, 60_000);

  test('things by name: one of two', async () => {
    const pot = (pair: number) => ({ name: `Pot ${pair}`, capacityKg: 9, powerW: 700, lossWPerK: 0.55 });
    for (const pair of await pairs((each) => server.call('POST', '/api/pots', pot(each)))) {
      expect(statuses(pair)).toEqual([201, 409]);
    }
    const lot = (pair: number) => ({
      materialId: things.leadId,
      label: `Barrow ${pair}`,
      source: 'scrap',
      on: '2026-02-01',
      grossKg: 5,
      priceMinor: 0,
      brinell: null,
      note: '',
    });
    for (const pair of await pairs((each) => server.call('POST', '/api/lead-lots', lot(each)))) {
      expect(statuses(pair)).toEqual([201, 409]);
    }
  }, 60_000);

  test('a tap that is delivered twice counts once; heads that are there once are not counted twice', async () => {
    const [ticket] = await server.running.store.select<{ id: string }>(
      'SELECT id FROM tickets ORDER BY number LIMIT 1',
    );
    const start = { id: randomUUID(), at: 1, kind: 'start', step: 'trim' };
    const twice = (await pairs(() => server.call('POST', `/api/tickets/${ticket!.id}/entries`, start))).flat();
    expect(twice.every(({ status }) => status === 204)).toBe(true);
    const rows = await server.running.store.select<{ n: number }>('SELECT COUNT(*) AS n FROM entries WHERE id = :id', {
      id: start.id,
    });
    expect(rows[0]!.n).toBe(1);
  }, 60_000);
});
