import { randomUUID } from 'node:crypto';
import { PROBE_PLACES, type Channel, type ProbePlace, type ReadingPoint, type ReadingsView } from '@schmelz/contract';
import { fromTenths, packReadings, toTenths, unpackReadings, type Reading, type Weight } from '@schmelz/core';
import type { Transaction } from 'sequelize';
import type { BlockRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound, Refused } from './errors.ts';

/** Readings of a block: large enough to pack well, small enough to unpack in a moment. */
const BLOCK = 1024;
/** So many blocks are unpacked for a chart; a longer stretch is drawn from what is known of its blocks. */
const UNPACK_AT_MOST = 32;
const MOST_RAW = 20_000;
/** A pause that a block does not reach across, ms. */
const LEAP_MS = 24 * 3600 * 1000;

/** A device that names more channels than that is out of order. */
const MOST_CHANNELS = 64;

const isPlace = (name: string): name is ProbePlace => (PROBE_PLACES as readonly string[]).includes(name);

/** The channel of a source by its name, made when it is first seen; a channel named after a place stands there. */
export async function channelId(store: Store, source: string, name: string, place?: ProbePlace): Promise<number> {
  return store.write(async (transaction) => {
    const [known] = await rowsOf(store.models.channels, { where: { source, name }, transaction });
    if (known) return known.id!;
    if ((await store.models.channels.count({ where: { source }, transaction })) >= MOST_CHANNELS) {
      throw notAllowed(`${source} names a channel beyond the ${MOST_CHANNELS} that are kept of one device: ${name}.`);
    }
    const row = { source, name, place: place ?? (isPlace(name) ? name : 'other') };
    const made = await store.models.channels.create(row, { transaction });
    return made.get('id') as number;
  });
}

function blockOf(channel: number, readings: readonly Reading[]): BlockRow {
  const tenths = readings.map((reading) => toTenths(reading.celsius));
  return {
    channelId: channel,
    fromAt: readings[0]!.at,
    toAt: readings.at(-1)!.at,
    count: readings.length,
    low: Math.min(...tenths),
    high: Math.max(...tenths),
    sum: tenths.reduce((sum, each) => sum + each, 0),
    data: Buffer.from(packReadings(readings)),
  };
}

async function tailOf(store: Store, channel: number, transaction?: Transaction): Promise<Reading[]> {
  const rows = await rowsOf(store.models.readingTail, {
    where: { channelId: channel },
    order: [['at', 'ASC']],
    transaction,
  });
  return rows.map(({ at, tenths }) => ({ at, celsius: fromTenths(tenths) }));
}

/**
 * Takes live readings in; one that lies within what is packed, or is there already, is left out. A clock that once was
 * a year ahead silences nothing: only the stretch that it filled is full.
 */
export function addReadings(store: Store, channel: number, readings: readonly Reading[]): Promise<void> {
  return store.write(async (transaction) => {
    const { readingTail, readingBlocks } = store.models;
    const times = readings.map(({ at }) => Math.round(at));
    const full = await store.select<{ fromAt: number; toAt: number }>(
      'SELECT fromAt, toAt FROM readingBlocks WHERE channelId = :channel AND fromAt <= :to AND toAt >= :from',
      { channel, from: Math.min(...times), to: Math.max(...times) },
      transaction,
    );
    const rows = readings
      .filter((_, i) => !full.some(({ fromAt, toAt }) => times[i]! >= fromAt && times[i]! <= toAt))
      .map(({ at, celsius }) => ({ channelId: channel, at: Math.round(at), tenths: toTenths(celsius) }));
    if (rows.length) await readingTail.bulkCreate(rows, { ignoreDuplicates: true, transaction });
    const tail = await tailOf(store, channel, transaction);
    if (tail.length < 2 * BLOCK) return;
    const oldest = tail.slice(0, BLOCK);
    // A leap of the clock ends a block, so that no block claims the time between.
    const leap = oldest.findIndex((reading, i) => i > 0 && reading.at - oldest[i - 1]!.at > LEAP_MS);
    const block = blockOf(channel, leap > 0 ? oldest.slice(0, leap) : oldest);
    await readingBlocks.create(block, { transaction });
    await store.select(
      'DELETE FROM readingTail WHERE channelId = :channel AND at <= :to',
      { channel, to: block.toAt },
      transaction,
    );
  }, 'readings');
}

/** Takes a whole log in, packed at once. Its channels must be new. */
export function addLog(
  store: Store,
  source: string,
  series: readonly { place: ProbePlace; name: string; readings: readonly Reading[] }[],
  file: { at: number; digest: string } | null = null,
): Promise<{ id: number; place: string; readings: number }[]> {
  return store.write(async (transaction) => {
    const { channels, readingBlocks } = store.models;
    if ((await channels.count({ where: { source }, transaction })) > 0) {
      const allowed = 'a name that no other log has';
      const message = `name is ${JSON.stringify(source)}; allowed: ${allowed}`;
      throw new Refused(409, 'Already there', message, {
        fields: [{ field: 'name', value: source, unit: '', allowed, message }],
      });
    }
    const entries = series.reduce((sum, { readings }) => sum + readings.length, 0);
    if (file) {
      const imported = { id: randomUUID(), kind: 'log', name: source, ...file, entries, struck: false } as const;
      await store.models.imports.create(imported, { transaction });
    }
    const made = [];
    for (const { place, name, readings } of series) {
      const channel = (await channels.create({ source, name, place }, { transaction })).get('id') as number;
      const sorted = [...readings].sort((a, b) => a.at - b.at);
      for (let i = 0; i < sorted.length; i += BLOCK) {
        await readingBlocks.create(blockOf(channel, sorted.slice(i, i + BLOCK)), { transaction });
      }
      made.push({ id: channel, place, readings: sorted.length });
    }
    return made;
  });
}

interface Extent {
  channelId: number;
  count: number;
  firstAt: number;
  lastAt: number;
}

/** All channels with how much they hold and what they said last. */
export async function listChannels(store: Store): Promise<Channel[]> {
  const [channels, packed, tails] = await Promise.all([
    rowsOf(store.models.channels, { where: { struck: false } }),
    store.select<Extent & { lastC: number }>(
      'SELECT channelId, SUM(count) AS count, MIN(fromAt) AS firstAt, MAX(toAt) AS lastAt FROM readingBlocks GROUP BY channelId',
    ),
    store.select<Extent & { tenths: number }>(
      'SELECT channelId, COUNT(*) AS count, MIN(at) AS firstAt, MAX(at) AS lastAt, tenths FROM readingTail GROUP BY channelId',
    ),
  ]);
  return Promise.all(
    channels.map(async ({ id, source, name, place }) => {
      const block = packed.find((each) => each.channelId === id);
      const tail = tails.find((each) => each.channelId === id);
      const lastC = tail ? fromTenths(tail.tenths) : block ? await lastPacked(store, id!) : null;
      return {
        id: id!,
        name,
        source,
        place: place as ProbePlace,
        count: (block?.count ?? 0) + (tail?.count ?? 0),
        firstAt: block?.firstAt ?? tail?.firstAt ?? null,
        lastAt: tail?.lastAt ?? block?.lastAt ?? null,
        lastC,
      };
    }),
  );
}

async function lastPacked(store: Store, channel: number): Promise<number | null> {
  const [block] = await rowsOf(store.models.readingBlocks, {
    where: { channelId: channel },
    order: [['fromAt', 'DESC']],
    limit: 1,
  });
  return block ? unpackReadings(block.data).at(-1)!.celsius : null;
}

const existing = async (store: Store, channel: number) => {
  if ((await store.models.channels.count({ where: { id: channel } })) === 0) throw notFound('channel', String(channel));
};

const overlapping = 'FROM readingBlocks WHERE channelId = :channel AND fromAt <= :to AND toAt >= :from';

async function unpacked(store: Store, channel: number, from: number, to: number): Promise<Reading[]> {
  const blocks = await store.select<{ data: Buffer }>(`SELECT data ${overlapping} ORDER BY fromAt`, {
    channel,
    from,
    to,
  });
  const tail = await tailOf(store, channel);
  return [...blocks.flatMap(({ data }) => unpackReadings(data)), ...tail].filter(
    (each) => each.at >= from && each.at <= to,
  );
}

/** All readings of a channel, oldest first, a block at a time. */
export async function* readingsOf(store: Store, channel: number): AsyncGenerator<Reading[]> {
  const blocks = await store.select<{ id: number }>(
    'SELECT id FROM readingBlocks WHERE channelId = :channel ORDER BY fromAt',
    { channel },
  );
  for (const { id } of blocks) {
    const [block] = await store.select<{ data: Buffer }>('SELECT data FROM readingBlocks WHERE id = :id', { id });
    if (block) yield unpackReadings(block.data);
  }
  const tail = await tailOf(store, channel);
  if (tail.length > 0) yield tail;
}

/** The readings themselves, at most 20 000 of the stretch's end. */
export async function rawReadings(store: Store, channel: number, from: number, to: number): Promise<Reading[]> {
  await existing(store, channel);
  return (await unpacked(store, channel, from, to)).slice(-MOST_RAW);
}

/** A stretch thinned to so many points, each with lowest, mean and highest, so that no peak is lost. */
export async function readStretch(
  store: Store,
  { channel, from, to, points }: { channel: number; from: number; to: number; points: number },
): Promise<ReadingsView> {
  await existing(store, channel);
  const width = Math.max(1, (to - from) / points);
  const [{ blocks } = { blocks: 0 }] = await store.select<{ blocks: number }>(
    `SELECT COUNT(*) AS blocks ${overlapping}`,
    { channel, from, to },
  );
  if (blocks <= UNPACK_AT_MOST) {
    const readings = await unpacked(store, channel, from, to);
    return { points: bucketed(readings, from, width), count: readings.length };
  }
  const rows = await store.select<{ at: number; low: number; high: number; mean: number; count: number }>(
    `SELECT MIN(fromAt) AS at, MIN(low) AS low, MAX(high) AS high, SUM(sum) * 1.0 / SUM(count) AS mean, SUM(count) AS count
     ${overlapping} GROUP BY CAST((fromAt - :from) / :width AS INTEGER) ORDER BY 1`,
    { channel, from, to, width },
  );
  const tail = (await tailOf(store, channel)).filter((each) => each.at >= from && each.at <= to);
  return {
    points: [
      ...rows.map(({ at, low, high, mean }) => ({
        at,
        lowC: fromTenths(low),
        highC: fromTenths(high),
        meanC: fromTenths(mean),
      })),
      ...bucketed(tail, from, width),
    ],
    count: rows.reduce((sum, row) => sum + row.count, tail.length),
  };
}

function bucketed(readings: readonly Reading[], from: number, width: number): ReadingPoint[] {
  const points: (ReadingPoint & { bucket: number; n: number })[] = [];
  for (const { at, celsius } of readings) {
    const bucket = Math.floor((at - from) / width);
    const last = points.at(-1);
    if (last?.bucket === bucket) {
      last.meanC += (celsius - last.meanC) / ++last.n;
      last.lowC = Math.min(last.lowC, celsius);
      last.highC = Math.max(last.highC, celsius);
    } else points.push({ at, meanC: celsius, lowC: celsius, highC: celsius, bucket, n: 1 });
  }
  return points.map(({ at, meanC, lowC, highC }) => ({ at, meanC, lowC, highC }));
}

export interface LiveReading extends Reading {
  channel: number;
  place: ProbePlace;
  name: string;
  /** No probe in a workshop reads that: it is shown as odd, and not kept. */
  odd?: boolean;
}
/** What a scale read a moment ago. */
export interface LiveWeight extends Weight {
  name: string;
}

/** What devices say, to whoever listens; weights are not kept: a person takes the one that counts. */
export interface Feed {
  publish(readings: readonly LiveReading[]): void;
  subscribe(listener: (readings: readonly LiveReading[]) => void): () => void;
  publishWeights(weights: readonly LiveWeight[]): void;
  subscribeWeights(listener: (weights: readonly LiveWeight[]) => void): () => void;
}

function channelOf<T>() {
  const listeners = new Set<(items: readonly T[]) => void>();
  return {
    publish: (items: readonly T[]) => listeners.forEach((listener) => listener(items)),
    subscribe(listener: (items: readonly T[]) => void) {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}

export function makeFeed(): Feed {
  const readings = channelOf<LiveReading>();
  const weights = channelOf<LiveWeight>();
  return { ...readings, publishWeights: weights.publish, subscribeWeights: weights.subscribe };
}
