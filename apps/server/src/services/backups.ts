import type { BackupView, TakenInView } from '@schmelz/contract';
import { backUp, restore } from '../store/backups.ts';
import { listBackups } from '../store/copies-on-disk.ts';
import { takeIn, tablesOf } from '../store/document.ts';
import { Fault } from '../store/fault.ts';
import type { Store } from '../store/store.ts';
import { judgeWorkshop } from './judge.ts';
import { notAllowed, notFound } from './errors.ts';

export const backups = (store: Store): BackupView[] => listBackups(store.folder);

export const backUpNow = (store: Store): Promise<BackupView> => backUp(store, 'asked');

/** What is wrong with a copy or a file is the asker's to know; what is wrong with the disk is not. */
async function refusing<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Fault) throw notAllowed(error.message);
    throw error;
  }
}

/** Puts one of the copies back; answers with the one that was made of what was there. */
export async function putBack(store: Store, name: string): Promise<BackupView> {
  const known = listBackups(store.folder).find((each) => each.name === name);
  if (!known) throw notFound('copy', name);
  if (known.wrong) throw notAllowed(`The copy ${name} ${known.wrong}. Take another one: what is there is as it was.`);
  return refusing(() => restore(store, name, judgeWorkshop));
}

/** Makes a copy of an exported workshop; answers with what would change if it were put in the place of this one. */
export function takeInDocument(store: Store, text: string): Promise<TakenInView> {
  return refusing(async () => {
    const { copy, rows } = await takeIn(store.folder, text, judgeWorkshop);
    const tables = [];
    for (const { name: table } of await tablesOf(store)) {
      const [{ count }] = (await store.select<{ count: number }>(`SELECT COUNT(*) AS count FROM "${table}"`)) as [
        { count: number },
      ];
      tables.push({ table, now: count, then: rows[table] ?? 0 });
    }
    return { copy, tables };
  });
}
