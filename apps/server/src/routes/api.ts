import Router from '@koa/router';
import type { Context } from 'koa';
import {
  beforeQuerySchema,
  CALCULATIONS,
  countSchema,
  importQuerySchema,
  loginSchema,
  lotOfTicketSchema,
  parseWith,
  poursQuerySchema,
  parsePourEntry,
  parseRunEntry,
  parseTicketEntry,
  receiptSchema,
  RESOURCES,
  settingsSchema,
  startPourSchema,
  type ResourcePath,
} from '@schmelz/contract';
import { RUN_KINDS, type RunKindId } from '@schmelz/core';
import { openApiDocument } from '@schmelz/contract/openapi';
import type { Config } from '../config.ts';
import type { Computing } from '../services/compute.ts';
import type { Feed } from '../services/readings.ts';
import { body } from '../middleware/body.ts';
import type { Sessions } from '../middleware/session.ts';
import { exportAll, movesCsv } from '../services/exchange.ts';
import { importReceipts, listImports } from '../services/imports.ts';
import { strikeImport, strikeMove } from '../services/strike.ts';
import { listOrders, nextNumber, planView, releaseOrder } from '../services/orders.ts';
import { addPourEntries, listPours, poursOnList, readPour, startPour } from '../services/pours.ts';
import { notFound } from '../services/errors.ts';
import { addRunEntries } from '../services/runs.ts';
import { openRuns, readRun } from '../services/run-views.ts';
import { changeResource, createResource, listResources, readResource, removeResource } from '../services/resources.ts';
import { listPartLots, nameLot } from '../services/part-lots.ts';
import { readSettings, writeSettings } from '../services/settings.ts';
import { listJars } from '../services/jars.ts';
import { count, listFlows, listMaterials, listMoves, receive } from '../services/stock.ts';
import { bakesOnRecord, bookedPeriod, listTickets, readTicket, ticketsOnList } from '../services/ticket-figures.ts';
import { addTicketEntries } from '../services/tickets.ts';
import { listMolds } from '../services/cavities.ts';
import { heatRoutes } from './heat.ts';
import type { Transaction } from 'sequelize';
import { bodyOf, clockOf, idOf, numberOf, numbersIn, periodIn, versioned } from './request.ts';
import type { Store } from '../store/store.ts';

export const API_VERSION = '0.1.0';

/** Lists, reads, makes, changes and removes the things of the workshop. */
function resourceRoutes(router: Router, store: Store): void {
  const lists: Partial<Record<ResourcePath, (ctx: Context) => Promise<unknown>>> = {
    materials: () => listMaterials(store),
    molds: () => listMolds(store),
    orders: (ctx) => listOrders(store, parseWith(beforeQuerySchema, numbersIn(ctx, ['before'])).before ?? null),
  };
  for (const [name, { schema }] of Object.entries(RESOURCES)) {
    const path = name as ResourcePath;
    router.get(`/api/${path}`, async (ctx) => {
      ctx.body = await (lists[path]?.(ctx) ?? listResources(store, path));
    });
    router.post(`/api/${path}`, async (ctx) => {
      const input = parseWith(schema, bodyOf(ctx)) as Record<string, unknown>;
      const extra =
        path === 'orders'
          ? async (transaction: Transaction) => ({
              number: await nextNumber(store, 'orders', 1, transaction),
              status: 'open',
              createdAt: Date.now(),
            })
          : undefined;
      ctx.body = await createResource(store, path, input, extra);
      ctx.status = 201;
    });
    router.get(`/api/${path}/:id`, async (ctx) => {
      ctx.body = await readResource(store, path, idOf(ctx));
    });
    router.put(`/api/${path}/:id`, async (ctx) => {
      const { version, rest } = versioned(bodyOf(ctx));
      const input = parseWith(schema, rest) as Record<string, unknown>;
      ctx.body = await changeResource(store, path, idOf(ctx), version, input);
    });
    router.delete(`/api/${path}/:id`, async (ctx) => {
      await removeResource(store, path, idOf(ctx));
      ctx.status = 204;
    });
  }
}

/** What is open to whoever asks: whether the server is up, and the way in. */
function openRoutes(sessions: Sessions): Router {
  const router = new Router({ sensitive: true, strict: true });
  router.use(...body);
  router.get('/api/health', (ctx) => {
    ctx.body = { status: 'ready', version: API_VERSION };
  });
  router.post('/api/login', async (ctx) => {
    await sessions.login(ctx, parseWith(loginSchema, bodyOf(ctx)).password);
    ctx.status = 204;
  });
  return router;
}

/** The routes of the API: those that are open, and those behind the guard, which belongs to every one of them. */
export const apiRoutes = (
  store: Store,
  config: Config,
  sessions: Sessions,
  feed: Feed,
  compute: Computing,
): Router[] => [openRoutes(sessions), guardedRoutes(store, config, sessions, feed, compute)];

function guardedRoutes(store: Store, config: Config, sessions: Sessions, feed: Feed, compute: Computing): Router {
  const router = new Router({ sensitive: true, strict: true });
  router.use(sessions.guard, ...body);

  router.post('/api/logout', async (ctx) => {
    await sessions.logout(ctx, 'this');
    ctx.status = 204;
  });
  router.post('/api/logout-others', async (ctx) => {
    await sessions.logout(ctx, 'others');
    ctx.status = 204;
  });
  router.get('/api/openapi.json', (ctx) => {
    ctx.body = openApiDocument(API_VERSION);
  });

  const settingsView = async () => {
    const { settings, version } = await readSettings(store);
    return {
      ...settings,
      version,
      dataFolder: store.folder,
      passwordSet: config.password !== null,
      sessions: await sessions.count(),
    };
  };
  router.get('/api/settings', async (ctx) => {
    ctx.body = await settingsView();
  });
  router.put('/api/settings', async (ctx) => {
    const { version, rest } = versioned(bodyOf(ctx));
    await writeSettings(store, version, parseWith(settingsSchema, rest));
    ctx.body = await settingsView();
  });

  router.post('/api/materials/import', async (ctx) => {
    if (typeof bodyOf(ctx) !== 'string') ctx.throw(415, 'Send the list as text/csv.');
    const { look, again } = parseWith(importQuerySchema, ctx.query);
    const how = { look: look === 'true', again: again === 'true' };
    ctx.body = await importReceipts(store, bodyOf(ctx) as string, how);
  });
  router.get('/api/imports', async (ctx) => {
    ctx.body = await listImports(store);
  });
  router.post('/api/imports/:id/strike', async (ctx) => {
    await strikeImport(store, idOf(ctx));
    ctx.status = 204;
  });
  router.post('/api/moves/:id/strike', async (ctx) => {
    await strikeMove(store, numberOf(ctx, 'id', 'movement'));
    ctx.status = 204;
  });
  resourceRoutes(router, store);
  heatRoutes(router, store, feed);
  router.post('/api/materials/:id/receipts', async (ctx) => {
    await receive(store, idOf(ctx), parseWith(receiptSchema, bodyOf(ctx)));
    ctx.status = 204;
  });
  router.get('/api/jars', async (ctx) => {
    ctx.body = await listJars(store);
  });
  router.post('/api/materials/:id/counts', async (ctx) => {
    ctx.body = await count(store, idOf(ctx), parseWith(countSchema, bodyOf(ctx)));
  });
  router.get('/api/materials/:id/moves', async (ctx) => {
    ctx.body = await listMoves(store, idOf(ctx));
  });

  router.get('/api/materials/:id/lots', async (ctx) => {
    ctx.body = await listPartLots(store, idOf(ctx));
  });
  router.put('/api/materials/:id/lots/:receipt', async (ctx) => {
    const { ticketId } = parseWith(lotOfTicketSchema, bodyOf(ctx));
    await nameLot(store, idOf(ctx), numberOf(ctx, 'receipt', 'lot'), ticketId);
    ctx.status = 204;
  });
  router.get('/api/materials/:id/flows', async (ctx) => {
    ctx.body = await listFlows(store, idOf(ctx));
  });

  router.get('/api/orders/:id/plan', async (ctx) => {
    ctx.body = await planView(store, idOf(ctx));
  });
  router.post('/api/orders/:id/release', async (ctx) => {
    await releaseOrder(store, idOf(ctx));
    ctx.body = await listTickets(store, { orderId: idOf(ctx) });
  });

  router.get('/api/line', async (ctx) => {
    const [tickets, pours, runs] = await Promise.all([
      listTickets(store, { open: true }),
      listPours(store, { open: true }),
      openRuns(store),
    ]);
    ctx.body = { tickets, pours, runs };
  });
  router.get('/api/tickets', async (ctx) => {
    ctx.body = await ticketsOnList(store, periodIn(ctx));
  });
  router.get('/api/bakes', async (ctx) => {
    ctx.body = await bakesOnRecord(store, periodIn(ctx));
  });
  router.get('/api/books/period', async (ctx) => {
    ctx.body = await bookedPeriod(store);
  });
  router.get('/api/tickets/:id', async (ctx) => {
    ctx.body = await readTicket(store, idOf(ctx));
  });
  router.post('/api/tickets/:id/entries', async (ctx) => {
    await addTicketEntries(store, idOf(ctx), [parseTicketEntry(bodyOf(ctx))], clockOf(ctx));
    ctx.status = 204;
  });

  router.get('/api/pours', async (ctx) => {
    const { mold: moldId, at, before } = parseWith(poursQuerySchema, numbersIn(ctx, ['at', 'before']));
    ctx.body = moldId || at ? await listPours(store, { moldId, at }) : await poursOnList(store, before);
  });
  router.post('/api/pours', async (ctx) => {
    ctx.body = await startPour(store, parseWith(startPourSchema, bodyOf(ctx)));
    ctx.status = 201;
  });
  router.get('/api/pours/:id', async (ctx) => {
    ctx.body = await readPour(store, idOf(ctx));
  });
  router.post('/api/pours/:id/entries', async (ctx) => {
    await addPourEntries(store, idOf(ctx), [parsePourEntry(bodyOf(ctx))], clockOf(ctx));
    ctx.status = 204;
  });

  const kindOf = (ctx: { params: Record<string, string | undefined> }): RunKindId => {
    const kind = ctx.params['kind'] ?? '';
    if (!Object.hasOwn(RUN_KINDS, kind)) throw notFound('kind of run', kind);
    return kind as RunKindId;
  };
  router.get('/api/runs/:kind/:id', async (ctx) => {
    ctx.body = await readRun(store, kindOf(ctx), idOf(ctx));
  });
  router.post('/api/runs/:kind/:id/entries', async (ctx) => {
    const kind = kindOf(ctx);
    await addRunEntries(store, kind, idOf(ctx), [parseRunEntry(kind, bodyOf(ctx))], clockOf(ctx));
    ctx.status = 204;
  });

  router.get('/api/export', (ctx) => {
    ctx.attachment('schmelz-workshop.json');
    ctx.type = 'application/json';
    ctx.body = exportAll(store);
  });
  router.get('/api/export/moves.csv', (ctx) => {
    ctx.attachment('schmelz-moves.csv');
    ctx.type = 'text/csv';
    ctx.body = movesCsv(store);
  });

  for (const name of Object.keys(CALCULATIONS)) {
    router.post(`/api/compute/${name}`, async (ctx) => {
      ctx.body = await compute.run(name, bodyOf(ctx));
    });
  }
  return router;
}
