import sqlite3 from 'sqlite3';

/** Asks a database. */
export type Ask = <T>(sql: string, values?: unknown[]) => Promise<T[]>;
/** A database file by itself, beside the workshop that is open. */
export interface Database {
  ask: Ask;
  raw: sqlite3.Database;
  close(): Promise<void>;
}

/** A name as SQL takes it, whatever is in it. */
export const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

export async function openDatabase(file: string): Promise<Database> {
  const raw = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, (error) => (error ? reject(error) : resolve(opened)));
  });
  return {
    raw,
    ask: (sql, values = []) =>
      new Promise((resolve, reject) =>
        raw.all(sql, values, (error, rows) => (error ? reject(error) : resolve(rows as never[]))),
      ),
    close: () => new Promise((resolve) => raw.close(() => resolve())),
  };
}

/** A database for as long as `work` goes on. */
export async function withDatabase<T>(file: string, work: (database: Database) => Promise<T>): Promise<T> {
  const database = await openDatabase(file);
  try {
    return await work(database);
  } finally {
    await database.close();
  }
}
