import fc from 'fast-check';
import { salesBy, type Sale } from './sales.ts';

// On paper: a stall takes 6 balls for 9.00 and 4 rockers for 10.00; the club 10 balls for 12.00, two of which come back
// for 2.40; two balls are given away. A ball costs 0.50 to make, a rocker 0.80.
const sale = (productId: string, party: string, heads: number, minor: number, costMinor: number, givenHeads = 0) =>
  ({ productId, party, heads, minor, costMinor, workMinor: 0, givenHeads }) satisfies Sale;
const SALES = [
  sale('ball', 'Stall', 6, 900, 300),
  sale('rocker', 'Stall', 4, 1000, 320),
  sale('ball', 'Club', 8, 960, 400),
  sale('ball', '', 0, 0, 100, 2),
];

test('by product and by customer, what brought most first', () => {
  const products = salesBy(SALES, ({ productId }) => productId);
  expect(products.map(({ key, heads, minor, givenHeads }) => [key, heads, minor, givenHeads])).toEqual([
    ['ball', 14, 1860, 2],
    ['rocker', 4, 1000, 0],
  ]);
  // Balls: 16 of them cost 8.00; 18.60 came in.
  expect(products[0]).toMatchObject({ costMinor: 800, leftMinor: 1060 });
  expect(products[0]!.leftShare).toBeCloseTo(1060 / 1860, 12);
  const customers = salesBy(SALES, ({ party }) => party);
  expect(customers.map(({ key, minor, leftMinor }) => [key, minor, leftMinor])).toEqual([
    ['Stall', 1900, 1280],
    ['Club', 960, 560],
    ['', 0, -100],
  ]);
  expect(customers[2]!.leftShare).toBeNull();
  // Hours are no part that came off a shelf, and what is left is over both.
  const [worked] = salesBy([{ ...SALES[0]!, workMinor: 240 }], ({ party }) => party);
  expect([worked!.costMinor, worked!.workMinor, worked!.leftMinor, worked!.leftShare]).toEqual([300, 240, 360, 0.4]);
});

test('however it is put together, it is the same money and the same heads', () => {
  const any = fc.record({
    productId: fc.constantFrom('a', 'b', 'c'),
    party: fc.constantFrom('', 'Stall', 'Club', 'Kiosk'),
    heads: fc.integer({ min: -50, max: 500 }),
    minor: fc.integer({ min: -5000, max: 50_000 }),
    costMinor: fc.integer({ min: 0, max: 50_000 }),
    workMinor: fc.integer({ min: 0, max: 50_000 }),
    givenHeads: fc.nat(50),
  });
  const total = (of: readonly Omit<Sale, 'productId' | 'party'>[]) =>
    (['minor', 'heads', 'costMinor', 'workMinor', 'givenHeads'] as const).map((part) =>
      of.reduce((sum, each) => sum + each[part], 0),
    );
  fc.assert(
    fc.property(fc.array(any, { maxLength: 40 }), (sales) => {
      for (const keyOf of [({ productId }: Sale) => productId, ({ party }: Sale) => party, () => 'all']) {
        const groups = salesBy(sales, keyOf);
        expect(total(groups)).toEqual(total(sales));
        expect(new Set(groups.map(({ key }) => key)).size).toBe(groups.length);
      }
    }),
  );
});

test('heads whose minutes nobody timed are counted with those that they were sold with', () => {
  const [one] = SALES as [Sale];
  const sales: Sale[] = [one, { ...one, notTimedHeads: 4 }, { ...one, notTimedHeads: 2 }];
  expect(salesBy(sales, ({ party }) => party)[0]!.notTimedHeads).toBe(6);
});
