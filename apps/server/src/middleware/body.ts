import { once } from 'node:events';
import { bodyParser } from '@koa/bodyparser';
import type { Context, Middleware } from 'koa';

/** Nothing that the API takes is nested deeper than a handful; a checker that follows it down must come to an end. */
const DEEPEST = 32;

/** Whether JSON is nested deeper than that: level by level, so that depth costs no stack. */
function isTooDeep(value: unknown): boolean {
  let level = [value];
  for (let depth = 0; depth <= DEEPEST; depth++) {
    level = level.flatMap((each) => (each && typeof each === 'object' ? Object.values(each) : []));
    if (level.length === 0) return false;
  }
  return true;
}

const shallow: Middleware = async (ctx, next) => {
  if (isTooDeep(ctx.request.body)) ctx.throw(400, `The request is nested deeper than ${DEEPEST} levels.`);
  await next();
};

/** So much longer is the rest of what is too large read and dropped: whoever still sends would not see the answer. */
const DRAIN_MS = 20_000;

const drained: Middleware = async (ctx, next) => {
  try {
    await next();
  } catch (error) {
    const isTooLarge = (error as { status?: number }).status === 413;
    // What was packed is not unpacked any further, and nobody waits for its end: it may have none.
    if (isTooLarge && ctx.get('content-encoding')) ctx.req.unpipe();
    else if (isTooLarge && !ctx.req.readableEnded) {
      ctx.req.resume();
      await once(ctx.req, 'end', { signal: AbortSignal.timeout(DRAIN_MS) }).catch(() => ctx.req.destroy());
    }
    throw error;
  }
};

/** Says so where it is too large, and whose mistake it is that it cannot be unpacked. */
const refusing =
  (most: (ctx: Context) => string): NonNullable<Parameters<typeof bodyParser>[0]>['onError'] =>
  (error, ctx) => {
    const { status, type, code } = error as Error & { status?: number; type?: string; code?: string };
    if (type === 'entity.too.large') {
      ctx.throw(413, `The request is larger than ${most(ctx)}, the most that is read at once.`);
    }
    // What cannot be unpacked is the sender's mistake.
    if (!status && (code?.startsWith('Z_') || code?.startsWith('ERR_'))) {
      ctx.throw(400, `The content-encoding ${JSON.stringify(ctx.get('content-encoding'))} could not be unpacked.`);
    }
    throw error;
  };

/** Reads a whole workshop as it lies in its file: ten years of one are some 120 MB. */
export const documentBody: Middleware[] = [
  drained,
  bodyParser({
    encoding: 'utf-8',
    enableTypes: ['text'],
    extendTypes: { text: ['application/json'] },
    textLimit: '400mb',
    onError: refusing(() => '400 MB'),
  }),
];

/** Reads what was sent: JSON to 256 kB, CSV to 8 MB. */
export const body: Middleware[] = [
  drained,
  bodyParser({
    encoding: 'utf-8',
    enableTypes: ['json', 'text'],
    extendTypes: { text: ['text/csv'] },
    jsonLimit: '256kb',
    // A logger's file of one long evening.
    textLimit: '8mb',
    onError: refusing((ctx) => (ctx.is('json') ? '256 kB' : '8 MB')),
  }),
  shallow,
];
