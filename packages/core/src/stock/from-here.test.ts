import fc from 'fast-check';
import type { SolveLp } from '../numeric/program.ts';
import { solver } from '../test/solve.ts';
import { mostFromHere, type Makeable } from './from-here.ts';

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

const small: Makeable = { id: 'small', takes: { lead: 0.01, hook: 1 }, weight: 1 };
const large: Makeable = { id: 'large', takes: { lead: 0.03, hook: 1, skirt: 1 }, weight: 1 };

test('most heads are of what takes least; most money of what is paid for it', () => {
  const here = { lead: 1, hook: 50, skirt: 20 };
  // 50 hooks: 50 small ones take 0.5 kg. By money, 3 to 1: 20 large ones and 30 small ones take 0.9 kg.
  const heads = mostFromHere([small, large], here, solve);
  expect(heads.worth).toBe(50);
  expect(heads.runsOut).toContain('hook');
  const money = mostFromHere([small, { ...large, weight: 3 }], here, solve);
  expect(money.heads).toEqual([
    { id: 'small', count: 30 },
    { id: 'large', count: 20 },
  ]);
  expect(money.runsOut.sort()).toEqual(['hook', 'skirt']);
  expect(money.left['lead']).toBeCloseTo(0.1, 9);
  // No more than so many of one thing are wanted.
  expect(mostFromHere([{ ...small, most: 7 }], here, solve).heads).toEqual([{ id: 'small', count: 7 }]);
  expect(mostFromHere([{ ...small, most: 7 }], here, solve).runsOut).toEqual([]);
});
test('what is not there makes nothing, and is named; what takes nothing says nothing', () => {
  expect(mostFromHere([large], { lead: 5, hook: 50 }, solve)).toMatchObject({
    heads: [],
    runsOut: ['skirt'],
    worth: 0,
  });
  expect(mostFromHere([{ id: 'air', takes: {}, weight: 1 }], {}, solve).heads).toEqual([]);
  expect(() => mostFromHere([{ ...small, weight: -1 }], {}, solve)).toThrow(/weight of small is -1/);
});

test('of 150 small shelves nothing better is found by trying every mix', () => {
  const takes = fc.record({ a: fc.integer({ min: 0, max: 3 }), b: fc.integer({ min: 0, max: 3 }) });
  const one = (id: string) =>
    fc.record({
      id: fc.constant(id),
      takes,
      weight: fc.integer({ min: 1, max: 9 }),
      most: fc.integer({ min: 0, max: 8 }),
    });
  fc.assert(
    fc.property(
      fc.tuple(one('x'), one('y'), one('z')),
      fc.record({ a: fc.integer({ min: 0, max: 12 }), b: fc.integer({ min: 0, max: 12 }) }),
      (products, here) => {
        const real = products.filter((each) => each.takes.a + each.takes.b > 0);
        let best = 0;
        const tryAt = (at: number, a: number, b: number, worth: number) => {
          best = Math.max(best, worth);
          const product = real[at];
          if (!product) return;
          for (let n = 0; n <= product.most; n++) {
            const [usedA, usedB] = [a - n * product.takes.a, b - n * product.takes.b];
            if (usedA < 0 || usedB < 0) break;
            tryAt(at + 1, usedA, usedB, worth + n * product.weight);
          }
        };
        tryAt(0, here.a, here.b, 0);
        const found = mostFromHere(products, here, solve);
        expect(found.worth).toBe(best);
        expect(found.boundWorth).toBeGreaterThanOrEqual(found.worth);
        expect(Object.values(found.left).every((left) => left >= 0)).toBe(true);
      },
    ),
    { numRuns: 150 },
  );
});
