import fc from 'fast-check';
import { individuals, RUN_LENGTH } from './individuals.ts';

// NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2, "Individuals control charts": ten flow rates.
const FLOW = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];

test('the worked example of the handbook: mean, mean moving range, limits', () => {
  const chart = individuals(FLOW);
  expect(chart.mean).toBeCloseTo(50.81, 2);
  expect(chart.meanRange).toBeCloseTo(1.8778, 4);
  expect(chart.upper).toBeCloseTo(55.8041, 3);
  expect(chart.lower).toBeCloseTo(45.8159, 3);
  expect(chart.signals).toEqual([]);
});

test('a value far out, a jump and a run are each named once', () => {
  const quiet = [10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10.1, 9.9, 10];
  expect(individuals([...quiet, 11], 10).signals).toEqual([{ index: 10, rule: 'beyond the limits' }]);
  const drifted = [...quiet, ...Array.from({ length: RUN_LENGTH }, () => 10.08)];
  expect(individuals(drifted, 10).signals).toContainEqual({ index: 17, rule: 'a run on one side' });
  // Within the limits both, but far from one to the next.
  const even = Array.from({ length: 8 }, (_, i) => 10 + 0.1 * (i % 2));
  expect(individuals([...even, 9.88, 10.22], 8).signals).toEqual([{ index: 9, rule: 'a jump' }]);
});

test('far below counts like far above; a value on its limit does not', () => {
  const quiet = [10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10.1, 9.9, 10];
  expect(individuals([...quiet, 9], 10).signals).toEqual([{ index: 10, rule: 'beyond the limits' }]);
  // By hand: 0, 1, 0, 1 has a mean of 0.5 and ranges of 1, so limits of 0.5 ± 3 / 1.128, and ranges up to 3.267.
  const even = [0, 1, 0, 1, 0, 1, 0, 1];
  const chart = individuals(even);
  expect(chart.upper).toBeCloseTo(0.5 + 3 / 1.128, 12);
  expect(chart.rangeUpper).toBeCloseTo(3.267, 12);
  expect(chart.ranges).toEqual([1, 1, 1, 1, 1, 1, 1]);
  expect(individuals([...even, chart.upper], 8).signals).toEqual([]);
  expect(individuals([...even, chart.lower], 8).signals).toEqual([]);
  expect(individuals([...even, chart.upper + 1e-9], 8).signals).toHaveLength(1);
});

test('a run is eight on one side of the mean, begun anew by one on the other or on it', () => {
  const base = [1, -1, 1, -1, 1, -1];
  const runs = (...values: number[]) => individuals([...base, ...values], 6).signals.map(({ index }) => index - 5);
  const [up, down] = [0.2, -0.2];
  const times = (count: number, value: number) => Array.from({ length: count }, () => value);
  expect(runs(...times(7, up))).toEqual([]);
  expect(runs(...times(8, up))).toEqual([8]);
  expect(runs(...times(20, up))).toEqual([8]);
  expect(runs(up, ...times(7, down))).toEqual([]);
  expect(runs(...times(7, up), 0, ...times(7, up))).toEqual([]);
  expect(runs(...times(7, up), down, ...times(7, up))).toEqual([]);
  expect(runs(up, ...times(8, down))).toEqual([9]);
});

test('shifting and scaling all weights shifts and scales the chart', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 1, max: 100, noNaN: true }), { minLength: 2, maxLength: 40 }),
      fc.double({ min: 0.1, max: 10, noNaN: true }),
      (values, by) => {
        const [one, other] = [individuals(values), individuals(values.map((value) => value * by + 3))];
        expect(other.upper).toBeCloseTo(one.upper * by + 3, 6);
        expect(other.lower).toBeCloseTo(one.lower * by + 3, 6);
      },
    ),
  );
});

test('fewer than two weighings are refused', () => {
  expect(() => individuals([1])).toThrow('weighings is 1; allowed: two or more');
});
