import type Router from '@koa/router';
import { CALCULATIONS } from '../calculations/index.ts';
import type { Config } from '../config.ts';
import type { Sessions } from '../middleware/session.ts';
import type { Computing } from '../services/compute.ts';
import type { Feed } from '../services/readings.ts';
import type { Store } from '../store/store.ts';
import { heatHandlers } from './heat.ts';
import { jobHandlers } from './job.ts';
import { routerOf, type Handlers } from './router.ts';
import { thingHandlers } from './things.ts';
import { workshopHandlers } from './workshop.ts';

/** The API: a handler for every route of the table, and the calculations. */
export function apiRouter(store: Store, config: Config, sessions: Sessions, feed: Feed, compute: Computing): Router {
  const handlers: Handlers = {
    ...workshopHandlers(store, config, sessions),
    ...thingHandlers(store),
    ...heatHandlers(store, feed, sessions),
    ...jobHandlers(store),
  };
  return routerOf(
    handlers,
    sessions.guard,
    Object.keys(CALCULATIONS),
    (name, sent) => compute.run(name, sent),
    () => store.writes(),
  );
}
