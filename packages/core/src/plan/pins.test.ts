import { cavity, product, workshop } from '../test/workshop.ts';
import { headsWithPin, pinInWorkM, pinLimits, pinsFree, withinPins } from './pins.ts';
import type { PlanMold } from './types.ts';

// Pins are few and go round: they limit how many heads are in work at once. Common practice, no source.
const pin = { diameterM: 0.0032, lengthM: 0.01 };
const short = { name: 'No hole', pin: 'cut short', grooveFor: null, blocks: [], keeper: false, wireGuards: 0 } as const;
const molds: PlanMold[] = [
  {
    ...workshop().molds[0]!,
    cavities: [
      { ...cavity(1, 14), pin, variants: [{ ...short, blocks: [], insert: 'none' }] },
      { ...cavity(2, 14), pin },
      cavity(3, 10),
    ],
  },
];
const guarded = { ...product(14), ways: { hole: 'pulled together' as const } };
const step = (station: string, left: number) => ({ station, left }) as never;

test('a pin is in work from the pour to the paint or the bake; drilled holes, plugged slots and plain heads want none', () => {
  expect(pinInWorkM(guarded, molds, {})).toBe(0.0032);
  expect(pinInWorkM({ ...guarded, ways: { hole: 'drilled' } }, molds, {})).toBeNull();
  expect(pinInWorkM({ ...guarded, ways: null }, molds, { hole: 'pulled one by one' })).toBe(0.0032);
  expect(pinInWorkM({ ...guarded, ways: null }, molds, { hole: 'ptfe' })).toBeNull();
  expect(pinInWorkM({ ...guarded, variant: 'No hole' }, molds, {})).toBeNull();
  expect(pinInWorkM({ ...product(10), ways: guarded.ways }, molds, {})).toBeNull();
  const steps = [step('trim', 5), step('paint', 7), step('bake', 11), step('finish', 13)];
  expect(headsWithPin({ steps }, guarded, {})).toBe(12);
  expect(headsWithPin({ steps }, { ...guarded, ways: { hole: 'ptfe' } }, {})).toBe(0);
  expect(headsWithPin({ steps }, { ...guarded, ways: { hole: 'drilled' } }, {})).toBe(0);
});

test('never more heads in work than pins: what is under way counts, lines share what is free in their order', () => {
  const known = { molds, ways: {}, pins: [{ diameterM: 0.0032, count: 20 }] };
  const lines = [
    { product: { ...guarded, id: 'a' }, quantity: 9 },
    { product: product(10), quantity: 40 },
    { product: { ...guarded, id: 'b' }, quantity: 30 },
  ];
  const under = (count: number) => ({ ...known, pinsInWork: [{ diameterM: 0.00322, count }] });
  const [limit] = pinLimits(lines, under(6));
  expect(limit).toEqual({ diameterM: 0.0032, count: 20, inWork: 6, wanted: 39 });
  expect(pinsFree(limit!)).toBe(14);
  const cut = withinPins(lines, under(6));
  expect(cut.map(({ quantity }) => quantity)).toEqual([9, 40, 5]);
  expect(withinPins(lines, under(20)).map(({ quantity }) => quantity)).toEqual([40]);
  // Nobody has counted them: nothing is held back.
  expect(withinPins(lines, { molds, ways: {} })).toEqual(lines);
  expect(pinLimits(lines, { ...known, pins: [{ diameterM: 0.0024, count: 3 }] })).toEqual([]);
});
