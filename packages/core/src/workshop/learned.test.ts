import { chance } from '@schmelz/worlds';
import { coldMold } from '../fill/cold.ts';
import { fitGun } from '../paint/head-heat.ts';
import { productHeated } from '../plan/product.ts';
import { product, workshop } from '../test/workshop.ts';
import { knownGun, knownWays } from './gun.ts';
import { knownProduct } from './product.ts';
import type { ProductRecord, Shelf } from './records.ts';
import { knownShorts, shortsByIndex, type ShortsRecord } from './shorts.ts';

describe('a gun', () => {
  const ball = product(14);
  const of = (id: string) => (id === ball.id ? ball : undefined);
  const count = (more = {}) =>
    ({ thingId: ball.id, tool: 'heat gun', seconds: 22, struck: false, ...more }) as Parameters<typeof knownGun>[0][0];
  const counts = (...records: ReturnType<typeof count>[]) => knownGun(records, of, 20).counts;

  test('is known by the counts with it that stand, of heads that are still there', () => {
    expect(counts(count(), count(), count())).toBe(3);
    expect(counts(count(), count({ struck: true }))).toBe(1);
    expect(counts(count({ tool: 'torch' }))).toBe(0);
    expect(counts(count({ thingId: 'gone' }))).toBe(0);
    const one = fitGun([{ head: productHeated(ball), seconds: 22 }], 20);
    expect(knownGun([count()], of, 20)).toEqual(one);
  });
  test('stays the usual one until there is a count, then every plan goes by it', () => {
    const { ways } = workshop();
    expect(knownWays(ways, [], of)).toBe(ways);
    const quick = knownWays(ways, [count({ seconds: 10 })], of).gunWM2K!;
    const slow = knownWays(ways, [count({ seconds: 40 })], of).gunWM2K!;
    expect(quick).toBeGreaterThan(slow);
  });
});

describe('shorts of a mold', () => {
  const cavities = ['a', 'b', 'c'].map((id) => ({ id, style: 'ball' as const, nominalMassKg: 0.007, hookSize: '2/0' }));
  const record = (cavityId: string, moldC: number, shorts: number): ShortsRecord => ({
    ...{ cavityId, moldC, shorts, casts: 40, pourC: 371, roomC: 20, shotsSinceSmoked: 10 },
  });

  test('are read on the index of their own heat; a cavity that is gone is left out', () => {
    const read = shortsByIndex(cavities, [record('a', 40, 8), record('a', 100, 1), record('gone', 60, 3)]);
    expect(read.map(({ cavityId, casts, shorts }) => [cavityId, casts, shorts])).toEqual([
      ['a', 40, 8],
      ['a', 40, 1],
    ]);
    expect(read[1]!.index).toBeGreaterThan(read[0]!.index);
  });
  test('a cavity with a fault of its own says nothing about the heat of the mold', () => {
    const { uniform } = chance(20261);
    // Two cavities that come short below 50 C; one that is short nine times in ten however warm it is.
    const heats = [35, 42, 50, 60, 70, 85, 100];
    const sound = ['a', 'b'].flatMap((id) =>
      heats.map((moldC) => record(id, moldC, Math.round(40 * (moldC < 46 ? 0.7 : 0.02) + uniform()))),
    );
    const known = knownShorts(cavities, [...sound, ...heats.map((moldC) => record('c', moldC, 36))]);
    expect(known.faulty).toEqual(['c']);
    expect(known.coldBelowC).toBe(knownShorts(cavities, sound).coldBelowC);
    expect(known.coldBelowC).toBe(coldMold(sound).belowC);
    expect(known.coldBelowC).toBeGreaterThan(42);
    expect(known.coldBelowC).toBeLessThan(55);
  });
});

test('what is gone from the shelf is not in the product, what stands any heat has no limit', () => {
  const parts = [
    { id: 'hook', name: 'Hook', kind: 'hook', hook: { size: '2/0', wire: 'regular', eyeAngleDeg: 90 } },
    { id: 'bead', name: 'Bead', kind: 'bead', limitC: 90 },
    { id: 'ring', name: 'Ring', kind: 'ring' },
    { id: 'plain', name: 'No powder', kind: 'powder' },
  ];
  const shelf = {
    part: (id: string) => parts.find((each) => each.id === id),
    recipe: () => ({ id: 'r', layers: [{ powderId: 'plain', zone: 'whole', coats: 1 }] }),
    program: () => undefined,
  } as unknown as Shelf;
  const line = (partId: string) => ({ partId, quantity: 1, waste: 0, step: 'finish' });
  const record = { id: 'p', name: 'P', style: 'ball' as const, nominalMassKg: 0.01, hookId: 'hook', recipeId: 'r' };
  const made = (more = {}) =>
    knownProduct({ ...record, bakeProgramId: null, parts: [line('bead'), line('ring'), line('gone')], ...more }, shelf);
  expect(made().parts!.map(({ name, limitC }) => [name, limitC])).toEqual([
    ['Bead', 90],
    ['Ring', null],
  ]);
  expect(made().hook).toMatchObject({ name: 'Hook', limitC: null });
  expect(made().layers).toEqual([]);
  expect(made({ hookId: 'bead' }).hook).toBeNull();
  expect(made({ parts: undefined } as Partial<ProductRecord>).parts).toEqual([]);
});
