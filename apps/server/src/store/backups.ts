import { chmodSync, copyFileSync, existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { quoted, withDatabase } from './database.ts';
import { Fault } from './fault.ts';
import { backupsIn, databaseIn, quickCheck } from './inspect.ts';
import { migrate, type Store } from './store.ts';

/** Why a copy was made: each day, because somebody asked, before a restore or a change, of a file taken in. */
export const BACKUP_WHY = ['daily', 'asked', 'before-restore', 'before', 'taken-in'] as const;
export type BackupWhy = (typeof BACKUP_WHY)[number];
export interface Backup {
  name: string;
  why: BackupWhy;
  at: number;
  bytes: number;
}

const DAY_MS = 24 * 3600 * 1000;
/** Each of the last days, then one a week, then one a month, and after two years none. */
const DAILY_DAYS = 8;
const WEEKLY_DAYS = 63;
const MONTHLY_DAYS = 731;

const NAME = /^(daily|asked|before-restore|before|taken-in)-.*\.sqlite$/;

/** The copies beside a database, newest first. */
export function listBackups(folder: string): Backup[] {
  const backups = backupsIn(folder);
  if (!existsSync(backups)) return [];
  return readdirSync(backups)
    .flatMap((name): Backup[] => {
      const found = NAME.exec(name);
      if (!found) return [];
      const { mtimeMs, size } = statSync(join(backups, name));
      return [{ name, why: found[1] as BackupWhy, at: Math.round(mtimeMs), bytes: size }];
    })
    .sort((a, b) => b.at - a.at);
}

/**
 * Daily copies that are no longer kept: of the older ones the first of each week stays, then the first of each month.
 * Copies that somebody asked for, and those before a change, stay.
 */
export function tooOld(backups: readonly Backup[], now: number): string[] {
  const seen = new Set<string>();
  const daily = backups.filter(({ why }) => why === 'daily').sort((a, b) => a.at - b.at);
  return daily.flatMap(({ name, at }) => {
    const age = (now - at) / DAY_MS;
    if (age <= DAILY_DAYS) return [];
    const month = new Date(at).toISOString().slice(0, 7);
    const slot = age <= WEEKLY_DAYS ? `week ${Math.floor(at / (7 * DAY_MS))}` : `month ${month}`;
    if (age <= MONTHLY_DAYS && !seen.has(slot)) {
      seen.add(slot);
      return [];
    }
    return [name];
  });
}

/** A copy that is of no use. */
export const removeBackup = (folder: string, name: string): void =>
  rmSync(join(backupsIn(folder), name), { force: true });

/** Opens a copy and asks whether its pages hang together, and brings its tables up to date where that is asked. */
async function sound(file: string, folder: string, upToDate = false): Promise<void> {
  const copy = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
  try {
    await quickCheck(copy, folder);
    if (upToDate) await migrate(copy);
  } finally {
    await copy.close();
  }
}

/** Makes a copy while the workshop goes on, and looks whether it can be opened. */
export async function backUp(store: Store, why: BackupWhy, now = Date.now()): Promise<Backup> {
  const backups = backupsIn(store.folder);
  mkdirSync(backups, { recursive: true, mode: 0o700 });
  const name = `${why}-${new Date(now).toISOString().replaceAll(/[:.]/g, '-')}.sqlite`;
  const copy = join(backups, name);
  await store.select('VACUUM INTO :copy', { copy });
  chmodSync(copy, 0o600);
  await sound(copy, store.folder);
  return { name, why, at: Math.round(statSync(copy).mtimeMs), bytes: statSync(copy).size };
}

/** A copy a day while the server runs; older ones go by their age. */
export async function keepDaily(store: Store, now = Date.now()): Promise<void> {
  const [newest] = listBackups(store.folder).filter(({ why }) => why === 'daily');
  if (newest && now - newest.at < DAY_MS) return;
  await backUp(store, 'daily', now);
  for (const name of tooOld(listBackups(store.folder), now))
    rmSync(join(backupsIn(store.folder), name), { force: true });
}

/** Who is logged in stays, and which tables there are. */
const STAY: readonly string[] = ['migrations', 'sessions', 'sqlite_sequence', 'sqlite_stat1'];

/** Puts the rows of another database of the same tables in the place of those that are there: all, or nothing. */
async function takeOver(target: string, source: string): Promise<void> {
  await withDatabase(target, async ({ ask }) => {
    await ask('PRAGMA busy_timeout = 10000');
    await ask('PRAGMA foreign_keys = OFF');
    await ask(`ATTACH DATABASE '${source.replaceAll("'", "''")}' AS old`);
    const tables = await ask<{ name: string }>("SELECT name FROM main.sqlite_master WHERE type = 'table'");
    await ask('BEGIN IMMEDIATE');
    try {
      for (const { name } of tables) {
        if (STAY.includes(name)) continue;
        const columns = await ask<{ name: string }>(`PRAGMA main.table_info(${quoted(name)})`);
        const list = columns.map((column) => quoted(column.name)).join(', ');
        await ask(`DELETE FROM main.${quoted(name)}`);
        await ask(`INSERT INTO main.${quoted(name)} (${list}) SELECT ${list} FROM old.${quoted(name)}`);
      }
      const broken = await ask<{ table: string }>('PRAGMA main.foreign_key_check');
      if (broken.length > 0)
        throw new Fault(`The copy does not hang together: ${broken[0]!.table} names what is not there.`);
      await ask('COMMIT');
    } catch (error) {
      await ask('ROLLBACK');
      throw error;
    }
  });
}

/**
 * Puts a copy in the place of what is there, while the server runs: what is there is copied first, so that it can be
 * put back in turn. A copy of an older Schmelz is brought up to date on the way, and itself left alone.
 * @throws Fault where the copy is damaged, or of a newer Schmelz
 */
export async function restore(store: Store, name: string): Promise<Backup> {
  const file = join(backupsIn(store.folder), name);
  const before = await backUp(store, 'before-restore');
  const work = `${file}.restoring`;
  try {
    copyFileSync(file, work);
    await sound(work, store.folder, true);
    await store.alone(() => takeOver(databaseIn(store.folder), work));
  } finally {
    for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${work}${end}`, { force: true });
  }
  return before;
}
