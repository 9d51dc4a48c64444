import { randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import Router from '@koa/router';
import {
  parseEntry,
  parseWith,
  ROUTES,
  type Given,
  type Params,
  type Query,
  type Route,
  type RouteKey,
  type Sent,
} from '@schmelz/contract';
import type { Context, Middleware } from 'koa';
import { body, documentBody } from '../middleware/body.ts';
import { clockOf, parsePart, queryOf, versioned } from './request.ts';

/** What a route was asked: all of it is checked by the table. */
export interface Asked<K extends RouteKey> {
  params: Params<K>;
  query: Query<K>;
  body: Sent<K>;
  /** What the device's clock said, ms since 1970; null where it does not say. */
  clock: number | null;
  /** For what is no plain answer: files, streams, cookies. */
  ctx: Context;
}
/** One function a route; the compiler demands every one of the table. */
export type Handlers = { [K in RouteKey]: (asked: Asked<K>) => Promise<Given<K>> | Given<K> };

type Handler = (asked: Asked<never>) => unknown;

function sentTo(route: Route, ctx: Context, params: Record<string, unknown>): unknown {
  const given = ctx.request.body;
  if (!route.body) return undefined;
  const { version, rest } = route.versioned ? versioned(given) : { version: undefined, rest: given };
  const parsed = judged(route.body, rest, params, ctx);
  return route.versioned ? { ...(parsed as object), version } : parsed;
}

function judged(sent: NonNullable<Route['body']>, given: unknown, params: Record<string, unknown>, ctx: Context) {
  switch (sent.is) {
    case 'json':
      return parseWith(sent.schema, given) as unknown;
    case 'entry':
      return parseEntry(sent.schemas, given);
    case 'entry of':
      return parseEntry(sent.schemas[String(params[sent.part])]!, given);
    case 'document':
      if (typeof given !== 'string') ctx.throw(415, 'Send the file as application/json.');
      return given;
    case 'csv':
      if (typeof given !== 'string') ctx.throw(415, 'Send the file as text/csv.');
      return given;
  }
}

/** `GET /tickets/:id` as method and names of its path. */
function partsOf(key: string): { method: string; path: string; names: string[] } {
  const [method, path] = key.split(' ') as [string, string];
  return { method, path, names: [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!) };
}

/**
 * JSON as it is sent: Koa writes an object anew each time that something asks for its length, and takes null for no
 * answer at all. What is streamed stays a stream.
 */
function written(answer: unknown) {
  if (answer instanceof Readable) return answer;
  return answer instanceof Written ? answer.json : JSON.stringify(answer);
}

/** An answer that is JSON already. */
export class Written {
  readonly json: string;
  constructor(json: string) {
    this.json = json;
  }
}

/** What changes without a write: what is read from devices and disk, and who is logged in. */
const BY_ITSELF = /^\/(health|settings|backups|channels|readings|export|openapi)/;
const MINUTE_MS = 60_000;
/** Another one each time that the server starts. */
const BOOT = randomUUID().slice(0, 8);

/**
 * What an answer rests on: nothing that was written since, in this minute. Whoever asks again for what it has is told
 * so, and nothing is reckoned. It is taken before anything is read: what comes meanwhile is asked for once more.
 */
const signOf = (writes: number, now = Date.now()) => `W/"${BOOT}.${writes}.${Math.floor(now / MINUTE_MS)}"`;

function serve(
  route: Route,
  path: string,
  names: readonly string[],
  handler: Handler,
  writes: () => number,
): Middleware {
  const isSigned = route.answer.type === 'application/json' && route.answer.status === 200 && !BY_ITSELF.test(path);
  return async (ctx) => {
    if (ctx.method === 'GET' && isSigned) {
      ctx.set({ etag: signOf(writes()), 'cache-control': 'no-cache, private' });
      ctx.status = 200;
      if (ctx.fresh) {
        ctx.status = 304;
        return;
      }
    }
    const given = (ctx as Context & { params: Record<string, string> }).params;
    const params = Object.fromEntries(names.map((name) => [name, parsePart(route, name, given[name] ?? '')]));
    const query = route.query ? queryOf(ctx, route.query) : {};
    const asked = { params, query, body: sentTo(route, ctx, params), clock: clockOf(ctx), ctx };
    const answer = await handler(asked as never);
    const { status, type } = route.answer;
    ctx.type = type;
    if (status !== 204) ctx.body = type === 'application/json' ? written(answer) : answer;
    ctx.status = status;
  };
}

/**
 * The router of a table: paths are matched letter by letter, and the guard belongs to every route that is not open.
 * @param calculate answers the calculations, by their name
 * @param writes how often something was written: what was read before is told to be the same by it
 */
export function routerOf(
  handlers: Handlers,
  guard: Middleware,
  calculations: readonly string[],
  calculate: (name: string, sent: unknown) => Promise<unknown>,
  writes: () => number,
): Router {
  const router = new Router({ sensitive: true, strict: true, prefix: '/api' });
  for (const [key, route] of Object.entries(ROUTES) as [RouteKey, Route][]) {
    const { method, path, names } = partsOf(key);
    const read = route.body?.is === 'document' ? documentBody : body;
    const way = route.open ? read : [guard, ...read];
    router.register(path, [method], [...way, serve(route, path, names, handlers[key] as Handler, writes)]);
  }
  for (const name of calculations) {
    router.post(`/compute/${name}`, guard, ...body, async (ctx) => {
      ctx.body = await calculate(name, ctx.request.body);
    });
  }
  return router;
}
