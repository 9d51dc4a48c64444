import type { BackupView, TakenInView } from '@schmelz/contract';
import { backUp, listBackups, removeBackup, restore, type Backup } from '../store/backups.ts';
import { takeIn, tablesOf } from '../store/document.ts';
import { Fault } from '../store/fault.ts';
import type { Store } from '../store/store.ts';
import { judgeCopy } from './judge-copy.ts';
import { notAllowed, notFound } from './errors.ts';

const view = ({ name, why, at, bytes }: Backup): BackupView => ({ name, why, at, bytes });

export const backups = (store: Store): BackupView[] => listBackups(store.folder).map(view);

export const backUpNow = async (store: Store): Promise<BackupView> => view(await backUp(store, 'asked'));

/** Puts one of the copies back; answers with the one that was made of what was there. */
export async function putBack(store: Store, name: string): Promise<BackupView> {
  if (!listBackups(store.folder).some((each) => each.name === name)) throw notFound('copy', name);
  try {
    return view(await restore(store, name));
  } catch (error) {
    if (error instanceof Fault) throw notAllowed(error.message);
    throw error;
  }
}

/** Makes a copy of an exported workshop; answers with what would change if it were put in the place of this one. */
export async function takeInDocument(store: Store, text: string): Promise<TakenInView> {
  try {
    const { name, bytes, rows } = await takeIn(store.folder, text);
    await judgeCopy(store.folder, name).catch((error: unknown) => {
      removeBackup(store.folder, name);
      throw error;
    });
    const tables = [];
    for (const { name: table } of await tablesOf(store)) {
      const [{ count }] = (await store.select<{ count: number }>(`SELECT COUNT(*) AS count FROM "${table}"`)) as [
        { count: number },
      ];
      tables.push({ table, now: count, then: rows[table] ?? 0 });
    }
    return { copy: { name, why: 'taken-in', at: Date.now(), bytes }, tables };
  } catch (error) {
    if (error instanceof Fault) throw notAllowed(error.message);
    throw error;
  }
}
