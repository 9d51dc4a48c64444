import { connect, type Socket } from 'node:net';
import { fahrenheitToCelsius, LONGEST_LINE, parseDeviceLine, type DeviceUnit } from '@schmelz/core';
import type { ProbePlace } from '@schmelz/contract';
import type { Logger } from 'pino';
import { addReadings, channelId, type Feed, type LiveReading } from '../services/readings.ts';
import type { Store } from '../store/store.ts';

/** Readings are written once a second, all channels together. */
const FLUSH_MS = 1000;
const RETRY_MS = [500, 1000, 2000, 5000, 10_000];
/** A device whose clock is off by more than this is not believed: its readings get the server's time. */
const CLOCK_TRUST_MS = 5 * 60_000;

interface Known {
  id: number;
  name: string;
  place: ProbePlace;
  unit: DeviceUnit;
}

export interface LoggerClient {
  stop(): Promise<void>;
}

/** Reads a logger over TCP as long as the server runs: connects, connects again, stores and publishes what it says. */
export function readLogger(
  address: { host: string; port: number; source: string },
  store: Store,
  feed: Feed,
  log: Logger,
): LoggerClient {
  const channels = new Map<number, Promise<Known>>();
  const scales = new Map<number, string>();
  let waiting: { channel: number; at: number; value: number }[] = [];
  let socket: Socket | null = null;
  let stopped = false;
  let failures = 0;
  let retry: NodeJS.Timeout | undefined;
  let flushing: Promise<void> = Promise.resolve();

  const known = async (name: string, unit: DeviceUnit): Promise<Known> => {
    const id = await channelId(store, address.source, name);
    const row = await store.models.channels.findByPk(id);
    return { id, name, unit, place: row!.get('place') as ProbePlace };
  };
  const onLine = (text: string) => {
    const line = parseDeviceLine(text);
    if (line.kind === 'greeting' && line.version !== 1)
      throw new RangeError(`The device speaks version ${line.version}.`);
    if (line.kind === 'channel' && line.unit === 'kg') scales.set(line.channel, line.name);
    else if (line.kind === 'channel') channels.set(line.channel, known(line.name, line.unit));
    if (line.kind !== 'reading' || line.value === null) return;
    const now = Date.now();
    const at = Math.abs(line.at - now) > CLOCK_TRUST_MS ? now : line.at;
    // A weight is wanted while the head lies there, and is nobody's record until it is taken.
    const scale = scales.get(line.channel);
    if (scale) feed.publishWeights([{ name: scale, at, kg: line.value }]);
    else waiting.push({ channel: line.channel, at, value: line.value });
  };
  const flush = async () => {
    const burst = waiting;
    waiting = [];
    const byChannel = new Map<number, LiveReading[]>();
    for (const { channel, at, value } of burst) {
      const about = await channels.get(channel);
      if (!about) continue;
      const celsius = about.unit === 'F' ? fahrenheitToCelsius(value) : value;
      const reading = { channel: about.id, place: about.place, name: about.name, at, celsius };
      byChannel.set(about.id, [...(byChannel.get(about.id) ?? []), reading]);
    }
    for (const [id, readings] of byChannel) await addReadings(store, id, readings);
    const all = [...byChannel.values()].flat();
    if (all.length) feed.publish(all);
  };
  const timer = setInterval(() => {
    flushing = flushing.then(flush).catch((error: unknown) => log.error({ err: error }, 'readings'));
  }, FLUSH_MS);

  const open = () => {
    let rest = '';
    socket = connect(address.port, address.host);
    socket.setEncoding('latin1');
    socket.on('data', (data: string) => {
      failures = 0;
      const lines = (rest + data).split('\n');
      rest = lines.pop()!;
      try {
        lines.forEach(onLine);
        if (rest.length > LONGEST_LINE) throw new RangeError('The device sent a line without an end.');
      } catch (error) {
        log.warn({ err: error }, 'logger');
        socket?.destroy();
      }
    });
    socket.on('error', (error) => log.warn({ err: error }, 'logger'));
    socket.on('close', () => {
      if (stopped) return;
      retry = setTimeout(open, RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]);
    });
  };
  open();
  return {
    async stop() {
      stopped = true;
      clearInterval(timer);
      clearTimeout(retry);
      socket?.destroy();
      await flushing;
      await flush();
    },
  };
}
