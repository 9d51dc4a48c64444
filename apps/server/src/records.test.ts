import { randomUUID } from 'node:crypto';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());
const post = (path: string, body: unknown = {}) => server.call('POST', path, body);
const get = async (path: string) => (await server.call('GET', path)).body;
const material = async (id: string) => (await get('/api/materials')).find((each: { id: string }) => each.id === id);
const csv = (text: string, query = '') =>
  server.call('POST', `/api/materials/import${query}`, text, { 'content-type': 'text/csv' });

describe('cavities keep their identity', () => {
  test('the record of a cavity goes with it when another is removed, added or moved', async () => {
    const cavity = (position: number, grams: number) => ({
      position,
      style: 'ball',
      nominalMassKg: grams / 1000,
      hookSize: '2/0',
      eyeAngleDeg: 60,
      condition: 'good',
    });
    const made = (
      await post('/api/molds', { name: 'Three', bodyKg: 0.4, cavities: [5, 6, 7].map((g, i) => cavity(i + 1, g)) })
    ).body;
    const [one, two, three] = made.cavities as { id: string; nominalMassKg: number }[];
    const write = async (cavities: unknown[], version: number) =>
      server.call('PUT', `/api/molds/${made.id}`, { name: 'Three', bodyKg: 0.4, cavities, version });
    const removed = await write(
      [
        { ...cavity(1, 6), id: two!.id },
        { ...cavity(2, 7), id: three!.id },
      ],
      1,
    );
    expect(removed.body.cavities.map((each: { id: string }) => each.id)).toEqual([two!.id, three!.id]);
    const turned = await write([{ ...cavity(1, 7), id: three!.id }, { ...cavity(2, 6), id: two!.id }, cavity(3, 9)], 2);
    const ids = turned.body.cavities.map((each: { id: string }) => each.id) as string[];
    expect(ids.slice(0, 2)).toEqual([three!.id, two!.id]);
    expect([one!.id, two!.id, three!.id]).not.toContain(ids[2]);
    const foreign = await write([{ ...cavity(1, 7), id: one!.id }], 3);
    expect([foreign.status, foreign.body.detail]).toEqual([
      422,
      expect.stringMatching(/cavities\[0\]\.id is .*of this mold/),
    ]);
    expect(
      (
        await write(
          [1, 2].map((n) => ({ ...cavity(n, 7), id: two!.id })),
          3,
        )
      ).body.detail,
    ).toMatch(/each cavity once/);
  });
});

describe('references', () => {
  const product = (more: object) => ({
    name: `P ${randomUUID().slice(0, 8)}`,
    style: 'ball',
    nominalMassKg: 0.01,
    hookId: things.hookIds[0],
    recipeId: things.recipeId,
    bakeProgramId: things.bakeProgramId,
    priceMinor: 100,
    ...more,
  });
  const nothing = randomUUID();

  test('of another kind, or of nothing, are refused by their field', async () => {
    const layer = (powderId: string) => ({
      name: 'R',
      eyeColour: null,
      layers: [{ powderId, zone: 'whole', coats: 1 }],
    });
    const mixed = {
      name: 'Mixed',
      eyeColour: null,
      layers: [{ powderId: things.powderId, zone: 'whole', coats: 1, mix: { powderId: things.leadId, share: 0.5 } }],
    };
    const order = { customer: 'A', dueOn: null, note: '', lines: [{ productId: nothing, quantity: 1 }] };
    const cases: [string, object, RegExp][] = [
      ['/api/recipes', layer(things.hookIds[0]!), /layers\[0\]\.powderId is a hook; allowed: a powder/],
      ['/api/recipes', layer(nothing), /layers\[0\]\.powderId is .*; allowed: the id of a part on record/],
      ['/api/recipes', mixed, /layers\[0\]\.mix\.powderId is a lead/],
      ['/api/products', product({ recipeId: nothing }), /recipeId is .*; allowed: the id of a recipe on record/],
      ['/api/products', product({ bakeProgramId: nothing }), /bakeProgramId is .*a bake program on record/],
      ['/api/products', product({ hookId: things.powderId }), /hookId is a powder; allowed: a hook/],
      ['/api/orders', order, /lines\[0\]\.productId is .*; allowed: the id of a product on record/],
    ];
    for (const [path, body, words] of cases) {
      const { status, body: answer } = await post(path, body);
      expect([path, status, answer.detail]).toEqual([path, 422, expect.stringMatching(words)]);
    }
  });

  test('what is used cannot be deleted, nor become something else', async () => {
    const part = (
      await post('/api/materials', {
        kind: 'swivel',
        name: 'Swivel',
        note: '',
        metalId: null,
        hook: null,
        powder: null,
      })
    ).body;
    const parts = [{ partId: part.id, quantity: 1, waste: 0, step: 'finish' }];
    expect((await post('/api/products', product({ name: 'With swivel', parts }))).status).toBe(201);
    const gone = async (path: string) => (await server.call('DELETE', path)).body?.detail;
    expect(await gone(`/api/materials/${part.id}`)).toBe('This material is used by product With swivel.');
    expect(await gone(`/api/recipes/${things.recipeId}`)).toMatch(/is used by product/);
    expect(await gone(`/api/bake-programs/${things.bakeProgramId}`)).toMatch(/is used by product/);
    expect(await gone(`/api/materials/${things.powderId}`)).toMatch(/is used by recipe White/);
    const {
      id: _id,
      quantity: _q,
      valueMinor: _v,
      averageMinor: _a,
      inPotKg: _p,
      ...own
    } = await material(things.powderId);
    const turned = { ...own, kind: 'swivel', powder: null };
    expect((await server.call('PUT', `/api/materials/${things.powderId}`, turned)).body.detail).toMatch(
      /kind is swivel; allowed: powder, as it is: it is used by recipe White/,
    );
  });
});

test('days are days', async () => {
  const on = async (day: string) =>
    post(`/api/materials/${things.leadId}/receipts`, { quantity: 1, priceMinor: 1, on: day, lot: '' });
  for (const day of ['2026-02-30', '2026-13-01', '2025-02-29', '2026-00-10']) {
    const { status, body } = await on(day);
    expect([day, status, body.detail]).toEqual([
      day,
      422,
      `on is ${JSON.stringify(day)}; allowed: a day as 2026-05-31`,
    ]);
  }
  expect((await on('2028-02-29')).status).toBe(204);
});

describe('purchases and counts', () => {
  test('sent twice they count once', async () => {
    const before = (await material(things.hookIds[0]!)).quantity;
    const receipt = { id: randomUUID(), quantity: 50, priceMinor: 900, on: '2026-03-01', lot: 'B7' };
    const path = `/api/materials/${things.hookIds[0]}`;
    const answers = await Promise.all([1, 2, 3].map(() => post(`${path}/receipts`, receipt)));
    expect(answers.map(({ status }) => status)).toEqual([204, 204, 204]);
    expect((await material(things.hookIds[0]!)).quantity).toBe(before + 50);
    const count = { id: randomUUID(), quantity: 120, note: '' };
    expect((await post(`${path}/counts`, count)).body.difference).toBe(120 - before - 50);
    expect((await post(`${path}/counts`, count)).body.difference).toBe(0);
  });

  test('can be struck out; then all sums are as if they had not been, and the row stays in sight', async () => {
    const id = things.hookIds[1]!;
    const before = await material(id);
    await post(`/api/materials/${id}/receipts`, { quantity: 30, priceMinor: 777, on: '2026-03-02', lot: 'wrong box' });
    await post(`/api/materials/${id}/counts`, { quantity: 60, note: '' });
    const moves = await get(`/api/materials/${id}/moves`);
    for (const reason of ['counted', 'received']) {
      const move = moves.find((each: { reason: string; struck: boolean }) => each.reason === reason && !each.struck);
      expect((await post(`/api/moves/${move.id}/strike`)).status).toBe(204);
      expect((await post(`/api/moves/${move.id}/strike`)).body.detail).toBe('This is struck out already.');
    }
    expect(await material(id)).toEqual(before);
    const lots = await get(`/api/materials/${id}/lots`);
    expect(lots.map((lot: { lot: string }) => lot.lot)).not.toContain('wrong box');
    const after = await get(`/api/materials/${id}/moves`);
    expect(after.filter((each: { struck: boolean }) => each.struck)).toHaveLength(4);
    const against = after.find((each: { reason: string }) => each.reason === 'struck out');
    expect((await post(`/api/moves/${against.id}/strike`)).body.detail).toMatch(/Only purchases and counts/);
    expect((await post('/api/moves/99999/strike')).status).toBe(404);
  });

  test('a lot of lead goes with its metal, and its name is free again', async () => {
    const lot = {
      materialId: things.leadId,
      label: 'Sinkers',
      source: 'bought ingots',
      on: '2026-03-03',
      grossKg: 4,
      priceMinor: 800,
      brinell: null,
      note: '',
    };
    const before = await material(things.leadId);
    const made = (await post('/api/lead-lots', lot)).body;
    const [move] = await get(`/api/materials/${things.leadId}/moves`);
    expect((await post(`/api/moves/${move.id}/strike`)).body.detail).toBe('This is lot Sinkers: strike the lot out.');
    expect((await post(`/api/lead-lots/${made.id}/strike`)).status).toBe(204);
    expect(await material(things.leadId)).toEqual(before);
    expect((await get('/api/lead-lots')).map((each: { label: string }) => each.label)).not.toContain('Sinkers');
    // Made anew under its name, it can be struck out once more; a purchase of another part is not taken for it.
    const again = await post('/api/lead-lots', lot);
    expect(again.status).toBe(201);
    await post(`/api/materials/${things.powderId}/receipts`, {
      quantity: 0.1,
      priceMinor: 500,
      on: '2026-03-04',
      lot: lot.label,
    });
    const [other] = await get(`/api/materials/${things.powderId}/moves`);
    expect((await post(`/api/moves/${other.id}/strike`)).status).toBe(204);
    expect((await post(`/api/lead-lots/${again.body.id}/strike`)).status).toBe(204);
    expect(await material(things.leadId)).toEqual(before);
  });
});

describe('imports', () => {
  const list = 'material,quantity,price,on,lot\r\nLead,"12,5",31.20,2026-03-14,keel\nHook 2/0,100,"17,90",2026-03-14,';

  test('are shown before they are taken, with commas read; the same file is noticed; and can be undone', async () => {
    const before = [await material(things.leadId), await material(things.hookIds[0]!)];
    const looked = await csv(list, '?look=true');
    expect(looked.body).toMatchObject({
      id: null,
      takenAt: null,
      purchases: [
        { line: 2, material: 'Lead', quantity: 12.5, priceMinor: 3120, lot: 'keel' },
        { line: 3, material: 'Hook 2/0', quantity: 100, priceMinor: 1790 },
      ],
    });
    expect(await material(things.leadId)).toEqual(before[0]);
    const taken = await csv(list);
    expect((await material(things.leadId)).quantity).toBeCloseTo(before[0].quantity + 12.5, 9);
    const same = await csv(list.replaceAll('\r\n', '\n'));
    expect([same.status, same.body.detail]).toEqual([
      409,
      expect.stringMatching(/^The same file was taken on 20\d\d-/),
    ]);
    expect((await csv(list, '?look=true')).body.takenAt).toBeGreaterThan(0);
    const again = await csv(list, '?again=true');
    expect(again.status).toBe(200);
    const imports = await get('/api/imports');
    expect(imports.slice(0, 2)).toMatchObject([
      { id: again.body.id, entries: 2, struck: false },
      { id: taken.body.id },
    ]);
    for (const { id } of [again.body, taken.body]) expect((await post(`/api/imports/${id}/strike`)).status).toBe(204);
    expect((await post(`/api/imports/${taken.body.id}/strike`)).body.detail).toBe('This import is undone already.');
    expect([await material(things.leadId), await material(things.hookIds[0]!)]).toEqual(before);
    expect((await csv(list)).status).toBe(200);
  });

  test.each([
    ['a quantity in words', 'Lead,a dozen,3,2026-03-14,', /Line 2: quantity is "a dozen"; allowed: a number of kg/],
    ['two commas', 'Lead,"1,2,3",3,2026-03-14,', /quantity is "1,2,3"/],
    ['no sum', 'Lead,1,,2026-03-14,', /price is ""; allowed: a sum/],
    ['a day that is none', 'Lead,1,3,2026-02-30,', /on is "2026-02-30"/],
  ])('%s is quoted as it was written', async (_what, row, words) => {
    const { status, body } = await csv(`material,quantity,price,on,lot\n${row}`);
    expect([status, body.detail]).toEqual([422, expect.stringMatching(words)]);
  });

  test('columns named alike, or like what every object has, are refused', async () => {
    expect((await csv('material,material,quantity,price,on\nLead,Lead,1,2,2026-01-01')).body.detail).toMatch(
      /Two columns are named "material"/,
    );
    expect((await csv('material,__proto__,quantity,price,on\nLead,x,1,2,2026-01-01')).body.detail).toMatch(
      /named "__proto__"/,
    );
    const mapping = encodeURIComponent(
      JSON.stringify({
        name: 'L',
        timeColumn: 't',
        timeIs: 'seconds',
        startAt: 0,
        columns: [{ column: 'a', place: 'oven', unit: 'C' }],
      }),
    );
    const log = await server.call('POST', `/api/readings/import?mapping=${mapping}`, 't,a,a\n0,20,30', {
      'content-type': 'text/csv',
    });
    expect([log.status, log.body.detail]).toEqual([422, expect.stringMatching(/Two columns are named "a"/)]);
  });

  test('a log is noticed when it comes twice, and struck out with its name free again', async () => {
    const mapping = (name: string) =>
      encodeURIComponent(
        JSON.stringify({
          name,
          timeColumn: 't',
          timeIs: 'seconds',
          startAt: 1.7e12,
          columns: [{ column: 'oven', place: 'oven', unit: 'C' }],
        }),
      );
    const text = `t,oven\n${Array.from({ length: 20 }, (_, i) => `${i * 10},${20 + i}`).join('\n')}`;
    const send = (name: string, more = '') =>
      server.call('POST', `/api/readings/import?mapping=${mapping(name)}${more}`, text, { 'content-type': 'text/csv' });
    const first = await send('Sunday');
    expect(first.status).toBe(201);
    expect((await send('Monday')).body.detail).toMatch(/taken on .* as Sunday/);
    expect((await send('Monday', '&again=true')).status).toBe(201);
    const channel = first.body.channels[0].id as number;
    expect((await post(`/api/channels/${channel}/strike`)).status).toBe(204);
    expect((await get('/api/channels')).map((each: { source: string }) => each.source)).toEqual(['Monday']);
    expect((await post(`/api/channels/${channel}/strike`)).body.detail).toMatch(/struck out already/);
    expect((await send('Sunday', '&again=true')).status).toBe(201);
  });

  test('what a spreadsheet would run is kept as text in every CSV', async () => {
    await post(`/api/materials/${things.leadId}/receipts`, {
      quantity: 1,
      priceMinor: 1,
      on: '2026-01-06',
      lot: '=1+1',
    });
    await post(`/api/materials/${things.leadId}/receipts`, {
      quantity: 1,
      priceMinor: 1,
      on: '2026-01-06',
      lot: '@cmd',
    });
    const text = (await server.call('GET', '/api/export/moves.csv')).body as string;
    expect(text).toContain("'=1+1");
    expect(text).toContain("'@cmd");
    expect(text).not.toMatch(/,[=@]/);
  });
});

test('everything as JSON has every table but those that are nobody else’s or are reckoned anew', async () => {
  const note = { kind: 'care', thingId: things.moldId, at: 1_790_000_000_000, what: 'smoked', positions: [], note: '' };
  expect((await post('/api/records', note)).status).toBe(201);
  const all = (await get('/api/export')) as Record<string, unknown[]>;
  const { models } = server.running.store;
  // Sessions open doors; figures are reckoned.
  const left = ['sessions', 'ticketFigures'];
  for (const table of Object.keys(models).filter((name) => !left.includes(name))) {
    expect([table, table in all]).toEqual([table, true]);
    const rows = await (models as unknown as Record<string, { count(): Promise<number> }>)[table]!.count();
    expect([table, all[table]!.length]).toEqual([table, rows]);
  }
  expect(all['records']!.length).toBeGreaterThan(0);
  expect(JSON.stringify(all['cavities'])).toContain('nominalMassKg');
});

test('metal that was bought and cast in one morning comes from its lot: an hour may be said, and none lies ahead', async () => {
  const server = await testServer();
  const { call } = server;
  const { leadId } = await smallWorkshop(server);
  const lots = async () => (await call('GET', '/api/lead-lots')).body as { label: string; leftKg: number }[];
  const lot = (label: string, time?: string) => ({
    ...{ materialId: leadId, label, source: 'bought ingots', on: '2026-02-03', grossKg: 5, priceMinor: 1000 },
    ...{ brinell: null, note: '', ...(time ? { time } : {}) },
  });
  expect((await call('POST', '/api/lead-lots', lot('noon'))).status).toBe(201);
  expect((await call('POST', '/api/lead-lots', lot('early', '07:15'))).status).toBe(201);
  expect((await call('POST', '/api/lead-lots', lot('odd', '25:00'))).body.detail).toMatch(/time is "25:00".*08:30/);
  const { body: moves } = await call('GET', `/api/materials/${leadId}/moves`);
  const at = (name: string) => moves.find((move: { lot: string }) => move.lot === name).at as number;
  expect(new Date(at('early')).getHours()).toBe(7);
  expect(at('noon') - at('early')).toBe((4 * 60 + 45) * 60_000);
  // What is written down as of today did not come in later than now.
  const on = new Date().toLocaleDateString('sv');
  const receipt = { quantity: 1, priceMinor: 200, on, time: '23:59', lot: 'today' };
  expect((await call('POST', `/api/materials/${leadId}/receipts`, receipt)).status).toBe(204);
  const { body: after } = await call('GET', `/api/materials/${leadId}/moves`);
  expect(after.find((move: { lot: string }) => move.lot === 'today').at).toBeLessThanOrEqual(Date.now());
  expect((await lots()).map(({ label }) => label)).toEqual(expect.arrayContaining(['early', 'noon']));
});
