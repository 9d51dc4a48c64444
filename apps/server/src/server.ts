import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type DestinationStream, type Logger } from 'pino';
import { makeApp } from './app.ts';
import type { Config } from './config.ts';
import { makeBasics } from './services/basics.ts';
import { openStore, type Store } from './store/store.ts';

export interface Running {
  url: string;
  store: Store;
  stop(): Promise<void>;
}

/** Log lines name what was asked for, never what was sent: no bodies, no cookies, no passwords. */
export const makeLog = (level: string, to?: DestinationStream): Logger => {
  const options = { level, redact: ['req.headers', '*.password', '*.cookie', 'err.config'] };
  return to ? pino(options, to) : pino(options);
};

/** Opens the store, starts listening, and says where. */
export async function serve(config: Config, log: Logger): Promise<Running> {
  const store = await openStore(config.dataFolder);
  try {
    await makeBasics(store);
    const server = createServer(makeApp(store, config, log).callback());
    await listening(server, config);
    const { port } = server.address() as AddressInfo;
    const host = config.host.includes(':') ? `[${config.host}]` : config.host;
    return {
      url: `http://${host}:${port}`,
      store,
      async stop() {
        server.closeAllConnections();
        await new Promise((resolve) => server.close(resolve));
        await store.close();
      },
    };
  } catch (error) {
    await store.close();
    throw error;
  }
}

const listening = (server: Server, { host, port }: Config) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve());
  });
