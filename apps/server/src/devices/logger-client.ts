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

/** A device that says nothing for so long is asked again. */
const SILENT_MS = 20_000;
/** Of one channel so many readings a second are kept; a flood of more says nothing more. */
const MOST_A_SECOND = 20;
const MOST_LINES_A_TURN = 2000;
/** What a probe in a workshop can read; an open wire or a loose plug reads far outside. Common practice, no source. */
const PLAUSIBLE_C = { least: -60, most: 1000 };

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
  silentMs = SILENT_MS,
): LoggerClient {
  const channels = new Map<number, Promise<Known | null>>();
  const keptNow = new Map<number, number>();
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
    else if (line.kind === 'channel') {
      // A channel that cannot be kept is logged once, and its readings are left out.
      const asked = known(line.name, line.unit).catch((error: unknown) => {
        log.warn({ err: error }, 'channel');
        return null;
      });
      channels.set(line.channel, asked);
    }
    if (line.kind !== 'reading' || line.value === null) return;
    const now = Date.now();
    const at = Math.abs(line.at - now) > CLOCK_TRUST_MS ? now : line.at;
    // A weight is wanted while the head lies there, and is nobody's record until it is taken.
    const scale = scales.get(line.channel);
    if (scale) feed.publishWeights([{ name: scale, at, kg: line.value }]);
    else {
      const kept = keptNow.get(line.channel) ?? 0;
      keptNow.set(line.channel, kept + 1);
      if (kept < MOST_A_SECOND) waiting.push({ channel: line.channel, at, value: line.value });
      else if (kept === MOST_A_SECOND) log.warn({ channel: line.channel }, 'a flood of readings: some are left out');
    }
  };
  let readInTurn = 0;
  /** Of a flood no more is read before the next turn. */
  const pauseAfter = (count: number) => {
    readInTurn += count;
    if (readInTurn < MOST_LINES_A_TURN) return;
    readInTurn = 0;
    socket?.pause();
    setTimeout(() => socket?.resume(), FLUSH_MS / 10).unref();
  };
  const flush = async () => {
    const burst = waiting;
    waiting = [];
    keptNow.clear();
    const byChannel = new Map<number, LiveReading[]>();
    for (const { channel, at, value } of burst) {
      const about = await channels.get(channel);
      if (!about) continue;
      const celsius = about.unit === 'F' ? fahrenheitToCelsius(value) : value;
      const odd = celsius < PLAUSIBLE_C.least || celsius > PLAUSIBLE_C.most;
      const reading: LiveReading = { channel: about.id, place: about.place, name: about.name, at, celsius };
      const own = byChannel.get(about.id);
      if (own) own.push(odd ? { ...reading, odd } : reading);
      else byChannel.set(about.id, [odd ? { ...reading, odd } : reading]);
    }
    for (const [id, readings] of byChannel) {
      const sound = readings.filter((reading) => !reading.odd);
      if (sound.length) await addReadings(store, id, sound);
    }
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
    socket.setTimeout(silentMs, () => {
      log.warn({ source: address.source }, 'the logger is silent; it is asked again');
      socket?.destroy();
    });
    socket.on('data', (data: string) => {
      failures = 0;
      const lines = (rest + data).split('\n');
      rest = lines.pop()!;
      try {
        // A flood is read a little at a time: the bench has its turn in between.
        lines.forEach(onLine);
        pauseAfter(lines.length);
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
