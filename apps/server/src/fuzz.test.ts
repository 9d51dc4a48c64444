import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { answersHold } from './test/answers.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/** A schema of the OpenAPI document, as far as values are made from it. */
interface Json {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  oneOf?: Json[];
  properties?: Record<string, Json>;
  required?: string[];
  items?: Json;
  minItems?: number;
  maxItems?: number;
  minimum?: number;
  maximum?: number;
  pattern?: string;
}
interface Operation {
  method: string;
  path: string;
  parameters: { name: string; in: string; schema: Json }[];
  content: Record<string, { schema: Json }>;
}

const NASTY_TEXTS = [
  '',
  '\0',
  '../..',
  '=1+1',
  '__proto__',
  'x'.repeat(300),
  '\ud800',
  '-0',
  '1e400',
  '%00',
  "'; DROP TABLE pots; --",
];
const NASTY = [null, true, -1, 0, 1e308, -1e308, 0.1 + 0.2, [], {}, [[]], { __proto__: null }, 'NaN', ...NASTY_TEXTS];

/** Values as the schema wants them, near the ends of what it allows, and now and then something else. */
function valueOf(schema: Json, ids: readonly string[], depth = 0): fc.Arbitrary<unknown> {
  const right = (): fc.Arbitrary<unknown> => {
    if (schema.const !== undefined) return fc.constant(schema.const);
    if (schema.enum) return fc.constantFrom(...schema.enum);
    if (schema.oneOf) return fc.oneof(...schema.oneOf.map((each) => valueOf(each, ids, depth + 1)));
    const type = [schema.type].flat()[0];
    const { minimum = -1e6, maximum = 1e6, minItems = 0, maxItems = 4 } = schema;
    switch (type) {
      case 'object': {
        const entries = Object.entries(schema.properties ?? {}).map(([name, each]) => [
          name,
          valueOf(each, ids, depth + 1),
        ]);
        return fc.record(Object.fromEntries(entries) as Record<string, fc.Arbitrary<unknown>>, {
          requiredKeys: schema.required ?? [],
        });
      }
      case 'array':
        return fc.array(valueOf(schema.items ?? {}, ids, depth + 1), {
          minLength: minItems,
          maxLength: Math.min(maxItems, minItems + 3),
        });
      case 'integer':
        return fc.oneof(
          fc.constantFrom(minimum, maximum, minimum - 1, maximum + 1),
          fc.integer({ min: Math.ceil(minimum), max: Math.floor(maximum) }),
        );
      case 'number':
        return fc.oneof(fc.constantFrom(minimum, maximum), fc.double({ min: minimum, max: maximum, noNaN: true }));
      case 'boolean':
        return fc.boolean();
      case 'string':
        if (schema.pattern?.includes('{36}'))
          return fc.oneof({ weight: 5, arbitrary: fc.constantFrom(...ids) }, { weight: 1, arbitrary: fc.uuid() });
        if (schema.pattern?.includes('{4}-'))
          return fc.constantFrom('2026-05-31', '2026-02-30', '0001-01-01', '9999-12-31');
        if (schema.pattern?.includes('#')) return fc.constantFrom('#a1b2c3', '#FFFFFF');
        return fc.oneof(fc.string({ minLength: 1, maxLength: 30, unit: 'binary' }), fc.constant('name'));
      default:
        return fc.jsonValue({ maxDepth: 2 });
    }
  };
  const weight = depth === 0 ? 30 : 60;
  return fc.oneof({ weight, arbitrary: right() }, { weight: 1, arbitrary: fc.constantFrom<unknown>(...NASTY) });
}

const EVERY = 5000;
/** A request that is not answered by then hangs. */
const ANSWERS_WITHIN_MS = 20_000;

let server: TestServer;
const ids: string[] = [];
let operations: Operation[];

beforeAll(async () => {
  server = await testServer({ SCHMELZ_REQUESTS_A_MINUTE: '1000000' });
  const things = await smallWorkshop(server);
  ids.push(...Object.values(things).flat(), randomUUID());
  const order = await server.call('POST', '/api/orders', {
    customer: 'A',
    dueOn: null,
    note: '',
    lines: [{ productId: things.productIds[0], quantity: 40 }],
  });
  const tickets = await server.call('POST', `/api/orders/${order.body.id}/release`, {});
  const pour = await server.call('POST', '/api/pours', {
    moldIds: [things.moldId],
    atOnce: 1,
    potId: things.potId,
    ticketIds: [tickets.body[0].id],
  });
  ids.push(order.body.id, tickets.body[0].id, pour.body.id);
  const { paths } = (await server.call('GET', '/api/openapi.json')).body as {
    paths: Record<string, Record<string, never>>;
  };
  operations = Object.entries(paths).flatMap(([path, methods]) => {
    const shared = (methods['parameters'] ?? []) as Operation['parameters'];
    return Object.entries(methods)
      .filter(([method]) => method !== 'parameters' && path !== '/api/readings/stream')
      .map(([method, said]) => {
        const { parameters = [], requestBody } = said as {
          parameters?: Operation['parameters'];
          requestBody?: { content: Operation['content'] };
        };
        return {
          method: method.toUpperCase(),
          path,
          parameters: [...shared, ...parameters],
          content: requestBody?.content ?? {},
        };
      });
  });
});
afterAll(() => server.stop());

/** A request to any operation of the document. */
const anyRequest = () =>
  fc.constantFrom(...operations).chain((operation) => {
    const [type, { schema } = { schema: {} }] = Object.entries(operation.content)[0] ?? [];
    const text = fc.oneof(
      fc.constantFrom('material,quantity,price,on\nLead,1,2,2026-01-01', 'a,a\n1,2', '\0', 't,oven\n0,20\n10,30'),
      fc.string({ maxLength: 200, unit: 'binary' }),
    );
    return fc.record({
      operation: fc.constant(operation),
      type: fc.constant(type),
      body: type === undefined ? fc.constant(undefined) : type === 'text/csv' ? text : valueOf(schema, ids),
      parameters: fc.tuple(
        ...operation.parameters.map(({ schema: of, name }) =>
          fc.oneof(
            {
              weight: 8,
              arbitrary: of.type === 'string' && name === 'id' ? fc.constantFrom(...ids) : valueOf(of, ids),
            },
            { weight: 1, arbitrary: fc.constantFrom<unknown>(...NASTY_TEXTS) },
          ),
        ),
      ),
    });
  });

test(`${EVERY} requests from the document: each is answered, none with a mistake of ours, every refusal in words`, async () => {
  const seen = new Map<string, number>();
  await fc.assert(
    fc.asyncProperty(anyRequest(), async ({ operation, type, body, parameters }) => {
      // A half of a pair of characters cannot be written in an address.
      const text = (value: unknown) =>
        encodeURIComponent(
          String(typeof value === 'string' ? value : JSON.stringify(value)).replaceAll(/[\ud800-\udfff]/g, '?'),
        );
      let path = operation.path;
      const query: string[] = [];
      operation.parameters.forEach((parameter, i) => {
        const given = text(parameters[i]);
        if (parameter.in === 'path') path = path.replace(`{${parameter.name}}`, given || 'x');
        else query.push(`${parameter.name}=${given}`);
      });
      const answer = await fetch(`${server.url}${path}${query.length ? `?${query.join('&')}` : ''}`, {
        method: operation.method,
        headers: type === undefined ? {} : { 'content-type': type },
        body: type === undefined ? undefined : type === 'text/csv' ? (body as string) : JSON.stringify(body),
        signal: AbortSignal.timeout(ANSWERS_WITHIN_MS),
      });
      const said = await answer.text();
      seen.set(String(answer.status), (seen.get(String(answer.status)) ?? 0) + 1);
      if (answer.status >= 500)
        throw new Error(`${answer.status} at ${operation.method} ${path}: ${said.slice(0, 200)}`);
      if (answer.status >= 400 && !(JSON.parse(said) as { detail?: string }).detail)
        throw new Error(`no words: ${said}`);
      if (answer.status < 300) {
        const type = answer.headers.get('content-type') ?? '';
        const wrong = answersHold(
          operation.method,
          operation.path,
          answer.status,
          type.includes('json') ? JSON.parse(said) : said || null,
        );
        if (wrong) throw new Error(wrong);
      }
    }),
    { numRuns: EVERY, endOnFailure: true },
  );
  // It is asked in earnest: much of it is taken.
  expect([...seen].filter(([status]) => status.startsWith('2')).reduce((sum, [, n]) => sum + n, 0)).toBeGreaterThan(
    EVERY / 10,
  );
  // And after all that the workshop still plans, lists and exports.
  for (const path of [
    '/api/line',
    '/api/tickets',
    '/api/molds',
    '/api/materials',
    '/api/jars',
    '/api/export',
    '/api/lead-lots',
    '/api/bakes',
    '/api/pours',
  ]) {
    expect([path, (await server.call('GET', path)).status]).toEqual([path, 200]);
  }
  const orders = (await server.call('GET', '/api/orders')).body as { id: string }[];
  for (const { id } of orders.slice(0, 40))
    expect((await server.call('GET', `/api/orders/${id}/plan`)).status).toBeLessThan(500);
}, 300_000);
