import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// Whose hands heads went through: said at the bench, kept with every tap, and told apart in the books.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { post, get, entry, ticketOf, bareProduct } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ post, get, entry, ticketOf, bareProduct } = eveningAt(server, things));
});
afterAll(() => server.stop());

interface Person {
  station: string;
  who: string;
  heads: number;
  bad: number;
  points: number;
  standsOut: boolean;
}

/** A ticket poured and trimmed; of each three casts so many are bad. */
async function worked(productId: string, poured: { who?: string; bad: number }, trimmed: string) {
  const { ticketId } = await ticketOf(productId, 6);
  const { moldId, potId } = things;
  const { body: pour } = await post('/pours', { moldIds: [moldId], atOnce: 1, potId, ticketIds: [ticketId] });
  const who = poured.who === undefined ? {} : { who: poured.who };
  const say = async (path: string, said: object) => {
    const answer = await post(path, entry(said));
    if (answer.status !== 204) throw new Error(JSON.stringify(answer.body));
  };
  await say(`/pours/${pour.id}/entries`, { kind: 'charge', massKg: 1, potC: 20 });
  for (let good = 0; good < 6; good += 3 - poured.bad) {
    const shot = entry({ kind: 'shot', moldId, positions: [1, 2, 3], ...who });
    await post(`/pours/${pour.id}/entries`, shot);
    for (let position = 1; position <= poured.bad; position++) {
      const reject = { kind: 'reject', shotId: shot.id, position, cause: 'short', goes: 'melt' };
      await say(`/pours/${pour.id}/entries`, { ...reject, ...who });
    }
  }
  await say(`/pours/${pour.id}/entries`, {
    ...{ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.5 },
  });
  const at = `/tickets/${ticketId}/entries`;
  await say(at, { kind: 'reject', step: 'trim', count: 1, cause: 'divot', goes: 'melt', who: trimmed });
  await say(at, { kind: 'good', step: 'trim', count: 5, who: trimmed });
  await say(at, { kind: 'close' });
  return ticketId;
}

test('what each hand poured and trimmed is told, with what such heads have on the whole; no name, no hand', async () => {
  const { id } = await bareProduct({});
  await worked(id, { who: 'Runa', bad: 1 }, 'Tevo');
  const ticketId = await worked(id, { who: 'Tevo', bad: 0 }, 'Tevo');
  await worked(id, { bad: 0 }, 'Runa');
  const { people, changes }: { people: Person[]; changes: unknown[] } = await get('/books/changes');
  // Three shots of three for the first, of which each has a bad one; two for the second; the third has no name on it.
  expect(people.map(({ station, who, heads, bad, points }) => [station, who, points, heads, bad])).toEqual([
    ['pour', 'Runa', 1, 9, 3],
    ['pour', 'Tevo', 1, 6, 0],
    ['trim', 'Runa', 1, 6, 1],
    ['trim', 'Tevo', 2, 12, 2],
  ]);
  expect(people.some(({ standsOut }) => standsOut)).toBe(false);
  expect(changes).toEqual([]);
  // The name stays with what was said.
  const { log } = await get(`/tickets/${ticketId}`);
  expect(log.map(({ kind, who }: { kind: string; who?: string }) => [kind, who])).toEqual([
    ['reject', 'Tevo'],
    ['good', 'Tevo'],
    ['close', undefined],
  ]);
});

test('who works here is set once each; a name that is too long is refused by its field', async () => {
  const settings = await get('/settings');
  const { dataFolder: _, passwordSet: _set, sessions: _open, ...rest } = settings;
  const put = (people: string[]) => server.call('PUT', '/api/settings', { ...rest, people });
  const twice = await put(['Runa', 'Runa']);
  expect(twice.status).toBe(422);
  expect(twice.body.detail).toMatch(/people.*each name once/);
  expect((await put(['Runa', 'Tevo'])).status).toBe(200);
  expect((await get('/settings')).people).toEqual(['Runa', 'Tevo']);
  const { ticketId } = await ticketOf((await bareProduct({})).id, 3);
  const long = await post(`/tickets/${ticketId}/entries`, entry({ kind: 'close', who: 'x'.repeat(41) }));
  expect(long.status).toBe(422);
  expect(long.body.detail).toMatch(/who/);
});
