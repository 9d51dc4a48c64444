import { randomUUID } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { makeLog } from '../server.ts';
import { smallWorkshop, temporaryFolder, testServer, type TestServer } from '../test/server.ts';

let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeEach(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterEach(() => server.stop());

const order = async (lines: { productId: string; quantity: number }[]) =>
  (await server.call('POST', '/api/orders', { customer: 'Stall', dueOn: null, note: '', lines })).body.id as string;
const released = async (id: string) =>
  (await server.call('POST', `/api/orders/${id}/release`, {})).body as { id: string; number: number }[];
const startPour = (ticketIds: string[], more = {}) =>
  server.call('POST', '/api/pours', { moldIds: [things.moldId], atOnce: 1, potId: things.potId, ticketIds, ...more });
let at = Date.UTC(2026, 0, 10, 18);
const say = (pour: string, said: Record<string, unknown>) => {
  const entry = { id: randomUUID(), at: (at += 60_000), ...said };
  return server.call('POST', `/api/pours/${pour}/entries`, entry).then((answer) => ({ ...answer, entry }));
};

describe('things of the workshop', () => {
  test.each([
    ['pots', { name: 'Second pot', capacityKg: 4, powerW: 500, lossWPerK: 0.4 }, { powerW: 550 }],
    ['ovens', { name: 'Small oven', places: 20, powerW: 900, lagS: 120 }, { places: 24 }],
    ['bake-programs', { name: 'Slow', setC: 150, seconds: 3000, preheated: false }, { preheated: true }],
  ])('%s are made, read, changed and removed', async (path, body, change) => {
    const made = await server.call('POST', `/api/${path}`, body);
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({ ...body, version: 1 });
    const { id } = made.body;
    const changed = await server.call('PUT', `/api/${path}/${id}`, { ...body, ...change, version: 1 });
    expect(changed.body).toMatchObject({ ...change, version: 2 });
    expect((await server.call('GET', `/api/${path}/${id}`)).body).toMatchObject(change);
    expect((await server.call('DELETE', `/api/${path}/${id}`)).status).toBe(204);
    expect((await server.call('GET', `/api/${path}/${id}`)).status).toBe(404);
    expect((await server.call('PUT', `/api/${path}/${id}`, { ...body, version: 2 })).status).toBe(404);
  });

  test('a mold keeps its cavities, and their records, when it is changed', async () => {
    const [mold] = (await server.call('GET', '/api/molds')).body;
    const ids = mold.cavities.map((cavity: { id: string }) => cavity.id);
    const cavities = mold.cavities.map(
      ({
        id: _id,
        good: _good,
        casts: _casts,
        rejects: _r,
        shotsSinceSmoked: _s,
        everSmoked: _e,
        tried: _t,
        ...cavity
      }: Record<string, unknown>) => cavity,
    );
    cavities[3].condition = 'blocked';
    const changed = await server.call('PUT', `/api/molds/${mold.id}`, {
      name: 'Five, one blocked',
      bodyKg: 0.55,
      cavities,
      version: 1,
    });
    expect(changed.body.cavities.map((cavity: { id: string }) => cavity.id)).toEqual(ids);
    expect(changed.body.cavities[3].condition).toBe('blocked');
    const fewer = await server.call('PUT', `/api/molds/${mold.id}`, {
      name: 'Three',
      bodyKg: 0.55,
      cavities: cavities.slice(0, 3),
      version: 2,
    });
    expect(fewer.body.cavities).toHaveLength(3);
  });

  test('a recipe in use, a powder in use and a hook in use are not removed', async () => {
    for (const [path, id] of [
      ['recipes', things.recipeId],
      ['materials', things.powderId],
      ['materials', things.hookIds[0]],
      ['molds', things.moldId],
    ] as const) {
      const answer = await server.call('DELETE', `/api/${path}/${id}`);
      if (path === 'molds') expect(answer.status).toBe(204);
      else expect([path, answer.status]).toEqual([path, 422]);
    }
  });

  test('a product that names a hook which is not there is refused', async () => {
    const body = {
      name: 'Ghost',
      style: 'ball',
      nominalMassKg: 0.01,
      hookId: randomUUID(),
      recipeId: null,
      bakeProgramId: null,
      priceMinor: null,
    };
    const answer = await server.call('POST', '/api/products', body);
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toMatch(/hookId is .*; allowed: the id of a part on record/);
  });
});

describe('orders', () => {
  test('are numbered, changed while open, and fixed once released', async () => {
    const first = await order([{ productId: things.productIds[0]!, quantity: 5 }]);
    const second = await order([{ productId: things.productIds[1]!, quantity: 5 }]);
    const read = async (id: string) => (await server.call('GET', `/api/orders/${id}`)).body;
    expect([(await read(first)).number, (await read(second)).number]).toEqual([1, 2]);
    const body = {
      customer: 'Kiosk',
      dueOn: '2026-04-01',
      note: 'n',
      lines: [{ productId: things.productIds[0], quantity: 7 }],
    };
    expect((await server.call('PUT', `/api/orders/${first}`, { ...body, version: 1 })).body.lines[0].quantity).toBe(7);
    const [ticket] = await released(first);
    expect(ticket).toMatchObject({ number: 101 });
    const late = await server.call('PUT', `/api/orders/${first}`, { ...body, version: 3 });
    expect(late.status).toBe(422);
    expect(late.body.detail).toMatch(/is released/);
    expect((await server.call('DELETE', `/api/orders/${first}`)).status).toBe(422);
    expect((await server.call('DELETE', `/api/orders/${second}`)).status).toBe(204);
  });

  test('two releases at the same time make one set of tickets', async () => {
    const id = await order([{ productId: things.productIds[0]!, quantity: 5 }]);
    const answers = await Promise.all([1, 2, 3].map(() => server.call('POST', `/api/orders/${id}/release`, {})));
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    expect((await server.call('GET', '/api/tickets')).body).toHaveLength(1);
  });
});

describe('pours', () => {
  test('a ticket is in one open pour at a time; what is still wanted is poured another evening', async () => {
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 6 }]));
    const first = (await startPour([ticket!.id])).body;
    expect((await startPour([ticket!.id])).body.detail).toMatch(/in another pour that is still open/);
    await say(first.id, { kind: 'charge', massKg: 1, potC: 20 });
    await say(first.id, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    await say(first.id, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.97 });
    const second = (await startPour([ticket!.id])).body;
    // Three are missing; one more is cast, because trim to finish may spoil one of them.
    expect(second.setup.needs).toEqual({ [ticket!.id]: 4 });
    await say(second.id, { kind: 'charge', massKg: 1, potC: 20 });
    await say(second.id, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    await say(second.id, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.97 });
    const read = (await server.call('GET', `/api/tickets/${ticket!.id}`)).body;
    expect(read).toMatchObject({ poured: 6, pourClosed: true });
    expect((await startPour([ticket!.id])).body.detail).toMatch(/has all its heads/);
  });

  // Found from outside: tyre weights could never be poured.
  test('what is poured is chosen: lighter heads off its own shelf, and the same metal again for the same ticket', async () => {
    const hard = { kind: 'lead', name: 'Tyre weights', note: '', metalId: 'tyre-weight', hook: null, powder: null };
    const hardId = (await server.call('POST', '/api/materials', hard)).body.id;
    await server.call('POST', `/api/materials/${hardId}/receipts`, {
      ...{ quantity: 10, priceMinor: 1500, on: '2026-01-05', lot: '' },
    });
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 6 }]));
    expect((await startPour([ticket!.id], { leadId: things.hookIds[0] })).body.detail).toMatch(/which is no lead/);
    expect((await startPour([ticket!.id], { leadId: randomUUID() })).status).toBe(404);
    const pour = (await startPour([ticket!.id], { leadId: hardId })).body;
    const [{ leadKg }] = pour.setup.loads;
    // 3 % antimony, half a per cent of tin, mixed ideally and shrunk from 252 C: 0.977 to 0.983 of soft lead (densities
    // of the CRC Handbook, memory).
    expect(leadKg / 0.01).toBeGreaterThan(0.976);
    expect(leadKg / 0.01).toBeLessThan(0.984);
    await say(pour.id, { kind: 'charge', massKg: 1, potC: 20 });
    await say(pour.id, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    await say(pour.id, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 1 - 3 * leadKg });
    const shelf = (await server.call('GET', '/api/materials')).body as { id: string; quantity: number }[];
    const kg = (id: string) => shelf.find((each) => each.id === id)!.quantity;
    expect(kg(hardId)).toBeCloseTo(10 - 3 * leadKg, 6);
    expect(kg(things.leadId)).toBe(20);
    expect((await startPour([ticket!.id])).body.detail).toMatch(/was begun in another metal/);
    expect((await startPour([ticket!.id], { leadId: hardId })).status).toBe(201);
  });

  test('what cannot be said is refused: closed pours, unknown shots, nothing charged', async () => {
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 3 }]));
    const { id } = (await startPour([ticket!.id])).body;
    const close = { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 };
    expect((await say(id, close)).body.detail).toMatch(/Nothing was charged/);
    await say(id, { kind: 'charge', massKg: 1, potC: 20 });
    expect(
      (await say(id, { kind: 'reject', shotId: randomUUID(), position: 1, cause: 'short', goes: 'melt' })).body.detail,
    ).toMatch(/was not filled/);
    expect((await say(id, { kind: 'undo', target: randomUUID() })).body.detail).toMatch(/no such entry/);
    await say(id, close);
    expect((await say(id, { kind: 'shot', moldId: things.moldId, positions: [1] })).body.detail).toMatch(/is closed/);
    expect(
      (
        await server.call('POST', `/api/pours/${randomUUID()}/entries`, {
          id: randomUUID(),
          at: 1,
          kind: 'blank',
          moldId: things.moldId,
        })
      ).status,
    ).toBe(404);
    expect(
      (
        await server.call('POST', '/api/pours', {
          moldIds: [randomUUID()],
          atOnce: 1,
          potId: things.potId,
          ticketIds: [ticket!.id],
        })
      ).status,
    ).toBe(404);
    expect((await startPour([randomUUID()])).status).toBe(404);
  });

  test('cavities keep a record, the mold its shots since smoking, the lead its way through the pot', async () => {
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 9 }]));
    const { id } = (await startPour([ticket!.id])).body;
    await say(id, { kind: 'charge', massKg: 1.5, potC: 20 });
    await say(id, { kind: 'blank', moldId: things.moldId });
    const { entry } = await say(id, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    await say(id, { kind: 'reject', shotId: entry.id, position: 2, cause: 'flash', goes: 'melt' });
    const mold = async () => (await server.call('GET', '/api/molds')).body[0];
    const lead = async () =>
      (await server.call('GET', '/api/materials')).body.find((each: { id: string }) => each.id === things.leadId);
    expect(
      (await mold()).cavities.map((cavity: { good: number; casts: number }) => [cavity.good, cavity.casts]),
    ).toEqual([
      [1, 1],
      [0, 1],
      [1, 1],
      [0, 0],
      [0, 0],
    ]);
    expect((await mold()).shotsSinceSmoked).toBe(2);
    expect(await lead()).toMatchObject({ quantity: 20, inPotKg: 1.5 });
    await say(id, { kind: 'smoked', moldId: things.moldId });
    await say(id, { kind: 'shot', moldId: things.moldId, positions: [1] });
    expect((await mold()).shotsSinceSmoked).toBe(1);
    await say(id, { kind: 'close', sprueBackKg: 0.1, rejectsBackKg: 0.01, drossKg: 0.02, heelKg: 1.3 });
    const after = await lead();
    expect(after.inPotKg).toBe(0);
    // 3 heads of 10 g, 20 g of dross, and 40 g that nobody can explain.
    expect(20 - after.quantity).toBeCloseTo(0.03 + 0.02 + 0.04, 9);
    const flows = (await server.call('GET', `/api/materials/${things.leadId}/flows`)).body;
    expect(flows.find((flow: { reason: string }) => flow.reason === 'unexplained').quantity).toBeCloseTo(-0.04, 9);
  });

  test('records change the next plan: a cavity that gave shorts wants more casts', async () => {
    const id = await order([{ productId: things.productIds[0]!, quantity: 30 }]);
    const casts = async () =>
      (await server.call('GET', `/api/orders/${id}/plan`)).body.plan.lines[0].casts.value as number;
    const before = await casts();
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 60 }]));
    const pour = (await startPour([ticket!.id])).body;
    await say(pour.id, { kind: 'charge', massKg: 2, potC: 20 });
    for (let i = 0; i < 15; i++) {
      const { entry } = await say(pour.id, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
      await say(pour.id, { kind: 'reject', shotId: entry.id, position: 1, cause: 'short', goes: 'melt' });
    }
    expect(await casts()).toBeGreaterThan(before);
  });
});

describe('what is known reaches the plan', () => {
  test('a hook that clicked in every cavity is planned and poured; one that thudded is not', async () => {
    const large = (
      await server.call('POST', '/api/materials', {
        kind: 'hook',
        name: 'A size up',
        note: '',
        metalId: null,
        powder: null,
        hook: { size: '4/0', wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' },
      })
    ).body.id as string;
    const ten = (await server.call('GET', '/api/products')).body.find(
      (each: { id: string }) => each.id === things.productIds[0],
    );
    const { id, ...rest } = ten;
    await server.call('PUT', `/api/products/${id}`, { ...rest, hookId: large });
    const wanted = await order([{ productId: id, quantity: 12 }]);
    const plan = () => server.call('GET', `/api/orders/${wanted}/plan`);
    expect(JSON.stringify((await plan()).body)).toMatch(/Hook 4\/0 does not fit/);
    const [mold] = (await server.call('GET', '/api/molds')).body;
    const tried = (cavityId: string, sound: string) =>
      server.call('POST', '/api/records', {
        kind: 'trial',
        thingId: mold.id,
        at: Date.now(),
        cavityId,
        hookId: large,
        prepared: 'as it is',
        sound,
        seamFlush: true,
        note: '',
      });
    for (const cavity of mold.cavities) expect((await tried(cavity.id, 'click')).status).toBeLessThan(300);
    const after = await plan();
    expect(after.body.plan.lines[0].casts.value).toBeGreaterThanOrEqual(12);
    const [ticket] = await released(wanted);
    expect((await startPour([ticket!.id])).status).toBe(201);
    for (const cavity of mold.cavities) await tried(cavity.id, 'thud');
    const [seen] = (await server.call('GET', '/api/molds')).body;
    expect(seen.cavities.map((cavity: { tried: object }) => cavity.tried)).toEqual(
      mold.cavities.map(() => ({ [large]: false })),
    );
  });
  test('seconds under the maker’s own gun change the minutes of the plan', async () => {
    const wanted = await order([{ productId: things.productIds[0]!, quantity: 60 }]);
    const work = async () =>
      (await server.call('GET', `/api/orders/${wanted}/plan`)).body.plan.lines[0].workS as number;
    const before = await work();
    for (let count = 0; count < 6; count++) {
      const heating = { kind: 'heating', thingId: things.productIds[0], at: Date.now(), tool: 'heat gun', seconds: 40 };
      expect((await server.call('POST', '/api/records', heating)).status).toBeLessThan(300);
    }
    expect(await work()).toBeGreaterThan(before + 10);
  });
  test('pours are listed without logs, a page before a number; whole ones of a mold', async () => {
    const numbers: number[] = [];
    for (let i = 0; i < 3; i++) {
      const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 12 }]));
      numbers.push((await startPour([ticket!.id])).body.number);
    }
    const list = (await server.call('GET', '/api/pours')).body;
    expect(list.map((pour: { number: number }) => pour.number)).toEqual([...numbers].reverse());
    expect(Object.keys(list[0]).sort()).toEqual(['closed', 'id', 'moldIds', 'number', 'startedAt']);
    expect((await server.call('GET', `/api/pours?before=${numbers[1]}`)).body).toHaveLength(1);
    expect((await server.call('GET', `/api/pours/whole?mold=${things.moldId}`)).body[0].log).toEqual([]);
  });
  test('a session is shown again by what was known when it began', async () => {
    const [ticket] = await released(await order([{ productId: things.productIds[0]!, quantity: 12 }]));
    const pour = (await startPour([ticket!.id])).body;
    const {
      dataFolder: _folder,
      passwordSet: _password,
      sessions: _open,
      ways,
      ...settings
    } = (await server.call('GET', '/api/settings')).body;
    const changed = { ...settings, ways: { ...ways, pourC: ways.pourC + 30, roomC: 5 } };
    expect((await server.call('PUT', '/api/settings', changed)).status).toBe(200);
    const then = (await server.call('GET', `/api/pours/${pour.id}`)).body.knownThen;
    expect(then).toMatchObject({ pourC: ways.pourC, roomC: ways.roomC });
  });
  test('a powder label with its two times swapped is refused by name, and nothing is stored', async () => {
    const label = [
      { metalC: 177, seconds: 600 },
      { metalC: 200, seconds: 1200 },
    ];
    const powder = { colour: '#112233', gloss: 'gloss', specificGravity: 1.5, label };
    const refused = await server.call('POST', '/api/materials', {
      kind: 'powder',
      name: 'Swapped',
      note: '',
      metalId: null,
      hook: null,
      powder,
    });
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toMatch(/activation energy from the label/);
    const names = (await server.call('GET', '/api/materials')).body.map((each: { name: string }) => each.name);
    expect(names).not.toContain('Swapped');
  });
});

describe('the server itself', () => {
  test('serves the built application, its pages by any path, its files for a year, and no file outside', async () => {
    const folder = temporaryFolder();
    mkdirSync(join(folder, 'assets'));
    writeFileSync(join(folder, 'index.html'), '<title>Schmelz</title>');
    writeFileSync(join(folder, 'assets', 'app-1.js'), '1');
    const other = await testServer({ SCHMELZ_WEB: folder });
    for (const path of ['/', '/orders', '/pour/123']) {
      const page = await other.call('GET', path);
      expect([page.status, page.body, page.headers.get('cache-control')]).toEqual([
        200,
        '<title>Schmelz</title>',
        'no-cache',
      ]);
    }
    const asset = await other.call('GET', '/assets/app-1.js');
    expect(asset.headers.get('cache-control')).toMatch(/max-age=31536000, ?immutable/);
    expect((await other.call('GET', '/assets/gone.js')).status).toBe(404);
    expect((await other.call('GET', '/..%2f..%2fetc%2fpasswd')).body).not.toContain('root:');
    expect((await other.call('PATCH', '/api/pots')).status).toBe(405);
    await other.stop();
  });

  test('log lines name what was asked for, and carry no secret', () => {
    const lines: string[] = [];
    const stream = new Writable({ write: (chunk, _encoding, done) => (lines.push(String(chunk)), done()) });
    const log = makeLog('info', stream);
    log.info({ body: { password: 'lead and tin' }, session: { cookie: 'schmelz-session=abc' } });
    expect(lines.join()).not.toMatch(/lead and tin|abc/);
    expect(lines).toHaveLength(1);
  });
});
