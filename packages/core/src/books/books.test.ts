import fc from 'fast-check';
import { leadBalance } from '../balance/lead-balance.ts';
import { product, workshop } from '../test/workshop.ts';
import { metalFlow } from './flow.ts';
import {
  breakEvenHeads,
  cashView,
  leftOfPrice,
  paidIn,
  priceFor,
  smallestOrder,
  tradePrice,
  type PriceLine,
} from './price.ts';
import { wearMinor } from '../plan/cost.ts';
import { changedCosts, costChanges } from './what-if.ts';
import { byYear } from './years.ts';

describe('a price', () => {
  const lines: PriceLine[] = [
    { name: 'tax', share: 0.19, of: 'price' },
    { name: 'stall', share: 0.1, of: 'price' },
    { name: 'spoiled at the stall', share: 0.05, of: 'cost' },
  ];
  test('by hand: 0.84 of cost, 40 % margin, with tax and a stall', () => {
    // 84 x 1.05 = 88.2; 1 - 0.29 - 0.40 = 0.31; 88.2 / 0.31 = 284.5.
    expect(priceFor({ costMinor: 84, margin: 0.4, lines })).toBeCloseTo(284.516, 3);
    expect(priceFor({ costMinor: 84, margin: 0.75, lines })).toBeNull();
  });
  test('what stays of the price that leaves a margin is that margin of it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 900, noNaN: true }),
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        (c, m) => {
          const priceMinor = priceFor({ costMinor: c, margin: m, lines })!;
          expect(leftOfPrice({ priceMinor, costMinor: c, lines }) / priceMinor).toBeCloseTo(m, 9);
        },
      ),
    );
  });
  test('a share that is none is named', () => {
    const odd: PriceLine[] = [{ name: 'tax', share: 1.2, of: 'price' }];
    expect(() => leftOfPrice({ priceMinor: 1, costMinor: 1, lines: odd })).toThrow(/tax is 1.2/);
    expect(() => priceFor({ costMinor: 1, margin: 1, lines: [] })).toThrow(/margin is 1/);
  });
});

describe('break-even', () => {
  test('by hand: tools over what a head saves, not over its price', () => {
    // Tools for 312.00; a head bought is 1.90, made it costs 0.62: 1.28 saved, 31200 / 128 = 243.75.
    expect(breakEvenHeads({ toolsMinor: 31_200, savedMinor: 190 - 62 })).toBe(244);
    // Shared by three products each pays a third: 81.25.
    expect(breakEvenHeads({ toolsMinor: 31_200, savedMinor: 128, sharedBy: 3 })).toBe(82);
    // Divided by the price, as it is mostly done, it would be 165.
    expect(breakEvenHeads({ toolsMinor: 31_200, savedMinor: 128 })).not.toBe(Math.ceil(31_200 / 190));
    expect(breakEvenHeads({ toolsMinor: 31_200, savedMinor: 0 })).toBeNull();
    expect(breakEvenHeads({ toolsMinor: 0, savedMinor: 5 })).toBe(0);
  });
  test('wear is the price over the life; what lasts wears nothing', () => {
    // 59.00 over 20 000 heads and 45.00 over 15 000: 0.295 + 0.3.
    const tools = [
      { priceMinor: 5900, lifeHeads: 20_000 },
      { priceMinor: 4500, lifeHeads: 15_000 },
      { priceMinor: 9900, lifeHeads: null },
    ];
    expect(wearMinor(tools)).toBeCloseTo(0.595, 9);
  });
  test('the cash view reaches a month only when it does not fall below nothing again', () => {
    const month = (name: string, toolsMinor: number, boughtMinor: number, inMinor: number) => ({
      ...{ month: name, toolsMinor, boughtMinor, inMinor },
    });
    const months = [
      month('2026-01', 20_000, 9000, 0),
      month('2026-02', 0, 0, 30_000),
      month('2026-03', 0, 6000, 3000),
      month('2026-04', 0, 0, 9000),
    ];
    const { months: all, reached } = cashView(months);
    expect(all.map(({ standsMinor }) => standsMinor)).toEqual([-29_000, 1000, -2000, 7000]);
    expect(reached).toBe('2026-04');
    expect(cashView(months.slice(0, 3)).reached).toBeNull();
  });
});

test('the months of a year add up to it', () => {
  const months = ['2025-11', '2025-12', '2026-01'].map((month, at) => ({ month, heads: 10 ** at, minor: -at }));
  expect(byYear(months)).toEqual([
    { month: '2025', heads: 11, minor: -1 },
    { month: '2026', heads: 100, minor: -2 },
  ]);
  expect(byYear([])).toEqual([]);
});

test('metal of several pours adds up, and what is unexplained is what is left of all', () => {
  const pour = (chargedKg: number, headsKg: number) =>
    leadBalance({ chargedKg, headsKg, sprueBackKg: 0.4, rejectsBackKg: 0.1, drossKg: 0.02, heelKg: 0.5 });
  const flow = metalFlow([pour(3, 1.9), pour(2, 0.95)]);
  expect(flow.chargedKg).toBe(5);
  const { chargedKg, headsKg, sprueBackKg, rejectsBackKg, drossKg, heelKg, unexplainedKg } = flow;
  expect(headsKg + sprueBackKg + rejectsBackKg + drossKg + heelKg + unexplainedKg).toBeCloseTo(chargedKg, 9);
});

describe('one thing otherwise', () => {
  const input = { ...workshop(), lines: [{ product: product(10), quantity: 60 }] };
  const paid = { ...input, ways: { ...input.ways, labourMinorPerHour: 1200 } };
  const bulk = [
    { id: 'b', materialId: 'hook-2/0', supplier: 'S', pack: 1000, prices: [{ fromPacks: 1, minor: 5000 }] },
  ];
  const costs = changedCosts(paid, bulk);
  const of = (id: string) => costs.find((each) => each.id === id)!;
  test('each moves the part that it touches, in its direction', () => {
    const now = of('as it is');
    expect(of('metal dearer').stack.lead).toBeCloseTo(1.5 * now.stack.lead, 9);
    // 50.00 a thousand are 5 minor units each, one hook a head.
    expect(of('hooks in bulk').stack.hook).toBeCloseTo(5, 9);
    expect(of('no labour').stack.work).toBe(0);
    expect(of('no labour').moreMinor).toBeCloseTo(-now.stack.work, 9);
    expect(of('own cavities perfect').moreMinor).toBeLessThan(0);
    expect(of('twice as many').stack.hook).toBeCloseTo(now.stack.hook, 9);
  });
  test('what changes nothing is not shown: one coat of one layer, work that is not counted', () => {
    expect(costs.some(({ id }) => id === 'one coat less')).toBe(false);
    const ids = (labour: number, more = {}) =>
      changedCosts({ ...input, ways: { ...input.ways, labourMinorPerHour: labour }, ...more }, []).map(({ id }) => id);
    expect(ids(0)).not.toContain('no labour');
    expect(ids(1200)).not.toContain('hooks in bulk');
    const twice = product(10);
    const [layer] = twice.layers;
    const lines = [{ product: { ...twice, layers: [{ ...layer!, coats: 2 }] }, quantity: 60 }];
    // 20 s a coat at 12.00 an hour are 6.7 minor units, and the powder beside it.
    const ways = { ...input.ways, labourMinorPerHour: 1200, coatS: 20 };
    const coat = changedCosts({ ...input, lines, ways }, []).find(({ id }) => id === 'one coat less')!;
    expect(coat.moreMinor).toBeLessThan(-6.6);
    expect(coat.moreMinor).toBeGreaterThan(-9);
    expect(new Set(costChanges([]).map(({ id }) => id)).size).toBe(costChanges([]).length);
  });
});

describe('what to ask a shop, how few to make, and when the tools are paid', () => {
  const tax = [{ name: 'tax', share: 0.1, of: 'price' as const }];
  test('a shop keeps its share of what it asks: worked by hand', () => {
    // 60 minor of cost, 40 % to keep, 10 % tax: 60 / 0.5 = 120; the shop that keeps 40 % asks 200.
    expect(tradePrice({ costMinor: 60, margin: 0.4, lines: tax, shopShare: 0.4 })).toEqual({
      tradeMinor: 120,
      shelfMinor: 200,
    });
    expect(tradePrice({ costMinor: 60, margin: 0.95, lines: tax, shopShare: 0.4 })).toBeNull();
    expect(() => tradePrice({ costMinor: 60, margin: 0.4, lines: [], shopShare: 1 })).toThrow(/shop/);
  });
  test('the smallest order that leaves the margin is the smallest: tried one by one', () => {
    const costAt = (heads: number) => 55 + 900 / heads + 30 * Math.ceil(heads / 40) * (40 / heads);
    const of = { costAt, priceMinor: 250, lines: tax };
    for (const margin of [0, 0.2, 0.35, 0.4, 0.5]) {
      const found = smallestOrder({ ...of, margin });
      const leaves = (heads: number) => 250 * 0.9 - costAt(heads) >= margin * 250 - 1e-9;
      const first = Array.from({ length: 2000 }, (_, at) => at + 1).find(leaves) ?? null;
      if (first === null) expect(found).toBeNull();
      else {
        expect(leaves(found!)).toBe(true);
        // A load that is begun may make one more dearer than one less: the first that pays is within a load of it.
        expect(found! - first).toBeLessThanOrEqual(40);
      }
    }
    expect(smallestOrder({ ...of, priceMinor: 60, margin: 0.1 })).toBeNull();
    expect(smallestOrder({ ...of, priceMinor: 100_000, margin: 0.1 })).toBe(1);
  });
  test('the month in which tools are paid, by what was left of real heads; else by the last twelve months', () => {
    const month = (at: number, leftMinor: number) => ({ month: `2026-0${at}`, heads: 10, leftMinor });
    const months = [month(1, 200), month(2, -50), month(4, 350), month(5, 100)];
    expect(paidIn({ toolsMinor: 500, months, now: '2026-06' })).toEqual({ month: '2026-04', paid: true });
    // 600 in six months are 100 a month: 900 more take nine.
    expect(paidIn({ toolsMinor: 1500, months, now: '2026-06' })).toEqual({ month: '2027-03', paid: false });
    expect(paidIn({ toolsMinor: 1500, months: [month(1, -5)], now: '2026-06' })).toBeNull();
    expect(paidIn({ toolsMinor: 0, months, now: '2026-06' })).toEqual({ month: '2026-01', paid: true });
    expect(paidIn({ toolsMinor: 5, months: [], now: '2026-06' })).toBeNull();
    // What was long ago tells nothing of the pace now.
    const old = [{ month: '2020-01', heads: 9, leftMinor: 400 }, month(5, 120)];
    expect(paidIn({ toolsMinor: 640, months: old, now: '2026-06' })).toEqual({ month: '2027-06', paid: false });
  });
});
