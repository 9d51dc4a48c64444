import { randomUUID } from 'node:crypto';
import { pourState, type PourEntry } from '@schmelz/core';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/** The job over HTTP: order, plan, release, pour, stations, close; then stock to the gram. */
describe('one order over the API', () => {
  let server: TestServer;
  let things: Awaited<ReturnType<typeof smallWorkshop>>;
  let at = Date.UTC(2026, 0, 10, 18);
  const entry = (seconds = 30) => ({ id: randomUUID(), at: (at += seconds * 1000) });
  const stock = async () => {
    const { body } = await server.call('GET', '/api/materials');
    return Object.fromEntries(
      body.map((each: { name: string; quantity: number; valueMinor: number }) => [each.name, each]),
    );
  };

  beforeAll(async () => {
    server = await testServer();
    things = await smallWorkshop(server);
  });
  afterAll(() => server.stop());

  test('from order to closed tickets', async () => {
    const { call } = server;
    const [ten, fourteen] = things.productIds;
    const order = await call('POST', '/api/orders', {
      customer: 'Stall',
      dueOn: '2026-01-17',
      note: '',
      lines: [
        { productId: ten, quantity: 12 },
        { productId: fourteen, quantity: 6 },
      ],
    });
    expect(order.status).toBe(201);
    const { plan } = (await call('GET', `/api/orders/${order.body.id}/plan`)).body;
    expect(plan.problems).toEqual([]);
    expect(plan.molds[0].shots.value).toBeGreaterThanOrEqual(4);
    const tickets = (await call('POST', `/api/orders/${order.body.id}/release`, {})).body as {
      id: string;
      productId: string;
    }[];
    expect(tickets).toHaveLength(2);
    expect((await call('POST', `/api/orders/${order.body.id}/release`, {})).status).toBe(422);

    const pour = (
      await call('POST', '/api/pours', {
        moldIds: [things.moldId],
        atOnce: 1,
        potId: things.potId,
        ticketIds: tickets.map((ticket) => ticket.id),
      })
    ).body;
    const path = `/api/pours/${pour.id}/entries`;
    const log: PourEntry[] = [];
    const say = async (said: Record<string, unknown>) => {
      const whole = { ...entry(), ...said };
      expect((await call('POST', path, whole)).status).toBe(204);
      log.push(whole as unknown as PourEntry);
      return whole;
    };
    await say({ kind: 'charge', massKg: 2, potC: 20 });
    for (let shot = 0; pourState(pour.setup, log).shotsToGo > 0; shot++) {
      const positions = pourState(pour.setup, log).molds[0]!.wantedPositions;
      const poured = await say({ kind: 'shot', moldId: things.moldId, positions });
      if (shot === 1)
        await say({ kind: 'reject', shotId: poured.id, position: positions[0], cause: 'short', goes: 'hook lost' });
    }
    const state = pourState(pour.setup, log);
    const headsKg = state.headsKg;
    const close = await say({
      kind: 'close',
      sprueBackKg: 0.05,
      rejectsBackKg: state.rejectsKg,
      drossKg: 0.03,
      heelKg: 2 - headsKg - state.rejectsKg - 0.08 - 0.0021,
    });
    // The line names what was thrown back at the pot by its cause, whoever's head it was.
    const causes = await Promise.all(
      tickets.map(async ({ id }: { id: string }) => (await call('GET', `/api/tickets/${id}`)).body.pourCauses),
    );
    expect(causes.filter((each) => Object.keys(each).length > 0)).toEqual([{ short: 1 }]);
    const afterPour = await stock();
    expect(afterPour['Lead'].quantity).toBeCloseTo(20 - headsKg - 0.03 - 0.0021, 9);

    // Opened again, the lead is back on the shelf; closed again, it is gone as before: corrected, not erased.
    await say({ kind: 'undo', target: close.id });
    expect((await stock())['Lead'].quantity).toBeCloseTo(20, 9);
    expect((await stock())['Lead'].valueMinor).toBe(5000);
    await say({
      kind: 'close',
      sprueBackKg: 0.05,
      rejectsBackKg: state.rejectsKg,
      drossKg: 0.03,
      heelKg: 2 - headsKg - state.rejectsKg - 0.08 - 0.0021,
    });

    let finished = 0;
    for (const { id } of tickets) {
      const ticket = async () => (await call('GET', `/api/tickets/${id}`)).body;
      const tell = async (said: Record<string, unknown>) => {
        const told = await call('POST', `/api/tickets/${id}/entries`, { ...entry(), ...said });
        expect(told.body).toBe('');
        expect(told.status).toBe(204);
      };
      let left = (await ticket()).poured as number;
      for (const step of ['trim', 'paint', 'bake', 'finish']) {
        if (step === 'bake') {
          const run = `/api/runs/oven/${randomUUID()}/entries`;
          const heads = [{ ticketId: id, step, count: left }];
          const program = { ovenId: null, setC: 177, seconds: 1680, preheated: true };
          expect((await call('POST', run, { ...entry(), kind: 'load', heads, ...program })).status).toBe(204);
          expect((await call('POST', run, { ...entry(), kind: 'unload' })).status).toBe(204);
        }
        if (step === 'trim') await tell({ kind: 'reject', step, cause: 'divot', count: 1, goes: 'melt' });
        left -= step === 'trim' ? 1 : 0;
        await tell({ kind: 'good', step, count: left });
      }
      const refused = await call('POST', `/api/tickets/${id}/entries`, {
        ...entry(),
        kind: 'good',
        step: 'finish',
        count: 1,
      });
      expect(refused.status).toBe(422);
      expect(refused.body.detail).toMatch(/count is 1; allowed: none, as no head waits/);
      await tell({ kind: 'close' });
      finished += left;
      const { actual } = await ticket();
      const total = Object.values(actual.cost.parts as Record<string, number>).reduce((sum, part) => sum + part, 0);
      expect(total).toBe(actual.cost.totalMinor);
      expect(Number.isInteger(total)).toBe(true);
      expect(actual.cost.parts.lead).toBeGreaterThan(0);
      expect(actual.cost.parts.work).toBeGreaterThan(0);
    }
    const shelf = await stock();
    // Two heads were thrown back at trimming, a 10 g and a 14 g one: their lead is on the shelf again.
    expect(20 - shelf['Lead'].quantity).toBeCloseTo(headsKg - 0.024 + 0.03 + 0.0021, 9);
    const hooks = 200 - shelf['Hook 2/0'].quantity - shelf['Hook 3/0'].quantity;
    expect(hooks).toBe(finished + 1);
    expect(shelf['White'].quantity).toBeLessThan(0.225);
    const orders = await call('GET', '/api/orders');
    expect(orders.body[0].status).toBe('done');
  });

  test('value is conserved: what was paid is on the shelf or in the tickets, to the last cent', async () => {
    const shelf = await stock();
    const { body: list } = await server.call('GET', '/api/tickets');
    const tickets = await Promise.all(
      list.map(async ({ id }: { id: string }) => (await server.call('GET', `/api/tickets/${id}`)).body),
    );
    const spent = tickets
      .flatMap((ticket: { actual: { materials: { valueMinor: number }[] } }) => ticket.actual.materials)
      .reduce((sum: number, each: { valueMinor: number }) => sum + each.valueMinor, 0);
    const here = Object.values(shelf).reduce(
      (sum: number, each) => sum + (each as { valueMinor: number }).valueMinor,
      0,
    );
    expect(here + spent).toBe(5000 + 1600 + 1800 + 1400);
  });

  test('lists come without logs: a ticket says what it came to, a bake what hung in it', async () => {
    const { body: tickets } = await server.call('GET', '/api/tickets');
    // Its heads were counted with one key each step, by no bench: nobody timed them.
    const keys = ['id', 'number', 'productId', 'quantity', 'closedAt', 'good', 'totalMinor', 'perHead', 'notTimed'];
    for (const each of tickets) expect(Object.keys(each).sort()).toEqual([...keys].sort());
    const { body: one } = await server.call('GET', `/api/tickets/${tickets[0].id}`);
    expect(tickets[0].totalMinor).toBe(one.actual.cost.totalMinor);
    const { body: bakes } = await server.call('GET', '/api/bakes');
    const heads = bakes.reduce((sum: number, bake: { heads: number }) => sum + bake.heads, 0);
    const whole = await Promise.all(tickets.map(({ id }: { id: string }) => server.call('GET', `/api/tickets/${id}`)));
    const loads = whole
      .flatMap(({ body }) =>
        body.runs.flatMap((run: { log: object[] }) => run.log).map((entry: object) => [body.id, entry]),
      )
      .filter(([, entry]) => entry.kind === 'load')
      .flatMap(([id, entry]) => entry.heads.filter((each: { ticketId: string }) => each.ticketId === id))
      .reduce((sum: number, each: { count: number }) => sum + each.count, 0);
    expect(heads).toBe(loads);
    expect(heads).toBeGreaterThan(0);
  });

  test('every use names its lot: of which delivery the hooks of a ticket were, and what is left of it', async () => {
    const { body: lots } = await server.call('GET', `/api/materials/${things.hookIds[0]}/lots`);
    expect(lots).toHaveLength(1);
    const used = lots[0].went.reduce((sum: number, use: { quantity: number }) => sum + use.quantity, 0);
    expect(lots[0].left).toBeCloseTo(100 - used, 9);
    expect(lots[0].left).toBe((await stock())['Hook 2/0'].quantity);
    const { body: tickets } = await server.call('GET', '/api/tickets');
    const ten = tickets.find((ticket: { productId: string }) => ticket.productId === things.productIds[0]);
    expect(lots[0].went).toEqual([expect.objectContaining({ ticketId: ten.id, ticketNumber: ten.number })]);
    // The hooks were brittle, and were of another box after all: corrected, not erased.
    const receipt = { quantity: 50, priceMinor: 800, on: '2026-01-08', lot: 'box B' };
    await server.call('POST', `/api/materials/${things.hookIds[0]}/receipts`, receipt);
    const after = async () => (await server.call('GET', `/api/materials/${things.hookIds[0]}/lots`)).body;
    const boxB = (await after()).find((lot: { lot: string }) => lot.lot === 'box B');
    const path = `/api/materials/${things.hookIds[0]}/lots/${boxB.id}`;
    expect((await server.call('PUT', path, { ticketId: ten.id })).status).toBe(204);
    expect((await after()).map((lot: { lot: string; left: number }) => [lot.lot, lot.left])).toEqual([
      ['box B', 50 - used],
      ['', 100],
    ]);
  });

  test('everything comes out again as JSON and CSV', async () => {
    const exported = await server.call('GET', '/api/export');
    expect(exported.body.format).toBe('schmelz-workshop');
    expect(exported.body.tickets).toHaveLength(2);
    const csv = await server.call('GET', '/api/export/moves.csv');
    expect(csv.body.split('\r\n')[0]).toBe('at,material,kind,reason,quantity,valueMinor,ticket,lot');
    expect(csv.body.split('\r\n').length - 1).toBe(exported.body.stockMoves.length);
  });
});

// Pins are few and go round: never more heads in work than pins. Common practice, no source.
test('a pour casts no more heads than base-hole pins are free, and none while all of them are in heads', async () => {
  const server = await testServer();
  const { call } = server;
  const { moldId, productIds, potId } = await smallWorkshop(server);
  const { body: mold } = await call('GET', `/api/molds/${moldId}`);
  const pin = { diameterM: 0.0024, lengthM: 0.006 };
  const { id: _id, createdAt: _at, archived: _put, shotsSinceSmoked: _shots, learned: _fit, ...rest } = mold;
  const cavities = mold.cavities.map(
    ({ good: _good, casts: _casts, tried: _tried, ...each }: Record<string, unknown>) => ({
      ...each,
      pin,
    }),
  );
  expect((await call('PUT', `/api/molds/${moldId}`, { ...rest, cavities })).body).toMatchObject({ id: moldId });
  const tool = { name: 'Pins', kind: 'base-hole pin', diameterM: 0.0024, owned: 7, places: [] };
  expect((await call('POST', '/api/parts', tool)).status).toBe(201);
  const ways = { hole: 'pulled together' };
  for (const id of productIds) {
    const { body: product } = await call('GET', `/api/products/${id}`);
    const { id: _own, createdAt: _made, archived: _away, ...told } = product;
    expect((await call('PUT', `/api/products/${id}`, { ...told, ways })).body).toMatchObject({ ways });
  }
  const order = await call('POST', '/api/orders', {
    ...{ customer: 'Stall', dueOn: null, note: '' },
    lines: [
      { productId: productIds[0], quantity: 12 },
      { productId: productIds[1], quantity: 6 },
    ],
  });
  const { plan } = (await call('GET', `/api/orders/${order.body.id}/plan`)).body;
  // Ten good heads are cast for nine: later steps spoil three in a hundred.
  expect(plan.pins).toEqual([{ diameterM: 0.0024, count: 7, inWork: 0, wanted: 20 }]);
  const { body: made } = await call('POST', `/api/orders/${order.body.id}/release`, {});
  const tickets = productIds.map((id) => made.find(({ productId }: { productId: string }) => productId === id));
  const start = (ticketId: string) =>
    call('POST', '/api/pours', { moldIds: [moldId], atOnce: 1, potId, ticketIds: [ticketId] });
  const { body: pour } = await start(tickets[0].id);
  expect(pour.setup.needs[tickets[0].id]).toBe(7);
  let at = Date.now();
  const say = (said: object) =>
    call('POST', `/api/pours/${pour.id}/entries`, { id: randomUUID(), at: (at += 30_000), ...said });
  await say({ kind: 'charge', massKg: 2, potC: 20 });
  for (let shot = 0; shot < 3; shot++) await say({ kind: 'shot', moldId, positions: shot === 2 ? [1] : [1, 2, 3] });
  const back = { sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 1 };
  expect((await say({ kind: 'close', ...back })).status).toBe(204);
  const refused = await start(tickets[1].id);
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toBe('All 7 pins of 2.4 mm are in heads under way: pull them first.');
  // Trimmed and painted, the pins of five are out: so many more can be cast.
  const tell = (step: string, count: number) =>
    call('POST', `/api/tickets/${tickets[0].id}/entries`, {
      ...{ id: randomUUID(), at: (at += 30_000), kind: 'good', step, count },
    });
  expect((await tell('trim', 7)).status).toBe(204);
  expect((await tell('paint', 5)).status).toBe(204);
  const { body: next } = await start(tickets[1].id);
  expect(next.setup.needs[tickets[1].id]).toBe(5);
});
