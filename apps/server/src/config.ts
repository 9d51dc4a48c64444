import { existsSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';

export interface Config {
  host: string;
  port: number;
  /** Names that the server answers to on the house network, beside its addresses. */
  names: string[];
  dataFolder: string;
  webFolder: string;
  /** From one address: a busy evening stays far below, a runaway script does not. */
  requestsAMinute: number;
  /** The thread that calculates; null where it is not built: then it is done in the server's own. */
  computeWorker: string | null;
  /** The thread that reads beside the taps; null where it is not built: the server's own reads. */
  readWorker: string | null;
  password: string | null;
  /** What is written to the log. */
  logLevel: (typeof LOG_LEVELS)[number];
  /** Where probes are read: nowhere, the simulated logger that ships with it, or a logger at host and port. */
  logger: 'off' | 'simulated' | { host: string; port: number };
}

const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'] as const;
const isLevel = (text: string): text is Config['logLevel'] => (LOG_LEVELS as readonly string[]).includes(text);

export class BadConfig extends Error {}

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);
export const isLoopback = (host: string) => LOOPBACK.has(host);

/**
 * Settings of the server from its environment: SCHMELZ_HOST (127.0.0.1), SCHMELZ_PORT (4173), SCHMELZ_DATA (the data
 * folder), SCHMELZ_LOGGER (off, simulated or host:port), SCHMELZ_PASSWORD, SCHMELZ_NAMES (host names beside this
 * machine's own, with commas between). On any address but this machine's own, a password of at least 8 characters is a
 * must.
 */
export function readConfig(env: Record<string, string | undefined>, root: string): Config {
  const host = env['SCHMELZ_HOST'] || '127.0.0.1';
  const port = Number(env['SCHMELZ_PORT'] || 4173);
  const password = env['SCHMELZ_PASSWORD'] || null;
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new BadConfig(`SCHMELZ_PORT is ${env['SCHMELZ_PORT']}; allowed: a whole number from 0 to 65535`);
  }
  const requestsAMinute = Number(env['SCHMELZ_REQUESTS_A_MINUTE'] || 3000);
  if (!Number.isInteger(requestsAMinute) || requestsAMinute < 60) {
    throw new BadConfig(
      `SCHMELZ_REQUESTS_A_MINUTE is ${env['SCHMELZ_REQUESTS_A_MINUTE']}; allowed: a whole number from 60`,
    );
  }
  if (password !== null && password.length < 8) {
    throw new BadConfig('SCHMELZ_PASSWORD is too short; allowed: 8 characters or more');
  }
  const logLevel = env['SCHMELZ_LOG'] || 'warn';
  if (!isLevel(logLevel)) throw new BadConfig(`SCHMELZ_LOG is ${logLevel}; allowed: ${LOG_LEVELS.join(', ')}`);
  if (!isLoopback(host) && password === null) {
    throw new BadConfig(
      `SCHMELZ_HOST is ${host}, which others can reach: set SCHMELZ_PASSWORD too, or leave SCHMELZ_HOST at 127.0.0.1.`,
    );
  }
  return {
    host,
    port,
    password,
    logLevel,
    names: namesOf(env['SCHMELZ_NAMES'] || ''),
    logger: loggerOf(env['SCHMELZ_LOGGER'] || 'off'),
    dataFolder: env['SCHMELZ_DATA'] || join(root, 'data', 'workshop'),
    requestsAMinute,
    computeWorker: builtWorker(root, 'compute-worker.js'),
    readWorker: builtWorker(root, 'aside-worker.js'),
    webFolder: env['SCHMELZ_WEB'] || join(root, 'apps', 'web', 'dist'),
  };
}

function builtWorker(root: string, name: string): string | null {
  const script = join(root, 'apps', 'server', 'dist', name);
  return existsSync(script) ? script : null;
}

/** This machine's own name, as it is and as the house network says it, and those that the maker has given it. */
function namesOf(text: string): string[] {
  const own = hostname().toLowerCase();
  const given = text
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
  const odd = given.find((name) => !/^[a-z0-9.-]+$/.test(name));
  if (odd) throw new BadConfig(`SCHMELZ_NAMES is ${text}; allowed: host names with commas between, without ports`);
  return [own, `${own}.local`, ...given];
}

function loggerOf(text: string): Config['logger'] {
  if (text === 'off' || text === 'simulated') return text;
  const [, host, port] = /^([\w.-]+):(\d{1,5})$/.exec(text) ?? [];
  if (!host || !port || Number(port) > 65535) {
    throw new BadConfig(`SCHMELZ_LOGGER is ${text}; allowed: off, simulated, or host:port such as 127.0.0.1:4180`);
  }
  return { host, port: Number(port) };
}
