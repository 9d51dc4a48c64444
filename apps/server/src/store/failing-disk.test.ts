import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { judgeWorkshop } from '../services/judge.ts';
import { eveningAt } from '../test/evening.ts';
import { smallWorkshop, temporaryFolder, testServer } from '../test/server.ts';
import { backupsIn, listBackups } from './copies-on-disk.ts';
import { withDatabase } from './database.ts';
import { documentOf } from './document.ts';
import { databaseIn } from './inspect.ts';
import { migrate, openStore } from './store.ts';

/**
 * Copy, restore, take-in, migration and import on a disk that fails once: full or broken at one of its writes, or with
 * the server killed there. Afterwards the workshop is as before or as after, nothing half done is listed, counted, put
 * back or left. A few places of each are tried; `SCHMELZ_DISK=all` tries every one, `SCHMELZ_DISK=40` so many of each.
 */
const TRIED = process.env['SCHMELZ_DISK'] ?? '1';
const WAYS = ['ENOSPC', 'EIO', 'KILL'] as const;
const DIST = join(__dirname, '..', '..', 'dist');

/** The disk, as the C compiler that builds SQLite makes it. */
const library = join(temporaryFolder(), 'failing-disk.so');
beforeAll(() => {
  const source = join(__dirname, '..', 'test', 'failing-disk.c');
  const made = spawnSync('cc', ['-shared', '-fPIC', '-O1', '-o', library, source, '-ldl'], { encoding: 'utf8' });
  expect([made.status, made.stderr]).toEqual([0, '']);
});

/** What is done on the disk: a program of its own, with the built server. */
const JOBS = {
  copy: `const made = await backUp(store, 'asked');`,
  restore: `await restore(store, listBackups(folder)[0].name, judgeWorkshop);`,
  'take-in': `await takeIn(folder, readFileSync(folder + '/export.json', 'utf8'), judgeWorkshop);`,
  import: `await importReceipts(store, 'material,quantity,price,on,lot\\r\\nHook 2/0,50,9.00,2026-02-03,a\\r\\nWhite,0.5,12.00,2026-02-03,b\\r\\n');`,
  migration: '',
} as const;
type Job = keyof typeof JOBS;

const programOf = (job: Job) => `
import { readFileSync, writeFileSync } from 'node:fs';
import { openStore } from '${DIST}/store/store.js';
import { backUp, restore } from '${DIST}/store/backups.js';
import { listBackups } from '${DIST}/store/copies-on-disk.js';
import { takeIn } from '${DIST}/store/document.js';
import { judgeWorkshop } from '${DIST}/services/judge.js';
import { importReceipts } from '${DIST}/services/imports.js';
const folder = process.argv[2];
const arm = () => writeFileSync(folder + '/ARM', 'armed');
${job === 'migration' ? 'arm();' : ''}
const store = await openStore(folder);
${job === 'migration' ? '' : 'arm();'}
${JOBS[job]}
await store.close();
`;

interface Ran {
  status: number | null;
  stderr: string;
  calls: number;
}
function run(job: Job, folder: string, fail?: { at: number; as: string }): Ran {
  const program = join(temporaryFolder(), 'job.mjs');
  writeFileSync(program, programOf(job));
  const counts = `${program}.count`;
  const { status, stderr } = spawnSync(process.execPath, [program, folder], {
    encoding: 'utf8',
    timeout: 60_000,
    env: {
      ...process.env,
      ...{ LD_PRELOAD: library, DISK_FOLDER: folder, DISK_COUNT: counts },
      ...(fail ? { DISK_AT: String(fail.at), DISK_AS: fail.as } : {}),
    },
  });
  return { status, stderr, calls: existsSync(counts) ? Number(readFileSync(counts, 'utf8')) : 0 };
}

/** All that a workshop holds, without what is written down of the time at which something was done. */
async function holds(file: string): Promise<string> {
  return withDatabase(file, async ({ ask }) => {
    let text = '';
    for await (const piece of documentOf(ask)) text += piece;
    const { imports, stockMoves, ...rest } = JSON.parse(text) as Record<string, Record<string, unknown>[]>;
    const plain = (rows: Record<string, unknown>[] = []) =>
      rows.map(({ at: _at, id: _id, importId: _of, ...row }) => row);
    return JSON.stringify({ ...rest, imports: plain(imports), stockMoves: plain(stockMoves) });
  });
}

/** A folder to begin with: a small workshop in which an evening was worked, with a copy of before that evening. */
async function prepared(): Promise<string> {
  const server = await testServer();
  const things = await smallWorkshop(server);
  const { post, ticketOf, pour } = eveningAt(server, things);
  await post('/backups', undefined);
  const { ticketId } = await ticketOf(things.productIds[0]!, 3);
  await pour(ticketId, things.moldId, 3);
  const whole = await server.call('GET', '/api/export');
  writeFileSync(join(server.folder, 'export.json'), JSON.stringify(whole.body));
  await server.running.stop();
  return server.folder;
}
/** A folder that an earlier Schmelz left, before heads lay on a shelf of their own. */
async function older(): Promise<string> {
  const folder = temporaryFolder();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: databaseIn(folder), logging: false });
  await migrate(sequelize, '005-job');
  await sequelize.query("INSERT INTO pots (id, name, capacityKg, powerW, lossWPerK) VALUES ('p', 'Old', 9, 700, 0.5)");
  await sequelize.close();
  return folder;
}

/** So many numbers from 1 to `most`, spread over it, others in each run. */
function places(most: number): number[] {
  if (TRIED === 'all') return Array.from({ length: most }, (_, at) => at + 1);
  const wanted = Math.min(most, Number(TRIED));
  const shift = (Number(process.env['SCHMELZ_SEED']) % 997) / 997;
  return Array.from({ length: wanted }, (_, at) => 1 + Math.floor((((at + shift) / wanted) % 1) * most));
}

const sizes = (folder: string) =>
  Object.fromEntries(
    (existsSync(backupsIn(folder)) ? readdirSync(backupsIn(folder)) : []).map((name) => [
      name,
      statSync(join(backupsIn(folder), name)).size,
    ]),
  );

test.each(Object.keys(JOBS) as Job[])(
  '%s: as before or as after, whatever fails',
  async (job) => {
    const template = await (job === 'migration' ? older() : prepared());
    const fresh = () => {
      const folder = temporaryFolder();
      rmSync(folder, { recursive: true });
      cpSync(template, folder, { recursive: true, preserveTimestamps: true });
      return folder;
    };
    const copied = fresh();
    const whole = run(job, copied);
    expect([whole.status, whole.stderr]).toEqual([0, '']);
    expect(whole.calls).toBeGreaterThan(5);
    // Opened once, a folder of before is brought up to date: that is what it is compared with.
    const opened = fresh();
    await (await openStore(opened)).close();
    const states = [await holds(databaseIn(opened)), await holds(databaseIn(copied))];
    const known = sizes(template);

    for (const as of WAYS) {
      for (const at of places(whole.calls)) {
        const folder = fresh();
        const said = `${job}, ${as} at ${at} of ${whole.calls}`;
        const failed = run(job, folder, { at, as });
        if (as === 'KILL') expect([said, failed.status]).toEqual([said, null]);
        // Before anybody starts it again, nothing that is listed as whole is half done.
        for (const { name, wrong } of listBackups(folder)) {
          if (wrong !== null) throw new Error(`${said}: ${name} ${wrong}`);
          await withDatabase(join(backupsIn(folder), name), async ({ ask }) => {
            const [row] = await ask<{ integrity_check: string }>('PRAGMA integrity_check');
            expect([said, row!.integrity_check]).toEqual([said, 'ok']);
            if (known[name] === undefined && job !== 'migration')
              expect(states).toContain(await holds(join(backupsIn(folder), name)));
          });
        }
        const store = await openStore(folder);
        if (job !== 'migration') await judgeWorkshop(store);
        await store.close();
        const now = await holds(databaseIn(folder));
        if (!states.includes(now)) throw new Error(`${said}: neither as before nor as after`);
        const left = [folder, backupsIn(folder)].flatMap((where) => (existsSync(where) ? readdirSync(where) : []));
        expect([said, left.filter((name) => /\.part|judged-|^export-.*sqlite/.test(name))]).toEqual([said, []]);
        rmSync(folder, { recursive: true });
      }
    }
    mkdirSync(template, { recursive: true });
    for (const folder of [template, copied, opened]) rmSync(folder, { recursive: true });
  },
  3_600_000,
);
