import { once } from 'node:events';
import { statSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { readConfig } from './config.ts';
import { makeLog } from './server.ts';
import { temporaryFolder, testServer, type TestServer } from './test/server.ts';

const PASSWORD = 'lead and tin';

/** A request as it is, with headers and bytes that fetch would not send. */
async function raw(
  url: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: Buffer | string },
) {
  const sent = httpRequest(url, { method, headers, agent: false });
  sent.end(body);
  const [answer] = await once(sent, 'response');
  let text = '';
  for await (const part of answer) text += String(part);
  return { status: answer.statusCode as number, text };
}

const cookieOf = (headers: Headers) => (headers.get('set-cookie') ?? '').split(';')[0]!;

describe('with a password', () => {
  let server: TestServer;
  let cookie: string;
  const login = async (headers: Record<string, string> = {}) =>
    server.call('POST', '/api/login', { password: PASSWORD }, headers);

  beforeAll(async () => {
    server = await testServer({ SCHMELZ_PASSWORD: PASSWORD });
    cookie = cookieOf((await login()).headers);
  });
  afterAll(() => server.stop());

  test('no spelling of an address comes past the guard', async () => {
    const pot = JSON.stringify({ name: 'Sly', capacityKg: 9, powerW: 700, lossWPerK: 0.5 });
    const spellings = [
      '/API/pots',
      '/Api/pots',
      '/api/Pots',
      '/api/pots/',
      '//api/pots',
      '/api//pots',
      '/api/%70ots',
      '/api/./pots',
    ];
    for (const path of spellings) {
      const { status } = await raw(server.url + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: pot,
      });
      expect({ path, status, shut: [401, 404, 405].includes(status) }).toEqual({ path, status, shut: true });
    }
    for (const path of ['/API/export/moves.csv', '/API/materials', '/api/export/moves.csv', '/api/openapi.json']) {
      const { status } = await raw(server.url + path, {});
      expect({ path, status, shut: [401, 404].includes(status) }).toEqual({ path, status, shut: true });
    }
    expect((await raw(`${server.url}/API/compute/yield`, { method: 'POST', body: '{}' })).status).toBeGreaterThan(400);
    const pots = await server.call('GET', '/api/pots', undefined, { cookie });
    expect(pots.body.map((each: { name: string }) => each.name)).not.toContain('Sly');
  });

  test('what is packed and unpacks without end is refused while it is still being sent', async () => {
    const headers = { 'content-type': 'application/json', 'content-encoding': 'gzip' };
    const sent = httpRequest(`${server.url}/api/login`, { method: 'POST', headers, agent: false });
    sent.on('error', () => undefined); // the server hangs up on the rest
    // Half of it is here, and the other half never comes.
    const bomb = gzipSync(Buffer.alloc(64e6, ' '));
    sent.write(bomb.subarray(0, bomb.length / 2));
    const [answer] = await once(sent, 'response');
    expect(answer.statusCode).toBe(413);
    sent.destroy();
  });

  test('what streams for hours ends with the session that asked for it, and no other does', async () => {
    const listen = async (with_: string) => {
      const answer = await fetch(`${server.url}/api/readings/stream`, { headers: { cookie: with_ } });
      const reader = answer.body!.getReader();
      await reader.read();
      let over = false;
      const ended = (async () => {
        while (!(await reader.read()).done);
        over = true;
      })();
      return { ended, isOver: () => over };
    };
    const own = cookieOf((await login()).headers);
    const other = cookieOf((await login()).headers);
    const [one, two] = [await listen(own), await listen(other)];
    await server.call('POST', '/api/logout', {}, { cookie: own });
    await one.ended;
    expect(two.isOver()).toBe(false);
    await server.call('POST', '/api/logout-others', {}, { cookie });
    await two.ended;
  });

  test('a password that is no text is refused, not converted', async () => {
    for (const password of [12345678, null, ['lead and tin'], { toString: PASSWORD }, true, undefined]) {
      const answer = await server.call('POST', '/api/login', { password });
      expect([password, answer.status]).toEqual([password, 422]);
      expect(answer.body.fields[0].field).toBe('password');
    }
  });

  test('who logs out is out; all others are ended at one word; the own one stays', async () => {
    const [one, two] = [cookieOf((await login()).headers), cookieOf((await login()).headers)];
    const may = async (with_: string) => (await server.call('GET', '/api/pots', undefined, { cookie: with_ })).status;
    const before = (await server.call('GET', '/api/settings', undefined, { cookie })).body.sessions;
    expect((await server.call('POST', '/api/logout', {}, { cookie: one })).status).toBe(204);
    expect([await may(one), await may(two)]).toEqual([401, 200]);
    expect((await server.call('GET', '/api/settings', undefined, { cookie })).body.sessions).toBe(before - 1);
    expect((await server.call('POST', '/api/logout-others', {}, { cookie })).status).toBe(204);
    expect([await may(two), await may(cookie)]).toEqual([401, 200]);
    expect((await server.call('POST', '/api/logout', {}, {})).status).toBe(401);
  });

  test('the cookie is for this site and no script, and for https alone where it came by https', async () => {
    const plain = (await login()).headers.get('set-cookie')!;
    expect(plain).toMatch(/samesite=strict; httponly/i);
    expect(plain).not.toMatch(/secure/i);
    expect((await login({ 'x-forwarded-proto': 'https' })).headers.get('set-cookie')).toMatch(/; secure/i);
  });
});

test('wrong passwords wait longer and longer, each address for itself, and a right one waits as well', async () => {
  const server = await testServer({ SCHMELZ_PASSWORD: PASSWORD });
  const clock = jest.spyOn(Date, 'now');
  let now = Date.now();
  clock.mockImplementation(() => now);
  const attempt = async (password: string) => server.call('POST', '/api/login', { password });
  for (let i = 0; i < 3; i++) expect((await attempt('guess')).status).toBe(401);
  const waits: number[] = [];
  for (let i = 0; i < 5; i++) {
    expect((await attempt('guess')).status).toBe(401);
    const { status, body } = await attempt(PASSWORD);
    expect([status, body.title]).toEqual([429, 'Too many wrong passwords']);
    waits.push(Number(/Wait (\d+) s/.exec(body.detail)![1]));
    now += waits.at(-1)! * 1000;
  }
  waits.slice(1).forEach((wait, i) => expect(wait).toBe(2 * waits[i]!));
  expect((await attempt(PASSWORD)).status).toBe(204);
  clock.mockRestore();
  await server.stop();
});

test('a session outlives a restart, ends after its days, and with another password', async () => {
  const folder = temporaryFolder();
  const first = await testServer({ SCHMELZ_PASSWORD: PASSWORD }, folder);
  const cookie = cookieOf((await first.call('POST', '/api/login', { password: PASSWORD })).headers);
  await first.running.stop();
  const again = await testServer({ SCHMELZ_PASSWORD: PASSWORD }, folder);
  const status = async (server: TestServer) => (await server.call('GET', '/api/pots', undefined, { cookie })).status;
  expect(await status(again)).toBe(200);
  const clock = jest.spyOn(Date, 'now');
  const now = Date.now();
  clock.mockReturnValue(now + 31 * 24 * 3600 * 1000);
  expect(await status(again)).toBe(401);
  // The next who comes in sweeps out what has run out.
  await again.call('POST', '/api/login', { password: PASSWORD });
  expect(await again.running.store.models.sessions.count()).toBe(1);
  clock.mockRestore();
  await again.running.stop();
  const other = await testServer({ SCHMELZ_PASSWORD: 'tin and lead' }, folder);
  expect(await status(other)).toBe(401);
  await other.stop();
});

test('on the house network only known names are answered: addresses, the host name, those that were set', async () => {
  const server = await testServer({
    SCHMELZ_HOST: '0.0.0.0',
    SCHMELZ_PASSWORD: PASSWORD,
    SCHMELZ_NAMES: 'shed.home, bench',
  });
  const ask = async (host: string) => (await raw(`${server.url}/api/health`, { headers: { host } })).status;
  const { names } = readConfig({}, '/x');
  for (const host of [
    '127.0.0.1',
    'localhost:4173',
    '192.168.1.20:4173',
    '[fe80::1]:4173',
    'SHED.home',
    'bench',
    names[0]!,
  ]) {
    expect([host, await ask(host)]).toEqual([host, 200]);
  }
  for (const host of ['evil.example', 'shed.home.evil.example', '127.0.0.1.evil.example']) {
    expect([host, await ask(host)]).toEqual([host, 403]);
  }
  const write = await raw(`${server.url}/api/login`, {
    method: 'POST',
    headers: { host: 'evil.example', origin: 'http://evil.example', 'content-type': 'application/json' },
    body: JSON.stringify({ password: PASSWORD }),
  });
  expect(write.status).toBe(403);
  expect(() => readConfig({ SCHMELZ_NAMES: 'http://shed' }, '/x')).toThrow(/SCHMELZ_NAMES is http:\/\/shed; allowed/);
  await server.stop();
});

test('the data folder and its files are for this user alone, also those that were there before', async () => {
  const server = await testServer();
  const rights = (name: string) => (statSync(join(server.folder, name)).mode & 0o777).toString(8);
  expect(rights('.')).toBe('700');
  for (const name of ['schmelz.sqlite', 'schmelz.sqlite-wal', 'in-use.lock'])
    expect([name, rights(name)]).toEqual([name, '600']);
  await server.stop();
});

test('requests are logged by the route that was matched; an error of ours without what was sent', async () => {
  const lines: string[] = [];
  const log = makeLog('info', { write: (line: string) => void lines.push(line) });
  const server = await testServer({}, temporaryFolder(), log);
  await server.call('GET', '/api/pots/11111111-2222-4333-8444-555555555555');
  await server.call('POST', '/API/pots', { name: 'Hidden' });
  const secret = 'kept to the maker';
  const write = jest.spyOn(server.running.store, 'write').mockImplementation(() => {
    const error = Object.assign(new Error('the store stumbled'), {
      parameters: [secret],
      sql: secret,
      errors: [{ value: secret }],
    });
    return Promise.reject(error);
  });
  expect(
    (await server.call('POST', '/api/pots', { name: secret, capacityKg: 9, powerW: 700, lossWPerK: 0.5 })).status,
  ).toBe(500);
  write.mockRestore();
  await server.stop();
  const all = lines.map((line) => JSON.parse(line));
  expect(all).toContainEqual(expect.objectContaining({ method: 'GET', route: '/api/pots/:id', status: 404 }));
  expect(all).toContainEqual(expect.objectContaining({ method: 'POST', route: '/API/pots', status: 404 }));
  const failure = all.find((line) => line.err);
  expect(failure.err).toMatchObject({ name: 'Error', message: 'the store stumbled' });
  expect(failure.err.where[0]).toMatch(/at /);
  expect(lines.join()).not.toContain(secret);
});

describe('what nobody should send', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.stop());
  const json = { 'content-type': 'application/json' };

  test.each([
    ['an unknown method', { method: 'LOCK' }, '/api/pots', 405],
    ['a method without an answer', { method: 'PATCH' }, '/api/pots', 405],
    ['a zero in an id', {}, '/api/pots/%00', 404],
    ['a zero in a query', {}, '/api/pours/whole?mold=%00', 422],
    ['an id that cannot be decoded', {}, '/api/pots/%E0%A4%A', 404],
    ['a number beyond all', {}, '/api/pours/whole?at=1e400', 422],
    ['a kind that every object has', {}, '/api/runs/constructor/1', 404],
    ['records of a kind that every object has', {}, '/api/records/toString', 404],
  ])('%s is refused in words', async (_what, how, path, status) => {
    const answer = await raw(server.url + path, how);
    expect([answer.status, JSON.parse(answer.text).status]).toEqual([status, status]);
    expect(JSON.parse(answer.text).detail.length).toBeGreaterThan(10);
  });

  test('TRACE is refused', async () => {
    expect((await raw(`${server.url}/api/pots`, { method: 'TRACE' })).status).toBe(405);
  });

  test('nested without end, packed wrongly, too large: said which limit', async () => {
    const post = (body: Buffer | string, headers: Record<string, string> = json, path = '/api/pots') =>
      raw(server.url + path, { method: 'POST', headers, body });
    expect((await post('['.repeat(1e5) + ']'.repeat(1e5))).text).toMatch(/nested deeper than 32/);
    expect((await post('{"a":'.repeat(3e4) + '1' + '}'.repeat(3e4))).status).toBe(400);
    const packed = { ...json, 'content-encoding': 'br' };
    expect((await post(Buffer.from('no brotli at all'), packed)).status).toBe(400);
    const pot = JSON.stringify({ name: 'Packed', capacityKg: 9, powerW: 700, lossWPerK: 0.5 });
    expect((await post(brotliCompressSync(pot), packed)).status).toBe(201);
    expect((await post(Buffer.from('x'), { ...json, 'content-encoding': 'zip' })).status).toBe(415);
    const large = await post('x'.repeat(9e6), { 'content-type': 'text/csv' }, '/api/materials/import');
    expect([large.status, JSON.parse(large.text).detail]).toEqual([413, expect.stringContaining('8 MB')]);
    const long = await post(JSON.stringify({ name: 'x'.repeat(3e5) }));
    expect([long.status, JSON.parse(long.text).detail]).toEqual([413, expect.stringContaining('256 kB')]);
  });
});
