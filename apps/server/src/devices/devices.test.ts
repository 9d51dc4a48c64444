import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { channelLine, greetingLine, readingLine } from '@schmelz/core';
import { BadConfig, readConfig } from '../config.ts';
import { makeLog } from '../server.ts';
import {
  addReadings,
  channelId,
  listChannels,
  makeFeed,
  rawReadings,
  type LiveReading,
  type LiveWeight,
} from '../services/readings.ts';
import { openStore, type Store } from '../store/store.ts';
import { temporaryFolder } from '../test/server.ts';
import { readLogger, type LoggerClient } from './logger-client.ts';

/** A device of the test's own: says what it is told to whoever connects. */
async function device() {
  const sockets = new Set<Socket>();
  let connected = 0;
  const waiting: (() => void)[] = [];
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    connected += 1;
    socket.on('error', () => undefined); // the reader hangs up when it has heard enough
    socket.on('close', () => sockets.delete(socket));
    waiting.splice(0).forEach((done) => done());
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    port: (server.address() as AddressInfo).port,
    connections: () => connected,
    nextConnection: () => new Promise<void>((done) => waiting.push(done)),
    say: (text: string) => sockets.forEach((socket) => socket.write(text)),
    hangUp: () => sockets.forEach((socket) => socket.destroy()),
    stop: () => {
      sockets.forEach((socket) => socket.destroy());
      return new Promise((done) => server.close(done));
    },
  };
}

describe('reading a logger', () => {
  let store: Store;
  let logger: Awaited<ReturnType<typeof device>>;
  let client: LoggerClient;
  let seen: LiveReading[];
  const weighed: LiveWeight[] = [];
  const feed = makeFeed();
  feed.subscribe((readings) => seen.push(...readings));
  feed.subscribeWeights((weights) => weighed.push(...weights));
  let runs = 0;
  let source: string;

  beforeAll(async () => {
    store = await openStore(temporaryFolder());
  });
  afterAll(() => store.close());
  beforeEach(async () => {
    seen = [];
    source = `logger ${(runs += 1)}`;
    logger = await device();
    const first = logger.nextConnection();
    client = readLogger({ host: '127.0.0.1', port: logger.port, source }, store, feed, makeLog('silent'));
    await first;
    logger.say(greetingLine());
  });
  afterEach(async () => {
    await client.stop();
    await logger.stop();
  });

  const heard = async (count: number) => {
    const until = Date.now() + 10_000;
    while (seen.length < count && Date.now() < until) await new Promise((done) => setTimeout(done, 25));
    expect(seen.length).toBeGreaterThanOrEqual(count);
  };

  test('a line that arrives in pieces is one reading; words it does not know are passed over', async () => {
    const at = Date.now();
    logger.say(channelLine(1, 'pot', 'C'));
    logger.say('battery 80\nr 1 ');
    await new Promise((done) => setTimeout(done, 50));
    logger.say(`${at} 371.4\n`);
    await heard(1);
    expect(seen[0]).toMatchObject({ place: 'pot', celsius: 371.4, at });
  });

  test('Fahrenheit becomes Celsius, a drop-out is no reading, a scale is no thermometer: its weights go round at once and are not kept', async () => {
    logger.say(channelLine(1, 'oven', 'F') + channelLine(2, 'scale', 'kg'));
    logger.say(
      readingLine(1, Date.now(), 350) + readingLine(1, Date.now() + 1, null) + readingLine(2, Date.now(), 1.2),
    );
    await heard(1);
    await new Promise((done) => setTimeout(done, 1200));
    expect(seen).toHaveLength(1);
    expect(seen[0]!.celsius).toBeCloseTo(176.67, 2);
    expect(weighed).toMatchObject([{ name: 'scale', kg: 1.2 }]);
    expect((await listChannels(store)).filter((each) => each.source === source).map((each) => each.name)).toEqual([
      'oven',
    ]);
  });

  test('a device whose clock is years off gets the time of the server', async () => {
    const before = Date.now();
    logger.say(channelLine(1, 'mold', 'C') + readingLine(1, 1000, 95));
    await heard(1);
    expect(seen[0]!.at).toBeGreaterThanOrEqual(before);
  });

  test('a device that talks nonsense is hung up on and tried again; what it said before is kept', async () => {
    logger.say(channelLine(1, 'pot', 'C') + readingLine(1, Date.now(), 365));
    await heard(1);
    const again = logger.nextConnection();
    logger.say('r 1 soon hot\n');
    await again;
    expect(logger.connections()).toBe(2);
    logger.say(greetingLine() + channelLine(1, 'pot', 'C') + readingLine(1, Date.now() + 5, 366));
    await heard(2);
    const [channel] = (await listChannels(store)).filter((each) => each.source === source);
    const kept = await rawReadings(store, channel!.id, 0, 4e12);
    expect(kept.map((reading) => reading.celsius)).toEqual([365, 366]);
  });

  test('a line without an end, and another version of the protocol, are hung up on too', async () => {
    let again = logger.nextConnection();
    logger.say('x'.repeat(400));
    await again;
    again = logger.nextConnection();
    logger.say('schmelz-device 9\n');
    await again;
    expect(logger.connections()).toBe(3);
  });

  test('when it goes away it is waited for', async () => {
    const again = logger.nextConnection();
    logger.hangUp();
    await again;
    logger.say(greetingLine() + channelLine(1, 'oven', 'C') + readingLine(1, Date.now(), 177));
    await heard(1);
    expect(seen.at(-1)).toMatchObject({ place: 'oven', celsius: 177 });
  });
});

describe('a device out of order', () => {
  let store: Store;
  let logger: Awaited<ReturnType<typeof device>>;
  let client: LoggerClient;
  const seen: LiveReading[] = [];
  const feed = makeFeed();
  feed.subscribe((readings) => seen.push(...readings));

  beforeAll(async () => {
    store = await openStore(temporaryFolder());
    logger = await device();
    const first = logger.nextConnection();
    const address = { host: '127.0.0.1', port: logger.port, source: 'wild' };
    client = readLogger(address, store, feed, makeLog('silent'), 300);
    await first;
  });
  afterAll(async () => {
    await client.stop();
    await logger.stop();
    await store.close();
  });
  const until = async (holds: () => boolean | Promise<boolean>) => {
    for (let i = 0; i < 400 && !(await holds()); i++) await new Promise((done) => setTimeout(done, 25));
    expect(await holds()).toBe(true);
  };

  test('its silence is noticed, and it is asked again', async () => {
    const again = logger.nextConnection();
    logger.say(greetingLine());
    await again;
    expect(logger.connections()).toBeGreaterThanOrEqual(2);
  });

  test('a flood of 100,000 readings leaves few, and room for a write; what it says after is heard', async () => {
    logger.say(greetingLine() + channelLine(1, 'pot', 'C'));
    const now = Date.now();
    logger.say(Array.from({ length: 100_000 }, (_, i) => readingLine(1, now - 100_000 + i, 300 + (i % 50))).join(''));
    await store.write((transaction) => store.models.sessions.count({ transaction }));
    await until(() => seen.length > 0);
    await until(async () => {
      logger.say(greetingLine() + channelLine(1, 'pot', 'C') + readingLine(1, Date.now(), 366.6));
      await new Promise((done) => setTimeout(done, 100));
      return seen.some((reading) => reading.celsius === 366.6);
    });
    const [{ count } = { count: 0 }] = await listChannels(store);
    expect(count).toBeLessThan(5000);
  });

  test('what no probe can read is shown as odd and not kept', async () => {
    await until(async () => {
      logger.say(greetingLine() + channelLine(2, 'oven', 'C') + readingLine(2, Date.now(), 1372));
      logger.say(readingLine(2, Date.now() + 1, 177) + readingLine(2, Date.now() + 2, -200));
      await new Promise((done) => setTimeout(done, 100));
      return seen.filter((reading) => reading.place === 'oven').length >= 3;
    });
    const odd = seen.filter((reading) => reading.place === 'oven' && reading.odd).map((reading) => reading.celsius);
    expect(new Set(odd)).toEqual(new Set([1372, -200]));
    const oven = (await listChannels(store)).find((channel) => channel.name === 'oven')!;
    const kept = await rawReadings(store, oven.id, 0, 4e12);
    expect(new Set(kept.map((reading) => reading.celsius))).toEqual(new Set([177]));
  });

  test('it names no more channels than are kept of one device; the server goes on', async () => {
    // Said again only where nothing came of it: each name waits for its turn to be written.
    let known = -1;
    await until(async () => {
      const { length } = await listChannels(store);
      if (length === known) {
        logger.say(greetingLine() + Array.from({ length: 200 }, (_, i) => channelLine(i + 3, `c${i}`, 'C')).join(''));
      }
      known = length;
      await new Promise((done) => setTimeout(done, 500));
      return length >= 64;
    });
    expect(await listChannels(store)).toHaveLength(64);
  });

  test('a clock that once was a year ahead silences nothing', async () => {
    const id = await channelId(store, 'old', 'pot');
    const now = Date.now();
    const year = now + 365 * 24 * 3600 * 1000;
    const at = (from: number, celsius: number) =>
      Array.from({ length: 1500 }, (_, i) => ({ at: from + i * 1000, celsius }));
    await addReadings(store, id, at(year, 20));
    await addReadings(store, id, at(year + 2e6, 20));
    await addReadings(store, id, at(now, 366));
    const kept = await rawReadings(store, id, now, now + 2e6);
    expect(kept).toHaveLength(1500);
  });
});

describe('where probes are read', () => {
  const logger = (text?: string) => readConfig(text === undefined ? {} : { SCHMELZ_LOGGER: text }, '/tmp').logger;
  test('nowhere unless it is said', () => {
    expect(logger()).toBe('off');
    expect(logger('simulated')).toBe('simulated');
    expect(logger('127.0.0.1:4180')).toEqual({ host: '127.0.0.1', port: 4180 });
  });
  test.each(['yes', 'host', 'host:99999', ':4180', 'a b:1'])('%s is refused with what is allowed', (text) => {
    expect(() => logger(text)).toThrow(BadConfig);
    expect(() => logger(text)).toThrow(/allowed: off, simulated, or host:port/);
  });
});
