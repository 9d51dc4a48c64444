import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What a page asks again and again: told to be the same as long as nothing was written.
let server: TestServer;
beforeAll(async () => {
  server = await testServer();
  await smallWorkshop(server);
});
afterAll(() => server.stop());

/** As a browser asks for what it has: fetch of Node, told of it, asks for a new one. */
async function ask(path: string, has?: string, { url }: TestServer = server, more: Record<string, string> = {}) {
  const headers = { ...more, ...(has ? { 'if-none-match': has } : {}) };
  const sent = request(`${url}/api${path}`, { headers, agent: false });
  sent.end();
  const [answer] = (await once(sent, 'response')) as [IncomingMessage];
  let body = '';
  for await (const part of answer) body += String(part);
  return { status: answer.statusCode, sign: answer.headers.etag ?? null, body };
}
/** Not at the end of a minute: what an answer rests on is looked at anew then. */
const sameMinute = async (work: () => Promise<void>) => {
  const left = 60_000 - (Date.now() % 60_000);
  if (left < 5000) await new Promise((resolve) => setTimeout(resolve, left + 50));
  await work();
};

test.each(['/line', '/materials', '/molds', '/orders', '/tonight', '/stock/use'])(
  '%s is sent once, and anew after something was written',
  (path) =>
    sameMinute(async () => {
      const first = await ask(path);
      expect([first.status, first.sign]).toEqual([200, expect.stringMatching(/^W\//)]);
      const again = await ask(path, first.sign!);
      expect([again.status, again.body]).toEqual([304, '']);
      const pot = { name: `Pot for ${path}`, capacityKg: 9, powerW: 700, lossWPerK: 0.5 };
      expect((await server.call('POST', '/api/pots', pot)).status).toBe(201);
      const after = await ask(path, first.sign!);
      expect(after.status).toBe(200);
      expect(after.sign).not.toBe(first.sign);
    }),
);

test('what changes by itself has no sign, and what is not there none that could hide it', async () => {
  for (const path of ['/health', '/settings', '/backups', '/channels']) expect((await ask(path)).sign).toBeNull();
  const { status, sign } = await ask('/tickets/none-of-these');
  expect(status).toBe(404);
  expect((await ask('/tickets/none-of-these', sign ?? 'W/"x"')).status).toBe(404);
});

test('with a password the sign says nothing to who is not logged in', async () => {
  const locked = await testServer({ SCHMELZ_PASSWORD: 'lead and tin' });
  const login = await locked.call('POST', '/api/login', { password: 'lead and tin' });
  const cookie = (login.headers.get('set-cookie') ?? '').split(';')[0]!;
  const { sign } = await ask('/line', undefined, locked, { cookie });
  expect((await ask('/line', sign!, locked)).status).toBe(401);
  expect((await ask('/line', sign!, locked, { cookie })).status).toBe(304);
  await locked.stop();
});
