import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BadConfig, readConfig } from './config.ts';
import { makeLog, serve } from './server.ts';
import { Fault } from './store/fault.ts';
import { FolderInUse } from './store/lock.ts';

// What the server writes is for this user alone.
process.umask(0o077);
// A terminal that is gone, or a log on a full disk, does not end the server.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..', '..', '..');

try {
  const config = readConfig(process.env, root);
  const running = await serve(config, makeLog(config.logLevel));
  console.log(`Schmelz is ready: ${running.url}`);
  console.log(`Data folder: ${config.dataFolder}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => void running.stop().then(() => process.exit(0)));
  }
} catch (error) {
  console.error(whyNot(error));
  process.exit(1);
}

/** Why the server did not start, in words where it is none of our mistakes. */
function whyNot(error: unknown): unknown {
  if (error instanceof BadConfig || error instanceof FolderInUse || error instanceof Fault) return error.message;
  switch ((error as NodeJS.ErrnoException).code) {
    case 'EADDRINUSE':
      return 'Another program uses this port: stop it, or set SCHMELZ_PORT to another one.';
    case 'EACCES':
      return 'This user may not use this port: set SCHMELZ_PORT to one of 1024 or more.';
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return 'SCHMELZ_HOST is no address of this machine: leave it at 127.0.0.1, or set it to one that it has.';
    default:
      return error;
  }
}
