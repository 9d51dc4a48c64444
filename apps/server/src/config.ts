import { join } from 'node:path';

export interface Config {
  host: string;
  port: number;
  dataFolder: string;
  webFolder: string;
  password: string | null;
}

export class BadConfig extends Error {}

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);
export const isLoopback = (host: string) => LOOPBACK.has(host);

/**
 * Settings of the server from its environment: SCHMELZ_HOST (127.0.0.1), SCHMELZ_PORT (4173), SCHMELZ_DATA (the data
 * folder), SCHMELZ_PASSWORD. On any address but this machine's own, a password of at least 8 characters is a must.
 */
export function readConfig(env: Record<string, string | undefined>, root: string): Config {
  const host = env['SCHMELZ_HOST'] || '127.0.0.1';
  const port = Number(env['SCHMELZ_PORT'] || 4173);
  const password = env['SCHMELZ_PASSWORD'] || null;
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new BadConfig(`SCHMELZ_PORT is ${env['SCHMELZ_PORT']}; allowed: a whole number from 0 to 65535`);
  }
  if (password !== null && password.length < 8) {
    throw new BadConfig('SCHMELZ_PASSWORD is too short; allowed: 8 characters or more');
  }
  if (!isLoopback(host) && password === null) {
    throw new BadConfig(
      `SCHMELZ_HOST is ${host}, which others can reach: set SCHMELZ_PASSWORD too, or leave SCHMELZ_HOST at 127.0.0.1.`,
    );
  }
  return {
    host,
    port,
    password,
    dataFolder: env['SCHMELZ_DATA'] || join(root, 'data', 'workshop'),
    webFolder: env['SCHMELZ_WEB'] || join(root, 'apps', 'web', 'dist'),
  };
}
