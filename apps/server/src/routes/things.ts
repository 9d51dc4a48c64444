import { RESOURCES, type ResourcePath } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import { listMolds } from '../services/cavities.ts';
import { listOrders, nextNumber } from '../services/orders.ts';
import { changeResource, createResource, listResources, readResource, removeResource } from '../services/resources.ts';
import { listMaterials } from '../services/stock.ts';
import type { Store } from '../store/store.ts';
import type { Handlers } from './router.ts';

/** Of a resource, whichever: what is said of one holds for all. */
interface AnyAsked {
  params: { id: string };
  query: { before?: number };
  body: Record<string, unknown> & { version: number };
}
type ThingHandlers = Pick<
  Handlers,
  `${'GET' | 'POST'} /${ResourcePath}` | `${'GET' | 'PUT' | 'DELETE'} /${ResourcePath}/:id`
>;

/** Lists, reads, makes, changes and removes the things of the workshop. */
export function thingHandlers(store: Store): ThingHandlers {
  const lists: Partial<Record<ResourcePath, (asked: AnyAsked) => Promise<unknown>>> = {
    materials: () => listMaterials(store),
    molds: () => listMolds(store),
    orders: ({ query }) => listOrders(store, query.before ?? null),
  };
  /** Columns of an order that nobody writes. */
  const numbered = async (transaction: Transaction) => ({
    number: await nextNumber(store, 'orders', 1, transaction),
    status: 'open',
    createdAt: Date.now(),
  });
  const handlers: Record<string, (asked: AnyAsked) => Promise<unknown>> = {};
  for (const path of Object.keys(RESOURCES) as ResourcePath[]) {
    handlers[`GET /${path}`] = lists[path] ?? (() => listResources(store, path));
    handlers[`POST /${path}`] = ({ body }) =>
      createResource(store, path, body, path === 'orders' ? numbered : undefined);
    handlers[`GET /${path}/:id`] = ({ params }) => readResource(store, path, params.id);
    handlers[`PUT /${path}/:id`] = ({ params, body: { version, ...input } }) =>
      changeResource(store, path, params.id, version, input);
    handlers[`DELETE /${path}/:id`] = ({ params }) => removeResource(store, path, params.id);
  }
  return handlers as unknown as ThingHandlers;
}
