import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FolderInUse } from '../store/lock.ts';
import { openStore } from '../store/store.ts';
import { makeThings } from './make-things.ts';
import { makeShop } from './shop.ts';
import { runYear } from './year.ts';

/**
 * Makes the demo workshop in SCHMELZ_DATA anew. SCHMELZ_DEMO_DAY (2026-11-25) fixes its last day, SCHMELZ_DEMO_DAYS how
 * many days it covers.
 */
async function main(): Promise<void> {
  const folder = process.env['SCHMELZ_DATA'];
  if (!folder) throw new Error('SCHMELZ_DATA must name the folder of the demo workshop.');
  const day = process.env['SCHMELZ_DEMO_DAY'];
  const today = day ? new Date(`${day}T19:00:00Z`).getTime() : Date.now();
  // The lock is asked for first: a running server keeps its folder.
  await (await openStore(folder)).close();
  for (const name of ['schmelz.sqlite', 'schmelz.sqlite-wal', 'schmelz.sqlite-shm', 'demo-made']) {
    rmSync(join(folder, name), { force: true });
  }
  mkdirSync(folder, { recursive: true });
  const store = await openStore(folder);
  const started = Date.now();
  const days = Number(process.env['SCHMELZ_DEMO_DAYS'] ?? 365);
  const things = await makeThings(store);
  // Tools come first: what they wear is planned with every order.
  await makeShop(store, things);
  await runYear(store, things, today, days);
  await store.close();
  writeFileSync(join(folder, 'demo-made'), `${new Date().toISOString()}\n`);
  console.log(`Demo workshop made in ${Math.round((Date.now() - started) / 1000)} s.`);
}

main().catch((error: unknown) => {
  console.error(error instanceof FolderInUse ? error.message : error);
  process.exit(1);
});
