import { RUN_KINDS, type HouseHandling, type Reading, type RunKindId, type TonightAsked } from '@schmelz/core';
import type * as yup from 'yup';
import {
  body,
  csv,
  entry,
  entryBy,
  file,
  json,
  made,
  nothing,
  oneOf,
  row,
  type Answer,
  type AnswerOf,
  type Body,
  type BodyOf,
  type ParamsOf,
  type QueryOf,
  type Route,
} from './route.ts';
import type { FillTable } from './fill-table.ts';
import { CSV_TABLES } from './csv-tables.ts';
import { RESOURCES, type ResourcePath } from './resources.ts';
import {
  logImportQuerySchema,
  readingsQuerySchema,
  RECORD_KINDS,
  recordSchemas,
  recordsQuerySchema,
  rawReadingsQuerySchema,
} from './schema/records.ts';
import {
  beforeQuerySchema,
  periodQuerySchema,
  pourEntrySchemas,
  poursQuerySchema,
  runEntrySchemas,
  startPourSchema,
  ticketEntrySchemas,
} from './schema/runs.ts';
import { loginSchema, settingsSchema } from './schema/workshop.ts';
import type {
  AnyNote,
  BakeOnRecord,
  Channel,
  Health,
  LineView,
  OrderGoods,
  LogImport,
  PlanView,
  Pour,
  PourAhead,
  PourOnList,
  ReadingsView,
  ResourceInputs,
  ResourceLists,
  ResourceReads,
  RunView,
  SettingsView,
  Ticket,
  TicketOnList,
} from './views.ts';
import type { LotQuality, LotTicket, TicketTrace } from './trace-views.ts';
import { BOOKS_ROUTES } from './books-routes.ts';
import { STOCK_ROUTES } from './stock-routes.ts';

/** Routes that are not those of the plain resources: method and path under `/api`, and what goes in and out. */
const OWN_ROUTES = {
  'GET /health': {
    operation: 'health',
    summary: 'Whether the server is up, and in which version',
    open: true,
    answer: json<Health>(),
  },
  'POST /login': {
    operation: 'login',
    summary: 'Open a session where a password is set',
    open: true,
    body: body(loginSchema),
    answer: nothing,
  },
  'POST /logout': { operation: 'logout', summary: 'End the session that asks', answer: nothing },
  'POST /logout-others': {
    operation: 'logout_others',
    summary: 'End all sessions but the one that asks',
    answer: nothing,
  },
  'GET /openapi.json': { operation: 'document', summary: 'This document', answer: file('application/json') },

  'GET /settings': {
    operation: 'read_settings',
    summary: 'Units, currency, house ways',
    answer: json<SettingsView>(),
  },
  'PUT /settings': {
    operation: 'change_settings',
    summary: 'Change them; a stale version is a 409',
    body: body(settingsSchema),
    versioned: true,
    answer: json<SettingsView>(),
  },

  'GET /records/:kind': {
    operation: 'list_records',
    summary: 'Dated notes of one kind, oldest first',
    parts: { kind: oneOf('kind of record', RECORD_KINDS) },
    query: recordsQuerySchema,
    answer: json<AnyNote[]>(),
  },
  'POST /records': {
    operation: 'add_record',
    summary: 'A dated note: care of a mold, a hook tried, a mark of a dial',
    body: entry(recordSchemas),
    answer: made<AnyNote>(),
  },
  'POST /records/:id/strike': {
    operation: 'strike_record',
    summary: 'Strike a note out; it stays on record',
    answer: nothing,
  },
  'GET /molds/:id/fill-records': {
    operation: 'fill_records',
    summary: 'Casts and shorts of each cavity, pour by pour, as a table',
    answer: json<FillTable>(),
  },

  'GET /molds/:id/handling': {
    operation: 'mold_handling',
    summary: 'What worked against shorts in a mold, and how many blank shots are sure',
    answer: json<HouseHandling>(),
  },

  'GET /channels': {
    operation: 'list_channels',
    summary: 'Probes and imported logs',
    answer: json<Channel[]>(),
  },
  'POST /channels/:id/strike': {
    operation: 'strike_log',
    summary: 'Strike an imported log out, with all its channels',
    parts: { id: row('channel') },
    answer: nothing,
  },
  'GET /readings': {
    operation: 'read_stretch',
    summary: 'A stretch of readings, thinned',
    query: readingsQuerySchema,
    answer: json<ReadingsView>(),
  },
  'GET /readings/raw': {
    operation: 'raw_readings',
    summary: 'The readings themselves',
    query: rawReadingsQuerySchema,
    answer: json<Reading[]>(),
  },
  'GET /readings/stream': {
    operation: 'stream_readings',
    summary: 'Readings as they come, as server-sent events',
    answer: file('text/event-stream'),
  },
  'POST /readings/import': {
    operation: 'import_log',
    summary: "A logger's CSV, its columns mapped as JSON in the query",
    query: logImportQuerySchema,
    body: csv,
    answer: made<LogImport>(),
  },

  'GET /orders/:id/plan': {
    operation: 'plan_order',
    summary: 'The plan of an order that is not released yet',
    answer: json<PlanView>(),
  },
  'GET /orders/:id/tickets': {
    operation: 'order_tickets',
    summary: 'Tickets of an order that is released: as they were planned that day, and as they came',
    answer: json<Ticket[]>(),
  },
  'GET /orders/:id/goods': {
    operation: 'order_goods',
    summary: 'How far an order is filled, and what of it lies on the shelf',
    answer: json<OrderGoods>(),
  },
  'POST /orders/:id/release': {
    operation: 'release_order',
    summary: 'Make tickets of an order',
    answer: json<Ticket[]>(),
  },

  'GET /tonight': {
    operation: 'tonight',
    summary: 'All that is open, and what there is to do it with: what an evening is planned from',
    answer: json<TonightAsked>(),
  },
  'GET /line': { operation: 'line', summary: 'Open tickets, pours and runs', answer: json<LineView>() },
  'GET /tickets': {
    operation: 'list_tickets',
    summary: 'Tickets without their logs, newest first; of a period those closed in it',
    query: periodQuerySchema,
    answer: json<TicketOnList[]>(),
  },
  'GET /bakes': {
    operation: 'list_bakes',
    summary: 'Loads of the oven that have come out, ticket by ticket; of a period those loaded in it',
    query: periodQuerySchema,
    answer: json<BakeOnRecord[]>(),
  },
  'GET /tickets/:id': {
    operation: 'read_ticket',
    summary: 'One ticket with plan, log, materials and cost',
    answer: json<Ticket>(),
  },
  'GET /trace/tickets/:number': {
    operation: 'trace_ticket',
    summary: 'What a ticket was made of, lot by lot, and what it went through, by the number on its bags',
    parts: { number: row('ticket') },
    answer: json<TicketTrace>(),
  },
  'GET /trace/lots': {
    operation: 'lot_quality',
    summary: 'Lots of hooks and powder by what was thrown back of their heads, and which of them stand out',
    answer: json<LotQuality[]>(),
  },
  'GET /trace/lots/:receipt': {
    operation: 'trace_lot',
    summary: 'Tickets that took from a lot, and who ordered them',
    parts: { receipt: row('lot') },
    answer: json<LotTicket[]>(),
  },
  'POST /tickets/:id/product': {
    operation: 'take_over_product',
    summary: 'Take over what its product has become since the ticket was released',
    answer: json<Ticket>(),
  },
  'POST /tickets/:id/entries': {
    operation: 'ticket_entry',
    summary: 'Say what happened to a ticket',
    body: entry(ticketEntrySchemas),
    answer: nothing,
  },

  'GET /pours': {
    operation: 'list_pours',
    summary: 'Pours without their logs, newest first, in pages',
    query: beforeQuerySchema,
    answer: json<PourOnList[]>(),
  },
  'GET /pours/whole': {
    operation: 'whole_pours',
    summary: 'Pours with their logs: the newest of a mold, or the one that went on at a moment',
    query: poursQuerySchema,
    answer: json<Pour[]>(),
  },
  'POST /pours': {
    operation: 'start_pour',
    summary: 'Start a pour of tickets in a mold',
    body: body(startPourSchema),
    answer: made<Pour>(),
  },
  'POST /pours/prepare': {
    operation: 'prepare_pour',
    summary: 'What a pour of tickets would take; nothing is begun',
    body: body(startPourSchema),
    answer: json<PourAhead>(),
  },
  'GET /pours/:id': { operation: 'read_pour', summary: 'One pour with its log', answer: json<Pour>() },
  'POST /pours/:id/entries': {
    operation: 'pour_entry',
    summary: 'Say what happened at the pot',
    body: entry(pourEntrySchemas),
    answer: nothing,
  },
  'GET /runs/:kind/:id': {
    operation: 'read_run',
    summary: 'One run that serves several tickets, with its log',
    parts: { kind: oneOf('kind of run', Object.keys(RUN_KINDS) as RunKindId[]) },
    answer: json<RunView>(),
  },
  'POST /runs/:kind/:id/entries': {
    operation: 'run_entry',
    summary: 'Say what happened in a run; the first entry begins it',
    parts: { kind: oneOf('kind of run', Object.keys(RUN_KINDS) as RunKindId[]) },
    body: entryBy('kind', runEntrySchemas),
    answer: nothing,
  },

  'GET /export': { operation: 'export', summary: 'Everything as one JSON document', answer: file('application/json') },
  'GET /export/tables/:table': {
    operation: 'export_table',
    summary: 'One table as CSV, row by row; lists inside a cell are written as JSON',
    parts: { table: oneOf('table', CSV_TABLES) },
    answer: file('text/csv'),
  },
  'GET /export/moves.csv': {
    operation: 'export_moves',
    summary: 'All stock movements as CSV',
    answer: file('text/csv'),
  },
} as const satisfies Record<string, Route>;

type ReadResource<P extends ResourcePath> = { answer: Answer<ResourceReads[P]> };
type WriteResource<P extends ResourcePath> = { body: Body<ResourceInputs[P]> };
type ListQuery<P extends ResourcePath> = P extends 'orders' ? { query: typeof beforeQuerySchema } : unknown;

/** Routes of the plain resources: listed, made, read, changed and removed alike. */
type ResourceRoutes = {
  [P in ResourcePath as `GET /${P}`]: Route & { answer: Answer<ResourceLists[P][]> } & ListQuery<P>;
} & { [P in ResourcePath as `POST /${P}`]: Route & ReadResource<P> & WriteResource<P> } & {
  [P in ResourcePath as `GET /${P}/:id`]: Route & ReadResource<P>;
} & {
  [P in ResourcePath as `PUT /${P}/:id`]: Route & ReadResource<P> & WriteResource<P> & { versioned: true };
} & { [P in ResourcePath as `DELETE /${P}/:id`]: Route & { answer: Answer<void> } };

function resourceRoutes(): ResourceRoutes {
  const routes: Record<string, Route> = {};
  for (const [path, { schema, one }] of Object.entries(RESOURCES)) {
    const name = path.replace('-', '_');
    routes[`GET /${path}`] =
      path === 'orders'
        ? {
            operation: 'list_orders',
            summary: 'Orders to do and the last done; before a number only older done ones',
            query: beforeQuerySchema,
            answer: json(),
          }
        : { operation: `list_${name}`, summary: `All ${path}`, answer: json() };
    routes[`POST /${path}`] = {
      operation: `create_${name}`,
      summary: `A new ${one}`,
      body: body<yup.AnySchema>(schema),
      answer: made(),
    };
    routes[`GET /${path}/:id`] = { operation: `read_${name}`, summary: `One ${one}`, answer: json() };
    routes[`PUT /${path}/:id`] = {
      operation: `change_${name}`,
      summary: `Change a ${one}; a stale version is a 409`,
      body: body<yup.AnySchema>(schema),
      versioned: true,
      answer: json(),
    };
    routes[`DELETE /${path}/:id`] = {
      operation: `remove_${name}`,
      summary: `Remove a ${one} that nothing refers to`,
      answer: nothing,
    };
  }
  return routes as ResourceRoutes;
}

/**
 * Every route of the API but the calculations, by method and path under `/api`: the router, the OpenAPI document and
 * the client's types are made from this table.
 */
export const ROUTES = { ...OWN_ROUTES, ...STOCK_ROUTES, ...BOOKS_ROUTES, ...resourceRoutes() };
export type Routes = typeof ROUTES;
export type RouteKey = keyof Routes & string;

/** What comes back from a route. */
export type Given<K extends RouteKey> = AnswerOf<Routes[K]>;
/** What the path of a route names. */
export type Params<K extends RouteKey> = ParamsOf<K, Routes[K]>;
/** What stands behind the question mark. */
export type Query<K extends RouteKey> = QueryOf<Routes[K]>;
/** What is sent to it. */
export type Sent<K extends RouteKey> = BodyOf<Routes[K]>;
