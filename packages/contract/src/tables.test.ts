import { PART_KINDS, partKind, STATIONS, stationOf, type PartKind, type RouteStep, type Station } from '@schmelz/core';

// What docs/adding-to-the-tables.md promises: one row more in each table of core, and no line here.
beforeAll(() => {
  (STATIONS as Station[]).splice(-1, 0, { ...stationOf('finish'), id: 'tie', name: 'Tie', verb: 'to tie' });
  (PART_KINDS as unknown as PartKind[]).push({ ...partKind('bead'), id: 'sequin', name: 'sequin', many: 'sequins' });
});

test('the contract takes a product with the step and a part of the kind, and names them where it refuses', async () => {
  // Its schemas are made from the tables when they are first asked for.
  const { materialSchema, productSchema } = await import('./schema/workshop.ts');
  const { parseWith } = await import('./parse.ts');
  const part = { kind: 'sequin', name: 'Gold sequins', note: '', metalId: null, hook: null, powder: null };
  expect(parseWith(materialSchema, part)).toMatchObject({ kind: 'sequin' });
  expect(() => parseWith(materialSchema, { ...part, kind: 'glitter' })).toThrow(/sequin/);
  expect(() => parseWith(materialSchema, { ...part, details: { diameterM: 3 } })).toThrow(/diameterM is 3\u00a0m/);

  const route: RouteStep[] = ['trim', 'tie', 'finish'].map((station) => ({ key: station, station, does: station }));
  const partId = '6f1c2f0e-2f43-4a8e-9d3c-0000000000a1';
  const product = {
    ...{ name: 'Sequin ball', style: 'ball', nominalMassKg: 0.01, priceMinor: null },
    ...{ hookId: null, recipeId: null, bakeProgramId: null, route },
    parts: [{ partId, quantity: 3, waste: 0.1, step: 'tie' }],
  };
  expect(parseWith(productSchema, product)).toMatchObject({ parts: [{ step: 'tie' }], route });
  const dyed = [...route, { key: 'dye', station: 'dye', does: 'Dye' }];
  expect(() => parseWith(productSchema, { ...product, route: dyed })).toThrow(/tie/);
});
