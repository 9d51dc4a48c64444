import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import type { Context, Middleware } from 'koa';
import helmet from 'koa-helmet';
import ratelimit from 'koa-ratelimit';
import { isLoopback, type Config } from '../config.ts';

/** Everything comes from this server alone; styles may be inline because charts and drawings set them. */
export const contentPolicy = (): Middleware =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
    },
    // Plain http on the own machine: forcing https would lock the maker out.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
  });

/** Whether an Origin header names this very host; "null" and nonsense do not. */
const isOwn = (origin: string, host: string) => URL.canParse(origin) && new URL(origin).host === host;

const hostName = (host: string) => host.replace(/:\d+$/, '').replace(/^\[|\]$/g, '');

/**
 * Refuses requests that a foreign page sends: the Host must be this server's own name (no DNS rebinding), and a write
 * must come from a page of this origin or from no page at all.
 */
export const sameOrigin =
  (config: Config): Middleware =>
  async (ctx, next) => {
    const host = ctx.get('host');
    if (isLoopback(config.host) && !isLoopback(hostName(host))) {
      ctx.throw(403, `This server answers only to this machine's own name, not to ${host.slice(0, 80)}.`);
    }
    if (ctx.method !== 'GET' && ctx.method !== 'HEAD') {
      const site = ctx.get('sec-fetch-site');
      const origin = ctx.get('origin');
      const foreign = (site && site !== 'same-origin' && site !== 'none') || (origin && !isOwn(origin, host));
      if (foreign) ctx.throw(403, 'A page of another origin may not write here.');
    }
    await next();
  };

const SESSION_COOKIE = 'schmelz-session';
const SESSION_MS = 30 * 24 * 3600 * 1000;
const digest = (text: string) => createHash('sha256').update(text).digest();

export interface Sessions {
  /** Lets through only requests with a session, where a password is set. */
  guard: Middleware;
  login(ctx: Context, password: string): void;
}

/** Sessions by password: random tokens, kept in memory, so a restart logs everybody out. */
export function sessions(password: string | null): Sessions {
  const open = new Map<string, number>();
  const OPEN_PATHS = new Set(['/api/login', '/api/health']);
  return {
    guard: async (ctx, next) => {
      if (password !== null && ctx.path.startsWith('/api/') && !OPEN_PATHS.has(ctx.path)) {
        const until = open.get(ctx.cookies.get(SESSION_COOKIE) ?? '') ?? 0;
        if (until < Date.now()) ctx.throw(401, 'This workshop has a password: log in first.');
      }
      await next();
    },
    login(ctx, given) {
      if (password === null || !timingSafeEqual(digest(given), digest(password))) {
        ctx.throw(401, 'That is not the password.');
      }
      const token = randomBytes(32).toString('base64url');
      open.set(token, Date.now() + SESSION_MS);
      ctx.cookies.set(SESSION_COOKIE, token, {
        httpOnly: true,
        sameSite: 'strict',
        maxAge: SESSION_MS,
        overwrite: true,
      });
    },
  };
}

/** At most `max` requests a minute from one address. */
export const atMost = (max: number): Middleware =>
  ratelimit({
    driver: 'memory',
    db: new Map(),
    duration: 60_000,
    max,
    id: (ctx) => ctx.ip,
    throw: true,
    errorMessage: `More than ${max} requests in a minute: wait a little.`,
    disableHeader: true,
  });
