import { startSimulatedLogger } from './simulated-logger.ts';

/** The simulated logger as a process of its own: SCHMELZ_LOGGER_PORT (4180) on loopback. */
const port = Number(process.env['SCHMELZ_LOGGER_PORT'] ?? 4180);
const logger = await startSimulatedLogger({ port });
console.log(
  `Simulated logger: 127.0.0.1:${logger.port}. Start the server with SCHMELZ_LOGGER=127.0.0.1:${logger.port}`,
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void logger.stop());
