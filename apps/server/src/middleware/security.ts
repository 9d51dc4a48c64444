import { isIP } from 'node:net';
import type { Middleware } from 'koa';
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
        // The planner's solver is a WebAssembly program of this server; scripts still run no text.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
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

const hostName = (host: string) =>
  host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase();

/**
 * Whether a Host names this server. An address cannot be rebound, a name can: bound to this machine alone only its own
 * names are known, on the house network its addresses, its host name and what SCHMELZ_NAMES lists.
 */
function isKnown(host: string, config: Config): boolean {
  const name = hostName(host);
  if (isLoopback(name)) return true;
  if (isLoopback(config.host)) return false;
  return isIP(name) > 0 || config.names.includes(name);
}

/** Refuses what a foreign page sends: the Host is {@link isKnown}, a write comes from this origin or from no page. */
export const sameOrigin =
  (config: Config): Middleware =>
  async (ctx, next) => {
    const host = ctx.get('host');
    if (!isKnown(host, config)) {
      ctx.throw(
        403,
        `This server does not answer to the name ${JSON.stringify(host.slice(0, 80))}; names of its own are set by SCHMELZ_NAMES.`,
      );
    }
    if (ctx.method !== 'GET' && ctx.method !== 'HEAD') {
      const site = ctx.get('sec-fetch-site');
      const origin = ctx.get('origin');
      const foreign = (site && site !== 'same-origin' && site !== 'none') || (origin && !isOwn(origin, host));
      if (foreign) ctx.throw(403, 'A page of another origin may not write here.');
    }
    await next();
  };

/** Counters of a limiter: what has run out is dropped when a new one comes, so that they never pile up. */
class Counters extends Map<string, { reset: number }> {
  override set(key: string, value: { reset: number }): this {
    const now = Date.now() / 1000;
    if (!this.has(key)) for (const [old, { reset }] of this) if (reset < now) this.delete(old);
    return super.set(key, value);
  }
}

/** At most `max` requests a minute from one address. */
export const atMost = (max: number): Middleware =>
  ratelimit({
    driver: 'memory',
    db: new Counters(),
    duration: 60_000,
    max,
    id: (ctx) => ctx.ip,
    throw: true,
    errorMessage: `More than ${max} requests in a minute: wait a little.`,
    disableHeader: true,
  });
