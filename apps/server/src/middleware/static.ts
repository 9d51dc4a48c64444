import { existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { send } from '@koa/send';
import type { Middleware } from 'koa';

/** The built application; any path that is no file is one of its pages. */
export const webApp =
  (folder: string): Middleware =>
  async (ctx, next) => {
    if ((ctx.method !== 'GET' && ctx.method !== 'HEAD') || /^\/api(\/|$)/i.test(ctx.path)) return next();
    if (ctx.path.includes('\0') || ctx.path.includes('%00')) return next();
    const file = ctx.path.split('/').includes('..') ? '' : join(folder, ctx.path);
    const isFile = file !== '' && existsSync(file) && statSync(file).isFile();
    if (!isFile && /\.[a-z0-9]+$/i.test(ctx.path)) return next();
    const path = isFile ? ctx.path : '/index.html';
    ctx.state['isPage'] = true;
    await send(ctx, path, {
      root: folder,
      maxAge: path.startsWith('/assets/') ? 31_536_000_000 : 0,
      immutable: path.startsWith('/assets/'),
    });
    if (path === '/index.html') ctx.set('cache-control', 'no-cache');
  };
