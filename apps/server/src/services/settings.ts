import { DEFAULT_SETTINGS, type Settings } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { stale } from './resources.ts';

interface StoredSettings {
  settings: Settings;
  version: number;
}

/** The workshop's settings; defaults until they were first written (version 0). */
export async function readSettings(store: Store): Promise<StoredSettings> {
  const [row] = await rowsOf(store.models.settings);
  if (!row) return { settings: DEFAULT_SETTINGS, version: 0 };
  return { settings: { ...DEFAULT_SETTINGS, ...row.body }, version: row.version };
}

export async function writeSettings(store: Store, version: number, settings: Settings): Promise<StoredSettings> {
  return store.write(async (transaction) => {
    const [row] = await rowsOf(store.models.settings, { transaction });
    const now = row?.version ?? 0;
    if (now !== version) {
      throw stale('setup', settings, row?.body ?? DEFAULT_SETTINGS);
    }
    const next = { id: 1, body: settings, version: now + 1 };
    await store.models.settings.upsert(next, { transaction });
    return { settings, version: next.version };
  });
}
