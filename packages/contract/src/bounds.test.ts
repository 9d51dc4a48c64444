import { DEFAULT_WAYS } from '@schmelz/core';
import type * as yup from 'yup';
import { parseWith } from './parse.ts';
import { RESOURCES } from './resources.ts';
import { DEFAULT_SETTINGS, settingsSchema } from './schema/workshop.ts';
import { id, other, text, times, tryEnds, type Ends } from './test/ends.ts';

// The ends of every number, text and list that crosses the wire, as they are promised to scripts: typed here by hand,
// so that one that slips in a schema is noticed.
type Document = [name: string, schema: yup.AnySchema, doc: unknown, ends: Ends[]];
const cavity = { position: 1, style: 'ball', nominalMassKg: 0.05, hookSize: '2/0', eyeAngleDeg: 60, condition: 'good' };
const learned = { readings: 9, at: 1 };
const lead = { kind: 'lead', name: 'Lead', note: '', metalId: 'soft-lead', hook: null, powder: null };
const hookOf = { size: '2/0', wire: 'standard', eyeAngleDeg: 60, plating: 'bronze', lengthM: 0.04, wireM: 0.001 };
const hook = { ...lead, kind: 'hook', metalId: null, hook: { ...hookOf, massKg: 0.001 } };
const powderOf = { colour: '#aabbcc', gloss: 'gloss', specificGravity: 1.5, label: [{ metalC: 177, seconds: 1200 }] };
const powder = { ...lead, kind: 'powder', metalId: null, powder: powderOf };
const hard = { ...lead, metalId: 'hard-lead', composition: { antimonyPercent: 3, tinPercent: 1, brinell: 11 } };
const rack = { name: 'Rack', way: 'hanging', bars: 4, barM: 0.3, clearM: 0.1 };
const product = {
  ...{ name: 'P', style: 'ball', nominalMassKg: 0.01, hookId: id, recipeId: null, bakeProgramId: null },
  ...{ priceMinor: 100, keepHeads: 5, parts: [{ partId: id, quantity: 1, waste: 0, step: 'finish' }] },
};
const step = { key: 'finish', station: 'finish', does: 'Finish', handsS: 5, wait: { name: 'Dry', seconds: 60 } };
const supplier = {
  ...{ name: 'S', freightMinor: 0, freeAboveMinor: 0, days: 2, note: '' },
  offers: [{ materialId: id, pack: 25, prices: [{ fromPacks: 1, minor: 100 }] }],
};
const layer = { powderId: id, zone: 'whole', coats: 1, mix: { powderId: other, share: 0.5 } };
const resource = (path: keyof typeof RESOURCES): yup.AnySchema => RESOURCES[path].schema;

const DOCUMENTS: Document[] = [
  [
    'pot',
    resource('pots'),
    {
      name: 'Pot',
      capacityKg: 9,
      powerW: 700,
      lossWPerK: 0.5,
      learned: {
        ...learned,
        powerW: 700,
        powerSdW: 5,
        lossWPerK: 0.5,
        lossSdWPerK: 0.1,
        crucibleJPerK: 540,
        crucibleSdJPerK: 9,
      },
    },
    [
      ['name', '', 'x', text(80), text(81)],
      ['capacityKg', 0.29, 0.3, 50, 50.1],
      ['powerW', 49, 50, 5000, 5001],
      ['lossWPerK', 0.049, 0.05, 5, 5.1],
      ['learned.powerW', 49, 50, 5000, 5001],
      ['learned.powerSdW', -1, 0, 5000, 5001],
      ['learned.lossWPerK', 0.009, 0.01, 10, 10.1],
      ['learned.lossSdWPerK', -0.1, 0, 10, 10.1],
      ['learned.crucibleJPerK', -1, 0, 20_000, 20_001],
      ['learned.crucibleSdJPerK', -1, 0, 20_000, 20_001],
      ['learned.readings', 0, 1, 1e9, 1e9 + 1],
      ['learned.at', -1, 0, 4e12, 4e12 + 1],
    ],
  ],
  [
    'mold',
    resource('molds'),
    {
      name: 'M',
      bodyKg: 0.5,
      barKg: 0.02,
      cavities: [cavity],
      learned: { ...learned, lossWPerK: 0.5, lossSdWPerK: 0.1, capacityShare: 1, capacitySdShare: 0.1 },
    },
    [
      ['bodyKg', 0.09, 0.1, 10, 10.1],
      ['barKg', -0.01, 0, 0.5, 0.51],
      ['cavities.0.nominalMassKg', 0.00029, null, 0.5, 0.51],
      ['learned.lossWPerK', 0.009, 0.01, 10, 10.1],
      ['learned.lossSdWPerK', -0.1, 0, 10, 10.1],
      ['learned.capacityShare', 0.29, 0.3, 2, 2.1],
      ['learned.capacitySdShare', -0.1, 0, 2, 2.1],
    ],
  ],
  [
    'cavity',
    resource('molds'),
    {
      name: 'M',
      bodyKg: 0.5,
      cavities: [
        {
          ...cavity,
          pin: { diameterM: 0.002, lengthM: 0.008 },
          variants: [
            { name: 'V', pin: 'as cut', grooveFor: null, blocks: [], keeper: false, wireGuards: 0, insert: 'none' },
          ],
        },
      ],
    },
    [
      ['cavities.0.pin.diameterM', 0.0004, 0.0005, null, 0.011],
      ['cavities.0.pin.lengthM', 0.0009, 0.001, null, 0.061],
      ['cavities.0.variants.0.name', '', 'x', text(40), text(41)],
      ['cavities.0.variants.0.wireGuards', -1, 0, 2, 3],
    ],
  ],
  [
    'lead',
    resource('materials'),
    { ...lead, limitC: 100 },
    [
      ['name', '', 'x', text(80), text(81)],
      ['note', null, '', text(500), text(501)],
      ['limitC', 39, 40, 400, 401],
    ],
  ],
  [
    'hard lead',
    resource('materials'),
    hard,
    [
      ['composition.antimonyPercent', -0.1, 0, 11.1, 11.2],
      ['composition.tinPercent', -0.1, 0, 5, 5.1],
      ['composition.brinell', 2.9, 3, 22, 22.1],
    ],
  ],
  [
    'hook',
    resource('materials'),
    hook,
    [
      ['hook.plating', '', 'x', text(40), text(41)],
      ['hook.lengthM', 0.0049, 0.005, 0.15, 0.151],
      ['hook.wireM', 0.00019, 0.0002, 0.005, 0.0051],
      ['hook.massKg', 0.000019, 0.00002, 0.05, 0.051],
    ],
  ],
  [
    'powder',
    resource('materials'),
    powder,
    [
      ['powder.specificGravity', 0.79, 0.8, 3, 3.1],
      ['powder.label.0.metalC', 79, 80, 260, 261],
      ['powder.label.0.seconds', 29, 30, 14_400, 14_401],
      ['powder.colour', '#12345', '#123456', '#ABCDEF', '#1234567'],
    ],
  ],
  [
    'paint',
    resource('materials'),
    { ...powder, powder: { ...powderOf, label: [], form: 'liquid', dryS: 600 } },
    [['powder.dryS', 59, 60, 604_800, 604_801]],
  ],
  [
    'pin',
    resource('parts'),
    { name: 'Pins', kind: 'base-hole pin', diameterM: 0.003, owned: 20, places: [{ where: 'Drawer', count: 4 }] },
    [
      ['name', '', 'x', text(60), text(61)],
      ['diameterM', 0.0002, 0.0003, 0.01, 0.011],
      ['owned', 3, 4, 10_000, 10_001],
      ['places.0.where', '', 'x', text(60), text(61)],
      ['places.0.count', 0, 1, 20, 21],
    ],
  ],
  [
    'oven',
    resource('ovens'),
    {
      name: 'O',
      places: 60,
      powerW: 1400,
      lagS: 180,
      racks: [rack],
      learned: {
        ...learned,
        lagS: 180,
        lagSdS: 5,
        powerRiseK: 200,
        overshootK: 5,
        offsetK: 0,
        offsetSdK: 1,
        swingK: 5,
        periodS: 60,
        setC: 177,
      },
    },
    [
      ['places', 0, 1, 2000, 2001],
      ['powerW', 99, 100, 20_000, 20_001],
      ['lagS', 0, 1, 3600, 3601],
      ['racks', null, [], times(rack, 8), times(rack, 9)],
      ['racks.0.name', '', 'x', text(40), text(41)],
      ['racks.0.bars', 0, 1, 40, 41],
      ['racks.0.barM', 0.049, 0.05, 2, 2.1],
      ['racks.0.clearM', 0.019, 0.02, 1, 1.1],
      ['learned.lagS', 0, 1, 3600, 3601],
      ['learned.lagSdS', -1, 0, 3600, 3601],
      ['learned.powerRiseK', 49, 50, 3000, 3001],
      ['learned.overshootK', -1, 0, 120, 121],
      ['learned.offsetK', -81, -80, 80, 81],
      ['learned.offsetSdK', -1, 0, 80, 81],
      ['learned.swingK', -1, 0, 80, 81],
      ['learned.periodS', 0, 1, 7200, 7201],
      ['learned.setC', 59, 60, 260, 261],
    ],
  ],
  [
    'recipe',
    resource('recipes'),
    { name: 'R', eyeColour: null, layers: [layer] },
    [
      ['layers', [], [layer], times(layer, 6), times(layer, 7)],
      ['layers.0.coats', 0, 1, 3, 4],
      ['layers.0.mix.share', 0.04, 0.05, 0.95, 0.96],
    ],
  ],
  [
    'bake program',
    resource('bake-programs'),
    { name: 'B', setC: 177, seconds: 1200, preheated: true },
    [
      ['setC', 59, 60, 260, 261],
      ['seconds', 59, 60, 14_400, 14_401],
    ],
  ],
  [
    'product',
    resource('products'),
    product,
    [
      ['nominalMassKg', 0.00029, 0.0003, 0.5, 0.51],
      ['priceMinor', -1, 0, 100_000_000, 100_000_001],
      ['keepHeads', -1, 0, 20_000, 20_001],
      ['parts.0.quantity', 0, 0.000001, 1000, 1001],
      ['parts.0.waste', -0.1, 0, 5, 5.1],
      ['parts.0.step', '', 'x', text(40), text(41)],
    ],
  ],
  [
    'route',
    resource('products'),
    { ...product, route: [step] },
    [
      ['route.0.does', '', 'x', text(60), text(61)],
      ['route.0.handsS', -1, 0, 3600, 3601],
      ['route.0.wait.seconds', 0, 1, 1_209_600, 1_209_601],
      ['route.0.wait.name', '', 'x', text(40), text(41)],
    ],
  ],
  [
    'order',
    resource('orders'),
    { customer: 'C', dueOn: null, note: '', lines: [{ productId: id, quantity: 3 }] },
    [
      ['customer', null, '', text(80), text(81)],
      ['lines.0.quantity', 0, 1, 20_000, 20_001],
      ['lines', [], null, null, null],
    ],
  ],
  [
    'supplier',
    resource('suppliers'),
    supplier,
    [
      ['name', '', 'x', text(60), text(61)],
      ['freightMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['freeAboveMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['days', -1, 0, 365, 366],
      ['offers.0.pack', 0, 0.0001, 100_000, 100_001],
      ['offers.0.prices.0.minor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['offers.0.prices', [], null, null, null],
    ],
  ],
  [
    'tool',
    resource('tools'),
    { name: 'T', priceMinor: 100, boughtOn: '2026-01-05', lifeHeads: 5, productIds: [], note: '' },
    [
      ['priceMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['lifeHeads', 0, 1, 10_000_000, 10_000_001],
      ['note', null, '', text(200), text(201)],
    ],
  ],
  [
    'rule',
    resource('rules'),
    { where: 'Lake', fromKg: 0.1, belowKg: 0.1, noLead: true, note: '' },
    [
      ['where', '', 'x', text(80), text(81)],
      ['fromKg', -0.1, 0, 1, 1.1],
      ['belowKg', -0.1, 0, 1, 1.1],
      ['note', null, '', text(300), text(301)],
    ],
  ],
  [
    'settings',
    settingsSchema,
    {
      ...DEFAULT_SETTINGS,
      secondGradeShare: 0.5,
      ways: { ...DEFAULT_WAYS, trimS: 10, coatS: 10, gunPowerW: 1500, gasMinorPerKg: 100 },
    },
    [
      ['workshopName', '', 'x', text(60), text(61)],
      ['secondGradeShare', -0.1, 0, 1, 1.1],
      ['ways.pourC', 329, 330, 480, 481],
      ['ways.roomC', -11, -10, 45, 46],
      ['ways.heelKg', -1, 0, 20, 21],
      ['ways.drossShare', -0.1, 0, 0.3, 0.31],
      ['ways.filmM', 19e-6, 20e-6, 500e-6, 501e-6],
      ['ways.transferEfficiency', 0.04, 0.05, 1, 1.1],
      ['ways.labourMinorPerHour', -1, 0, 100_000_000, 100_000_001],
      ['ways.energyMinorPerKWh', -1, 0, 100_000_000, 100_000_001],
      ['ways.gasMinorPerKg', -1, 0, 100_000_000, 100_000_001],
      ['ways.gunPowerW', 99, 100, 5000, 5001],
      ['ways.loadS', -1, 0, 600, 601],
      ['ways.inspectS', -1, 0, 600, 601],
      ['ways.trimS', -1, 0, 3600, 3601],
      ['ways.coatS', -1, 0, 3600, 3601],
      ['ways.hangS', -1, 0, 600, 601],
      ['ways.finishS', -1, 0, 3600, 3601],
      ['people', null, [], ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'], ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i']],
      ['safety', null, [], times('x', 20), times('x', 21)],
      ['currency', 'EURO', 'EUR', 'USD', 'eur'],
    ],
  ],
];

test.each(DOCUMENTS)('%s: each field to its ends, and no further', (_name, schema, doc, ends) =>
  tryEnds((value) => parseWith(schema, value), doc, ends),
);
