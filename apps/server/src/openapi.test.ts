import { Validator } from '@seriousme/openapi-schema-validator';
import { CALCULATIONS, jsonSchemaOf, parseWith, RESOURCES } from './test/contract.ts';
import Ajv2020 from 'ajv/dist/2020';
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
      const byAjv = ajv.compile(jsonSchemaOf(schema))(value);
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

  test('every calculation answers over HTTP', async () => {
    const inputs: Record<string, unknown> = {
      'cast-mass': { nominalMassKg: 0.014, metalId: 'bismuth-tin' },
      'head-solid': { style: 'fish', nominalMassKg: 0.014 },
      'freeze-time': { style: 'ball', nominalMassKg: 0.014, metalC: 371, moldC: 120, shotsSinceSmoked: 0 },
      'blank-shots': { moldKg: 0.6, shotKg: 0.2, metalC: 371 },
      'melt-time': { leadKg: 9, powerW: 700, lossWPerK: 0.55, toC: 371 },
      'powder-per-head': { style: 'ball', nominalMassKg: 0.014, filmM: 1e-4, specificGravity: 1.5 },
      cure: { label: [{ metalC: 177, seconds: 1200 }], setC: 177, seconds: 1200, headLagS: 150 },
      'metal-share': { metalId: 'bismuth-tin' },
      'lead-enthalpy': { temperatureC: 371 },
      'holding-energy': { lossWPerK: 0.55, potC: 371, roomC: 20, seconds: 3600 },
      'mold-temperatures': { moldKg: 0.6, shotKg: 0.2, metalC: 371, shots: 4 },
      'hook-seat': { cutForSize: '3/0', cutForEyeDeg: 60, hookSize: '3/0', hookEyeDeg: 45 },
      'typical-hook': { size: '2/0' },
      'head-lag': { style: 'ball', nominalMassKg: 0.0142, hookKg: 0.0009 },
      'shot-seconds': { cavities: 5, openS: 4, loadS: 17, inspectS: 12 },
      'gross-up': { good: 60, yieldShare: 0.94 },
      yield: { good: 90, casts: 100 },
      'lead-balance': { chargedKg: 2, headsKg: 1, sprueBackKg: 0.3, rejectsBackKg: 0.1, drossKg: 0.05, heelKg: 0.5 },
      'unit-cost': {
        leadKg: 0.01,
        leadMinorPerKg: 250,
        drossKg: 0.0002,
        hookMinor: 16,
        powderMinor: 1,
        energyKWh: 0.01,
        energyMinorPerKWh: 32,
        workS: 90,
        labourMinorPerHour: 1200,
      },
    };
    expect(Object.keys(inputs).sort()).toEqual(Object.keys(CALCULATIONS).sort());
    const results: Record<string, any> = {}; // eslint-disable-line @typescript-eslint/no-explicit-any
    for (const [name, input] of Object.entries(inputs)) {
      const { status, body } = await server.call('POST', `/api/compute/${name}`, input);
      expect([name, status]).toEqual([name, 200]);
      results[name] = body;
    }
    expect(results['cast-mass'].castMassKg / 0.014).toBeCloseTo(0.755, 2);
    expect(results['lead-balance'].unexplainedKg).toBeCloseTo(0.05, 12);
    expect(results['blank-shots'].shots).toBe(4);
    expect(results['mold-temperatures'].temperaturesC).toEqual(results['blank-shots'].temperaturesC);
    expect(results['hook-seat'].seat).toBe('if bent');
    expect(results['metal-share'].shareOfLead).toBeCloseTo(0.755, 2);
    expect(results['lead-enthalpy'].enthalpyJKg / 1000).toBeCloseTo(70.9, 1);
    expect(results['shot-seconds'].headsPerHour).toBeGreaterThan(85);
    expect(results['unit-cost'].unitCostMinor).toBeCloseTo(2.5 + 0.05 + 16 + 1 + 0.32 + 30, 9);
  });
});
