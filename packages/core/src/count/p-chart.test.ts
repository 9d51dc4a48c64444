import { seeded } from '../random/seeded.ts';
import { pareto, pChart } from './p-chart.ts';

// NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.3.2, its worked example: 30 wafers of 50 chips (from memory).
const WAFERS = [
  ...[12, 15, 8, 10, 4, 7, 16, 9, 14, 10, 5, 6, 17, 12, 22],
  ...[8, 10, 5, 13, 11, 20, 18, 24, 15, 9, 12, 7, 13, 9, 6],
];

test('the worked example of the handbook: its mean, its limits and the two wafers outside', () => {
  const { mean, points } = pChart(WAFERS.map((bad) => ({ casts: 50, bad })));
  expect(mean).toBeCloseTo(0.2313, 4);
  expect(points[0]!.high).toBeCloseTo(0.4102, 3);
  expect(points[0]!.low).toBeCloseTo(0.0524, 3);
  expect(points.flatMap(({ signal }, at) => (signal === 'more than chance gives' ? [at + 1] : []))).toEqual([15, 23]);
});
test('nine in a row on one side are a signal, eight are none; one on the mean breaks the row', () => {
  const chart = (bad: number[]) => pChart(bad.map((each) => ({ casts: 100, bad: each }))).points.map((p) => p.signal);
  const nine = [...Array<number>(9).fill(11), ...Array<number>(9).fill(9)];
  expect(chart(nine)[7]).toBeNull();
  expect(chart(nine)[8]).toBe('9 in a row above what is expected');
  expect(chart(nine)[17]).toBe('9 in a row below what is expected');
  const broken = [...Array<number>(4).fill(11), 10, ...Array<number>(4).fill(11), ...Array<number>(8).fill(9)];
  expect(chart(broken).filter(Boolean)).toEqual([]);
});
test('small lots have wide limits, never below nothing or above all; what cannot be is named', () => {
  const { points } = pChart([
    { casts: 5, bad: 4 },
    { casts: 500, bad: 50 },
  ]);
  expect(points[0]!.high - points[0]!.low).toBeGreaterThan(points[1]!.high - points[1]!.low);
  expect(points[0]!.low).toBe(0);
  expect(pChart([]).mean).toBe(0);
  expect(() => pChart([{ casts: 3, bad: 4 }])).toThrow(/bad is 4/);
});
test('a hard mold is no bad evening: limits are about what its cavities give on the whole', () => {
  const evening = (bad: number, share: number) => ({ casts: 100, bad, expected: 100 * share });
  const year = Array.from({ length: 20 }, (_, at) => (at % 5 === 4 ? evening(34, 0.34) : evening(10, 0.1)));
  const signalsOf = (points: typeof year) => pChart(points).points.flatMap(({ signal }, at) => (signal ? [at] : []));
  // Against the mean of all, 0.148 ± 0.107, each evening of the hard mold would be a signal; worked by hand.
  expect(pChart(year.map(({ casts, bad }) => ({ casts, bad }))).points[4]!.signal).toBe('more than chance gives');
  expect(signalsOf(year)).toEqual([]);
  expect(pChart(year).points[4]!.high).toBeCloseTo(0.34 + 3 * Math.sqrt((0.34 * 0.66) / 100), 10);
  // One that is bad for what it is, is one: 0.1 ± 0.09.
  expect(signalsOf(year.map((each, at) => (at === 7 ? evening(20, 0.1) : each)))).toEqual([7]);
  expect(() => pChart([{ casts: 3, bad: 1, expected: 4 }])).toThrow(/expected is 4/);
});
test('causes stand by how often they come, and add up to all of them', () => {
  const rows = pareto({ pits: 1, short: 6, none: 0, 'eye full': 3 });
  expect(rows.map(({ cause }) => cause)).toEqual(['short', 'eye full', 'pits']);
  expect(rows.map(({ upTo }) => Math.round(100 * upTo))).toEqual([60, 90, 100]);
});

describe('of evenings that differ by themselves', () => {
  const random = seeded(11);
  const draws = (casts: number, share: number) =>
    Array.from({ length: casts }, random).filter((draw) => draw < share).length;
  /** A year of 60 pours; the yield of each evening differs by so much. */
  const year = (differs: number) =>
    Array.from({ length: 60 }, () => ({ casts: 100, bad: draws(100, 0.2 + differs * (random() - 0.5)) }));
  const outside = (differs: number, evenings: boolean) => {
    const years = Array.from({ length: 60 }, () => pChart(year(differs), evenings).points);
    const beyond = years.map((points) => points.filter(({ share, low, high }) => share > high || share < low).length);
    return beyond.reduce((sum, count) => sum + count, 0) / (60 * 60);
  };
  test('limits of chance alone cry out of nothing, those by neighbours seldom', () => {
    expect(outside(0.3, false)).toBeGreaterThan(0.05);
    expect(outside(0.3, true)).toBeLessThan(0.01);
    // Where evenings are alike, both are the same chart, three standard deviations wide.
    expect(Math.abs(outside(0, true) - outside(0, false))).toBeLessThan(0.005);
  });
  test('an evening that went wrong is found all the same', () => {
    const points = [...year(0.1), { casts: 100, bad: 65 }, ...year(0.1)];
    expect(pChart(points, true).points[60]!.signal).toBe('more than chance gives');
  });
});
