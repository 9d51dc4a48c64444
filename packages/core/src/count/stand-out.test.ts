import { seeded } from '../random/seeded.ts';
import { chanceOfMore, standOuts, standOutsAmong } from './stand-out.ts';

// Fisher's lady tasting tea (The Design of Experiments, 1935): 4 of 4 by chance in 1 of 70, 3 or more in 17 of 70.
test('the lady tasting tea', () => {
  expect(chanceOfMore({ heads: 4, bad: 4 }, { heads: 4, bad: 0 })).toBeCloseTo(1 / 70, 12);
  expect(chanceOfMore({ heads: 4, bad: 3 }, { heads: 4, bad: 1 })).toBeCloseTo(17 / 70, 12);
  expect(chanceOfMore({ heads: 4, bad: 0 }, { heads: 4, bad: 4 })).toBeCloseTo(1, 12);
});

test('a table worked by hand: all ways counted one by one', () => {
  // 3 bad of 5 heads against 1 of 6: of the 330 ways to lay 4 bad ones on 11 heads, 3 or more fall into the five in
  // C(5,3) C(6,1) + C(5,4) C(6,0) = 60 + 5.
  expect(chanceOfMore({ heads: 5, bad: 3 }, { heads: 6, bad: 1 })).toBeCloseTo(65 / 330, 12);
});

test('what cannot be is refused', () => {
  expect(() => chanceOfMore({ heads: 3, bad: 4 }, { heads: 6, bad: 1 })).toThrow(/bad heads of the group/);
  expect(() => standOuts([], 2)).toThrow(/level/);
});

test('a bad lot is found among others, and a good one not; one lot alone cannot stand out', () => {
  const lots = [
    { heads: 240, bad: 5 },
    { heads: 250, bad: 24 },
    { heads: 260, bad: 4 },
    { heads: 20, bad: 1 },
  ];
  expect(standOuts(lots).map(({ standsOut }) => standsOut)).toEqual([false, true, false, false]);
  expect(standOuts(lots)[1]!.rest).toEqual({ heads: 520, bad: 10 });
  expect(standOuts([{ heads: 100, bad: 60 }])[0]).toMatchObject({ chance: 1, standsOut: false });
  expect(standOuts([])).toEqual([]);
});

test('of 400 years of pure chance, one in a hundred or fewer find anything', () => {
  const random = seeded(11);
  let years = 0;
  for (let year = 0; year < 400; year++) {
    const lots = Array.from({ length: 12 }, () => {
      const heads = 30 + Math.floor(random() * 220);
      const bad = Array.from({ length: heads }, () => random() < 0.02).filter(Boolean).length;
      return { heads, bad };
    });
    if (standOuts(lots).some(({ standsOut }) => standsOut)) years += 1;
  }
  // At 1 % of 400: 4 expected; more than 10 come by chance once in 300 (Poisson).
  expect(years).toBeLessThanOrEqual(10);
});

test('like is held against like: a head that is hard to fill makes no finding of its neighbours', () => {
  const cavities = [
    { head: 'small', heads: 400, bad: 20 },
    { head: 'large', heads: 400, bad: 130 },
    { head: 'large', heads: 400, bad: 125 },
    { head: 'small', heads: 400, bad: 90 },
    { head: 'odd', heads: 400, bad: 390 },
  ];
  expect(standOutsAmong(cavities, ({ head }) => head)).toEqual([false, false, false, true, false]);
});
