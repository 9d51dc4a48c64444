import { jStat } from 'jstat';
import { byValue, roundEdges } from './by-value.ts';

test('casts fall into their stretches, the outer ones without an end; empty ones are left out', () => {
  const records = [
    { value: -3, casts: 10, bad: 1 },
    { value: 9.99, casts: 10, bad: 0 },
    { value: 10, casts: 20, bad: 5 },
    { value: 400, casts: 5, bad: 5 },
  ];
  const found = byValue(records, [0, 10, 20, 40, 80]);
  expect(found.map(({ from, to, casts, bad }) => [from, to, casts, bad])).toEqual([
    [0, 10, 20, 1],
    [10, 20, 20, 5],
    [40, 80, 5, 5],
  ]);
  expect(found.map(({ goodShare }) => goodShare)).toEqual([0.95, 0.75, 0]);
});

test('how sure a share is: the ends of the Wilson interval are where the score test is at its limit', () => {
  const { low, high } = byValue([{ value: 1, casts: 50, bad: 9 }], [0, 10])[0]!;
  const z = jStat.normal.inv(0.95, 0, 1);
  // Wilson 1927: |share - p| = z sqrt(p (1 - p) / n) at both ends.
  for (const p of [low, high]) expect(Math.abs(0.82 - p) / Math.sqrt((p * (1 - p)) / 50)).toBeCloseTo(z, 3);
});

test.each<[readonly number[], number, readonly number[]]>([
  [[53, 118], 5, [40, 60, 80, 100, 120]],
  [[371, 371], 5, [371, 372]],
  [[360, 412.5], 6, [360, 370, 380, 390, 400, 410, 420]],
  [[0.2, 0.9], 4, [0.2, 0.4, 0.6, 0.8, 1]],
])('round edges about %j, %i at most', (values, most, edges) => {
  const found = roundEdges(values, most);
  expect(found.length - 1).toBeLessThanOrEqual(most);
  expect(found[0]!).toBeLessThanOrEqual(Math.min(...values));
  expect(found.at(-1)!).toBeGreaterThan(Math.max(...values));
  expect(found.map((edge) => Number(edge.toPrecision(6)))).toEqual(edges);
});

test('edges out of order, none, and more bad ones than there were are refused', () => {
  expect(() => byValue([], [0])).toThrow(/edges is 1; allowed: two or more/);
  expect(() => byValue([], [0, 10, 10])).toThrow(/edge is 10; allowed: above 10/);
  expect(() => byValue([{ value: 1, casts: 3, bad: 4 }], [0, 10])).toThrow(/bad casts is 4/);
  expect(() => roundEdges([], 5)).toThrow(/values is none/);
});
