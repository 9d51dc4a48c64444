import { jStat } from 'jstat';
import { mean, sampleStandardDeviation } from 'simple-statistics';
import { seeded } from '../random/seeded.ts';
import { reorderPoint } from './reorder.ts';
import { toBuy } from './to-buy.ts';

test('the textbook form, reckoned by other libraries', () => {
  const weekly = [40, 55, 0, 62, 48, 80, 35, 51];
  for (const [service, days] of [
    [0.95, 10],
    [0.99, 3],
    [0.8, 21],
  ] as const) {
    const z = jStat.normal.inv(service, 0, 1);
    const expected = mean(weekly) * (days / 7) + z * sampleStandardDeviation(weekly) * Math.sqrt(days / 7);
    expect(reorderPoint({ weekly, days, service })!.at).toBeCloseTo(expected, 1);
  }
});
test('of evenings like those before, some nineteen waits in twenty are got through', () => {
  const random = seeded(7);
  const week = () => Array.from({ length: 40 }, random).filter((draw) => draw < 0.4).length;
  let held = 0;
  for (let nth = 0; nth < 2000; nth++) {
    const { at } = reorderPoint({ weekly: Array.from({ length: 26 }, week), days: 14 })!;
    if (week() + week() <= at) held += 1;
  }
  expect(held / 2000).toBeGreaterThan(0.92);
  expect(held / 2000).toBeLessThan(0.985);
});
test('what was never used, or for one week only, has no point; what is out of range is named', () => {
  expect(reorderPoint({ weekly: [0, 0, 0], days: 5 })).toBeNull();
  expect(reorderPoint({ weekly: [5], days: 5 })).toBeNull();
  expect(() => reorderPoint({ weekly: [1, -1], days: 5 })).toThrow(/used in a week is -1/);
  expect(() => reorderPoint({ weekly: [1, 1], days: 400 })).toThrow(/days is 400/);
  expect(() => reorderPoint({ weekly: [1, 1], days: 4, service: 1 })).toThrow(/service is 1/);
});

test('what is short for the open work is bought, and stock beside it where little would be left', () => {
  const hooks = { materialId: 'hook', need: 50, weekly: [70, 70, 70, 70], days: 7 };
  const buy = (here: number) => toBuy([{ ...hooks, here }])[0]!;
  // 70 a week, ordered at 70; 28 days more are 280: 350 and what is short.
  expect(buy(20)).toMatchObject({ free: -30, buy: 380, why: 'short' });
  expect(buy(100)).toMatchObject({ free: 50, buy: 300, why: 'low' });
  expect(buy(121)).toMatchObject({ free: 71, buy: 0, why: 'enough' });
  // Never used: what is short, and as much as its kind is to have.
  expect(toBuy([{ ...hooks, weekly: [], here: 60, lowAt: 25 }])[0]).toMatchObject({ buy: 15, why: 'low' });
  expect(toBuy([{ ...hooks, weekly: [], here: 80, lowAt: 25 }])[0]).toMatchObject({ buy: 0, why: 'enough' });
  // Never used: only what is short.
  expect(toBuy([{ ...hooks, weekly: [], here: 20 }])[0]).toMatchObject({ buy: 30, point: null, why: 'short' });
});
