import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type DestinationStream, type Logger } from 'pino';
import { makeApp } from './app.ts';
import type { Config } from './config.ts';
import { readLogger } from './devices/logger-client.ts';
import { startSimulatedLogger } from './devices/simulated-logger.ts';
import { makeBasics } from './services/basics.ts';
import { aside } from './services/aside.ts';
import { computing } from './services/compute.ts';
import { makeFeed, type Feed } from './services/readings.ts';
import { judgeAtStart } from './services/judge.ts';
import { keepDaily } from './store/backups.ts';
import { openStore, type Store } from './store/store.ts';

export interface Running {
  url: string;
  store: Store;
  stop(): Promise<void>;
}

/** An error as the log keeps it: its kind, its code and where. What hangs on it may hold what was sent. */
const errorOnLog = (error: unknown) => {
  if (!(error instanceof Error)) return { message: String(error).slice(0, 200) };
  const { name, message, stack } = error;
  const where = (stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    name,
    code: (error as NodeJS.ErrnoException).code,
    message: message.slice(0, 200),
    where: where.slice(0, 12),
  };
};

/** Log lines name what was asked for, never what was sent: no bodies, no cookies, no passwords. */
export const makeLog = (level: string, to?: DestinationStream): Logger => {
  const options = { level, redact: ['*.password', '*.cookie'], serializers: { err: errorOnLog } };
  if (to) return pino(options, to);
  const out = pino.destination(1);
  out.on('error', () => undefined); // a log that cannot be written does not end the server
  return pino(options, out);
};

const KEEP_ALIVE_MS = 75_000;

/** Opens the store, starts listening, and says where. */
export async function serve(config: Config, log: Logger): Promise<Running> {
  const store = await openStore(config.dataFolder);
  try {
    await judgeAtStart(store);
    await makeBasics(store);
    const feed = makeFeed();
    const compute = computing(config.computeWorker);
    const beside = config.readWorker === null ? null : aside(config.readWorker, store);
    const server = createServer(makeApp(store, config, log, { feed, compute, aside: beside }).callback());
    // A connection that a page has kept for its next tap is not shut under it: the five seconds of node are too few.
    server.keepAliveTimeout = KEEP_ALIVE_MS;
    await listening(server, config);
    const copies = startCopies(store, log);
    const devices = await startDevices(config, store, feed, log);
    const { port } = server.address() as AddressInfo;
    const host = config.host.includes(':') ? `[${config.host}]` : config.host;
    const stop = async () => {
      copies.stop();
      await devices.stop();
      await compute.stop();
      await beside?.stop();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await store.close();
    };
    let stopped: Promise<void> | undefined;
    return { url: `http://${host}:${port}`, store, stop: () => (stopped ??= stop()) };
  } catch (error) {
    await store.close();
    throw error;
  }
}

/** The first look for the copy of the day, and the next ones. */
const FIRST_COPY_MS = 60_000;
const NEXT_COPY_MS = 3_600_000;

/** A copy a day while the server runs; one that fails is on the log, and tried again. */
function startCopies(store: Store, log: Logger) {
  const look = () => keepDaily(store).catch((error: unknown) => log.error({ err: error }, 'no copy was made'));
  const first = setTimeout(() => void look(), FIRST_COPY_MS);
  const next = setInterval(() => void look(), NEXT_COPY_MS);
  return {
    stop() {
      clearTimeout(first);
      clearInterval(next);
    },
  };
}

/** The simulated logger begins its evening here: the pot is nearly there. */
const SIMULATED_START_S = 900;

/** Reads the logger that the configuration names; the simulated one is started first and read like a real one. */
async function startDevices({ logger }: Config, store: Store, feed: Feed, log: Logger) {
  if (logger === 'off') return { stop: async () => {} };
  const simulated = logger === 'simulated' ? await startSimulatedLogger({ startS: SIMULATED_START_S }) : null;
  const address = simulated ? { host: '127.0.0.1', port: simulated.port } : (logger as { host: string; port: number });
  const source = simulated ? 'simulated logger' : `logger ${address.host}:${address.port}`;
  const client = readLogger({ ...address, source }, store, feed, log);
  return {
    async stop() {
      await client.stop();
      await simulated?.stop();
    },
  };
}

const listening = (server: Server, { host, port }: Config) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve());
  });
