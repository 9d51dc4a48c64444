import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { eveningAt } from '../test/evening.ts';
import { smallWorkshop, temporaryFolder, testServer, type TestServer } from '../test/server.ts';
import { backUp, keepDaily, tooOld } from './backups.ts';
import { listBackups, newestCopy, type Backup } from './copies-on-disk.ts';
import { withDatabase } from './database.ts';
import { openStore } from './store.ts';

const DAY_MS = 24 * 3600 * 1000;
const NOW = Date.UTC(2026, 10, 27, 12);
const copy = (ageDays: number, why: Backup['why'] = 'daily'): Backup => {
  return { name: `${why} ${ageDays}`, why, at: NOW - ageDays * DAY_MS, bytes: 1, wrong: null };
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
    backups.push({ name: `daily ${day}`, why: 'daily', at: now, bytes: 1, wrong: null });
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
  test('of copies that are empty, cut or of another step it is said so, and none of them is put back', async () => {
    const before = await everything();
    const { body: made } = await post('/backups', undefined);
    const backups = join(server.folder, 'backups');
    const file = (name: string) => join(backups, name);
    writeFileSync(file('daily-empty.sqlite'), '');
    copyFileSync(file(made.name), file('daily-cut.sqlite'));
    truncateSync(file('daily-cut.sqlite'), 4096 * 5);
    copyFileSync(file(made.name), file('asked-newer.sqlite'));
    await withDatabase(file('asked-newer.sqlite'), async ({ ask }) => {
      await ask("INSERT INTO migrations (name) VALUES ('900-tomorrow')");
      // What is a column today is none tomorrow: in quotes SQLite would take its name for a text.
      await ask('ALTER TABLE pots RENAME COLUMN lossWPerK TO lossWattPerKelvin');
    });
    copyFileSync(file(made.name), file('asked-other.sqlite'));
    await withDatabase(file('asked-other.sqlite'), ({ ask }) => ask('ALTER TABLE pots ADD COLUMN colour TEXT'));
    const list = (await get('/backups')) as { name: string; wrong: string | null }[];
    const wrong = Object.fromEntries(list.map((each) => [each.name, each.wrong]));
    expect(wrong['daily-empty.sqlite']).toBe('is empty');
    expect(wrong['daily-cut.sqlite']).toMatch(/^is cut short: 20480 bytes are there, \d+ were$/);
    expect(wrong[made.name]).toBeNull();
    const refusal = async (name: string) => {
      const { status, body } = await post('/backups/restore', { name });
      expect([name, status]).toEqual([name, 422]);
      expect(body.detail).not.toContain('schmelz.sqlite');
      return body.detail as string;
    };
    expect(await refusal('daily-empty.sqlite')).toMatch(/^The copy daily-empty.sqlite is empty/);
    expect(await refusal('daily-cut.sqlite')).toMatch(/^The copy daily-cut.sqlite is cut short/);
    expect(await refusal('asked-newer.sqlite')).toMatch(/^The copy asked-newer.sqlite was written by a newer Schmelz/);
    expect(await refusal('asked-other.sqlite')).toMatch(/other columns: pots.colour/);
    expect(await everything()).toBe(before);
    // None of them is the copy of the day, nor the newest.
    await keepDaily(server.running.store);
    const whole = listBackups(server.folder).filter(({ why, wrong: said }) => why === 'daily' && said === null);
    expect(whole).toHaveLength(1);
    expect(newestCopy(server.folder)).toBe(file(whole[0]!.name));
    for (const name of ['daily-empty', 'daily-cut', 'asked-newer', 'asked-other']) rmSync(file(`${name}.sqlite`));
    rmSync(file(whole[0]!.name));
  });
  test('two copies that are asked for in one millisecond are two', async () => {
    const { store } = server.running;
    const now = Date.now();
    const both = await Promise.all([backUp(store, 'asked', now), backUp(store, 'asked', now)]);
    expect(new Set(both.map(({ name }) => name)).size).toBe(2);
    for (const { name, bytes } of both) expect(statSync(join(server.folder, 'backups', name)).size).toBe(bytes);
  });
  test('what was still being made when a server ended is swept away at the next start, and nothing else', async () => {
    const folder = temporaryFolder();
    await (await openStore(folder)).close();
    mkdirSync(join(folder, 'backups', 'judged-abc'), { recursive: true });
    const left = [
      'daily-x.sqlite.part',
      'daily-x.sqlite.part-journal',
      'old.sqlite.making',
      'old.sqlite.restoring-wal',
    ];
    for (const name of left) writeFileSync(join(folder, 'backups', name), 'x');
    writeFileSync(join(folder, 'export-1.sqlite'), 'x');
    writeFileSync(join(folder, 'backups', 'mine.txt'), 'x');
    await (await openStore(folder)).close();
    expect(readdirSync(join(folder, 'backups'))).toEqual(['mine.txt']);
    expect(existsSync(join(folder, 'export-1.sqlite'))).toBe(false);
  });
  test('is copied once a day, and not twice', async () => {
    const daily = () => listBackups(server.folder).filter(({ why }) => why === 'daily');
    const { store } = server.running;
    // The clock's look may fall into another one.
    await Promise.all([keepDaily(store), keepDaily(store)]);
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
