import { Validator } from '@seriousme/openapi-schema-validator';
import { DEFAULT_SETTINGS, parseWith, RESOURCES } from '@schmelz/contract';
import Ajv2020 from 'ajv/dist/2020';
import { CALCULATIONS } from './calculations/index.ts';
import { openApiDocument } from './openapi/document.ts';
import { jsonSchema } from './openapi/json-schema.ts';
import { apiRouter } from './routes/api.ts';
import { testServer, type TestServer } from './test/server.ts';

describe('the OpenAPI document', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.stop());

  test('is valid OpenAPI 3.1 by an independent validator', async () => {
    const { body } = await server.call('GET', '/api/openapi.json');
    const result = await new Validator().validate(body);
    expect(result.errors).toBeUndefined();
    expect(result.valid).toBe(true);
    for (const name of Object.keys(CALCULATIONS))
      expect(body.paths[`/api/compute/${name}`].post.requestBody).toBeDefined();
  });

  test('its schemas judge as the validation does', () => {
    const ajv = new Ajv2020({ strict: false });
    const pot = { name: 'Pot', capacityKg: 9, powerW: 700, lossWPerK: 0.55 };
    const cavity = {
      position: 1,
      style: 'ball',
      nominalMassKg: 0.01,
      hookSize: '2/0',
      eyeAngleDeg: 60,
      condition: 'good',
    };
    const cases: [keyof typeof RESOURCES, unknown][] = [
      ['pots', pot],
      ['pots', { ...pot, powerW: 1e9 }],
      ['pots', { ...pot, powerW: '700' }],
      ['pots', { ...pot, more: 1 }],
      ['pots', { name: 'Pot' }],
      ['molds', { name: 'M', bodyKg: 1, cavities: [cavity] }],
      ['molds', { name: 'M', bodyKg: 1, cavities: [] }],
      ['molds', { name: 'M', bodyKg: 1, cavities: [{ ...cavity, style: 'cube' }] }],
      ['bake-programs', { name: 'P', setC: 177, seconds: 1200.5, preheated: true }],
      ['recipes', { name: 'R', eyeColour: null, layers: [{ powderId: '0'.repeat(36), zone: 'whole', coats: 1 }] }],
      ['recipes', { name: 'R', eyeColour: 'red', layers: [{ powderId: '0'.repeat(36), zone: 'whole', coats: 1 }] }],
    ];
    const verdicts = cases.map(([path, value]) => {
      const { schema } = RESOURCES[path];
      const byAjv = ajv.compile(jsonSchema(schema))(value);
      let byYup = true;
      try {
        parseWith(schema, value);
      } catch {
        byYup = false;
      }
      expect([path, value, byAjv]).toEqual([path, value, byYup]);
      return byYup;
    });
    expect(new Set(verdicts).size).toBe(2);
  });

  test('every route of the server is in it, and it names no other', async () => {
    const { body } = await server.call('GET', '/api/openapi.json');
    const written = Object.entries(body.paths as Record<string, object>).flatMap(([path, methods]) =>
      Object.keys(methods)
        .filter((method) => method !== 'parameters')
        .map((method) => `${method.toUpperCase()} ${path}`),
    );
    const nothing = [{}, {}, { guard: () => {} }, {}, {}] as unknown as Parameters<typeof apiRouter>;
    const served = apiRouter(...nothing).stack.flatMap(({ methods, path }) =>
      methods
        .filter((method) => method !== 'HEAD')
        .map((method) => `${method} ${String(path).replaceAll(/:(\w+)/g, '{$1}')}`),
    );
    expect(written.sort()).toEqual(served.sort());
  });

  test('operation ids are unique, numbers have their unit, and every answer has its schema', () => {
    // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a document is looked into at any depth
    const { paths } = openApiDocument() as { paths: Record<string, Record<string, any>> };
    const operations = Object.values(paths).flatMap(({ parameters: _shared, ...methods }) => Object.values(methods));
    const ids = operations.map((each) => each.operationId);
    expect(new Set(ids).size).toBe(ids.length);
    const { powerW } = paths['/api/pots']!['post'].requestBody.content['application/json'].schema.properties;
    expect(powerW).toMatchObject({ type: 'number', minimum: 50, maximum: 5000, 'x-unit': 'W' });
    const answered = operations.filter(({ responses }) => !responses['204']);
    const plain = answered.filter(({ responses }) => {
      const { content } = responses['200'] ?? responses['201'];
      return Object.keys(content['application/json']?.schema ?? { any: 1 }).length > 0;
    });
    // Two are whole documents: everything as JSON, and this one.
    expect(answered.length - plain.length).toBe(2);
  });

  test('settings demand the version that they were read with', async () => {
    const { paths } = (await server.call('GET', '/api/openapi.json')).body;
    const { schema } = paths['/api/settings'].put.requestBody.content['application/json'];
    expect(schema.required).toContain('version');
  });

  test('a plan is asked with all that the workshop knows: steps, parts, mixes, racks, what was learned', async () => {
    const powder = (id: string) => ({
      materialId: id,
      name: id,
      specificGravity: 1.5,
      label: [{ metalC: 177, seconds: 1200 }],
      form: 'powder',
    });
    const layer = { powder: powder('w'), zone: 'whole', coats: 1, mix: { powder: powder('p'), share: 0.3 } };
    const bake = { name: 'B', setC: 177, seconds: 1200, preheated: true, from: 'metal' };
    const step = (key: string, more: object) => ({ key, station: key, does: key, layers: [], bake: null, ...more });
    const product = {
      id: 'p',
      name: 'Spinner head',
      style: 'ball',
      nominalMassKg: 0.01,
      hook: null,
      layers: [layer],
      bake,
      steps: [step('trim', {}), step('paint', { layers: [layer] }), step('bake', { bake }), step('finish', {})],
      parts: [{ partId: 't', name: 'Treble', kind: 'hook', quantity: 1, waste: 0, step: 'finish', limitC: null }],
      source: 'pour',
    };
    const cavity = { position: 1, style: 'ball', nominalMassKg: 0.01, hookSize: '2/0', eyeAngleDeg: 60, good: 0 };
    const shelf = (materialId: string, kind: string) => ({
      materialId,
      name: materialId,
      kind,
      quantity: 100,
      priceMinor: 300,
    });
    const plan = async (learned: object | null) => {
      const answer = await server.call('POST', '/api/compute/plan', {
        lines: [{ product, quantity: 20 }],
        molds: [
          {
            id: 'm',
            name: 'M',
            bodyKg: 0.5,
            shotsSinceSmoked: 0,
            cavities: [{ ...cavity, id: 'c', condition: 'good', casts: 0, wire: 'standard', bend: 'round' }],
          },
        ],
        pot: { name: 'Pot', capacityKg: 9, powerW: 700, lossWPerK: 0.55 },
        oven: {
          name: 'Oven',
          places: 60,
          powerW: 1400,
          lagS: 180,
          racks: [{ name: 'Wires', way: 'hanging', bars: 2, barM: 0.3, clearM: 0.1 }],
          learned,
        },
        ways: { ...DEFAULT_SETTINGS.ways, gunWM2K: 90 },
        lead: shelf('l', 'lead'),
        stock: [shelf('l', 'lead'), shelf('t', 'hook'), shelf('w', 'powder'), shelf('p', 'powder')],
      });
      expect([answer.status, answer.body.detail]).toEqual([200, undefined]);
      return answer.body;
    };
    const [given, learned] = [await plan(null), await plan({ lagS: 200, offsetK: -12, swingK: 4 })];
    expect(learned.lines[0].bake.cure.value).toBeLessThan(0.8 * given.lines[0].bake.cure.value);
    expect(JSON.stringify(given.needs)).toMatch(/"p"/);
  });
});
