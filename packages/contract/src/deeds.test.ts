import type * as yup from 'yup';
import { parseEntry, parseWith } from './parse.ts';
import { cleanSchema, lotSchema, recordSchemas } from './schema/records.ts';
import { pourEntrySchemas, runEntrySchemas, startPourSchema, ticketEntrySchemas } from './schema/runs.ts';
import { countSchema, goodsSchema, paperEveningSchema, parcelSchema, receiptSchema } from './schema/stock.ts';
import { id, text, times, tryEnds, type Doc, type Ends } from './test/ends.ts';

// What is said of stock, goods, lots and at the benches, each field to its ends, typed by hand.
type Document = [name: string, schema: yup.AnySchema, doc: unknown, ends: Ends[]];
const lot = {
  ...{ materialId: id, label: 'L', source: 'scrap', on: '2026-01-05', grossKg: 5, priceMinor: 0, brinell: 9, note: '' },
};
const goods = {
  ...{ id, what: 'sold', orderId: null, party: '', on: '2026-01-05', note: '' },
  lines: [{ productId: id, grade: 'good', pieces: 1, priceMinor: 100 }],
};
const parcel = {
  ...{ on: '2026-01-05', lot: '', freightMinor: 0, by: 'value' },
  lines: [{ id, materialId: id, quantity: 1, priceMinor: 0, massKg: 1 }],
};
const DEEDS: Document[] = [
  [
    'purchase',
    receiptSchema,
    { quantity: 1, priceMinor: 1, on: '2026-01-05', time: '08:30', lot: '' },
    [
      ['quantity', 0, 0.001, 100_000, 100_001],
      ['priceMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['lot', null, '', text(60), text(61)],
      ['on', '2026-02-30', '2026-02-28', '2028-02-29', '2026-02-29'],
      ['time', '8:30', '00:00', '23:59', '24:00'],
    ],
  ],
  [
    'count',
    countSchema,
    { quantity: 1, note: '' },
    [
      ['quantity', -0.1, 0, 100_000, 100_001],
      ['note', null, '', text(200), text(201)],
    ],
  ],
  [
    'parcel',
    parcelSchema,
    parcel,
    [
      ['freightMinor', -1, 0, 100_000_000, 100_000_001],
      ['lines', [], null, times(parcel.lines[0], 50), times(parcel.lines[0], 51)],
      ['lines.0.quantity', 0, 0.001, 100_000, 100_001],
      ['lines.0.priceMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['lines.0.massKg', -1, 0, 100_000, 100_001],
    ],
  ],
  [
    'finished heads',
    goodsSchema,
    goods,
    [
      ['party', null, '', text(80), text(81)],
      ['lines.0.pieces', -1, 0, 100_000, 100_001],
      ['lines.0.priceMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['lines', [], null, null, null],
    ],
  ],
  [
    'evening on paper',
    paperEveningSchema,
    { on: '2026-01-05', name: '', casts: 20_000, good: 1, minutes: 60, note: '' },
    [
      ['good', -1, 0, 20_000, 20_001],
      ['casts', -1, 1, 20_000, 20_001],
      ['minutes', -1, 0, 2880, 2881],
    ],
  ],
  [
    'lot of lead',
    lotSchema,
    lot,
    [
      ['label', '', 'x', text(60), text(61)],
      ['grossKg', 0.04, 0.05, 5000, 5001],
      ['priceMinor', -1, 0, 1_000_000_000, 1_000_000_001],
      ['brinell', 2.9, 3, 22, 22.1],
    ],
  ],
  [
    'clean metal',
    cleanSchema,
    { on: '2026-01-05', cleanKg: 1, ingots: 3 },
    [
      ['cleanKg', 0.009, 0.01, 5000, 5001],
      ['ingots', -1, 0, 10_000, 10_001],
    ],
  ],
  [
    'start of a pour',
    startPourSchema,
    { moldIds: [id], atOnce: 1, potId: id, ticketIds: [id] },
    [
      ['moldIds', [], [id], times(id, 40), times(id, 41)],
      ['atOnce', 0, 1, 2, 3],
      ['ticketIds', [], [id], times(id, 500), times(id, 501)],
    ],
  ],
];

const said = { id, at: 1 };
const inRun = { ticketId: id, step: 'bake', count: 3 };
const dated = { thingId: id, at: 1 };
type Schemas = Record<string, yup.AnySchema>;
const ENTRIES: [name: string, schemas: Schemas, entry: Doc, ends: Ends[]][] = [
  [
    'charge',
    pourEntrySchemas,
    { ...said, kind: 'charge', massKg: 1, potC: 20 },
    [
      ['massKg', 0.049, 0.05, 60, 60.1],
      ['potC', -21, -20, 600, 601],
      ['at', -1, 0, 4e12, 4e12 + 1],
    ],
  ],
  ['feed', pourEntrySchemas, { ...said, kind: 'feed', massKg: 1 }, [['massKg', 0.004, 0.005, 20, 20.1]]],
  [
    'shot',
    pourEntrySchemas,
    { ...said, kind: 'shot', moldId: id, positions: [1] },
    [
      ['positions', [], [1], times(1, 12), times(1, 13)],
      ['positions.0', 0, 1, 12, 13],
    ],
  ],
  [
    'bad head',
    pourEntrySchemas,
    { ...said, kind: 'reject', shotId: id, position: 1, cause: 'short', goes: 'melt' },
    [['position', 0, 1, 12, 13]],
  ],
  [
    'hooks left',
    pourEntrySchemas,
    { ...said, kind: 'hooks', materialId: id, left: 5 },
    [['left', -1, 0, 20_000, 20_001]],
  ],
  [
    'weighed',
    pourEntrySchemas,
    { ...said, kind: 'weighed', moldId: id, position: 1, massKg: 0.01 },
    [['massKg', 0.00009, 0.0001, 5, 5.1]],
  ],
  [
    'end of a pour',
    pourEntrySchemas,
    { ...said, kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 },
    [
      ['sprueBackKg', -0.1, 0, 60, 60.1],
      ['rejectsBackKg', -0.1, 0, 60, 60.1],
      ['drossKg', -0.1, 0, 60, 60.1],
      ['heelKg', -0.1, 0, 60, 60.1],
    ],
  ],
  [
    'good heads',
    ticketEntrySchemas,
    { ...said, kind: 'good', step: 'trim', count: 1 },
    [
      ['count', 0, 1, 20_000, 20_001],
      ['step', '', 'x', text(40), text(41)],
    ],
  ],
  [
    'a coat',
    ticketEntrySchemas,
    { ...said, kind: 'coat', step: 'paint', coat: 1, paint: 'White', dryS: 60 },
    [
      ['coat', 0, 1, 18, 19],
      ['dryS', 59, 60, 604_800, 604_801],
    ],
  ],
  ['sprues', ticketEntrySchemas, { ...said, kind: 'sprue', step: 'trim', massKg: 1 }, [['massKg', 0, 0.001, 60, 60.1]]],
  ['heads off the shelf', ticketEntrySchemas, { ...said, kind: 'take', count: 1 }, [['count', 0, 1, 20_000, 20_001]]],
  [
    'a load',
    runEntrySchemas.oven,
    { ...said, kind: 'load', ovenId: null, heads: [inRun], setC: 177, seconds: 1200, preheated: true, warmS: 0 },
    [
      ['heads', [], [inRun], times(inRun, 60), times(inRun, 61)],
      ['heads.0.count', 0, 1, 20_000, 20_001],
      ['setC', 59, 60, 260, 261],
      ['seconds', 59, 60, 14_400, 14_401],
      ['warmS', -1, 0, 14_400, 14_401],
    ],
  ],
  ['out of the oven', runEntrySchemas.oven, { ...said, kind: 'unload', coolS: 5 }, [['coolS', -1, 0, 14_400, 14_401]]],
  [
    'a mix',
    runEntrySchemas.glue,
    { ...said, kind: 'begin', partId: id, name: 'Epoxy', heads: [inRun], potLifeS: 300, setS: 600 },
    [
      ['potLifeS', 4, 5, 86_400, 86_401],
      ['setS', 0, 1, 1_209_600, 1_209_601],
    ],
  ],
  [
    'a mark of the dial',
    recordSchemas,
    { kind: 'dial', ...dated, dial: 5, temperatureC: 370, how: 'probe' },
    [
      ['dial', -1, 0, 100, 101],
      ['temperatureC', 19, 20, 600, 601],
    ],
  ],
  [
    'seconds under the gun',
    recordSchemas,
    { kind: 'heating', ...dated, tool: 'heat gun', seconds: 15 },
    [['seconds', 0.4, 0.5, 300, 301]],
  ],
  [
    'a head on the scale',
    recordSchemas,
    { kind: 'sample', ...dated, position: 1, massKg: 0.01 },
    [
      ['position', 0, 1, 12, 13],
      ['massKg', 0, 0.00001, 5, 5.1],
    ],
  ],
];

test.each(DEEDS)('%s: each field to its ends, and no further', (_name, schema, doc, ends) =>
  tryEnds((value) => parseWith(schema, value), doc, ends),
);
test.each(ENTRIES)('%s: each field to its ends, and no further', (_name, schemas, doc, ends) =>
  tryEnds((value) => parseEntry(schemas, value), doc, ends),
);
