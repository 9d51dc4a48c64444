import { copyFileSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { backupsIn, listBackups, makeWhole, removeDatabase, type Backup, type BackupWhy } from './copies-on-disk.ts';
import { copied, NOT_WHOLE } from './copy.ts';
import { quoted, withDatabase, type Ask } from './database.ts';
import { Fault } from './fault.ts';
import { databaseIn } from './inspect.ts';
import { openStore, type Store } from './store.ts';

const DAY_MS = 24 * 3600 * 1000;
/** Each of the last days, then one a week, then one a month, and after two years none. */
const DAILY_DAYS = 8;
const WEEKLY_DAYS = 63;
const MONTHLY_DAYS = 731;

/**
 * Daily copies that are no longer kept: of the older ones the first of each week stays, then the first of each month.
 * Copies that somebody asked for, and those before a change, stay; one that is not whole holds no other's place.
 */
export function tooOld(backups: readonly Backup[], now: number): string[] {
  const seen = new Set<string>();
  const daily = backups.filter(({ why }) => why === 'daily').sort((a, b) => a.at - b.at);
  return daily.flatMap(({ name, at, wrong }) => {
    const age = (now - at) / DAY_MS;
    if (age <= DAILY_DAYS) return [];
    const month = new Date(at).toISOString().slice(0, 7);
    const slot = age <= WEEKLY_DAYS ? `week ${Math.floor(at / (7 * DAY_MS))}` : `month ${month}`;
    if (wrong === null && age <= MONTHLY_DAYS && !seen.has(slot)) {
      seen.add(slot);
      return [];
    }
    return [name];
  });
}

/** A copy that is of no use. */
const removeBackup = (folder: string, name: string): void => removeDatabase(join(backupsIn(folder), name));

/** Makes a copy while the workshop goes on, opens it, and looks whether it is all there. */
export async function backUp(store: Store, why: BackupWhy, now = Date.now()): Promise<Backup> {
  const source: Ask = (sql, [file] = []) => store.select(sql.replace('?', ':file'), { file });
  return makeWhole(
    store.folder,
    why,
    async (file) => {
      if (await copied(source, file)) return;
      // Somebody is at a bench: once more, between two taps.
      removeDatabase(file);
      if (!(await store.alone(() => copied(source, file)))) throw new Fault(NOT_WHOLE);
    },
    now,
  );
}

/** The look for the copy of the day that is under way: a second one would find none yet, and make another. */
const looking = new WeakMap<Store, Promise<void>>();

/** A copy a day while the server runs; older ones go by their age. One look at a time. */
export async function keepDaily(store: Store, now = Date.now()): Promise<void> {
  const before = looking.get(store) ?? Promise.resolve();
  const look = before.catch(() => undefined).then(() => copyOfTheDay(store, now));
  looking.set(store, look);
  return look;
}

async function copyOfTheDay(store: Store, now: number): Promise<void> {
  const [newest] = listBackups(store.folder).filter(({ why, wrong }) => why === 'daily' && wrong === null);
  if (newest && now - newest.at < DAY_MS) return;
  await backUp(store, 'daily', now);
  for (const name of tooOld(listBackups(store.folder), now)) removeBackup(store.folder, name);
}

/** Who is logged in stays, and which tables there are. */
const STAY: readonly string[] = ['migrations', 'sessions', 'sqlite_sequence', 'sqlite_stat1'];
/** What the tables add up themselves, as their movements come in. */
const ADDED_UP: readonly string[] = ['stockBalances', 'lotsUsed'];

const columnsOf = async (ask: Ask, schema: 'main' | 'old', table: string): Promise<string[]> =>
  (await ask<{ name: string }>(`PRAGMA ${schema}.table_info(${quoted(table)})`)).map(({ name }) => name);

/** Puts the rows of another database of the same tables in the place of those that are there: all, or nothing. */
async function takeOver(target: string, source: string): Promise<void> {
  await withDatabase(target, async ({ ask }) => {
    await ask('PRAGMA busy_timeout = 10000');
    await ask('PRAGMA foreign_keys = OFF');
    await ask(`ATTACH DATABASE '${source.replaceAll("'", "''")}' AS old`);
    const all = await ask<{ name: string }>("SELECT name FROM main.sqlite_master WHERE type = 'table'");
    const tables = all.map(({ name }) => name).filter((name) => !STAY.includes(name) && !ADDED_UP.includes(name));
    await ask('BEGIN IMMEDIATE');
    try {
      for (const name of [...tables, ...ADDED_UP]) await ask(`DELETE FROM main.${quoted(name)}`);
      for (const name of tables) {
        const columns = await columnsOf(ask, 'main', name);
        const theirs = await columnsOf(ask, 'old', name);
        // A name in quotes that is no column is a text to SQLite, and would stand in every row.
        const odd = [...columns, ...theirs].find((each) => !columns.includes(each) || !theirs.includes(each));
        if (odd) throw new Fault(`The copy has other columns: ${name}.${odd} is in one of the two only.`);
        const list = columns.map(quoted).join(', ');
        await ask(`INSERT INTO main.${quoted(name)} (${list}) SELECT ${list} FROM old.${quoted(name)}`);
      }
      const broken = await ask<{ table: string }>('PRAGMA main.foreign_key_check');
      if (broken.length > 0)
        throw new Fault(`The copy does not hang together: ${broken[0]!.table} names what is not there.`);
      await ask('COMMIT');
    } catch (error) {
      await ask('ROLLBACK').catch(() => undefined); // on a full disk SQLite has rolled back by itself
      throw error;
    }
  });
}

/** Judges a workshop that is open: throws a Fault that says what of it cannot be read. */
export type Judge = (store: Store) => Promise<void>;

/**
 * Opens a file in a folder of its own, as a workshop of today: what is older is brought up to date there, and itself
 * left alone.
 * @param called how messages name it
 * @throws Fault where it is damaged, of a newer Schmelz, or not to be read
 */
export async function asWorkshop<T>(
  folder: string,
  { file, called }: { file: string; called: string },
  judge: Judge,
  then: (database: string) => Promise<T>,
): Promise<T> {
  mkdirSync(backupsIn(folder), { recursive: true, mode: 0o700 });
  const own = mkdtempSync(join(backupsIn(folder), 'judged-'));
  try {
    copyFileSync(file, databaseIn(own));
    const store = await openStore(own, { called, advice: () => 'Take another one: what is there is as it was.' });
    try {
      await judge(store);
    } catch (error) {
      if (error instanceof Fault) throw new Fault(`${called} cannot be used: ${error.message}`);
      throw error;
    } finally {
      await store.close();
    }
    return await then(databaseIn(own));
  } finally {
    rmSync(own, { recursive: true, force: true });
  }
}

/**
 * Puts a copy in the place of what is there, while the server runs: what is there is copied first, so that it can be
 * put back in turn. A copy of an older Schmelz is brought up to date on the way, and itself left alone.
 * @throws Fault where the copy is damaged, of a newer Schmelz, or nothing that pages can read
 */
export async function restore(store: Store, name: string, judge: Judge): Promise<Backup> {
  const file = join(backupsIn(store.folder), name);
  return asWorkshop(store.folder, { file, called: `The copy ${name}` }, judge, async (prepared) => {
    const before = await backUp(store, 'before-restore');
    await store.alone(() => takeOver(databaseIn(store.folder), prepared));
    return before;
  });
}
