import { DEFAULT_SETTINGS } from '@schmelz/contract';
import { answersHold } from '../test/answers.ts';
import { testServer, type TestServer } from '../test/server.ts';
import { CALCULATIONS } from './index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

test('every calculation answers over HTTP', async () => {
  const pot = { powerW: 700, lossWPerK: 0.55 };
  const heatUp = Array.from({ length: 12 }, (_, i) => ({ atS: 30 * i, temperatureC: 20 + 12 * i }));
  const product = {
    id: 'p',
    name: 'Ten',
    style: 'ball',
    nominalMassKg: 0.01,
    hook: { materialId: 'h', name: 'Hook', size: '2/0', eyeAngleDeg: 60, massKg: 0.0005 },
    layers: [],
    bake: null,
  };
  const planCavity = {
    id: 'c',
    position: 1,
    style: 'ball',
    nominalMassKg: 0.01,
    hookSize: '2/0',
    eyeAngleDeg: 60,
    condition: 'good',
    good: 0,
    casts: 0,
  };
  const shelf = (materialId: string, kind: string) => ({
    materialId,
    name: kind,
    kind,
    quantity: 100,
    priceMinor: 300,
  });
  const planOfOne = {
    lines: [{ product, quantity: 20 }],
    molds: [{ id: 'm', name: 'M', bodyKg: 0.5, shotsSinceSmoked: 0, cavities: [planCavity] }],
    pot: { ...pot, name: 'Pot', capacityKg: 9 },
    oven: { name: 'Oven', places: 60, powerW: 1400, lagS: 180 },
    ways: DEFAULT_SETTINGS.ways,
    lead: shelf('l', 'lead'),
    stock: [shelf('l', 'lead'), shelf('h', 'hook')],
  };
  const inputs: Record<string, unknown> = {
    'cast-mass': { nominalMassKg: 0.014, metalId: 'bismuth-tin' },
    'head-solid': { style: 'fish', nominalMassKg: 0.014 },
    'freeze-time': { style: 'ball', nominalMassKg: 0.014, metalC: 371, moldC: 120, shotsSinceSmoked: 0 },
    'blank-shots': { moldKg: 0.6, shotKg: 0.08, metalC: 371 },
    'melt-time': { leadKg: 9, powerW: 700, lossWPerK: 0.55, toC: 371 },
    'powder-per-head': { style: 'ball', nominalMassKg: 0.014, filmM: 1e-4, specificGravity: 1.5 },
    cure: { label: [{ metalC: 177, seconds: 1200 }], setC: 177, seconds: 1200, headLagS: 150 },
    'metal-share': { metalId: 'bismuth-tin' },
    'lead-enthalpy': { temperatureC: 371 },
    'holding-energy': { lossWPerK: 0.55, potC: 371, roomC: 20, seconds: 3600 },
    'mold-temperatures': { moldKg: 0.6, shotKg: 0.105, metalC: 371, shots: 4 },
    'hook-seat': { cutForSize: '3/0', cutForEyeDeg: 60, hookSize: '3/0', hookEyeDeg: 45 },
    'typical-hook': { size: '2/0' },
    'antimony-from-hardness': { brinell: 10.5 },
    'cast-variant': {
      style: 'ball',
      nominalMassKg: 0.014,
      pin: { diameterM: 0.003175, lengthM: 0.01 },
      pinWay: 'as cut',
      keeper: false,
      wireGuards: 0,
      insert: 'none',
    },
    'heads-from-metal': {
      ...{ metalKg: 2.268, style: 'ball', nominalMassKg: 0.0567, cavities: 1 },
      ...{ heelKg: 0.05, drossShare: 0.01, yieldShare: 0.92 },
    },
    'ingots-from-scrap': { grossKg: 10, cleanShare: 0.87 },
    'trace-lots': { lots: [{ id: 'a', at: 1, kg: 5 }], flows: [{ at: 2, kg: -2, reason: 'poured' }] },
    'pot-session': {
      pot,
      leadKg: 6,
      fromC: 371,
      roomC: 20,
      setC: 371,
      seconds: 600,
      events: [{ atS: 60, kind: 'take', kg: 0.1 }],
    },
    'melt-plan': {
      leadKg: 9.07,
      fromC: 20,
      roomC: 20,
      pourC: 371,
      powerW: 700,
      lossWPerK: 0.55,
      school: 'full then down',
    },
    'warm-plan': {
      block: { bodyKg: 0.6 },
      shotKg: 0.2,
      metalC: 371,
      roomC: 20,
      school: 'blank shots',
      openBelow: false,
    },
    refill: { potKg: 2, potC: 385, capacityKg: 9, pot, keepAboveC: 340, pourC: 371, roomC: 20 },
    'dial-table': {
      pairs: [
        { dial: 6, temperatureC: 352, at: 0, sdK: 3 },
        { dial: 8, temperatureC: 398, at: 0, sdK: 3 },
      ],
      dial: 7,
    },
    'pot-skin': { metalC: 371 },
    'fume-ceiling': { metalC: 480 },
    'fit-pot': { readings: heatUp, leadKg: 6, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: true },
    'mold-session': { block: { bodyKg: 0.6 }, shots: [{ kg: 0.1, metalC: 371, closedS: 10, openS: 20 }] },
    pace: { block: { bodyKg: 0.6 }, shotKg: 0.1, metalC: 371, roomC: 20, closedS: 5, cycleS: 60, holdC: 120 },
    'after-pause': { block: { bodyKg: 0.6 }, shotKg: 0.1, metalC: 371, roomC: 20, moldC: 120, seconds: 1800 },
    'fill-index': {
      style: 'dart',
      nominalMassKg: 0.01,
      wireM: 0.0011,
      metalC: 371,
      moldC: 120,
      roomC: 20,
      hookWarm: false,
      shotsSinceSmoked: 30,
      pouring: 'gravity',
      potLevelM: 0.06,
      tiltDeg: 0,
      stream: 'slow',
      dirt: 0.2,
    },
    'fill-threshold': { records: [{ index: 1.5, casts: 20, shorts: 8 }] },
    'fit-mold': {
      block: { bodyKg: 0.6 },
      closedS: 5,
      shots: [{ atS: 5, kg: 0.1, metalC: 371 }],
      readings: heatUp.map(({ atS }) => ({ atS, temperatureC: atS ? 20 + 10 * Math.exp(-atS / 900) : 20 })),
      roomC: 20,
    },
    'handling-time': { style: 'ball', nominalMassKg: 0.227, fromC: 204 },
    'bake-temperatures': { setC: 177, headLagS: 150, ovenLagS: 200, atS: [0, 600, 1200] },
    'heat-seconds': { style: 'ball', nominalMassKg: 0.0142, wireM: 0.0012, tool: 'heat gun' },
    'colour-order': {
      sessions: [
        { id: 'a', name: 'Dark', heads: 12, colourIds: ['black'] },
        { id: 'b', name: 'Light', heads: 12, colourIds: ['white'] },
      ],
      colours: [
        { id: 'black', name: 'Black', lightness: 0.1, gloss: 'gloss' },
        { id: 'white', name: 'White', lightness: 0.95, gloss: 'gloss' },
      ],
      spareCups: 0,
    },
    'jar-efficiency': { weighings: [{ usedKg: 0.012, onHeadsKg: 0.009 }] },
    'bake-program': {
      heads: [
        {
          name: 'Ball',
          headLagS: 120,
          powder: 'White',
          label: [{ metalC: 177, seconds: 1200 }],
          hook: 'bronze',
          limitC: 190,
        },
      ],
      ovenLagS: 0,
    },
    'cure-from-log': {
      label: [{ metalC: 177, seconds: 1200 }],
      headLagS: 0,
      limitC: 175,
      readings: [0, 60_000, 120_000].map((at) => ({ at, celsius: 177 })),
    },
    'oven-loads': {
      rack: { bars: 4, barM: 0.36, clearM: 0.09 },
      groups: [{ id: 'a', program: '177', heads: 50, widthM: 0.0134, hangsM: 0.05 }],
    },
    'mixed-colour': { first: '#000000', second: '#ffffff', share: 0.5 },
    'trim-and-paint-seconds': {
      style: 'ball',
      nominalMassKg: 0.01,
      hookSize: '2/0',
      roomC: 20,
      ways: { edge: 'nothing' },
      layers: [{ zone: 'whole', coats: 1, form: 'powder' }],
    },
    'jar-level': { lastKg: 0.2, receivedKg: 0, onHeadsKg: 0.006, weighings: [] },
    'oven-fit': {
      setC: 177,
      readings: Array.from({ length: 300 }, (_, i) => ({ at: i * 10_000, celsius: 177 - 157 * Math.exp(-i / 20) })),
    },
    'running-bake': {
      label: [{ metalC: 177, seconds: 1200 }],
      headLagS: 120,
      airC: 177,
      ovenLagS: 200,
      preheated: true,
      loadedAt: 0,
      now: 600_000,
      doors: [],
      readings: [],
    },
    individuals: { values: [49.6, 47.6, 49.9, 51.3] },
    plan: planOfOne,
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
    expect([name, status, body.detail]).toEqual([name, 200, undefined]);
    expect([name, answersHold('POST', `/api/compute/${name}`, 200, body)]).toEqual([name, null]);
    results[name] = body;
  }
  // Whatever number is sent far out of its range is named, with its unit, and nothing is answered.
  for (const [name, input] of Object.entries(inputs)) {
    const field = Object.entries(input as Record<string, unknown>).find(([, value]) => typeof value === 'number')?.[0];
    if (!field) continue;
    const { status, body } = await server.call('POST', `/api/compute/${name}`, {
      ...(input as object),
      [field]: -1e13,
    });
    expect([name, status]).toEqual([name, 422]);
    expect(body.fields.map((each: { field: string }) => each.field)).toContain(field);
    expect(body.detail).toMatch(new RegExp(`${field} is -10000000000000(\\u00a0\\w+)?; allowed: `));
  }
  for (const name of Object.keys(inputs)) {
    const { status, body } = await server.call('POST', `/api/compute/${name}`, { surprise: 1 });
    expect([name, status]).toEqual([name, 422]);
    expect(body.title).toBe('Not allowed');
  }
  expect(results['cast-mass'].castMassKg / 0.014).toBeCloseTo(0.771, 3);
  expect(results['lead-balance'].unexplainedKg).toBeCloseTo(0.05, 12);
  // The bar over the gates, 25 g, is beside the shot.
  expect(results['blank-shots'].shots).toBe(4);
  expect(results['mold-temperatures'].temperaturesC).toEqual(results['blank-shots'].temperaturesC);
  expect(results['refill'].afterC).toBeCloseTo(340, 3);
  expect(results['fume-ceiling'].ceilingUgM3).toBeCloseTo(36, 0);
  expect(results['fill-index'].levers.length).toBeGreaterThan(4);
  expect(results['cast-variant'].takes[0].kg).toBeCloseTo(0.0009, 4);
  expect(results['plan'].molds[0].shots.value).toBeGreaterThan(20);
  expect(results['melt-plan'].ready.value / 60).toBeCloseTo(18.7, 0);
  expect(results['heat-seconds'].seconds).toBeGreaterThan(14);
  expect(results['colour-order'].order).toEqual(['b', 'a']);
  expect(results['bake-program'].program.setC).toBe(185);
  expect(results['cure-from-log'].share).toBeCloseTo(2 / 20, 6);
  expect(results['oven-loads'].loads).toHaveLength(1);
  expect(results['mixed-colour'].colour).toBe('#bcbcbc');
  expect(results['trim-and-paint-seconds'].trimS).toBe(5);
  expect(results['jar-level'].kg).toBeCloseTo(0.2 - 0.006 / 0.7, 6);
  // A rise that slows down before its mark: its first 63 % are 200 s all the same, but for the shape.
  expect(Math.abs(results['oven-fit'].lagS - 200)).toBeLessThan(15);
  expect(results['running-bake'].metalC).toBeCloseTo(176, 0);
  expect(results['warm-plan'].blanks.value).toBeGreaterThanOrEqual(2);
  expect(results['warm-plan'].blanks.value).toBeLessThanOrEqual(3);
  expect(results['hook-seat'].seat).toBe('if bent');
  expect(results['metal-share'].shareOfLead).toBeCloseTo(0.771, 3);
  expect(results['lead-enthalpy'].enthalpyJKg / 1000).toBeCloseTo(70.9, 1);
  expect(results['shot-seconds'].headsPerHour).toBeGreaterThan(85);
  expect(results['unit-cost'].unitCostMinor).toBeCloseTo(2.5 + 0.05 + 16 + 1 + 0.32 + 30, 9);
});
