import fc from 'fast-check';
import type { SolveLp } from '../numeric/program.ts';
import { solver } from '../test/solve.ts';
import { cheapestCover, freightOf, type Bought, type Lacking, type Offer, type Supplier } from './buying.ts';

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

const near: Supplier = { name: 'Near', freightMinor: 490, freeAboveMinor: 4000, days: 2 };
const far: Supplier = { name: 'Far', freightMinor: 900, freeAboveMinor: null, days: 9 };
const hooks = (id: string, supplier: string, pack: number, ...minor: [number, ...[from: number, minor: number][]]) => ({
  ...{ id, materialId: 'hook', supplier, pack },
  prices: [
    { fromPacks: 1, minor: minor[0] },
    ...(minor.slice(1) as [number, number][]).map(([fromPacks, price]) => ({ fromPacks, minor: price })),
  ],
});
const want = (quantity: number, withinDays: number | null = null): Lacking[] => [
  { materialId: 'hook', quantity, withinDays },
];

test('packs are whole, and a bigger one is taken where it is cheaper than what is left over', () => {
  // 70 of 25 at 5.00: three packs, 15.00 + 4.90; 100 at 14.00 + 4.90 is cheaper.
  const offers = [hooks('25', 'Near', 25, 500), hooks('100', 'Near', 100, 1400)];
  const plan = cheapestCover(want(70), offers, [near], solve);
  expect(plan.bought).toEqual([
    { offerId: '100', materialId: 'hook', supplier: 'Near', packs: 1, quantity: 100, minor: 1400 },
  ]);
  expect(plan.totalMinor).toBe(1890);
  expect(plan.optimal).toBe(true);
});
test('more is bought where the freight that it saves costs more than it does', () => {
  // 38.00 of hooks + 4.90 freight, or 40.00 with the eleventh pack: 2.90 less for more.
  const offers = [hooks('h', 'Near', 10, 380), { ...hooks('w', 'Near', 1, 200), materialId: 'weight' }];
  const both: Lacking[] = [...want(100), { materialId: 'weight', quantity: 1, withinDays: null }];
  expect(cheapestCover(both, offers, [near], solve).totalMinor).toBe(4000);
  const lone = cheapestCover(want(100), offers, [near], solve);
  expect(lone.totalMinor).toBe(Math.min(3800 + 490, 11 * 380));
});
test('a price that falls with the number of packs is asked for all of them', () => {
  const offers = [hooks('h', 'Near', 10, 400, [5, 300])];
  expect(cheapestCover(want(40), offers, [near], solve).bought[0]).toMatchObject({ packs: 5, minor: 1500 });
  expect(cheapestCover(want(30), offers, [near], solve).bought[0]).toMatchObject({ packs: 3, minor: 1200 });
});
test('who is too late is not asked while somebody is quicker; late from all of them is said', () => {
  const offers = [hooks('n', 'Near', 50, 2000), hooks('f', 'Far', 50, 100)];
  expect(cheapestCover(want(50), offers, [near, far], solve).bought[0]!.supplier).toBe('Far');
  expect(cheapestCover(want(50, 5), offers, [near, far], solve).bought[0]!.supplier).toBe('Near');
  const late = cheapestCover(want(50, 1), offers, [near, far], solve);
  expect(late.late).toEqual([{ materialId: 'hook', days: 2 }]);
  expect(late.bought[0]!.supplier).toBe('Near');
  expect(cheapestCover(want(50), [], [near], solve)).toMatchObject({ nobody: ['hook'], totalMinor: 0 });
});
test('more packs than anybody carries home are a slip of the keyboard, and said', () => {
  const offers = [hooks('h', 'Near', 10, 100)];
  expect(() => cheapestCover(want(1_000_000), offers, [near], solve)).toThrow(
    /packs of h is 100000; allowed: 0 to 10000/,
  );
});
test.each([
  [{ ...hooks('h', 'Nobody', 10, 1) }, /supplier is Nobody; allowed: Near/],
  [{ ...hooks('h', 'Near', 0, 1) }, /pack of h is 0/],
  [{ ...hooks('h', 'Near', 10, 1, [1, 1]) }, /packs of h is 1; allowed: 2 to/],
  [{ ...hooks('h', 'Near', 10, 1.5) }, /price of h/],
  [{ ...hooks('h', 'Near', 10, 1), prices: [] }, /prices of h is none/],
] as const)('what cannot be sold is refused by name', (offer, says) => {
  expect(() => cheapestCover(want(1), [offer as Offer], [near], solve)).toThrow(says);
});

/** Every number of packs of every offer is tried. */
function cheapestByTrying(lacking: readonly Lacking[], offers: readonly Offer[], suppliers: readonly Supplier[]) {
  const most = offers.map(({ materialId, pack, prices }) => {
    const wanted = lacking.find((each) => each.materialId === materialId)?.quantity ?? 0;
    const dearest = Math.max(...suppliers.map(({ freeAboveMinor }) => freeAboveMinor ?? 0));
    const free = Math.ceil(dearest / Math.min(...prices.map(({ minor }) => minor)));
    return Math.max(Math.ceil(wanted / pack), free, ...prices.map(({ fromPacks }) => fromPacks));
  });
  let best = Infinity;
  const packs = offers.map(() => 0);
  const tryAt = (at: number) => {
    if (at === offers.length) {
      const bought = offers.flatMap((offer, nth): Bought[] => {
        if (packs[nth] === 0) return [];
        const price = offer.prices.filter(({ fromPacks }) => fromPacks <= packs[nth]!).at(-1)!.minor;
        const quantity = packs[nth]! * offer.pack;
        return [{ ...offer, offerId: offer.id, packs: packs[nth]!, quantity, minor: packs[nth]! * price }];
      });
      const covered = lacking.every(
        ({ materialId, quantity }) =>
          bought.reduce((sum, each) => sum + (each.materialId === materialId ? each.quantity : 0), 0) >= quantity,
      );
      if (!covered) return;
      const freight = freightOf(bought, suppliers).reduce((sum, { freightMinor }) => sum + freightMinor, 0);
      best = Math.min(best, freight + bought.reduce((sum, { minor }) => sum + minor, 0));
      return;
    }
    for (packs[at] = 0; packs[at]! <= most[at]!; packs[at]! += 1) tryAt(at + 1);
    packs[at] = 0;
  };
  tryAt(0);
  return best;
}

test('of 150 small lists none can be bought for less by trying every way', () => {
  const offer = (id: string) =>
    fc.record({
      ...{ id: fc.constant(id), materialId: fc.constantFrom('a', 'b'), supplier: fc.constantFrom('Near', 'Far') },
      pack: fc.integer({ min: 1, max: 4 }),
      prices: fc.tuple(fc.integer({ min: 200, max: 900 }), fc.integer({ min: 60, max: 100 })).map(([minor, share]) => [
        { fromPacks: 1, minor },
        { fromPacks: 3, minor: Math.round((minor * share) / 100) },
      ]),
    });
  const near = { name: 'Near', freightMinor: 490, freeAboveMinor: 1200, days: 2 };
  fc.assert(
    fc.property(
      fc.tuple(offer('1'), offer('2'), offer('3')),
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 1, max: 9 }),
      (offers, a, b) => {
        const lacking = [
          { materialId: 'a', quantity: a, withinDays: null },
          { materialId: 'b', quantity: b, withinDays: null },
        ].filter(({ materialId }) => offers.some((each) => each.materialId === materialId));
        const plan = cheapestCover(lacking, offers, [near, far], solve);
        expect(plan.totalMinor).toBe(cheapestByTrying(lacking, offers, [near, far]));
        expect(plan.boundMinor).toBeLessThanOrEqual(plan.totalMinor);
      },
    ),
    { numRuns: 150 },
  );
});
