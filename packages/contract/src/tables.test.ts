import { PART_KINDS, STATIONS, type PartKind, type RouteStep, type Station } from '@schmelz/core';

/** What docs/adding-to-the-tables.md promises: a kind, a station and a step are a row each, and no other file. */
const tying: Station = {
  id: 'tie',
  name: 'Tie',
  verb: 'to tie',
  doing: 'tying',
  counts: true,
  causes: [{ id: 'thread slipped', goes: 'back to step' }],
  cautions: ['Head cement: air the room.'],
  before: 'baked',
  after: 'baked',
  says: { left: 'Left to tie', good: 'Tied', all: 'All the rest are tied', begin: 'Start tying' },
};
const sequin: PartKind = {
  id: 'sequin',
  name: 'sequin',
  many: 'sequins',
  unit: 'pieces',
  comesBack: false,
  costs: 'parts',
  lowAt: 100,
  fields: [{ name: 'diameterM', label: 'Diameter', unit: 'm', low: 0.001, high: 0.02 }],
  sign: 'dot',
};
const sequins: RouteStep = {
  key: 'tie',
  station: 'tie',
  does: 'Tie the sequins in',
  wait: { name: 'dry', seconds: 900 },
};
const route: RouteStep[] = [
  ...['trim', 'paint', 'bake'].map((station): RouteStep => ({ key: station, station, does: station })),
  sequins,
  { key: 'finish', station: 'finish', does: 'Finish' },
];

beforeAll(() => {
  (STATIONS as Station[]).splice(-1, 0, tying);
  (PART_KINDS as unknown as PartKind[]).push(sequin);
});

describe('one row more in each table', () => {
  const parts = [{ partId: 'gold', quantity: 3, waste: 0.1, step: 'tie' }];
  const record = {
    ...{ id: 'p', name: 'Sequin ball', style: 'ball' as const, nominalMassKg: 0.01, hookId: null },
    ...{ recipeId: null, bakeProgramId: null, route, parts },
  };

  test('the contract takes a product with the step and a part of the kind, and names them where it refuses', async () => {
    const { materialSchema, productSchema } = await import('./schema/workshop.ts');
    const { parseWith } = await import('./problem.ts');
    const part = { kind: 'sequin', name: 'Gold sequins', note: '', metalId: null, hook: null, powder: null };
    expect(parseWith(materialSchema, part)).toMatchObject({ kind: 'sequin' });
    expect(() => parseWith(materialSchema, { ...part, kind: 'glitter' })).toThrow(/sequin/);
    expect(() => parseWith(materialSchema, { ...part, details: { diameterM: 3 } })).toThrow(/diameterM is 3 m/);
    const { id: _id, ...said } = { ...record, priceMinor: null };
    const partId = '6f1c2f0e-2f43-4a8e-9d3c-0000000000a1';
    const stored = { ...said, parts: [{ ...parts[0]!, partId }] };
    expect(parseWith(productSchema, stored)).toMatchObject({ parts: [{ step: 'tie' }], route });
    const dyed = [...route, { key: 'dye', station: 'dye', does: 'Dye' }];
    expect(() => parseWith(productSchema, { ...stored, route: dyed })).toThrow(/tie/);
  });
});
