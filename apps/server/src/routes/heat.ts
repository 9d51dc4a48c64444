import { PassThrough } from 'node:stream';
import type Router from '@koa/router';
import {
  cleanSchema,
  importQuerySchema,
  lotSchema,
  parseWith,
  readingsQuerySchema,
  recordsQuerySchema,
  recordKindSchema,
  recordSchemas,
  RECORD_KINDS,
  type RecordInput,
  type RecordKind,
} from '@schmelz/contract';
import type { Context } from 'koa';
import { fillRecords } from '../services/cavities.ts';
import { notFound } from '../services/errors.ts';
import { importLogCsv } from '../services/logs.ts';
import { addLot, cleanLot, listLots } from '../services/lots.ts';
import { listChannels, rawReadings, readStretch, type Feed } from '../services/readings.ts';
import { addRecord, listRecords, strikeRecord } from '../services/records.ts';
import { strikeLog, strikeLot } from '../services/strike.ts';
import type { Store } from '../store/store.ts';
import { bodyOf, entryIn, idOf, numberOf, numbersIn, versioned } from './request.ts';

/** A line every so often keeps the connection from being thought dead. */
const HEARTBEAT_MS = 15_000;

/** A stretch of readings from the query string. */
const stretch = (ctx: Context, points?: number) =>
  parseWith(readingsQuerySchema, {
    from: 0,
    to: points ? 4e12 : Date.now(),
    points: points ?? 400,
    ...numbersIn(ctx, ['channel', 'from', 'to', 'points']),
    ...(points ? { points } : {}),
  });

/** Lots of lead, dated notes, and probes. */
export function heatRoutes(router: Router, store: Store, feed: Feed): void {
  router.get('/api/lead-lots', async (ctx) => {
    ctx.body = await listLots(store);
  });
  router.post('/api/lead-lots', async (ctx) => {
    ctx.body = await addLot(store, parseWith(lotSchema, bodyOf(ctx)));
    ctx.status = 201;
  });
  router.post('/api/lead-lots/:id/clean', async (ctx) => {
    const { version, rest } = versioned(bodyOf(ctx));
    ctx.body = await cleanLot(store, idOf(ctx), version, parseWith(cleanSchema, rest));
  });

  router.post('/api/lead-lots/:id/strike', async (ctx) => {
    await strikeLot(store, idOf(ctx));
    ctx.status = 204;
  });

  router.get('/api/records/:kind', async (ctx) => {
    const kind = ctx.params['kind'] as RecordKind;
    if (!RECORD_KINDS.includes(kind)) throw notFound('kind of record', kind);
    const { thing } = parseWith(recordsQuerySchema, ctx.query);
    ctx.body = await listRecords(store, kind, thing);
  });
  router.post('/api/records', async (ctx) => {
    ctx.body = await addRecord(store, entryIn<RecordInput>(recordSchemas, recordKindSchema, bodyOf(ctx)));
    ctx.status = 201;
  });
  router.post('/api/records/:id/strike', async (ctx) => {
    await strikeRecord(store, idOf(ctx));
    ctx.status = 204;
  });
  router.get('/api/molds/:id/fill-records', async (ctx) => {
    ctx.body = await fillRecords(store, idOf(ctx));
  });

  router.get('/api/channels', async (ctx) => {
    ctx.body = await listChannels(store);
  });
  router.post('/api/channels/:id/strike', async (ctx) => {
    await strikeLog(store, numberOf(ctx, 'id', 'channel'));
    ctx.status = 204;
  });
  router.get('/api/readings', async (ctx) => {
    ctx.body = await readStretch(store, stretch(ctx));
  });
  router.get('/api/readings/raw', async (ctx) => {
    const { channel, from, to } = stretch(ctx, 2);
    ctx.body = await rawReadings(store, channel, from, to);
  });
  router.post('/api/readings/import', async (ctx) => {
    const csv = bodyOf(ctx);
    if (typeof csv !== 'string') ctx.throw(415, 'Send the log as text/csv, its mapping in the query.');
    const { mapping = '', again } = parseWith(importQuerySchema, ctx.query);
    ctx.body = await importLogCsv(store, csv as string, mapping, { again: again === 'true' });
    ctx.status = 201;
  });
  router.get('/api/readings/stream', (ctx) => {
    const stream = new PassThrough();
    const stopReadings = feed.subscribe((readings) => stream.write(`data: ${JSON.stringify(readings)}\n\n`));
    const stopWeights = feed.subscribeWeights((weights) =>
      stream.write(`event: weight\ndata: ${JSON.stringify(weights)}\n\n`),
    );
    const heartbeat = setInterval(() => stream.write(': still here\n\n'), HEARTBEAT_MS);
    stream.on('close', () => {
      clearInterval(heartbeat);
      stopReadings();
      stopWeights();
    });
    ctx.req.on('close', () => stream.destroy());
    (ctx as Context & { compress?: boolean }).compress = false;
    ctx.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' });
    stream.write(': readings, as they come\n\n');
    ctx.body = stream;
  });
}
