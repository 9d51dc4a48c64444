import type { SettingsView } from '@schmelz/contract';
import type { Config } from '../config.ts';
import type { Sessions } from '../middleware/session.ts';
import { backUpNow, backups, putBack, takeInDocument } from '../services/backups.ts';
import { give, take } from '../services/give.ts';
import { API_VERSION, openApiDocument } from '../openapi/document.ts';
import { exportAll, exportSchema, movesCsv, tableCsv } from '../services/exchange.ts';
import { goodsMoves, listGoods, moveGoods, strikeGoods } from '../services/goods.ts';
import { importReceipts, listImports } from '../services/imports.ts';
import { importEvenings, paperView } from '../services/paper.ts';
import { jarsKept } from '../services/jars.ts';
import { listPartLots, nameLot } from '../services/part-lots.ts';
import { putAway } from '../services/resources.ts';
import { readSettings, writeSettings } from '../services/settings.ts';
import { count, listFlows, listMoves, receive, receiveParcel } from '../services/stock.ts';
import { usedWeekly } from '../services/use.ts';
import { strikeImport, strikeMove } from '../services/strike.ts';
import { takeTemplate } from '../services/templates.ts';
import type { Store } from '../store/store.ts';
import type { Handlers } from './router.ts';

/** The way in, settings, stock, and everything as a file. */
export function workshopHandlers(store: Store, config: Config, sessions: Sessions) {
  const settingsView = async (): Promise<SettingsView> => {
    const { settings, version } = await readSettings(store);
    return {
      ...settings,
      version,
      dataFolder: store.folder,
      passwordSet: config.password !== null,
      sessions: await sessions.count(),
    };
  };
  return {
    'GET /health': () => ({ status: 'ready', version: API_VERSION }),
    'POST /login': ({ ctx, body }) => sessions.login(ctx, body.password),
    'POST /logout': ({ ctx }) => sessions.logout(ctx, 'this'),
    'POST /logout-others': ({ ctx }) => sessions.logout(ctx, 'others'),
    'GET /openapi.json': () => openApiDocument(),
    'GET /settings': settingsView,
    'PUT /settings': async ({ body: { version, ...settings } }) => {
      await writeSettings(store, version, settings);
      return settingsView();
    },

    'POST /products/from-template': ({ body }) => takeTemplate(store, body),
    'POST /put-away': ({ body }) => putAway(store, body),
    'POST /materials/import': ({ query, body }) =>
      importReceipts(store, body, { look: query.look === 'true', again: query.again === 'true' }),
    'POST /evenings/import': ({ query, body }) =>
      importEvenings(store, body, { look: query.look === 'true', again: query.again === 'true' }),
    'GET /evenings/paper': ({ query }) => paperView(store, query.skip),
    'GET /imports': () => listImports(store),
    'POST /imports/:id/strike': ({ params }) => strikeImport(store, params.id),
    'POST /moves/:id/strike': ({ params }) => strikeMove(store, params.id),
    'POST /materials/:id/receipts': ({ params, body }) => receive(store, params.id, body),
    'POST /parcels': ({ body }) => receiveParcel(store, body),
    'POST /materials/:id/counts': ({ params, body }) => count(store, params.id, body),
    'GET /materials/:id/moves': ({ params }) => listMoves(store, params.id),
    'GET /materials/:id/flows': ({ params }) => listFlows(store, params.id),
    'GET /materials/:id/lots': ({ params }) => listPartLots(store, params.id),
    'PUT /materials/:id/lots/:receipt': ({ params, body }) => nameLot(store, params.id, params.receipt, body.ticketId),
    'GET /jars': () => jarsKept(store),
    'GET /give/:kind/:id': ({ params }) => give(store, params.kind, params.id),
    'POST /take': ({ query, body }) => take(store, body, query.look === 'true'),
    'GET /backups': () => backups(store),
    'POST /backups': () => backUpNow(store),
    'POST /backups/take-in': ({ body }) => takeInDocument(store, body),
    'GET /export/schema': () => exportSchema(store),
    'POST /backups/restore': ({ body }) => putBack(store, body.name),
    'GET /stock/use': () => usedWeekly(store),
    'GET /goods': () => listGoods(store),
    'GET /goods/moves': ({ query }) => goodsMoves(store, query.before),
    'POST /goods/moves': ({ body }) => moveGoods(store, body),
    'POST /goods/moves/:id/strike': ({ params }) => strikeGoods(store, params.id),

    'GET /export': async ({ ctx }) => {
      const document = await exportAll(store);
      ctx.attachment('schmelz-workshop.json');
      return document;
    },
    'GET /export/tables/:table': ({ ctx, params: { table } }) => {
      ctx.attachment(`schmelz-${table}.csv`);
      return tableCsv(store, table);
    },
    'GET /export/moves.csv': ({ ctx }) => {
      ctx.attachment('schmelz-moves.csv');
      return movesCsv(store);
    },
  } satisfies Partial<Handlers>;
}
