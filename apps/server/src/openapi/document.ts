import { ROUTES, type PathPart, type Route } from '@schmelz/contract';
import { CALCULATIONS } from '../calculations/index.ts';
import { answers } from './answers.ts';
import { jsonSchema, type Json } from './json-schema.ts';

export const API_VERSION = '0.1.0';

const refused = {
  description: 'Refused; says what is wrong',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

function partSchema(part: PathPart): Json {
  if (part.is === 'number') return { type: 'integer', minimum: 1 };
  return part.is === 'choice' ? { type: 'string', enum: part.of } : { type: 'string', format: 'uuid' };
}
const pathParameter = (name: string, part: PathPart = { is: 'id' }): Json => ({
  name,
  in: 'path',
  required: true,
  schema: partSchema(part),
});

function queryParameters(query: Route['query']): Json[] {
  if (!query) return [];
  const { properties, required = [] } = jsonSchema(query) as { properties: Record<string, Json>; required?: string[] };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
}

/** A write that must name the version it was made from. */
const withVersion = (written: Json): Json => ({
  ...written,
  properties: { ...(written['properties'] as Json), version: { type: 'integer', minimum: 1 } },
  required: [...((written['required'] as string[] | undefined) ?? []), 'version'],
});

/** Schemas of what may be sent, of which one must fit. */
function bodyOf({ body, versioned }: Route): Json | undefined {
  const as = (type: string, schema: Json) => ({ required: true, content: { [type]: { schema } } });
  switch (body?.is) {
    case 'json': {
      const written = jsonSchema(body.schema);
      return as('application/json', versioned ? withVersion(written) : written);
    }
    case 'entry':
      return as('application/json', { oneOf: Object.values(body.schemas).map(jsonSchema) });
    case 'entry of':
      return as('application/json', {
        oneOf: Object.values(body.schemas).flatMap((schemas) => Object.values(schemas).map(jsonSchema)),
      });
    case 'csv':
      return as('text/csv', { type: 'string' });
    case 'document':
      return as('application/json', { type: 'object', description: 'as GET /export gives it' });
    default:
      return undefined;
  }
}

function operation(route: Omit<Route, 'answer'>, answer: Json, status: number): Json {
  const { operation: operationId, summary, description } = route;
  const parameters = queryParameters(route.query);
  const requestBody = bodyOf(route as Route);
  return {
    operationId,
    summary,
    ...(description && { description }),
    ...(parameters.length > 0 && { parameters }),
    ...(requestBody && { requestBody }),
    responses: { [status]: { description: summary, ...answer }, default: refused },
  };
}

function paths(): Record<string, Record<string, Json | Json[]>> {
  const all: Record<string, Record<string, Json | Json[]>> = {};
  for (const [key, route] of Object.entries(ROUTES) as [string, Route][]) {
    const [method, path] = key.split(' ') as [string, string];
    const names = [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
    const at = (all[`/api${path.replaceAll(/:(\w+)/g, '{$1}')}`] ??= {});
    const parts = route.parts as Record<string, PathPart> | undefined;
    if (names.length) at['parameters'] ??= names.map((name) => pathParameter(name, parts?.[name]));
    const { status, type } = route.answer;
    const schema = () => (type === 'application/json' ? answers.of(key) : { type: 'string' });
    at[method.toLowerCase()] = operation(
      route,
      status === 204 ? {} : { content: { [type]: { schema: schema() } } },
      status,
    );
  }
  for (const [name, { summary, source, input }] of Object.entries(CALCULATIONS)) {
    const route = {
      operation: `compute_${name.replaceAll('-', '_')}`,
      summary,
      description: source,
      body: { is: 'json', schema: input } as const,
    };
    const schema = answers.of(`POST /compute/${name}`);
    all[`/api/compute/${name}`] = { post: operation(route, { content: { 'application/json': { schema } } }, 200) };
  }
  return all;
}

const text = { type: 'string' };
const PROBLEM = {
  type: 'object',
  description: 'RFC 9457 problem details',
  properties: {
    type: text,
    title: text,
    status: { type: 'integer' },
    detail: text,
    fields: {
      type: 'array',
      items: { type: 'object', properties: { field: text, value: {}, unit: text, allowed: text, message: text } },
    },
    changes: { type: 'array', items: { type: 'object' } },
  },
  required: ['type', 'title', 'status', 'detail'],
};

/** The OpenAPI 3.1 document: requests by the schemas that validate, answers by the types that the code is held to. */
export const openApiDocument = (): Json => ({
  openapi: '3.1.0',
  info: {
    title: 'Schmelz',
    version: API_VERSION,
    description: 'SI units; money in integer minor units of one currency.',
  },
  paths: paths(),
  components: { schemas: { ...answers.definitions, Problem: PROBLEM } },
});
