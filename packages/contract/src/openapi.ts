import { convertSchema } from '@sodaru/yup-to-json-schema';
import type * as yup from 'yup';
import { RESOURCES } from './resources.ts';
import { CALCULATIONS } from './schema/compute/index.ts';
import { cleanSchema, lotSchema, recordSchemas } from './schema/records.ts';
import { pourEntrySchemas, runEntrySchemas, startPourSchema, ticketEntrySchemas } from './schema/runs.ts';
import { countSchema, receiptSchema, loginSchema, settingsSchema, lotOfTicketSchema } from './schema/workshop.ts';

type Json = { [key: string]: unknown };

/** JSON Schema of a Yup schema, closed to unknown fields, with units as `x-unit`. */
export function jsonSchema(schema: yup.AnySchema): Json {
  return annotate(convertSchema(schema) as Json, schema.describe());
}

function annotate(json: Json, described: yup.SchemaFieldDescription): Json {
  // The converter gives every object an empty default, which would not be valid.
  const { default: _unused, ...kept } = json;
  const unit = 'meta' in described ? described.meta?.unit : undefined;
  if (unit) kept['x-unit'] = unit;
  if ('fields' in described && kept['properties']) {
    const properties = kept['properties'] as Record<string, Json>;
    kept['properties'] = Object.fromEntries(
      Object.entries(properties).map(([name, each]) => [name, annotate(each, described.fields[name]!)]),
    );
    kept['additionalProperties'] = false;
  }
  if ('innerType' in described && described.innerType && !Array.isArray(described.innerType) && kept['items']) {
    kept['items'] = annotate(kept['items'] as Json, described.innerType as yup.SchemaFieldDescription);
  }
  if (kept['enum'] && Array.isArray(kept['type'])) kept['enum'] = [...(kept['enum'] as unknown[]), null];
  return kept;
}

const body = (schema: Json) => ({ required: true, content: { 'application/json': { schema } } });
const answer = (description: string) => ({ description, content: { 'application/json': { schema: {} } } });
const refused = {
  description: 'Refused; says what is wrong',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};
const idParameter = { name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } };
const numberParameter = (name: string) => ({
  name,
  in: 'path',
  required: true,
  schema: { type: 'integer', minimum: 1 },
});
const runKindParameter = {
  name: 'kind',
  in: 'path',
  required: true,
  schema: { type: 'string', enum: Object.keys(runEntrySchemas) },
};
const operation = (operationId: string, summary: string, more: Json = {}) => ({
  operationId,
  summary,
  ...more,
  responses: { '200': answer(summary), default: refused },
});

const query = (name: string, type: string, required = true) => ({ name, in: 'query', required, schema: { type } });
const stretch = (thinned: boolean) => [
  query('channel', 'integer'),
  query('from', 'integer', false),
  query('to', 'integer', false),
  ...(thinned ? [query('points', 'integer', false)] : []),
];
const period = [query('from', 'integer', false), query('to', 'integer', false)];
/** A write that must name the version it was made from. */
const withVersion = (written: Json): Json => ({
  ...written,
  properties: { ...(written['properties'] as Json), version: { type: 'integer', minimum: 1 } },
  required: [...((written['required'] as string[] | undefined) ?? []), 'version'],
});

function resourcePaths(): Json {
  const paths: Json = {};
  for (const [path, { schema, one }] of Object.entries(RESOURCES)) {
    const name = path.replace('-', '_');
    const written = jsonSchema(schema);
    paths[`/api/${path}`] = {
      get:
        path === 'orders'
          ? operation('list_orders', 'Orders to do and the last done; before a number only older done ones', {
              parameters: [query('before', 'integer', false)],
            })
          : operation(`list_${name}`, `All ${path}`),
      post: operation(`create_${name}`, `A new ${one}`, { requestBody: body(written) }),
    };
    paths[`/api/${path}/{id}`] = {
      parameters: [idParameter],
      get: operation(`read_${name}`, `One ${one}`),
      put: operation(`change_${name}`, `Change a ${one}; a stale version is a 409`, {
        requestBody: body(withVersion(written)),
      }),
      delete: operation(`remove_${name}`, `Remove a ${one} that nothing refers to`),
    };
  }
  return paths;
}

function computePaths(): Json {
  return Object.fromEntries(
    Object.entries(CALCULATIONS).map(([name, { summary, source, input }]) => [
      `/api/compute/${name}`,
      {
        post: operation(`compute_${name.replaceAll('-', '_')}`, summary, {
          description: source,
          requestBody: body(jsonSchema(input)),
        }),
      },
    ]),
  );
}

const oneOf = (schemas: Record<string, yup.AnySchema>) => ({ oneOf: Object.values(schemas).map(jsonSchema) });

/** The OpenAPI 3.1 document, made from the schemas that validate. */
export function openApiDocument(version: string): Json {
  const withId = (more: Json) => ({ parameters: [idParameter], ...more });
  return {
    openapi: '3.1.0',
    info: { title: 'Schmelz', version, description: 'SI units; money in integer minor units of one currency.' },
    paths: {
      '/api/health': { get: operation('health', 'Whether the server is up, and on which data folder') },
      '/api/login': {
        post: operation('login', 'Open a session where a password is set', {
          requestBody: body(jsonSchema(loginSchema)),
        }),
      },
      '/api/logout': { post: operation('logout', 'End the session that asks') },
      '/api/logout-others': { post: operation('logout_others', 'End all sessions but the one that asks') },
      '/api/settings': {
        get: operation('read_settings', 'Units, currency, house ways'),
        put: operation('change_settings', 'Change them; a stale version is a 409', {
          requestBody: body(withVersion(jsonSchema(settingsSchema))),
        }),
      },
      ...resourcePaths(),
      '/api/materials/{id}/receipts': withId({
        post: operation('receive', 'A purchase comes in', { requestBody: body(jsonSchema(receiptSchema)) }),
      }),
      '/api/materials/{id}/counts': withId({
        post: operation('count', 'What the scale or a count says is there', {
          requestBody: body(jsonSchema(countSchema)),
        }),
      }),
      '/api/materials/{id}/moves': withId({ get: operation('moves', 'Movements of one material, newest first') }),
      '/api/materials/{id}/flows': withId({
        get: operation('flows', 'All that came and went of a material, by reason'),
      }),
      '/api/materials/{id}/lots': withId({
        get: operation('part_lots', 'Lots of a part: what is left of each, and which tickets used it'),
      }),
      '/api/materials/{id}/lots/{receipt}': {
        parameters: [idParameter, numberParameter('receipt')],
        put: operation('name_lot', 'Name the lot that a ticket uses from now on', {
          requestBody: body(jsonSchema(lotOfTicketSchema)),
        }),
      },
      '/api/materials/import': {
        post: operation('import_receipts', 'Purchases from CSV: material, quantity, price, on, lot', {
          parameters: [query('look', 'string', false), query('again', 'string', false)],
          requestBody: { required: true, content: { 'text/csv': { schema: { type: 'string' } } } },
        }),
      },
      '/api/imports': { get: operation('list_imports', 'Files that were taken in, newest first') },
      '/api/imports/{id}/strike': withId({ post: operation('strike_import', 'Undo an import, all of it or nothing') }),
      '/api/moves/{id}/strike': {
        parameters: [numberParameter('id')],
        post: operation('strike_move', 'Strike a purchase or a count out'),
      },
      '/api/jars': {
        get: operation(
          'list_jars',
          'Powders with their weighings: gone by the scale, on heads by the coverage formula',
        ),
      },
      '/api/lead-lots': {
        get: operation('list_lots', 'Lots of lead: what is left of each and where it went'),
        post: operation('add_lot', 'A delivery of lead', { requestBody: body(jsonSchema(lotSchema)) }),
      },
      '/api/lead-lots/{id}/clean': withId({
        post: operation('clean_lot', 'A dirty lot was melted down and skimmed', {
          requestBody: body(withVersion(jsonSchema(cleanSchema))),
        }),
      }),
      '/api/lead-lots/{id}/strike': withId({ post: operation('strike_lot', 'Strike a lot of lead out') }),
      '/api/channels/{id}/strike': {
        parameters: [numberParameter('id')],
        post: operation('strike_log', 'Strike an imported log out, with all its channels'),
      },
      '/api/records': {
        post: operation('add_record', 'A dated note: care of a mold, a hook tried, a mark of a dial', {
          requestBody: body(oneOf(recordSchemas)),
        }),
      },
      '/api/records/{kind}': {
        parameters: [
          { name: 'kind', in: 'path', required: true, schema: { type: 'string', enum: Object.keys(recordSchemas) } },
        ],
        get: operation('list_records', 'Dated notes of one kind, oldest first', {
          parameters: [query('thing', 'string', false)],
        }),
      },
      '/api/records/{id}/strike': withId({ post: operation('strike_record', 'Strike a note out; it stays on record') }),
      '/api/molds/{id}/fill-records': withId({
        get: operation('fill_records', 'Casts and shorts of each cavity, pour by pour'),
      }),
      '/api/channels': { get: operation('list_channels', 'Probes and imported logs') },
      '/api/readings': {
        get: operation('read_stretch', 'A stretch of readings, thinned', { parameters: stretch(true) }),
      },
      '/api/readings/raw': {
        get: operation('raw_readings', 'The readings themselves', { parameters: stretch(false) }),
      },
      '/api/readings/stream': { get: operation('stream_readings', 'Readings as they come, as server-sent events') },
      '/api/readings/import': {
        post: operation('import_log', "A logger's CSV, its columns mapped as JSON in the query", {
          parameters: [query('mapping', 'string'), query('again', 'string', false)],
          requestBody: { required: true, content: { 'text/csv': { schema: { type: 'string' } } } },
        }),
      },
      '/api/orders/{id}/plan': withId({ get: operation('plan_order', 'The plan of an order') }),
      '/api/orders/{id}/release': withId({ post: operation('release_order', 'Make tickets of an order') }),
      '/api/line': { get: operation('line', 'Open tickets and pours') },
      '/api/tickets': {
        get: operation('list_tickets', 'Tickets without their logs, newest first; of a period those closed in it', {
          parameters: period,
        }),
      },
      '/api/bakes': {
        get: operation(
          'list_bakes',
          'Loads of the oven that have come out, ticket by ticket; of a period those loaded in it',
          {
            parameters: period,
          },
        ),
      },
      '/api/books/period': { get: operation('booked_period', 'When the first and the last ticket were closed') },
      '/api/tickets/{id}': withId({ get: operation('read_ticket', 'One ticket with plan, log, materials and cost') }),
      '/api/tickets/{id}/entries': withId({
        post: operation('ticket_entry', 'Say what happened to a ticket', {
          requestBody: body(oneOf(ticketEntrySchemas)),
        }),
      }),
      '/api/pours': {
        get: operation('list_pours', 'Pours without their logs, newest first; whole ones of a mold or at a moment', {
          parameters: [
            query('before', 'integer', false),
            query('mold', 'string', false),
            query('at', 'integer', false),
          ],
        }),
        post: operation('start_pour', 'Start a pour of tickets in a mold', {
          requestBody: body(jsonSchema(startPourSchema)),
        }),
      },
      '/api/pours/{id}': withId({ get: operation('read_pour', 'One pour with its log') }),
      '/api/pours/{id}/entries': withId({
        post: operation('pour_entry', 'Say what happened at the pot', { requestBody: body(oneOf(pourEntrySchemas)) }),
      }),
      '/api/runs/{kind}/{id}': {
        parameters: [runKindParameter, idParameter],
        get: operation('read_run', 'One run that serves several tickets, with its log'),
      },
      '/api/runs/{kind}/{id}/entries': {
        parameters: [runKindParameter, idParameter],
        post: operation('run_entry', 'Say what happened in a run; the first entry begins it', {
          requestBody: body({ oneOf: Object.values(runEntrySchemas).flatMap((kinds) => oneOf(kinds).oneOf) }),
        }),
      },
      '/api/export': { get: operation('export', 'Everything as one JSON document') },
      '/api/export/moves.csv': { get: operation('export_moves', 'All stock movements as CSV') },
      ...computePaths(),
    },
    components: {
      schemas: {
        Problem: {
          type: 'object',
          description: 'RFC 9457 problem details',
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            fields: {
              type: 'array',
              items: {
                type: 'object',
                properties: {
                  field: { type: 'string' },
                  value: {},
                  unit: { type: 'string' },
                  allowed: { type: 'string' },
                  message: { type: 'string' },
                },
              },
            },
            changes: { type: 'array', items: { type: 'object' } },
          },
          required: ['type', 'title', 'status', 'detail'],
        },
      },
    },
  };
}
