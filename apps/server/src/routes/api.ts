import type Router from '@koa/router';
import { CALCULATIONS } from '../calculations/index.ts';
import type { PlanView } from '@schmelz/contract';
import type { Config } from '../config.ts';
import type { Sessions } from '../middleware/session.ts';
import type { Computing } from '../services/compute.ts';
import { ASIDE, type Aside, type AsideAsked } from '../services/aside.ts';
import type { Feed } from '../services/readings.ts';
import type { Store } from '../store/store.ts';
import { heatHandlers } from './heat.ts';
import { jobHandlers } from './job.ts';
import { routerOf, Written, type Handlers } from './router.ts';
import { thingHandlers } from './things.ts';
import { workshopHandlers } from './workshop.ts';

/**
 * The API: a handler for every route of the table, and the calculations.
 * @param aside reads what takes long off this thread; null where that is not built: it is read here
 */
export function apiRouter(
  store: Store,
  config: Config,
  sessions: Sessions,
  { feed, compute, aside }: { feed: Feed; compute: Computing; aside: Aside | null },
): Router {
  const planned =
    aside &&
    (async (id: string) =>
      JSON.parse(await aside.ask('GET /orders/:id/plan', { params: { id }, query: {} })) as PlanView);
  const handlers: Handlers = {
    ...workshopHandlers(store, config, sessions),
    ...thingHandlers(store),
    ...heatHandlers(store, feed, sessions),
    ...jobHandlers(store, planned ?? undefined),
    ...(aside && askedAside(aside)),
  };
  return routerOf(
    handlers,
    sessions.guard,
    Object.keys(CALCULATIONS),
    (name, sent) => compute.run(name, sent),
    () => store.changes().writes,
  );
}

/** Routes whose answers come from the other thread, written already. */
const askedAside = (aside: Aside) =>
  Object.fromEntries(
    ASIDE.map((key) => [
      key,
      async ({ params, query }: AsideAsked) => new Written(await aside.ask(key, { params, query })),
    ]),
  ) as unknown as Partial<Handlers>;
