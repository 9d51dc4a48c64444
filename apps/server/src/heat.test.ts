import { request as httpRequest } from 'node:http';
import { unpackReadings, castMassKg, onScale, typicalHook } from '@schmelz/core';
import { readLogger } from './devices/logger-client.ts';
import { startSimulatedLogger } from './devices/simulated-logger.ts';
import { makeLog } from './server.ts';
import {
  addReadings,
  channelId,
  makeFeed,
  rawReadings,
  readStretch,
  type LiveReading,
  type LiveWeight,
} from './services/readings.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());

const call: TestServer['call'] = (...args) => server.call(...args);

describe('lots of lead', () => {
  const lot = (more: Record<string, unknown>) => ({
    materialId: things.leadId,
    label: 'Keel pieces',
    source: 'scrap',
    on: '2026-02-01',
    grossKg: 10,
    priceMinor: 1000,
    brinell: null,
    note: '',
    ...more,
  });
  const leadKg = async () =>
    (await call('GET', '/api/materials')).body.find((each: { id: string }) => each.id === things.leadId).quantity;

  test('scrap is no metal to cast until it is melted down; what it cost goes with the clean kilograms', async () => {
    const before = await leadKg();
    const made = await call('POST', '/api/lead-lots', lot({}));
    expect(made.status).toBe(201);
    expect(await leadKg()).toBeCloseTo(before, 9);
    const path = `/api/lead-lots/${made.body.id}/clean`;
    const tooMuch = await call('POST', path, { version: 1, on: '2026-02-02', cleanKg: 11, ingots: 0 });
    expect(tooMuch.status).toBe(422);
    expect(tooMuch.body.detail).toMatch(/cleanKg is 11\u00a0kg; allowed: 0.01\u00a0kg to 10/);
    expect((await call('POST', path, { version: 1, on: '2026-02-02', cleanKg: 8.6, ingots: 19 })).status).toBe(200);
    expect(await leadKg()).toBeCloseTo(before + 8.6, 9);
    expect((await call('POST', path, { version: 1, on: '2026-02-02', cleanKg: 8, ingots: 0 })).status).toBe(409);
    expect((await call('POST', path, { version: 2, on: '2026-02-02', cleanKg: 8, ingots: 0 })).body.detail).toMatch(
      /clean already/,
    );
  });

  test('each lot says what is left of it and where it went, purchases of the shelf among them', async () => {
    await call('POST', '/api/lead-lots', lot({ label: 'Ingots March', source: 'bought ingots', on: '2026-03-01' }));
    const total = await leadKg();
    await call('POST', `/api/materials/${things.leadId}/counts`, { quantity: total - 25, note: 'weighed' });
    const { body } = await call('GET', '/api/lead-lots');
    const left = body.reduce((sum: number, each: { leftKg: number }) => sum + each.leftKg, 0);
    expect(left).toBeCloseTo(total - 25, 6);
    const [newest, scrap, first] = body;
    expect(newest).toMatchObject({ label: 'Ingots March', cleanKg: 10 });
    expect(scrap).toMatchObject({ label: 'Keel pieces', cleanKg: 8.6, ingots: 19, went: [{ reason: 'counted' }] });
    expect(first).toMatchObject({ leftKg: 0, version: 0 });
  });

  test('bad lots are refused by field, and nothing is booked', async () => {
    const before = await leadKg();
    for (const [bad, message] of [
      [lot({ label: 'Keel pieces' }), /label is "Keel pieces"; allowed: one that no other lot has/],
      [lot({ label: 'x', grossKg: -3 }), /grossKg is -3\u00a0kg; allowed: a number from 0.05\u00a0kg to 5000\u00a0kg/],
      [lot({ label: 'y', source: 'moon' }), /source is "moon"/],
      [lot({ label: 'z', materialId: things.hookIds[0] }), /There is no lead/],
    ] as const) {
      const answer = await call('POST', '/api/lead-lots', bad);
      expect(answer.status).toBeGreaterThanOrEqual(404);
      expect(answer.body.detail).toMatch(message);
    }
    expect(await leadKg()).toBe(before);
  });
});

describe('dated notes', () => {
  const at = Date.UTC(2026, 3, 1);
  const firstCavity = async () => (await call('GET', '/api/molds')).body[0].cavities[0];

  test('smoking one cavity starts its count anew and leaves the others', async () => {
    const care = (positions: number[]) => ({
      kind: 'care',
      thingId: things.moldId,
      at,
      what: 'smoked',
      positions,
      note: '',
    });
    const made = await call('POST', '/api/records', care([2]));
    expect(made.status).toBe(201);
    const cavities = (await call('GET', '/api/molds')).body[0].cavities as { position: number; everSmoked: boolean }[];
    expect(cavities.filter((each) => each.everSmoked).map((each) => each.position)).toEqual([2]);
    expect((await call('POST', `/api/records/${made.body.id}/strike`)).status).toBe(204);
    expect((await call('POST', `/api/records/${made.body.id}/strike`)).status).toBe(422);
    const after = (await call('GET', '/api/molds')).body[0].cavities as { everSmoked: boolean }[];
    expect(after.some((each) => each.everSmoked)).toBe(false);
    const kept = (await call('GET', `/api/records/care?thing=${things.moldId}`)).body;
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({ struck: true, what: 'smoked' });
  });

  test('a trial names a cavity of that mold and a hook; a dial pair a pot', async () => {
    const trial = {
      kind: 'trial',
      thingId: things.moldId,
      at,
      cavityId: (await firstCavity()).id,
      hookId: things.hookIds[1],
      prepared: 'as it is',
      sound: 'click',
      seamFlush: true,
      note: '',
    };
    expect((await call('POST', '/api/records', trial)).status).toBe(201);
    expect((await call('POST', '/api/records', { ...trial, hookId: things.leadId })).body.detail).toMatch(/no hook/);
    expect((await call('POST', '/api/records', { ...trial, cavityId: things.moldId })).body.detail).toMatch(
      /no cavity/,
    );
    const dial = { kind: 'dial', thingId: things.potId, at, dial: 7, temperatureC: 371, how: 'probe' };
    expect((await call('POST', '/api/records', dial)).status).toBe(201);
    expect((await call('POST', '/api/records', { ...dial, thingId: things.moldId })).status).toBe(404);
    expect((await call('POST', '/api/records', { ...dial, temperatureC: 2000 })).body.detail).toMatch(
      /temperatureC is 2000/,
    );
    expect((await call('POST', '/api/records', { ...dial, kind: 'dream' })).status).toBe(422);
    expect((await call('GET', '/api/records/dream')).status).toBe(404);
  });

  test('a mold keeps what is said of its cavities: pin, wire, variants, metal, schools', async () => {
    const { version, ...mold } = (await call('GET', `/api/molds/${things.moldId}`)).body;
    const variant = {
      name: 'No hole',
      pin: 'cut short',
      grooveFor: null,
      blocks: [2],
      keeper: false,
      wireGuards: 1,
      insert: 'none',
    };
    const cavities = mold.cavities.map(({ id: _id, ...cavity }: { id: string }) => cavity);
    cavities[0] = {
      ...cavities[0],
      pin: { diameterM: 0.003175, lengthM: 0.01 },
      wire: 'heavy',
      openBelow: true,
      variants: [variant],
    };
    const { name, bodyKg } = mold;
    const changed = await call('PUT', `/api/molds/${things.moldId}`, {
      version,
      name,
      bodyKg,
      metal: 'iron',
      sootSchool: 'five',
      cavities,
    });
    expect(changed.status).toBe(200);
    const [first, second] = (await call('GET', '/api/molds')).body[0].cavities;
    expect(first).toMatchObject({ wire: 'heavy', openBelow: true, variants: [variant], pin: { lengthM: 0.01 } });
    expect(second).toMatchObject({ wire: 'standard', openBelow: false, variants: [], pin: null });
  });

  test('parts that go round cannot be in more places than there are pieces', async () => {
    const part = {
      name: 'Pins 1/8',
      kind: 'base-hole pin',
      diameterM: 0.003175,
      owned: 12,
      places: [{ where: 'in heads', count: 8 }],
    };
    expect((await call('POST', '/api/parts', part)).status).toBe(201);
    const answer = await call('POST', '/api/parts', { ...part, name: 'More', places: [{ where: 'oven', count: 13 }] });
    expect(answer.body.detail).toMatch(/more pieces in its places than are owned/);
  });
});

describe('probe readings', () => {
  const store = () => server.running.store;
  test('come back as they went in, packed or not, and a chart keeps the peaks', async () => {
    const channel = await channelId(store(), 'test', 'pot');
    expect(await channelId(store(), 'test', 'pot')).toBe(channel);
    const readings = Array.from({ length: 5000 }, (_, i) => ({
      at: 1000 * i + 1,
      celsius: i === 2500 ? 480 : 370 + (i % 7) / 10,
    }));
    for (let i = 0; i < readings.length; i += 500) await addReadings(store(), channel, readings.slice(i, i + 500));
    expect(await rawReadings(store(), channel, 0, 1e12)).toEqual(readings);
    await addReadings(store(), channel, [readings[10]!, readings.at(-1)!]); // said twice, kept once
    const { points, count } = await readStretch(store(), { channel, from: 0, to: 5_000_000, points: 50 });
    expect(count).toBe(5000);
    expect(points.length).toBeLessThanOrEqual(51);
    expect(Math.max(...points.map((point) => point.highC))).toBe(480);
    const blocks = await store().select<{ data: Buffer; count: number }>(
      'SELECT data, count FROM readingBlocks WHERE channelId = :channel',
      { channel },
    );
    expect(blocks.length).toBeGreaterThan(2);
    for (const { data, count: held } of blocks) {
      expect(unpackReadings(data)).toHaveLength(held);
      expect(data.length / held).toBeLessThan(20);
    }
  });

  test("a logger's CSV is imported by its mapping: Fahrenheit, gaps; all or nothing", async () => {
    const mapping = {
      name: 'oven log',
      timeColumn: 'Time',
      timeIs: 'date and time',
      startAt: 0,
      columns: [{ column: 'Oven F', place: 'oven', unit: 'F' }],
    };
    const path = `/api/readings/import?mapping=${encodeURIComponent(JSON.stringify(mapping))}`;
    const csv = (rows: string[]) => ['Time,Oven F', ...rows].join('\n');
    const send = (body: string) => call('POST', path, body, { 'content-type': 'text/csv' });
    const bad = await send(csv(['2026-05-31 18:00:00,350', '2026-05-31 18:00:10,hot']));
    expect([bad.status, bad.body.detail]).toEqual([422, expect.stringMatching(/Oven F, row 3 is "hot"; allowed/)]);
    const good = await send(
      csv([
        '2026-05-31 18:00:00,350',
        '2026-05-31 18:00:10,',
        '2026-05-31 18:00:20,350',
        '2026-05-31 18:00:30,350',
        '2026-05-31 18:30:00,350.6',
      ]),
    );
    expect(good.body).toMatchObject({ rows: 5, empty: 1, channels: [{ place: 'oven', readings: 4 }] });
    expect(good.body.gaps).toHaveLength(1);
    expect((await send(csv(['2026-05-31 18:00:00,350']))).status).toBe(409);
    expect((await send('nonsense')).body.detail).toMatch(/There is no column "Time", "Oven F"/);
    const { body: channels } = await call('GET', '/api/channels');
    const oven = channels.find((each: { source: string }) => each.source === 'oven log');
    expect(oven).toMatchObject({ place: 'oven', count: 4 });
    expect(oven.lastC).toBeCloseTo(177, 1);
    expect((await call('GET', `/api/readings?channel=${oven.id}&points=0`)).body.detail).toMatch(/points is 0/);
    expect((await call('GET', '/api/readings?channel=99999')).status).toBe(404);
  });

  test('the simulated logger is read like a real one, stored, and streamed to a page', async () => {
    const logger = await startSimulatedLogger({ everyMs: 20, startS: 1000 });
    const feed = makeFeed();
    const seen: LiveReading[] = [];
    const arrived = new Promise<void>((resolve) => {
      feed.subscribe((readings) => {
        seen.push(...readings);
        if (new Set(seen.map((each) => each.place)).size === 3) resolve();
      });
    });
    const client = readLogger(
      { host: '127.0.0.1', port: logger.port, source: 'sim' },
      store(),
      feed,
      makeLog('silent'),
    );
    await arrived;
    await client.stop();
    await logger.stop();
    const pot = seen.filter((each) => each.place === 'pot').map((each) => each.celsius);
    expect(Math.max(...pot)).toBeGreaterThan(325);
    expect(Math.max(...pot)).toBeLessThan(385);
    const { body: channels } = await call('GET', '/api/channels');
    const stored = channels.filter((each: { source: string }) => each.source === 'sim');
    expect(stored.map((each: { place: string }) => each.place).sort()).toEqual(['mold', 'oven', 'pot']);
    expect(stored[0].count).toBeGreaterThan(0);
  });

  test('the simulated scale: heads laid on one after another, settled in a second or two, as heavy as the model casts them', async () => {
    const logger = await startSimulatedLogger({ everyMs: 5, startS: 0 });
    const feed = makeFeed();
    const weights: LiveWeight[] = [];
    const enough = new Promise<void>((resolve) => {
      feed.subscribeWeights((more) => weights.push(...more) > 60 && resolve());
    });
    const client = readLogger(
      { host: '127.0.0.1', port: logger.port, source: 'scale only' },
      store(),
      feed,
      makeLog('silent'),
    );
    await enough;
    await client.stop();
    await logger.stop();
    const expected = castMassKg({ nominalMassKg: 0.01 }) + typicalHook('2/0').massKg;
    // It goes by in five milliseconds what is a second on the scale.
    const bySecond = weights.map(({ kg }, i) => ({ at: 1000 * i, kg }));
    const settled = bySecond.flatMap((_, i) => {
      const now = onScale(bySecond.slice(Math.max(0, i - 31), i + 1))!;
      return now.steady ? [now.kg] : [];
    });
    expect(settled.length).toBeGreaterThan(6);
    for (const kg of settled) expect(Math.abs(kg / expected - 1)).toBeLessThan(0.01);
    // Not one head like the other, and the pan is empty in between.
    expect(new Set(settled.map((kg) => kg.toFixed(5))).size).toBeGreaterThan(1);
    expect(weights.some((weight) => weight.kg < 1e-5)).toBe(true);
    const { body: channels } = await call('GET', '/api/channels');
    expect(channels.map((each: { name: string }) => each.name)).not.toContain('scale');
  });

  test('server-sent events carry live readings, and weights beside them', async () => {
    const live = await testServer({ SCHMELZ_LOGGER: 'simulated' });
    const text = await new Promise<string>((resolve, reject) => {
      let all = '';
      const request = httpRequest(`${live.url}/api/readings/stream`, (response) => {
        expect(response.headers['content-type']).toMatch('text/event-stream');
        response.setEncoding('utf8');
        response.on('data', (chunk: string) => {
          all += chunk;
          if (all.includes('"place":"oven"') && all.includes('event: weight')) {
            request.destroy();
            resolve(all);
          }
        });
        response.on('error', () => undefined); // we hang up ourselves
      });
      request.on('error', reject).end();
    });
    expect(text).toMatch(/^data: \[\{"channel":\d+,"place":"pot"/m);
    expect(text).toMatch(/^event: weight\ndata: \[\{"name":"scale","at":\d+,"kg":[\d.]+\}\]$/m);
    await live.stop();
  });
});
