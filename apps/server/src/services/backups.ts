import type { BackupView } from '@schmelz/contract';
import { backUp, listBackups, restore, type Backup } from '../store/backups.ts';
import { Fault } from '../store/fault.ts';
import type { Store } from '../store/store.ts';
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
