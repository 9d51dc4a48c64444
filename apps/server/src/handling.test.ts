import { randomUUID } from 'node:crypto';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

let server: TestServer;
beforeAll(async () => void (server = await testServer()));
afterAll(() => server.stop());

test('what worked in a mold is known the next time it comes to the pot', async () => {
  const things = await smallWorkshop(server);
  const { post, get, call, entry, ticketOf } = eveningAt(server, things);
  const { moldId, potId, productIds } = things;
  const known = () => get(`/molds/${moldId}/handling`);
  expect(await known()).toEqual({ handled: [], blanks: null });
  const { ticketId } = await ticketOf(productIds[0]!, 90);
  const { body: pour } = await post('/pours', { moldIds: [moldId], atOnce: 1, potId, ticketIds: [ticketId] });
  const say = async (said: object) => expect((await post(`/pours/${pour.id}/entries`, entry(said))).status).toBe(204);
  await say({ kind: 'charge', massKg: 5, potC: 20 });
  for (let blank = 0; blank < 4; blank++) await say({ kind: 'blank', moldId });
  const shots = async (count: number, short: number[]) => {
    for (let shot = 0; shot < count; shot++) {
      const id = randomUUID();
      await say({ id, kind: 'shot', moldId, positions: [1, 2, 3] });
      for (const position of short) await say({ kind: 'reject', shotId: id, position, cause: 'short', goes: 'melt' });
    }
  };
  await shots(4, []);
  await shots(6, [2, 3]);
  await say({ kind: 'done', what: 'last cavity low' });
  await shots(6, []);
  // By hand: six shots of three before, two short in each; six of three after, none. The first two shots were good, but
  // six heads are too few to say that four blank shots are sure.
  const { handled, blanks } = await known();
  expect(handled).toEqual([
    {
      ...{ what: 'last cavity low', position: null, times: 1, says: 'fewer' },
      ...{ before: { shorts: 12, casts: 18 }, after: { shorts: 0, casts: 18 } },
    },
  ]);
  expect(blanks).toBeNull();
  const missing = await call('GET', `/molds/${randomUUID()}/handling`);
  expect(missing.status).toBe(404);
});
