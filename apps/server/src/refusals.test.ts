import { randomUUID } from 'node:crypto';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/** Bad input gets a clear answer that names the field, and nothing changes. */
describe('bad input', () => {
  let server: TestServer;
  let things: Awaited<ReturnType<typeof smallWorkshop>>;
  const everything = async () => JSON.stringify((await server.call('GET', '/api/export')).body);

  beforeAll(async () => {
    server = await testServer();
    things = await smallWorkshop(server);
  });
  afterAll(() => server.stop());

  const order = (quantity: unknown, more = {}) => ({
    customer: 'Stall',
    dueOn: null,
    note: '',
    lines: [{ productId: things.productIds[0], quantity }],
    ...more,
  });

  test('each is refused as problem details that name field, value, unit and range', async () => {
    const before = await everything();
    const cases: [string, string, unknown, number, RegExp][] = [
      [
        'POST',
        '/api/orders',
        order(1e9),
        422,
        /lines\[0\]\.quantity is 1000000000; allowed: a whole number from 1 to 20000 heads/,
      ],
      ['POST', '/api/orders', order(-3), 422, /quantity is -3/],
      ['POST', '/api/orders', order('12'), 422, /quantity is "12"; allowed: a whole number/],
      ['POST', '/api/orders', order(12, { colour: 'red' }), 422, /unspecified keys: colour/],
      ['POST', '/api/orders', { ...order(12), dueOn: 'soon' }, 422, /dueOn is "soon"; allowed: a day as 2026-05-31/],
      ['POST', '/api/orders', order(12, { lines: [] }), 422, /lines is "a list"; allowed: 1 to 500 entries/],
      ['POST', '/api/orders', '{"customer": ', 400, /no JSON/],
      ['POST', '/api/orders', 'null', 400, /./],
      ['POST', '/api/orders', { ...order(12), note: 'x'.repeat(300_000) }, 413, /larger than 256 kB/],
      [
        'POST',
        '/api/molds',
        {
          name: 'M',
          bodyKg: 0.5,
          cavities: [
            { position: 1, style: 'ball', nominalMassKg: -0.01, hookSize: '2/0', eyeAngleDeg: 60, condition: 'good' },
          ],
        },
        422,
        /nominalMassKg is -0.01\u00a0kg; allowed: a number from 0.0003\u00a0kg to 0.5\u00a0kg/,
      ],
      [
        'POST',
        '/api/molds',
        {
          name: 'Five',
          bodyKg: 0.5,
          cavities: [
            { position: 1, style: 'ball', nominalMassKg: 0.01, hookSize: '2/0', eyeAngleDeg: 60, condition: 'good' },
          ],
        },
        409,
        /name is "Five"; allowed: one that no other mold has/,
      ],
      [
        'POST',
        '/api/materials',
        { kind: 'hook', name: 'H', note: '', metalId: null, hook: null, powder: null },
        422,
        /must give the details of its kind/,
      ],
      [
        'POST',
        `/api/materials/${things.leadId}/receipts`,
        { quantity: 1, priceMinor: 10.5, on: '2026-01-01', lot: '' },
        422,
        /priceMinor is 10.5; allowed: a whole number/,
      ],
      ['POST', `/api/materials/${randomUUID()}/counts`, { quantity: 1, note: '' }, 404, /There is no material/],
      ['DELETE', `/api/materials/${things.hookIds[0]}`, undefined, 422, /is used by product Ten/],
      ['GET', '/api/nothing', undefined, 404, /nothing at GET/],
      [
        'POST',
        '/api/compute/cure',
        { label: [], setC: 177, seconds: 60, headLagS: 100 },
        422,
        /label is "a list"; allowed: 1 to 2 entries/,
      ],
      ['POST', '/api/compute/cast-mass', { nominalMassKg: 0.001, extraInsertVolumeM3: 1e-5 }, 422, /metalVolumeM3/],
      [
        'POST',
        '/api/compute/melt-time',
        { leadKg: 5, powerW: 100, lossWPerK: 0.55, toC: 371 },
        422,
        /toC is 371\u00a0C/,
      ],
      [
        'POST',
        '/api/materials/import',
        'not, a list\nof purchases',
        422,
        /must name the columns material, quantity, price/,
      ],
      [
        'POST',
        '/api/materials/import',
        'material,quantity,price,on\nLead,2,5.00,2026-01-01\nGold,1,5,2026-01-01',
        422,
        /Line 3: material is "Gold"/,
      ],
      [
        'POST',
        '/api/materials/import',
        'material,quantity,price,on\nLead,two,5.00,2026-01-01',
        422,
        /Line 2: quantity/,
      ],
    ];
    for (const [method, path, body, status, text] of cases) {
      const type = path.endsWith('import') ? { 'content-type': 'text/csv' } : undefined;
      const answer = await server.call(method, path, body, type);
      expect([path, answer.status]).toEqual([path, status]);
      expect(answer.headers.get('content-type')).toMatch(/application\/problem\+json/);
      expect(answer.body).toMatchObject({ type: 'about:blank', status });
      expect(answer.body.detail).toMatch(text);
    }
    expect(await everything()).toBe(before);
  });

  test('a hook that does not fit: the plan says so and the release is refused', async () => {
    const { call } = server;
    const product = {
      name: 'Misfit',
      style: 'ball',
      nominalMassKg: 0.01,
      hookId: things.hookIds[1],
      recipeId: null,
      bakeProgramId: null,
      priceMinor: null,
    };
    const productId = (await call('POST', '/api/products', product)).body.id;
    const { id } = (await call('POST', '/api/orders', { ...order(5), lines: [{ productId, quantity: 5 }] })).body;
    const { plan } = (await call('GET', `/api/orders/${id}/plan`)).body;
    expect(plan.problems[0].text).toMatch(/Hook 3\/0 does not fit/);
    const released = await call('POST', `/api/orders/${id}/release`, {});
    expect(released.status).toBe(422);
    expect(released.body.detail).toMatch(new RegExp(`^${product.name}: Hook 3/0 does not fit`));
    expect((await call('GET', '/api/tickets')).body).toEqual([]);
  });

  test('a stale write is a 409 that says what changed', async () => {
    const { call } = server;
    const [pot] = (await call('GET', '/api/pots')).body;
    const { id, version, ...rest } = pot;
    expect((await call('PUT', `/api/pots/${id}`, { ...rest, powerW: 800, version })).body).toMatchObject({
      powerW: 800,
      version: version + 1,
    });
    const late = await call('PUT', `/api/pots/${id}`, { ...rest, powerW: 600, version });
    expect(late.status).toBe(409);
    expect(late.body.changes).toEqual([{ field: 'powerW', yours: 600, now: 800 }]);
    expect(late.body.detail).toMatch(/differs from yours in: powerW/);
    expect((await call('PUT', `/api/pots/${id}`, { ...rest })).body.detail).toMatch(/version is .*missing/);
    const settings = (await call('GET', '/api/settings')).body;
    const { dataFolder, passwordSet, sessions, ...own } = settings;
    expect([dataFolder, passwordSet, sessions]).toEqual([server.folder, false, 0]);
    expect((await call('PUT', '/api/settings', { ...own, currency: 'CHF' })).status).toBe(200);
    expect((await call('PUT', '/api/settings', { ...own, currency: 'SEK' })).status).toBe(409);
    expect((await call('PUT', '/api/settings', { ...own, version: 1, currency: 'XX1' })).body.detail).toMatch(
      /currency is "XX1"/,
    );
  });

  test('a list of purchases comes in whole', async () => {
    const csv = 'material,quantity,price,on,lot\nlead,2.5,6.25,2026-02-01,keel\nHook 2/0,50,8.00,2026-02-01,\n';
    const answer = await server.call('POST', '/api/materials/import', csv, { 'content-type': 'text/csv' });
    expect(answer.body).toMatchObject({ rows: 2, takenAt: null });
    const { body } = await server.call('GET', `/api/materials/${things.leadId}/moves`);
    expect(body[0]).toMatchObject({ quantity: 2.5, valueMinor: 625, lot: 'keel', reason: 'received' });
    const { body: flows } = await server.call('GET', `/api/materials/${things.leadId}/flows`);
    expect(flows).toEqual([{ reason: 'received', quantity: 22.5, valueMinor: 5625 }]);
  });

  test('a weighing moves the difference at the average', async () => {
    const answer = await server.call('POST', `/api/materials/${things.leadId}/counts`, { quantity: 20, note: '' });
    expect(answer.body.difference).toBeCloseTo(-2.5, 9);
    const lead = (await server.call('GET', '/api/materials')).body.find(
      (each: { id: string }) => each.id === things.leadId,
    );
    expect(lead.quantity).toBe(20);
    // 2.5 of 22.5 kg at 250 a kg, to the cent.
    expect(Math.abs(lead.valueMinor - 5000)).toBeLessThanOrEqual(1);
  });
});

describe('what is no longer wanted', () => {
  test('is put away where nothing is in work with it, is planned with no more, and comes back', async () => {
    const server = await testServer();
    const things = await smallWorkshop(server);
    const { call } = server;
    const away = (kind: string, id: string, archived: boolean) => call('POST', '/api/put-away', { kind, id, archived });
    const named = async (path: string, id: string) =>
      (await call('GET', `/api/${path}`)).body.find((each: { id: string }) => each.id === id);
    const product = things.productIds[0]!;
    const line = { customer: 'Stall', dueOn: null, note: '', lines: [{ productId: product, quantity: 5 }] };
    const order = (await call('POST', '/api/orders', line)).body;
    const refused = await away('products', product, true);
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toMatch(new RegExp(`This product is in work: .*order ${order.number}`));
    expect((await call('DELETE', `/api/orders/${order.id}`)).status).toBe(204);
    expect((await named('molds', things.moldId)).archived).toBeFalsy();
    expect((await away('molds', things.moldId, true)).status).toBe(204);
    expect((await named('molds', things.moldId)).archived).toBe(true);
    const again = (await call('POST', '/api/orders', line)).body;
    const problems = async () => (await call('GET', `/api/orders/${again.id}/plan`)).body.plan.problems;
    expect(await problems()).toHaveLength(1);
    expect((await away('molds', things.moldId, false)).status).toBe(204);
    expect(await problems()).toEqual([]);
    expect((await away('materials', things.hookIds[0]!, true)).body.detail).toMatch(
      /This material is in work: product/,
    );
    expect((await away('molds', product, true)).status).toBe(404);
    expect((await call('POST', '/api/put-away', { kind: 'orders', id: again.id, archived: true })).body.detail).toMatch(
      /kind is "?orders"?; allowed: materials, molds, products/,
    );
    await server.stop();
  });
});
