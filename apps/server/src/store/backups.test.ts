import { existsSync, readdirSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { eveningAt } from '../test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from '../test/server.ts';
import { keepDaily, listBackups, tooOld, type Backup } from './backups.ts';

const DAY_MS = 24 * 3600 * 1000;
const NOW = Date.UTC(2026, 10, 27, 12);
const copy = (ageDays: number, why: Backup['why'] = 'daily'): Backup => {
  return { name: `${why} ${ageDays}`, why, at: NOW - ageDays * DAY_MS, bytes: 1 };
};

test('of three years of daily copies some twenty-four are kept, the younger the closer together', () => {
  const years = Array.from({ length: 1100 }, (_, age) => copy(age + 0.5));
  const gone = new Set(tooOld(years, NOW));
  const kept = years.filter(({ name }) => !gone.has(name)).map(({ at }) => (NOW - at) / DAY_MS);
  // Eight days, eight weeks, twenty-two months: none older than two years.
  expect(kept.filter((age) => age < 8)).toHaveLength(8);
  expect(kept.filter((age) => age >= 8 && age < 63).length).toBeGreaterThan(6);
  expect(kept.filter((age) => age >= 8 && age < 63).length).toBeLessThan(11);
  expect(kept.filter((age) => age > 63).length).toBeGreaterThan(20);
  expect(kept.filter((age) => age > 63).length).toBeLessThan(25);
  expect(Math.max(...kept)).toBeLessThan(731);
});
test('pruned day by day as many are left as pruned at once, and what somebody asked for stays', () => {
  let backups: Backup[] = [];
  for (let day = 400; day >= 0; day--) {
    const now = NOW - day * DAY_MS;
    backups.push({ name: `daily ${day}`, why: 'daily', at: now, bytes: 1 });
    const gone = new Set(tooOld(backups, now));
    backups = backups.filter(({ name }) => !gone.has(name));
  }
  expect(backups.length).toBeGreaterThan(22);
  expect(backups.length).toBeLessThan(32);
  expect(tooOld([copy(900, 'asked'), copy(900, 'before'), copy(900, 'before-restore')], NOW)).toEqual([]);
});

describe('a running workshop', () => {
  let server: TestServer;
  let { call, post, get, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
  let things: Awaited<ReturnType<typeof smallWorkshop>>;
  beforeAll(async () => {
    server = await testServer();
    things = await smallWorkshop(server);
    ({ call, post, get, ticketOf, pour, bareProduct } = eveningAt(server, things));
  });
  afterAll(() => server.stop());
  const everything = async () => JSON.stringify((await call('GET', '/export')).body);

  test('is put back as it was, down to the last row, and can be brought forth again', async () => {
    const { ticketId } = await ticketOf((await bareProduct({})).id, 3);
    const { body: made, status } = await post('/backups', undefined);
    expect(status).toBe(201);
    expect(made).toMatchObject({ why: 'asked' });
    const before = await everything();
    await pour(ticketId, things.moldId, 3);
    await post('/materials', {
      ...{ kind: 'glue', name: 'Glue', note: '', metalId: null, hook: null, powder: null },
    });
    const after = await everything();
    expect(after).not.toBe(before);

    const { body: kept } = await post('/backups/restore', { name: made.name });
    expect(kept).toMatchObject({ why: 'before-restore' });
    expect(await everything()).toBe(before);
    // The workshop goes on: what is written now is written.
    expect((await post(`/orders`, { customer: 'Next', dueOn: null, note: '', lines: [] })).status).toBe(422);
    const { ticketId: next } = await ticketOf(things.productIds[0]!, 2);
    expect((await get(`/tickets/${next}`)).quantity).toBe(2);
    await post('/backups/restore', { name: kept.name });
    expect(await everything()).toBe(after);
    const { body: list } = await call('GET', '/backups');
    expect(list.map(({ name }: { name: string }) => name)).toEqual(expect.arrayContaining([made.name, kept.name]));
    expect(readdirSync(join(server.folder, 'backups')).every((name) => name.endsWith('.sqlite'))).toBe(true);
    expect(statSync(join(server.folder, 'backups', made.name)).mode & 0o077).toBe(0);
  });
  test('takes no copy that is damaged, or that is not there, and nothing has changed', async () => {
    const before = await everything();
    writeFileSync(
      join(server.folder, 'backups', 'asked-broken.sqlite'),
      'no database at all, but long enough'.repeat(99),
    );
    const { status, body } = await post('/backups/restore', { name: 'asked-broken.sqlite' });
    expect(status).toBe(422);
    expect(body.detail).toMatch(/damaged/);
    for (const name of ['nothing.sqlite', '../schmelz.sqlite', 'asked-../../x.sqlite']) {
      expect((await post('/backups/restore', { name })).status).toBe(404);
    }
    expect(await everything()).toBe(before);
  });
  test('is copied once a day, and not twice', async () => {
    const daily = () => listBackups(server.folder).filter(({ why }) => why === 'daily');
    const { store } = server.running;
    await keepDaily(store);
    await keepDaily(store);
    expect(daily()).toHaveLength(1);
    const file = join(server.folder, 'backups', daily()[0]!.name);
    utimesSync(file, new Date(Date.now() - 1.1 * DAY_MS), new Date(Date.now() - 1.1 * DAY_MS));
    await keepDaily(store);
    expect(daily()).toHaveLength(2);
    // What is far too old goes by itself.
    utimesSync(file, new Date(Date.now() - 800 * DAY_MS), new Date(Date.now() - 800 * DAY_MS));
    await keepDaily(store, Date.now() + 1.1 * DAY_MS);
    expect(existsSync(file)).toBe(false);
  });
});
