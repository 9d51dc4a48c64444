import { AS_CUT } from '../mold/variants.ts';
import { insertsOut } from '../run/pour.ts';
import { cavity, product, workshop } from '../test/workshop.ts';
import { allocate, castingProblem, productKg } from './allocate.ts';
import { castKg, insertsOf, variantFor } from './blank.ts';
import { planOrder } from './plan.ts';
import { preparePour } from './prepare-pour.ts';
import type { PlanMold } from './types.ts';

/** A mold of three heads of 14 g with slots for 1/8 inch pins, 8 mm in the metal; the last is ground out for 5/0. */
const pin = { diameterM: 0.003175, lengthM: 0.008 };
const noHole = { ...AS_CUT, name: 'No hole', pin: 'cut short' as const };
const guarded = { ...AS_CUT, name: 'Two wires', keeper: true, wireGuards: 2 };
const big = { ...AS_CUT, name: 'Big hook', grooveFor: '5/0' as const, blocks: [2] };
const slotted = { pin, eyeAngleDeg: 60, variants: [noHole, guarded] };
const mold: PlanMold = {
  ...{ id: 'm', name: 'Slots', bodyKg: 0.5, shotsSinceSmoked: 0 },
  cavities: [cavity(1, 14, slotted), cavity(2, 14, slotted), cavity(3, 14, { ...slotted, variants: [noHole, big] })],
};
const head = product(14);
const as = (variant: string | null) => ({ ...head, id: variant ?? 'as cut', variant });
const hooked = (size: '5/0') => ({ ...head, hook: { ...head.hook!, size, materialId: `hook-${size}` } });

/** Solid lead just set, g/mm3: CRC Handbook, from memory. */
const LEAD_G_MM3 = 0.011;
const rodMm3 = (diameterMm: number, lengthMm: number) => (Math.PI / 4) * diameterMm ** 2 * lengthMm;

test('a pin takes its hole out of the head, in the plan as in the pour and on the scale', () => {
  const hole = LEAD_G_MM3 * rodMm3(3.175, 8);
  expect(hole).toBeGreaterThan(0.6);
  expect(1000 * castKg(mold.cavities[0]!, head)).toBeCloseTo(14 - hole, 1);
  expect(1000 * castKg(mold.cavities[0]!, as('No hole'))).toBeCloseTo(14, 3);
  const wires = LEAD_G_MM3 * (rodMm3(0.9, 12) + 2 * rodMm3(0.5, 10));
  expect(1000 * castKg(mold.cavities[0]!, as('Two wires'))).toBeCloseTo(14 - hole - wires, 1);
  const { setup } = preparePour({ ...workshop(), lines: [{ product: head, quantity: 9 }], molds: [mold], atOnce: 1 });
  const plan = planOrder({ ...workshop(), molds: [mold], lines: [{ product: head, quantity: 9 }] });
  for (const kg of [setup.loads[0]!.leadKg, plan.lines[0]!.leadKgPerHead.value, productKg(head, [mold])]) {
    expect(1000 * kg).toBeCloseTo(14 - hole, 1);
  }
});

test('what a product names is cast where a cavity has it, with what belongs into it', () => {
  expect(insertsOf(mold.cavities[0]!, head)).toEqual(['base-hole pin']);
  expect(insertsOf(mold.cavities[0]!, as('No hole'))).toEqual(['shortened pin']);
  expect(insertsOf(mold.cavities[0]!, as('Two wires'))).toEqual([
    'base-hole pin',
    'keeper',
    'wire guard',
    'wire guard',
  ]);
  expect(variantFor(mold.cavities[2]!, as('Two wires'))).toBeNull();
  const { kinds } = allocate([{ product: as('Two wires'), quantity: 4 }], [mold])[0]!;
  expect(kinds[0]!.cavities.map(({ position }) => position)).toEqual([1, 2]);
  const lines = [{ product: as('Two wires'), quantity: 4 }];
  const { setup } = preparePour({ ...workshop(), lines, molds: [mold], atOnce: 1 });
  // Pins go round; a keeper and two wires stay in each head: five are laid out for four good ones, 94 in 100 of which
  // are (beta-binomial by hand: four of four come good in 80 evenings of 100, four of five in 95).
  expect(insertsOut(setup)).toEqual([
    { insert: 'keeper', count: 5 },
    { insert: 'wire guard', count: 10 },
  ]);
});

test('two variants of one head share a mold, each in its own cavities', () => {
  const lines = [
    { product: as(null), quantity: 10 },
    { product: as('No hole'), quantity: 10 },
  ];
  const [allocation] = allocate(lines, [mold]);
  expect(allocation!.kinds).toHaveLength(2);
  const used = allocation!.kinds.flatMap(({ cavities }) => cavities.map(({ position }) => position));
  expect([...used].sort()).toEqual([1, 2, 3]);
});

test('a groove that was ground out is used for its hook, and its neighbour stays empty', () => {
  expect(variantFor(mold.cavities[2]!, hooked('5/0'))?.name).toBe('Big hook');
  expect(variantFor(mold.cavities[0]!, hooked('5/0'))).toBeNull();
  const lines = [
    { product: { ...hooked('5/0'), id: 'big' }, quantity: 4 },
    { product: head, quantity: 4 },
  ];
  const [first] = allocate(lines, [{ ...mold, cavities: [mold.cavities[2]!, ...mold.cavities.slice(0, 2)] }]);
  const byHook = Object.fromEntries(
    first!.kinds.map(({ kind, cavities }) => [kind.lines[0]!.product.id, cavities.map(({ position }) => position)]),
  );
  expect(byHook).toEqual({ big: [3], [head.id]: [1] });
});

test('a variant that no mold has is said with its name', () => {
  expect(castingProblem(as('Weedless'), [mold])).toMatch(/is cast as "Weedless"; say at the mold what else it casts/);
  expect(castingProblem(as('No hole'), [mold])).toBeNull();
});

test('a pin as large as its head, on record from before, stops no plan: the head goes by its stamp', () => {
  const micro = cavity(1, 0.4, { pin: { diameterM: 0.003175, lengthM: 0.008 } });
  expect(castKg(micro, product(0.4))).toBeCloseTo(0.0004, 9);
});
