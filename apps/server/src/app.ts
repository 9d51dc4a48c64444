import Koa from 'koa';
import compress from 'koa-compress';
import type { Logger } from 'pino';
import type { Config } from './config.ts';
import { problems } from './middleware/problems.ts';
import { atMost, contentPolicy, sameOrigin } from './middleware/security.ts';
import { sessions } from './middleware/session.ts';
import { webApp } from './middleware/static.ts';
import { apiRouter } from './routes/api.ts';
import type { Aside } from './services/aside.ts';
import type { Computing } from './services/compute.ts';
import type { Feed } from './services/readings.ts';
import type { Store } from './store/store.ts';

/** The whole server as a short list of middleware. */
export function makeApp(
  store: Store,
  config: Config,
  log: Logger,
  beside: { feed: Feed; compute: Computing; aside: Aside | null },
): Koa {
  const app = new Koa();
  app.use(async (ctx, next) => {
    const started = performance.now();
    await next();
    const { method, path, status } = ctx;
    // By the route that was matched, whatever the address looked like; what matched none is no page, and is named too.
    const route = (ctx as { _matchedRoute?: unknown })._matchedRoute;
    const asked = typeof route === 'string' ? route : path.slice(0, 200);
    if (!ctx.state['isPage']) log.info({ method, route: asked, status, ms: Math.round(performance.now() - started) });
  });
  app.use(contentPolicy());
  app.use(problems(log, store.folder));
  app.use(sameOrigin(config));
  app.use(atMost(config.requestsAMinute));
  app.use(compress({ threshold: 2048, br: false }));
  app.use(webApp(config.webFolder));
  const router = apiRouter(store, config, sessions(store, config.password), beside);
  app.use(router.routes());
  app.use(router.allowedMethods());
  app.on('error', (error) => log.error({ err: error }, 'connection'));
  return app;
}
