import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { join } from 'node:path';
import { wrongWithFile } from './wrong-with-file.ts';

export const backupsIn = (folder: string) => join(folder, 'backups');

/** Why a copy was made: each day, because somebody asked, before a restore or a change, of a file taken in. */
export type BackupWhy = 'daily' | 'asked' | 'before-restore' | 'before' | 'taken-in';
export interface Backup {
  name: string;
  why: BackupWhy;
  at: number;
  bytes: number;
  /** What is wrong with it, as a sentence goes on after its name; null where nothing can be seen from outside. */
  wrong: string | null;
}

const NAME = /^(daily|asked|before-restore|before|taken-in)-.*\.sqlite$/;
/** What is still being made: nothing that bears it is a copy, and the next start sweeps it away. */
const IN_THE_MAKING = /\.part(-wal|-shm|-journal)?$/;
/** In the data folder itself: the moment that an export is written from. */
const EXPORTING = /^export-.*\.sqlite(-wal|-shm|-journal)?$/;
/** As an earlier Schmelz called what it had not finished. */
const EARLIER = /\.(making|restoring)(-wal|-shm|-journal)?$|^judged-/;

/** Databases beside the workshop, whoever put them there, newest first; those that cannot be whole are told as such. */
function databasesIn(folder: string): Omit<Backup, 'why'>[] {
  const backups = backupsIn(folder);
  if (!existsSync(backups)) return [];
  return readdirSync(backups)
    .filter((name) => name.endsWith('.sqlite'))
    .map((name) => {
      const file = join(backups, name);
      const { mtimeMs, size } = statSync(file);
      return { name, at: Math.round(mtimeMs), bytes: size, wrong: wrongWithFile(file) };
    })
    .sort((a, b) => b.at - a.at);
}

/** The copies that Schmelz has made, newest first. */
export const listBackups = (folder: string): Backup[] =>
  databasesIn(folder).flatMap((each) => {
    const found = NAME.exec(each.name);
    return found ? [{ ...each, why: found[1] as BackupWhy }] : [];
  });

/** The file of the newest copy that may be whole; null where there is none. */
export function newestCopy(folder: string): string | null {
  const newest = databasesIn(folder).find(({ wrong }) => wrong === null);
  return newest ? join(backupsIn(folder), newest.name) : null;
}

/** Takes a file away with all that SQLite has put beside it. */
export function removeDatabase(file: string): void {
  for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${file}${end}`, { force: true });
}

/** Sweeps away what was still being made when an earlier server ended. Only while the folder is held. */
export function sweepLeftovers(folder: string): void {
  const swept = (where: string, ...patterns: RegExp[]) => {
    if (!existsSync(where)) return;
    for (const name of readdirSync(where)) {
      if (patterns.some((pattern) => pattern.test(name))) {
        rmSync(join(where, name), { recursive: true, force: true });
      }
    }
  };
  swept(folder, EXPORTING);
  swept(backupsIn(folder), IN_THE_MAKING, EARLIER);
}

/** What was written to a file or said of a folder is on the disk when this returns. */
function onDisk(path: string, flags: 'r' | 'r+'): void {
  const opened = openSync(path, flags);
  try {
    fsyncSync(opened);
  } finally {
    closeSync(opened);
  }
}

/** A name that no copy has, and none that is being made: two may be asked for in one millisecond. */
function freeName(backups: string, why: string, now: number): string {
  const stem = `${why}-${new Date(now).toISOString().replaceAll(/[:.]/g, '-')}`;
  for (let nth = 1; ; nth += 1) {
    const name = `${stem}${nth > 1 ? `-${nth}` : ''}.sqlite`;
    if (!existsSync(join(backups, name)) && !existsSync(join(backups, `${name}.part`))) return name;
  }
}

/**
 * Makes a copy whole, or not at all: under another name, brought to the disk, then renamed. It is listed under its name
 * only when `write` has ended, and nothing is left of it where that fails.
 * @param why the first words of its name, such as `daily` or `before-015-settled`
 * @param write fills an empty file that only this user may read, and sees that it is whole
 */
export async function makeWhole(
  folder: string,
  why: string,
  write: (file: string) => Promise<void>,
  now = Date.now(),
): Promise<Backup> {
  const backups = backupsIn(folder);
  mkdirSync(backups, { recursive: true, mode: 0o700 });
  const name = freeName(backups, why, now);
  const file = join(backups, name);
  const part = `${file}.part`;
  closeSync(openSync(part, 'wx', 0o600));
  try {
    await write(part);
    onDisk(part, 'r+');
    renameSync(part, file);
    onDisk(backups, 'r');
  } catch (error) {
    removeDatabase(part);
    throw error;
  }
  const { mtimeMs, size } = statSync(file);
  return { name, why: NAME.exec(name)![1] as BackupWhy, at: Math.round(mtimeMs), bytes: size, wrong: null };
}
