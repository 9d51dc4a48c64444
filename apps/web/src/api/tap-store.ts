import type { Entry } from '@schmelz/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Taps extends DBSchema {
  taps: { key: number; value: { seq?: number; path: string; entry: Entry }; indexes: { path: string; id: string } };
}

let opened: Promise<IDBPDatabase<Taps>> | null = null;
const database = () =>
  (opened ??= openDB<Taps>('schmelz', 1, {
    upgrade(db) {
      const taps = db.createObjectStore('taps', { keyPath: 'seq', autoIncrement: true });
      taps.createIndex('path', 'path');
      taps.createIndex('id', 'entry.id', { unique: true });
    },
  }));

/** Taps that are kept on this device, in the order in which they were made. */
export const tapStore = {
  async all(path: string): Promise<Entry[]> {
    const rows = await (await database()).getAllFromIndex('taps', 'path', path);
    return rows.sort((a, b) => a.seq! - b.seq!).map((row) => row.entry);
  },
  /** Runs that have taps waiting here. */
  async paths(): Promise<string[]> {
    const rows = await (await database()).getAll('taps');
    return [...new Set(rows.map((row) => row.path))];
  },
  /** Resolves when the tap is on this device's disk. */
  async add(path: string, entry: Entry): Promise<void> {
    const transaction = (await database()).transaction('taps', 'readwrite', { durability: 'strict' });
    await Promise.all([transaction.store.add({ path, entry }), transaction.done]);
  },
  async remove(id: string): Promise<void> {
    const transaction = (await database()).transaction('taps', 'readwrite');
    const key = await transaction.store.index('id').getKey(id);
    if (key !== undefined) await transaction.store.delete(key);
    await transaction.done;
  },
};
