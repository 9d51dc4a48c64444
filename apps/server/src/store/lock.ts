import { join } from 'node:path';
import sqlite3 from 'sqlite3';

/** The file that is held while a server works on a folder. */
export const lockIn = (folder: string) => join(folder, 'in-use.lock');

/** Another server works on the same data folder. */
export class FolderInUse extends Error {
  constructor(folder: string) {
    super(`Another Schmelz server is using the data folder ${folder}. Stop it, or set SCHMELZ_DATA to another folder.`);
    this.name = 'FolderInUse';
  }
}

/**
 * Holds a data folder for this process: an exclusive transaction on a file beside the data. The kernel drops such a
 * lock when a process dies, however it dies, so a crash never leaves a folder locked.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(lockIn(folder), (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  const close = () => new Promise<void>((resolve) => database.close(() => resolve()));
  database.configure('busyTimeout', 200);
  await new Promise<void>((resolve, reject) => {
    database.exec('BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve()));
  }).catch(async (error: NodeJS.ErrnoException) => {
    await close();
    throw error.code === 'SQLITE_BUSY' ? new FolderInUse(folder) : error;
  });
  return close;
}
