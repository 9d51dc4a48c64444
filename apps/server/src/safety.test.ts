import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { BadConfig, readConfig } from './config.ts';
import { FolderInUse, lockFolder } from './store/lock.ts';
import { smallWorkshop, temporaryFolder, testServer } from './test/server.ts';

/** A request with a Host of our choosing, which fetch does not allow. */
function rawStatus(url: string, headers: Record<string, string>, method = 'GET'): Promise<number> {
  return new Promise((resolve, reject) => {
    const sent = httpRequest(url, { method, headers }, (answer) => {
      answer.resume();
      resolve(answer.statusCode ?? 0);
    });
    sent.on('error', reject);
    sent.end();
  });
}

describe('safe by default', () => {
  test('another address without a password is refused, with one it is not', () => {
    expect(readConfig({}, '/x')).toMatchObject({ host: '127.0.0.1', port: 4173, password: null });
    expect(() => readConfig({ SCHMELZ_HOST: '0.0.0.0' }, '/x')).toThrow(BadConfig);
    expect(() => readConfig({ SCHMELZ_HOST: '0.0.0.0', SCHMELZ_PASSWORD: 'short' }, '/x')).toThrow(/8 characters/);
    expect(readConfig({ SCHMELZ_HOST: '0.0.0.0', SCHMELZ_PASSWORD: 'long enough' }, '/x').host).toBe('0.0.0.0');
    expect(() => readConfig({ SCHMELZ_PORT: 'high' }, '/x')).toThrow(/SCHMELZ_PORT is high/);
  });

  test('pages of other origins and rebound names may not come in', async () => {
    const server = await testServer();
    const health = `${server.url}/api/health`;
    expect(await rawStatus(health, { host: 'evil.example' })).toBe(403);
    expect(await rawStatus(health, { host: '127.0.0.1' })).toBe(200);
    const post = (headers: Record<string, string>) =>
      server.call('POST', '/api/compute/yield', { good: 1, casts: 1 }, headers);
    expect((await post({ origin: 'https://evil.example' })).status).toBe(403);
    expect((await post({ origin: 'null' })).status).toBe(403);
    expect((await post({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await post({ origin: server.url })).status).toBe(200);
    const { headers } = await server.call('GET', '/api/health');
    expect(headers.get('content-security-policy')).toMatch(/default-src 'none'.*script-src 'self'/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    await server.stop();
  });

  test('with a password everything but the login wants a session', async () => {
    const server = await testServer({ SCHMELZ_PASSWORD: 'lead and tin' });
    expect((await server.call('GET', '/api/materials')).status).toBe(401);
    expect((await server.call('GET', '/api/health')).status).toBe(200);
    expect((await server.call('POST', '/api/login', { password: 'guess' })).status).toBe(401);
    const login = await server.call('POST', '/api/login', { password: 'lead and tin' });
    const cookie = login.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/httponly/i);
    expect(cookie).toMatch(/samesite=strict/i);
    expect((await server.call('GET', '/api/materials', undefined, { cookie: cookie.split(';')[0]! })).status).toBe(200);
    const tries = [];
    for (let i = 0; i < 12; i++)
      tries.push((await server.call('POST', '/api/login', { password: `guess ${i}` })).status);
    expect(tries.at(-1)).toBe(429);
    await server.stop();
  });

  test('a second server on the same folder is refused, and the first goes on', async () => {
    const folder = temporaryFolder();
    const unlock = await lockFolder(folder);
    await expect(lockFolder(folder)).rejects.toThrow(FolderInUse);
    await unlock();
    await (
      await lockFolder(folder)
    )();
    rmSync(folder, { recursive: true, force: true });
  });
});

/** Servers of their own process: whatever becomes of a test, none is left running. */
const started: ChildProcess[] = [];
afterAll(() => started.forEach((child) => child.kill('SIGKILL')));

describe('nothing is lost', () => {
  test('a tap that is delivered twice counts once', async () => {
    const server = await testServer();
    const things = await smallWorkshop(server);
    const pour = await startedPour(server, things);
    const shot = { id: randomUUID(), at: Date.now(), kind: 'shot', moldId: things.moldId, positions: [1, 2] };
    const path = `/api/pours/${pour}/entries`;
    const statuses = await Promise.all(
      [1, 2, 3].map(() => server.call('POST', path, shot).then(({ status }) => status)),
    );
    expect(statuses).toEqual([204, 204, 204]);
    const { body } = await server.call('GET', `/api/pours/${pour}`);
    expect(body.log.filter((entry: { kind: string }) => entry.kind === 'shot')).toHaveLength(1);
    const wrong = await server.call('POST', path, { ...shot, id: randomUUID(), positions: [5, 9] });
    expect(wrong.status).toBe(422);
    expect(wrong.body.detail).toMatch(/positions names cavity/);
    await server.stop();
  });

  test('killed while it writes, a server has everything it acknowledged when it starts again', async () => {
    const folder = temporaryFolder();
    const main = join(__dirname, '..', 'dist', 'main.js');
    const env = { ...process.env, SCHMELZ_DATA: folder, SCHMELZ_PORT: '0', SCHMELZ_LOG: 'silent' };
    const child = spawn(process.execPath, [main], { env, stdio: ['ignore', 'pipe', 'inherit'] });
    started.push(child);
    const url = await new Promise<string>((resolve, reject) => {
      let output = '';
      child.stdout.on('data', (data) => {
        output += data;
        const found = /http:\/\/\S+/.exec(output);
        if (found) resolve(found[0]);
      });
      child.on('exit', () => reject(new Error('the server did not start; is it built?')));
    });
    const call = async (method: string, path: string, body?: unknown) => {
      const answer = await fetch(url + path, {
        method,
        headers: { 'content-type': 'application/json' },
        body: body === undefined ? undefined : JSON.stringify(body),
      });
      const text = await answer.text();
      return { status: answer.status, body: text ? JSON.parse(text) : '', headers: answer.headers };
    };
    const server = { call } as never;
    const things = await smallWorkshop(server);
    const pour = await startedPour(server, things);
    const acknowledged: string[] = [];
    const taps = (async () => {
      for (;;) {
        const id = randomUUID();
        const answer = await call('POST', `/api/pours/${pour}/entries`, {
          id,
          at: Date.now(),
          kind: 'blank',
          moldId: things.moldId,
        }).catch(() => null);
        if (!answer) return;
        if (answer.status === 204) acknowledged.push(id);
        if (acknowledged.length === 25) child.kill('SIGKILL');
      }
    })();
    await Promise.all([taps, once(child, 'exit')]);
    // The lock went with the process; the log is whole.
    const again = await testServer({}, folder);
    const { body } = await again.call('GET', `/api/pours/${pour}`);
    const kept = new Set(body.log.map((entry: { id: string }) => entry.id));
    expect(acknowledged.length).toBeGreaterThanOrEqual(25);
    expect(acknowledged.filter((id) => !kept.has(id))).toEqual([]);
    await again.stop();
  });
});

type Things = Awaited<ReturnType<typeof smallWorkshop>>;
async function startedPour(
  { call }: Pick<Awaited<ReturnType<typeof testServer>>, 'call'>,
  things: Things,
): Promise<string> {
  const order = await call('POST', '/api/orders', {
    customer: 'A',
    dueOn: null,
    note: '',
    lines: [{ productId: things.productIds[0], quantity: 500 }],
  });
  const tickets = await call('POST', `/api/orders/${order.body.id}/release`, {});
  const pour = await call('POST', '/api/pours', {
    moldIds: [things.moldId],
    atOnce: 1,
    potId: things.potId,
    ticketIds: [tickets.body[0].id],
  });
  await call('POST', `/api/pours/${pour.body.id}/entries`, {
    id: randomUUID(),
    at: Date.now(),
    kind: 'charge',
    massKg: 5,
    potC: 20,
  });
  return pour.body.id as string;
}
