import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { backupsIn, databaseIn } from '../store/inspect.ts';
import { Fault } from '../store/fault.ts';
import { openStore, type Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { monthsOfBooks, quality } from './books.ts';
import { listGoods } from './goods.ts';
import { listJars } from './jars.ts';
import { listLots } from './lots.ts';
import { listOrders } from './orders.ts';
import { poursOnList } from './pours.ts';
import { readSettings } from './settings.ts';
import { listMaterials } from './stock.ts';
import { ticketsOnList } from './ticket-figures.ts';
import { readTonight } from './tonight.ts';

/** What every page rests on, each by its name. */
const READERS: Readonly<Record<string, (store: Store) => Promise<unknown>>> = {
  settings: readSettings,
  materials: listMaterials,
  orders: (store) => listOrders(store),
  tickets: (store) => ticketsOnList(store),
  pours: (store) => poursOnList(store),
  'what is open': readTonight,
  'finished heads': listGoods,
  lead: listLots,
  jars: listJars,
  months: monthsOfBooks,
  quality: (store) => quality(store, null),
};

/**
 * Reads a copy as the pages do, in a folder of its own: what is in its tables may still be nothing that they can read.
 * @throws Fault that names what cannot be read, and why
 */
export async function judgeCopy(folder: string, name: string): Promise<void> {
  const own = mkdtempSync(join(backupsIn(folder), 'judged-'));
  try {
    copyFileSync(join(backupsIn(folder), name), databaseIn(own));
    const store = await openStore(own);
    try {
      for (const [what, read] of Object.entries(READERS)) {
        await read(store).catch((error: unknown) => {
          // A workshop in which something is still to be set up says so on its pages, and is whole.
          if (error instanceof Refused) return;
          throw new Fault(`What the file says of ${what} cannot be read: ${(error as Error).message}`);
        });
      }
    } finally {
      await store.close();
    }
  } finally {
    rmSync(own, { recursive: true, force: true });
  }
}
