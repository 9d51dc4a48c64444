import type { Entry } from '@schmelz/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface KeptTap {
  seq?: number;
  path: string;
  entry: Entry;
  /** The page that it was tapped on; left out: one of before pages had names. */
  page?: string;
}
/** A tap as it lies on the disk: its number is the order in which all pages of this device kept them. */
export type TapOnDisk = KeptTap & { seq: number };
/** A tap that the server did not take: kept until the maker has seen it. */
export interface RefusedTap {
  path: string;
  entry: Entry;
  why: string;
  at: number;
}

interface Taps extends DBSchema {
  taps: { key: number; value: KeptTap; indexes: { path: string; id: string } };
  refused: { key: string; value: RefusedTap & { id: string } };
}

let opened: Promise<IDBPDatabase<Taps>> | null = null;
const database = () =>
  (opened ??= openDB<Taps>('schmelz', 2, {
    upgrade(db, from) {
      if (from < 1) {
        const taps = db.createObjectStore('taps', { keyPath: 'seq', autoIncrement: true });
        taps.createIndex('path', 'path');
        taps.createIndex('id', 'entry.id', { unique: true });
      }
      if (from < 2) db.createObjectStore('refused', { keyPath: 'id' });
    },
  }));

/** A disk that has not answered by then is not waited for. */
const ANSWERS_WITHIN_MS = 1500;
/** It did not answer the last time: nobody waits for it until it does. */
let silent = false;

/** What the disk answers, or an error where it does not answer in time. What was asked of it may still come to pass. */
async function inTime<T>(work: Promise<T>): Promise<T> {
  const answered = work.then((found) => {
    silent = false;
    return found;
  });
  answered.catch(() => undefined); // when nobody waits for it any more
  let timer: ReturnType<typeof setTimeout> | undefined;
  const tooLate = new Promise<never>((_, reject) => {
    const giveUp = () => {
      silent = true;
      reject(new Error('it does not answer'));
    };
    timer = setTimeout(giveUp, silent ? 0 : ANSWERS_WITHIN_MS);
  });
  try {
    return await Promise.race([answered, tooLate]);
  } finally {
    clearTimeout(timer);
  }
}

async function addTap(tap: KeptTap): Promise<number> {
  const transaction = (await database()).transaction('taps', 'readwrite', { durability: 'strict' });
  const [seq] = await Promise.all([transaction.store.add(tap), transaction.done]);
  return seq;
}

async function removeTap(id: string): Promise<void> {
  const transaction = (await database()).transaction('taps', 'readwrite');
  const key = await transaction.store.index('id').getKey(id);
  if (key !== undefined) await transaction.store.delete(key);
  await transaction.done;
}

async function refuseTap(refused: RefusedTap): Promise<void> {
  const transaction = (await database()).transaction(['taps', 'refused'], 'readwrite', { durability: 'strict' });
  const { id } = refused.entry;
  await transaction.objectStore('refused').put({ ...refused, id });
  const taps = transaction.objectStore('taps');
  const key = await taps.index('id').getKey(id);
  if (key !== undefined) await taps.delete(key);
  await transaction.done;
}

/** Taps that are kept on this device, in the order in which they were made; all fail where the disk is silent. */
export const tapStore = {
  all: (path: string): Promise<TapOnDisk[]> =>
    inTime((async () => (await (await database()).getAllFromIndex('taps', 'path', path)) as TapOnDisk[])()),
  /** Of all runs and all pages. */
  everything: (): Promise<TapOnDisk[]> =>
    inTime((async () => (await (await database()).getAll('taps')) as TapOnDisk[])()),
  /** Resolves with its number when the tap is on this device's disk. */
  add: (tap: Omit<KeptTap, 'seq'>): Promise<number> => inTime(addTap(tap)),
  /** It counted. */
  remove: (id: string): Promise<void> => inTime(removeTap(id)),
  /** It did not count: it is kept apart until the maker has seen it. */
  refuse: (refused: RefusedTap): Promise<void> => inTime(refuseTap(refused)),
  refused: (): Promise<RefusedTap[]> =>
    inTime((async () => (await (await database()).getAll('refused')).sort((a, b) => a.at - b.at))()),
  /** Seen, and cleared. */
  clear: (id: string): Promise<void> => inTime((async () => (await database()).delete('refused', id))()),
};
