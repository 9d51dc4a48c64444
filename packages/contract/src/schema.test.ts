import { DEFAULT_WAYS } from '@schmelz/core';
import fc from 'fast-check';
import * as yup from 'yup';
import { allowedBy, fieldProblems, parseEntry, parseWith } from './parse.ts';
import { InvalidInput } from './problem.ts';
import { pourEntrySchemas, runEntrySchemas, startPourSchema, ticketEntrySchemas } from './schema/runs.ts';
import {
  bakeProgramSchema,
  cavitySchema,
  DEFAULT_SETTINGS,
  materialSchema,
  moldSchema,
  orderSchema,
  ovenSchema,
  potSchema,
  productSchema,
  recipeSchema,
  settingsSchema,
} from './schema/workshop.ts';
import { countSchema, receiptSchema } from './schema/stock.ts';

const id = '00000000-0000-4000-8000-000000000001';
const cavity = { position: 1, style: 'ball', nominalMassKg: 0.01, hookSize: '2/0', eyeAngleDeg: 60, condition: 'good' };
const hook = { size: '2/0', wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' };
const powder = { colour: '#aabbcc', gloss: 'gloss', specificGravity: 1.5, label: [{ metalC: 177, seconds: 1200 }] };

/** One thing of each kind that is as it should be. */
const VALID: Record<string, [yup.AnySchema, Record<string, unknown>]> = {
  settings: [settingsSchema, DEFAULT_SETTINGS],
  pot: [potSchema, { name: 'Pot', capacityKg: 9, powerW: 700, lossWPerK: 0.55 }],
  oven: [ovenSchema, { name: 'Oven', places: 60, powerW: 1400, lagS: 180 }],
  mold: [moldSchema, { name: 'Mold', bodyKg: 0.5, cavities: [cavity] }],
  cavity: [cavitySchema, cavity],
  lead: [materialSchema, { kind: 'lead', name: 'Lead', note: '', metalId: 'soft-lead', hook: null, powder: null }],
  hook: [materialSchema, { kind: 'hook', name: 'Hook', note: '', metalId: null, hook, powder: null }],
  powder: [materialSchema, { kind: 'powder', name: 'Powder', note: '', metalId: null, hook: null, powder }],
  receipt: [receiptSchema, { quantity: 2.5, priceMinor: 625, on: '2026-03-06', lot: '' }],
  count: [countSchema, { quantity: 0, note: '' }],
  recipe: [recipeSchema, { name: 'Recipe', eyeColour: null, layers: [{ powderId: id, zone: 'whole', coats: 1 }] }],
  program: [bakeProgramSchema, { name: 'Program', setC: 177, seconds: 1680, preheated: true }],
  product: [
    productSchema,
    {
      name: 'Product',
      style: 'fish',
      nominalMassKg: 0.007,
      hookId: id,
      recipeId: null,
      bakeProgramId: null,
      priceMinor: null,
    },
  ],
  order: [orderSchema, { customer: 'Stall', dueOn: null, note: '', lines: [{ productId: id, quantity: 12 }] }],
  'start of a pour': [startPourSchema, { moldIds: [id], atOnce: 2, potId: id, ticketIds: [id] }],
};

const problemsOf = (schema: yup.AnySchema, value: unknown): string[] => {
  try {
    parseWith(schema, value);
    return [];
  } catch (error) {
    if (error instanceof InvalidInput) return error.fields.map((field) => field.message);
    throw error;
  }
};

describe('what crosses the wire', () => {
  test.each(Object.entries(VALID))('%s: as it should be it passes unchanged', (_, [schema, value]) => {
    expect(parseWith(schema, value)).toEqual(value);
  });

  test.each(Object.entries(VALID))('%s: every field is a must, no other is let in', (_, [schema, value]) => {
    for (const field of Object.keys(value)) {
      const { [field]: _left, ...rest } = value;
      expect(problemsOf(schema, rest).join()).toContain(field);
    }
    expect(problemsOf(schema, { ...value, surprise: 1 }).join()).toContain('surprise');
    expect(problemsOf(schema, null)).not.toEqual([]);
    expect(problemsOf(schema, [value])).not.toEqual([]);
  });

  test.each(Object.entries(VALID))('%s: nothing is converted, no NaN, no infinity', (_, [schema, value]) => {
    for (const [field, good] of Object.entries(value)) {
      if (typeof good !== 'number') continue;
      for (const bad of [String(good), Number.NaN, Number.POSITIVE_INFINITY, -1e12, 1e15]) {
        expect([field, bad, problemsOf(schema, { ...value, [field]: bad }).length > 0]).toEqual([field, bad, true]);
      }
    }
  });

  test('whatever JSON comes in, it is judged and never crashes', () => {
    fc.assert(
      fc.property(
        fc.jsonValue(),
        fc.constantFrom(...Object.values(VALID).map(([schema]) => schema)),
        (value, schema) => {
          expect(Array.isArray(problemsOf(schema, value))).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('rules between fields', () => {
  test.each([
    [
      'a hook without its details',
      materialSchema,
      { ...VALID['hook']![1], hook: null },
      /must give the details of its kind/,
    ],
    [
      'a lead with the details of a hook',
      materialSchema,
      { ...VALID['lead']![1], hook },
      /must give the details of its kind/,
    ],
    [
      'cavities that are not numbered in order',
      moldSchema,
      { name: 'M', bodyKg: 1, cavities: [{ ...cavity, position: 2 }] },
      /must number its cavities/,
    ],
    [
      'a recipe of nothing',
      recipeSchema,
      { name: 'R', eyeColour: null, layers: [] },
      /must have a layer or an eye: bare lead alone needs no recipe/,
    ],
    [
      'a mixture that is all of one powder',
      recipeSchema,
      {
        name: 'R',
        eyeColour: null,
        layers: [{ powderId: id, zone: 'whole', coats: 1, mix: { powderId: id, share: 1 } }],
      },
      /share is 1; allowed: a number from 0.05 to 0.95/,
    ],
    [
      'liquid paint with a cure instead of a wait',
      materialSchema,
      { ...VALID['powder']![1], powder: { ...powder, form: 'liquid' } },
      /must have the cure of its label where it is a powder, and its wait where it is liquid/,
    ],
    [
      'a way that nobody follows',
      settingsSchema,
      { ...DEFAULT_SETTINGS, ways: { ...DEFAULT_WAYS, schools: { sprue: 'bitten' } } },
      /ways.schools.sprue is "bitten"; allowed: nip, wiggle, fingers, shear/,
    ],
    [
      'a rack without room',
      ovenSchema,
      {
        name: 'O',
        places: 10,
        powerW: 1000,
        lagS: 100,
        racks: [{ name: 'wires', way: 'hanging', bars: 0, barM: 0.2, clearM: 0.07 }],
      },
      /bars is 0; allowed: a whole number from 1 to 40/,
    ],
    [
      'a product twice in one order',
      orderSchema,
      { ...VALID['order']![1], lines: [1, 2].map((quantity) => ({ productId: id, quantity })) },
      /must name each product once/,
    ],
    [
      'a currency that is none',
      settingsSchema,
      { ...DEFAULT_SETTINGS, currency: 'euro' },
      /allowed: a currency code of three letters/,
    ],
    [
      'a pour temperature below melting',
      settingsSchema,
      { ...DEFAULT_SETTINGS, ways: { ...DEFAULT_WAYS, pourC: 300 } },
      /ways.pourC is 300\u00a0C; allowed: a number from 330\u00a0C to 480\u00a0C/,
    ],
    [
      'a colour by name',
      recipeSchema,
      { ...VALID['recipe']![1], eyeColour: 'yellow' },
      /eyeColour is "yellow"; allowed: a colour as #a1b2c3/,
    ],
  ])('%s', (_, schema, value, text) => expect(problemsOf(schema, value).join()).toMatch(text));
});

describe('logs', () => {
  const base = { id, at: 1 };
  test.each([
    ['charge', { massKg: 2, potC: 20 }],
    ['feed', { massKg: 0.2 }],
    ['blank', { moldId: id }],
    ['shot', { moldId: id, positions: [1, 2], filled: [3] }],
    ['blocked', { moldId: id, position: 2 }],
    ['mold', { moldId: id, away: true }],
    ['hooks', { materialId: id, left: 0 }],
    ['weighed', { moldId: id, position: 1, massKg: 0.0113 }],
    ['reject', { shotId: id, position: 1, cause: 'short', where: 'barb', goes: 'second grade' }],
    ['smoked', { moldId: id }],
    ['pause', {}],
    ['resume', {}],
    ['close', { sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 1 }],
    ['undo', { target: id }],
  ] as const)('a pour may say %s', (kind, more) => {
    expect(parseWith(pourEntrySchemas[kind], { ...base, kind, ...more })).toMatchObject({ kind });
    expect(problemsOf(pourEntrySchemas[kind], { ...base, kind: 'else', ...more }).join()).toContain('kind');
    expect(problemsOf(pourEntrySchemas[kind], { ...base, kind, ...more, at: 'now' }).join()).toContain('at is "now"');
  });
  test('an unknown kind is named, with those that are known', () => {
    expect(() => parseEntry(pourEntrySchemas, { kind: 'dance' })).toThrow(
      /kind is "dance"; allowed: charge, feed, blank/,
    );
    const reject = { ...base, kind: 'reject', step: 'trim', cause: 'divot', count: 1 };
    expect(problemsOf(ticketEntrySchemas.reject, { ...reject, goes: 'away' }).join()).toMatch(
      /goes is "away"; allowed: melt, hook lost, parts back, back to step/,
    );
    // What was said of a head as several yes and no can be said no longer.
    expect(problemsOf(pourEntrySchemas.reject, { ...base, kind: 'reject', kept: true, redipped: true }).join()).toMatch(
      /kept|redipped/,
    );
    expect(
      problemsOf(pourEntrySchemas.reject, {
        ...base,
        kind: 'reject',
        shotId: id,
        position: 1,
        cause: 'ugly',
        goes: 'melt',
      }).join(),
    ).toMatch(/cause is "ugly"; allowed: short, flash, void/);
  });
});

describe('what is allowed, in words', () => {
  const words = (schema: yup.AnySchema) => allowedBy(schema.describe());
  test.each([
    [yup.number().min(1).max(5).meta({ unit: 'kg' }), 'a number from 1\u00a0kg to 5\u00a0kg'],
    [yup.number().integer().min(0).max(9), 'a whole number from 0 to 9'],
    [yup.number(), 'a number'],
    [yup.string().max(80), 'text of 1 to 80 characters'],
    [yup.string(), 'text'],
    [yup.string().oneOf(['a', 'b']), 'a, b'],
    [yup.array().min(1).max(3), '1 to 3 entries'],
    [yup.boolean(), 'true or false'],
    [yup.string().meta({ allowed: 'a day as 2026-05-31' }), 'a day as 2026-05-31'],
  ])('%#', (schema, text) => expect(words(schema as yup.AnySchema)).toBe(text));

  test('long values are quoted in part, objects not at all', () => {
    const schema = yup.object({ name: yup.string().max(5), list: yup.number() });
    try {
      schema.validateSync({ name: 'x'.repeat(500), list: { a: 1 } }, { strict: true, abortEarly: false });
    } catch (error) {
      const fields = fieldProblems(error as yup.ValidationError, schema);
      expect(fields.map((field) => String(field.value).length)).toEqual([121, 9]);
    }
    expect.assertions(1);
  });
});

describe('what the finishing benches may say', () => {
  const base = { id, at: 1_764_000_000_000 };
  const fits = (schema: yup.AnySchema, kind: string, more: object) => problemsOf(schema, { ...base, kind, ...more });
  const { coat, sprue, take } = ticketEntrySchemas;
  const { load, warm, door, unload } = runEntrySchemas.oven;
  const heads = [{ ticketId: id, step: 'bake', count: 6 }];
  const program = { ovenId: null, heads, setC: 177, seconds: 1200, preheated: true, from: 'metal', warmS: 400 };
  test.each([
    ['coat', coat, { step: 'paint', coat: 1, paint: 'Primer', dryS: 3600 }],
    ['sprue', sprue, { step: 'trim', massKg: 0.12 }],
    ['take', take, { count: 12 }],
    ['load', load, program],
    ['warm', warm, { by: 'probe' }],
    ['door', door, { open: true }],
    ['unload', unload, { coolS: 300 }],
    ['begin', runEntrySchemas.dip.begin, { partId: id, name: 'White', heads }],
    ['good', runEntrySchemas.glue.good, { ticketId: id, step: 'guard', count: 1 }],
  ] as const)('%s', (kind, schema, more) => expect(fits(schema, kind, more)).toEqual([]));
  test.each([
    ['coat', coat, { step: 'paint', coat: 1, paint: 'Primer', dryS: 5 }, /dryS is 5; allowed: a whole number from 60/],
    [
      'sprue',
      sprue,
      { step: 'trim', massKg: 0 },
      /massKg is 0\u00a0kg; allowed: a number from 0.001\u00a0kg to 60\u00a0kg/,
    ],
    ['door', door, { open: 'wide' }, /open is "wide"; allowed: true or false/],
    ['unload', unload, { coolS: -1 }, /coolS is -1/],
    ['load', load, { ...program, heads: [] }, /heads is "a list"; allowed: 1 to 60 entries/],
  ] as const)('%s out of range is refused by field, value and what is allowed', (kind, schema, more, text) =>
    expect(fits(schema, kind, more).join()).toMatch(text),
  );

  test('a product differs from the house in steps that there are, by schools that there are', () => {
    const product = { ...VALID['product']![1], ways: { sprue: 'shear' } };
    expect(problemsOf(productSchema, product)).toEqual([]);
    expect(problemsOf(productSchema, { ...product, ways: { sprue: 'file' } }).join()).toMatch(
      /ways.sprue is "file"; allowed: nip, wiggle/,
    );
    expect(problemsOf(productSchema, { ...product, ways: { polish: 'yes' } }).join()).toMatch(
      /unspecified keys: polish/,
    );
  });
});

test('a pin that leaves no metal for its head is refused with the mold', () => {
  const cavity = {
    position: 1,
    style: 'ball',
    nominalMassKg: 0.0004,
    hookSize: '2',
    eyeAngleDeg: 60,
    condition: 'good',
  };
  const mold = (pin: object | null) => ({ name: 'Micro', bodyKg: 0.5, cavities: [{ ...cavity, pin }] });
  expect(() => moldSchema.validateSync(mold(null), { strict: true })).not.toThrow();
  expect(() => moldSchema.validateSync(mold({ diameterM: 0.003175, lengthM: 0.008 }))).toThrow(/metalVolumeM3/);
});
