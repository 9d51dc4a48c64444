import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import type { Context, Middleware } from 'koa';
import { Op } from 'sequelize';
import { Refused } from '../services/errors.ts';
import type { Store } from '../store/store.ts';

const SESSION_COOKIE = 'schmelz-session';
const SESSION_MS = 30 * 24 * 3600 * 1000;
/** So many wrong passwords are answered at once; each further one doubles the wait. */
const FREE_TRIES = 3;
const LONGEST_WAIT_MS = 15 * 60_000;
/** After so long without a try an address begins anew. */
const FORGOTTEN_MS = 60 * 60_000;

const digest = (text: string) => createHash('sha256').update(text).digest();

export interface Sessions {
  /** Lets through only requests with a session, where a password is set. */
  guard: Middleware;
  login(ctx: Context, password: string): Promise<void>;
  /** Ends the session of a request, or all others. */
  logout(ctx: Context, which: 'this' | 'others'): Promise<void>;
  /** Sessions that are open; none where no password is set. */
  count(): Promise<number>;
  /** Calls `end` when the session of a request is over, by a word or by its time; what it gives stops that. */
  whenOver(ctx: Context, end: () => void): () => void;
}

/** So often a session that something hangs on is looked at: its time may have run out. */
const LOOK_MS = 30_000;

/** Wrong passwords by address: how many, and until when none is looked at. */
function delays(now: () => number) {
  const wrong = new Map<string, { tries: number; last: number; until: number }>();
  return {
    refuse(address: string) {
      const waitMs = (wrong.get(address)?.until ?? 0) - now();
      if (waitMs <= 0) return;
      throw new Refused(429, 'Too many wrong passwords', `Wait ${Math.ceil(waitMs / 1000)} s before the next try.`);
    },
    miss(address: string) {
      for (const [each, { last }] of wrong) if (last < now() - FORGOTTEN_MS) wrong.delete(each);
      const tries = (wrong.get(address)?.tries ?? 0) + 1;
      const waitMs = tries > FREE_TRIES ? Math.min(LONGEST_WAIT_MS, 1000 * 2 ** (tries - FREE_TRIES - 1)) : 0;
      wrong.set(address, { tries, last: now(), until: now() + waitMs });
    },
    forget: (address: string) => void wrong.delete(address),
  };
}

/**
 * Sessions by password. A session is a random token in a cookie; the table keeps it keyed with the password, so that a
 * read table opens nothing, a restart keeps everybody logged in, and another password ends all sessions.
 */
export function sessions(store: Store, password: string | null, now: () => number = () => Date.now()): Sessions {
  const { sessions: table } = store.models;
  const wrong = delays(now);
  const keyed = (token: string) =>
    createHmac('sha256', password ?? '')
      .update(token)
      .digest('hex');
  /** What hangs on a session: streams that go on for hours. */
  const hanging = new Set<{ id: string; end: () => void }>();
  const endWhere = (over: (id: string) => boolean) => {
    for (const each of [...hanging]) if (over(each.id)) each.end();
  };
  const isOpen = async (id: string) => (await table.count({ where: { id, until: { [Op.gte]: now() } } })) > 0;
  const ownId = (ctx: Context) => keyed(ctx.cookies.get(SESSION_COOKIE) ?? '');
  const setCookie = (ctx: Context, token: string | null) => {
    // Behind a proxy that ends https the header says so; whoever lies here only harms the own cookie.
    const secure = ctx.secure || ctx.get('x-forwarded-proto') === 'https';
    ctx.cookies.secure = secure;
    const cookie = { httpOnly: true, sameSite: 'strict', secure, overwrite: true } as const;
    ctx.cookies.set(SESSION_COOKIE, token, token === null ? cookie : { ...cookie, maxAge: SESSION_MS });
  };
  return {
    guard: async (ctx, next) => {
      if (password !== null) {
        const id = ownId(ctx);
        if (!(await isOpen(id))) {
          ctx.throw(401, 'This workshop has a password: log in first.');
        }
      }
      await next();
    },
    async login(ctx, given) {
      wrong.refuse(ctx.ip);
      if (password === null || !timingSafeEqual(digest(given), digest(password))) {
        wrong.miss(ctx.ip);
        ctx.throw(401, 'That is not the password.');
      }
      wrong.forget(ctx.ip);
      const token = randomBytes(32).toString('base64url');
      await store.write(async (transaction) => {
        await table.destroy({ where: { until: { [Op.lt]: now() } }, transaction });
        await table.create({ id: keyed(token), since: now(), until: now() + SESSION_MS }, { transaction });
      });
      setCookie(ctx, token);
    },
    async logout(ctx, which) {
      const id = ownId(ctx);
      await store.write((transaction) =>
        table.destroy({ where: which === 'this' ? { id } : { id: { [Op.ne]: id } }, transaction }),
      );
      endWhere((each) => (each === id) === (which === 'this'));
      if (which === 'this') setCookie(ctx, null);
    },
    whenOver(ctx, end) {
      if (password === null) return () => undefined;
      const each = { id: ownId(ctx), end };
      hanging.add(each);
      const look = setInterval(() => {
        void isOpen(each.id)
          .catch(() => true) // a store that cannot be asked ends nothing
          .then((open) => !open && end());
      }, LOOK_MS);
      return () => {
        clearInterval(look);
        hanging.delete(each);
      };
    },
    count: async () => (password === null ? 0 : table.count({ where: { until: { [Op.gte]: now() } } })),
  };
}
