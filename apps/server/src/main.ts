import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BadConfig, readConfig } from './config.ts';
import { makeLog, serve } from './server.ts';
import { FolderInUse } from './store/lock.ts';

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
const log = makeLog(process.env['SCHMELZ_LOG'] ?? 'warn');

try {
  const config = readConfig(process.env, root);
  const running = await serve(config, log);
  console.log(`Schmelz is ready: ${running.url}`);
  console.log(`Data folder: ${config.dataFolder}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => void running.stop().then(() => process.exit(0)));
  }
} catch (error) {
  const known = error instanceof BadConfig || error instanceof FolderInUse;
  const inUse = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
  if (inUse) console.error('Another program uses this port: stop it, or set SCHMELZ_PORT to another one.');
  else console.error(known ? (error as Error).message : error);
  process.exit(1);
}
