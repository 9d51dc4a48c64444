import { PassThrough, type Readable } from 'node:stream';
import type { Context } from 'koa';
import type { Sessions } from '../middleware/session.ts';
import { fillTableOf, handlingOfMold } from '../services/fill-records.ts';
import { importLogCsv } from '../services/logs.ts';
import { addLot, cleanLot, lotsKept } from '../services/lots.ts';
import { listChannels, rawReadings, readStretch, type Feed } from '../services/readings.ts';
import { addRecord, listRecords, strikeRecord } from '../services/records.ts';
import { strikeLog, strikeLot } from '../services/strike.ts';
import type { Store } from '../store/store.ts';
import type { Handlers } from './router.ts';

/** A line every so often keeps the connection from being thought dead. */
const HEARTBEAT_MS = 15_000;
/** As many points as a chart on a wide screen shows. */
const USUAL_POINTS = 400;
/** Later than anything on record. */
const FOR_EVER = 4e12;

/** Readings and weights as they come, as server-sent events, for as long as who asks is logged in. */
function stream(ctx: Context, feed: Feed, sessions: Sessions): Readable {
  const events = new PassThrough();
  const stopReadings = feed.subscribe((readings) => events.write(`data: ${JSON.stringify(readings)}\n\n`));
  const stopWeights = feed.subscribeWeights((weights) =>
    events.write(`event: weight\ndata: ${JSON.stringify(weights)}\n\n`),
  );
  const heartbeat = setInterval(() => events.write(': still here\n\n'), HEARTBEAT_MS);
  const stopWaiting = sessions.whenOver(ctx, () => events.end());
  events.on('close', () => {
    clearInterval(heartbeat);
    stopWaiting();
    stopReadings();
    stopWeights();
  });
  ctx.req.on('close', () => events.destroy());
  (ctx as Context & { compress?: boolean }).compress = false;
  ctx.set({ 'cache-control': 'no-cache, no-transform' });
  events.write(': readings, as they come\n\n');
  return events;
}

/** Lots of lead, dated notes, and probes. */
export const heatHandlers = (store: Store, feed: Feed, sessions: Sessions) =>
  ({
    'GET /lead-lots': () => lotsKept(store),
    'POST /lead-lots': ({ body }) => addLot(store, body),
    'POST /lead-lots/:id/clean': ({ params, body: { version, ...input } }) =>
      cleanLot(store, params.id, version, input),
    'POST /lead-lots/:id/strike': ({ params }) => strikeLot(store, params.id),

    'GET /records/:kind': ({ params, query }) => listRecords(store, params.kind, query.thing),
    'POST /records': ({ body }) => addRecord(store, body),
    'POST /records/:id/strike': ({ params }) => strikeRecord(store, params.id),
    'GET /molds/:id/fill-records': ({ params }) => fillTableOf(store, params.id),
    'GET /molds/:id/handling': ({ params }) => handlingOfMold(store, params.id),

    'GET /channels': () => listChannels(store),
    'POST /channels/:id/strike': ({ params }) => strikeLog(store, params.id),
    'GET /readings': ({ query: { channel, from = 0, to = Date.now(), points = USUAL_POINTS } }) =>
      readStretch(store, { channel, from, to, points }),
    'GET /readings/raw': ({ query: { channel, from = 0, to = FOR_EVER } }) => rawReadings(store, channel, from, to),
    'GET /readings/stream': ({ ctx }) => stream(ctx, feed, sessions),
    'POST /readings/import': ({ query, body }) =>
      importLogCsv(store, body, query.mapping, { again: query.again === 'true' }),
  }) satisfies Partial<Handlers>;
