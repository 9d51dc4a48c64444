import { bodyParser } from '@koa/bodyparser';
import Koa from 'koa';
import compress from 'koa-compress';
import type { Logger } from 'pino';
import type { Config } from './config.ts';
import { problems } from './middleware/problems.ts';
import { atMost, contentPolicy, sameOrigin, sessions } from './middleware/security.ts';
import { webApp } from './middleware/static.ts';
import { apiRoutes } from './routes/api.ts';
import type { Feed } from './services/readings.ts';
import type { Store } from './store/store.ts';

/** Requests a minute from one address: a busy evening stays far below, a runaway script does not. */
const REQUESTS_A_MINUTE = 3000;

/** The whole server as a short list of middleware. */
export function makeApp(store: Store, config: Config, log: Logger, feed: Feed): Koa {
  const app = new Koa();
  const session = sessions(config.password);
  app.use(async (ctx, next) => {
    const started = performance.now();
    await next();
    const { method, path, status } = ctx;
    if (path.startsWith('/api/')) log.info({ method, path, status, ms: Math.round(performance.now() - started) });
  });
  app.use(contentPolicy());
  app.use(problems(log));
  app.use(sameOrigin(config));
  app.use(atMost(REQUESTS_A_MINUTE));
  app.use(compress({ threshold: 2048, br: false }));
  app.use(webApp(config.webFolder));
  app.use(session.guard);
  app.use(
    bodyParser({
      encoding: 'utf-8',
      enableTypes: ['json', 'text'],
      extendTypes: { text: ['text/csv'] },
      jsonLimit: '256kb',
      // A logger's file of one long evening.
      textLimit: '8mb',
      onError: (error) => {
        throw error;
      },
    }),
  );
  const router = apiRoutes(store, config, session, feed);
  app.use(router.routes());
  app.use(router.allowedMethods({ throw: true }));
  app.on('error', (error) => log.error({ err: error }, 'connection'));
  return app;
}
