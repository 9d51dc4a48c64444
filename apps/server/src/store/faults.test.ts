import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DataTypes, Sequelize } from 'sequelize';
import { problemOf } from '../middleware/problems.ts';
import { smallWorkshop, temporaryFolder, testServer } from '../test/server.ts';
import { Fault, faultIn } from './fault.ts';
import { withDatabase } from './database.ts';
import { lockIn } from './lock.ts';
import { databaseIn } from './inspect.ts';
import { migrate, openStore } from './store.ts';

/** A data folder that was worked in and closed. */
async function folder(): Promise<string> {
  const server = await testServer();
  await smallWorkshop(server);
  await server.running.stop();
  return server.folder;
}
const damage = (file: string, from: number, length: number) => {
  const bytes = Buffer.alloc(length, 0x5a);
  const handle = spawnSync('dd', ['of=' + file, 'conv=notrunc', 'bs=1', `seek=${from}`], { input: bytes });
  expect(handle.status).toBe(0);
};
const why = async (path: string): Promise<string> => {
  const opened = await openStore(path).catch((error: unknown) => error);
  expect(opened).toBeInstanceOf(Fault);
  return (opened as Fault).message;
};

describe('a data folder that cannot be used says why and what to do, and is left as it is', () => {
  test('damaged in its head, damaged within, cut', async () => {
    const path = await folder();
    const file = databaseIn(path);
    const size = statSync(file).size;
    damage(file, 0, 16);
    expect(await why(path)).toMatch(/is damaged, or no database of Schmelz. There is no copy in its folder backups/);
    expect(statSync(file).size).toBe(size);

    const within = await folder();
    damage(databaseIn(within), 4096 * 3, 4096 * 6);
    expect(await why(within)).toMatch(/is damaged \(.+\)\. There is no copy/);

    const cut = await folder();
    truncateSync(databaseIn(cut), 4096 * 5);
    expect(await why(cut)).toMatch(/is cut short: 20480 bytes are there, \d+ were/);
  });

  test('empty beside a copy: the copy is named, and nothing is written over', async () => {
    const path = await folder();
    mkdirSync(join(path, 'backups'));
    renameSync(databaseIn(path), join(path, 'backups', 'before.sqlite'));
    writeFileSync(databaseIn(path), '');
    expect(await why(path)).toMatch(/is empty. Put the newest copy in its place: .*before\.sqlite/);
    expect(statSync(databaseIn(path)).size).toBe(0);
    const alone = temporaryFolder();
    writeFileSync(databaseIn(alone), '');
    await (await openStore(alone)).close();
  });

  test('written by a newer Schmelz', async () => {
    const path = await folder();
    const sequelize = new Sequelize({ dialect: 'sqlite', storage: databaseIn(path), logging: false });
    await sequelize.query("INSERT INTO migrations (name) VALUES ('900-tomorrow')");
    await sequelize.close();
    expect(await why(path)).toMatch(/written by a newer Schmelz \(900-tomorrow is not known here\)/);
  });

  test('changed by another program into what no page can read: each start says so until it is put right', async () => {
    const path = await folder();
    const change = (style: string) =>
      withDatabase(databaseIn(path), ({ ask }) => ask('UPDATE cavities SET style = ?', [style]));
    await change('cube');
    for (const _time of [1, 2]) {
      const started = await testServer({}, path).catch((error: unknown) => error as Fault);
      expect(started).toBeInstanceOf(Fault);
      expect((started as Fault).message).toMatch(
        /schmelz.sqlite is damaged, or was changed by another program\. What is wrong: what it says of molds .*style is "cube"; allowed: ball, .*There is no copy/,
      );
    }
    await change('ball');
    const server = await testServer({}, path);
    expect((await server.call('GET', '/api/molds')).status).toBe(200);
    await server.stop();
  });

  test('tickets of before parts of the cost were known are no damage: they cost nothing of them', async () => {
    const server = await testServer();
    const things = await smallWorkshop(server);
    const order = {
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [{ productId: things.productIds[0], quantity: 3 }],
    };
    const { body } = await server.call('POST', '/api/orders', order);
    const [ticket] = (await server.call('POST', `/api/orders/${body.id}/release`, {})).body;
    await server.running.stop();
    const later = "'$.stack.parts', '$.stack.packaging', '$.stack.wear'";
    await withDatabase(databaseIn(server.folder), ({ ask }) =>
      ask(`UPDATE tickets SET planned = json_remove(planned, ${later})`),
    );
    const again = await testServer({}, server.folder);
    const { planned } = (await again.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect(planned.stack).toEqual({ ...ticket.planned.stack, parts: 0, packaging: 0, wear: 0 });
    await again.stop();
  });

  test('a file in the place of the folder, a folder that nobody may make, one that is read-only', async () => {
    const file = join(temporaryFolder(), 'file');
    writeFileSync(file, '');
    expect(await why(file)).toMatch(/cannot be used: it is a file; set SCHMELZ_DATA/);
    expect(await why(join(file, 'below'))).toMatch(/a part of its path is a file/);
    const words = (code: string) => faultIn(Object.assign(new Error('x'), { code }), '/d')?.message;
    expect(words('EROFS')).toMatch(/the disk is read-only; make it writable/);
    expect(words('EACCES')).toMatch(/this user may not use it/);
    expect(faultIn(new Error('something else'), '/d')).toBeNull();
  });
});

test('before its tables change an older database is copied, for the eyes of this user alone', async () => {
  const path = temporaryFolder();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: databaseIn(path), logging: false });
  await migrate(sequelize, '005-job');
  await sequelize.query(
    "INSERT INTO pots (id, name, capacityKg, powerW, lossWPerK) VALUES ('p', 'Old pot', 9, 700, 0.5)",
  );
  await sequelize.close();
  await (await openStore(path)).close();
  const copies = readdirSync(join(path, 'backups'));
  expect(copies).toEqual([expect.stringMatching(/^before-006-runs-.*\.sqlite$/)]);
  const copy = join(path, 'backups', copies[0]!);
  expect((statSync(copy).mode & 0o777).toString(8)).toBe('600');
  const kept = new Sequelize({ dialect: 'sqlite', storage: copy, logging: false });
  const pots = kept.define('pots', { id: { type: DataTypes.STRING, primaryKey: true } }, { timestamps: false });
  expect(await pots.count()).toBe(1);
  const [tables] = await kept.query("SELECT name FROM sqlite_master WHERE name = 'runs'");
  expect(tables).toEqual([]);
  await kept.close();
  // Opened again it is up to date: no further copy.
  await (await openStore(path)).close();
  expect(readdirSync(join(path, 'backups'))).toHaveLength(1);
});

/** A data folder in which a folder is called as the database should be. */
function withFolderInside(): string {
  const path = temporaryFolder();
  mkdirSync(databaseIn(path));
  return path;
}

describe('while the server runs', () => {
  const pot = { name: 'Second', capacityKg: 9, powerW: 700, lossWPerK: 0.5 };

  test.each([
    ['the database is gone', (path: string) => rmSync(databaseIn(path))],
    ['the lock is removed', (path: string) => rmSync(lockIn(path))],
    ['the folder is gone', (path: string) => renameSync(path, `${path}-moved`)],
  ])('%s: a write is refused in words, and nothing is written where nobody sees it', async (_what, spoil) => {
    const server = await testServer();
    spoil(server.folder);
    const answer = await server.call('POST', '/api/pots', pot);
    expect([answer.status, answer.body.title]).toEqual([503, 'The data folder cannot be used']);
    expect(answer.body.detail).toMatch(/was removed or replaced while Schmelz was running.*Taps stay on the device/);
    await server.running.stop();
    for (const path of [server.folder, `${server.folder}-moved`]) {
      if (existsSync(path)) rmSync(path, { recursive: true });
    }
  });

  test('a full disk, a disk that fails, a database that broke: 503 with what to do', () => {
    const of = (code: string) => problemOf(Object.assign(new Error('x'), { original: { code } }), '/data');
    expect(of('SQLITE_FULL')).toMatchObject({ status: 503, detail: expect.stringMatching(/disk is full; free some/) });
    expect(of('SQLITE_IOERR').detail).toMatch(/copy the folder while it still can/);
    expect(of('SQLITE_CORRUPT').detail).toMatch(/put back the newest copy/);
    expect(of('SQLITE_BUSY').status).toBe(500);
  });

  test('an export that finds no room is told so, and leaves nothing behind', async () => {
    const server = await testServer();
    const { store } = server.running;
    const select = store.select;
    store.select = (sql, ...rest) =>
      sql.startsWith('VACUUM')
        ? Promise.reject(Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' }))
        : select(sql, ...rest);
    const { status, body } = await server.call('GET', '/api/export');
    expect([status, body.detail]).toEqual([503, expect.stringMatching(/the disk is full; free some space/)]);
    store.select = select;
    expect((await server.call('GET', '/api/export')).status).toBe(200);
    await server.stop();
  });

  test('a log that nobody can write ends nothing, nor a terminal that is full', () => {
    const main = join(__dirname, '..', '..', 'dist', 'main.js');
    const path = temporaryFolder();
    const script = `SCHMELZ_LOG=info SCHMELZ_PORT=0 SCHMELZ_DATA=${path} timeout 3 node ${main} > /dev/full 2> ${path}/err; echo $?`;
    const { stdout } = spawnSync('sh', ['-c', script], { encoding: 'utf8' });
    expect(stdout.trim()).toBe('124'); // it ran until it was stopped
  });

  test.each([
    [
      'an address that is none of this machine',
      { SCHMELZ_HOST: '203.0.113.7', SCHMELZ_PASSWORD: 'long enough' },
      /no address of this machine/,
    ],
    ['a setting that cannot be', { SCHMELZ_PORT: 'high' }, /SCHMELZ_PORT is high; allowed/],
    [
      'a log that is none',
      { SCHMELZ_LOG: 'loud' },
      /^SCHMELZ_LOG is loud; allowed: silent, error, warn, info, debug$/m,
    ],
    ['a folder in the place of the database', { SCHMELZ_DATA: withFolderInside() }, /a folder lies where a file of it/],
    ['a folder that is a file', { SCHMELZ_DATA: __filename }, /cannot be used: it is a file/],
  ])('%s is said at the start, in one line', (_what, env, says) => {
    const main = join(__dirname, '..', '..', 'dist', 'main.js');
    const all = { ...process.env, SCHMELZ_DATA: temporaryFolder(), SCHMELZ_PORT: '0', ...env };
    const { status, stderr } = spawnSync(process.execPath, [main], { env: all, encoding: 'utf8', timeout: 20_000 });
    expect([status, stderr.trim().split('\n').length]).toEqual([1, 1]);
    expect(stderr).toMatch(says);
  });

  test('a port in use is said at the start', async () => {
    const server = await testServer();
    const env = { ...process.env, SCHMELZ_DATA: temporaryFolder(), SCHMELZ_PORT: new URL(server.url).port };
    const main = join(__dirname, '..', '..', 'dist', 'main.js');
    const { status, stderr } = spawnSync(process.execPath, [main], { env, encoding: 'utf8', timeout: 20_000 });
    expect([status, stderr.trim()]).toEqual([1, expect.stringMatching(/^Another program uses this port/)]);
    await server.stop();
  });
});
