import { niceStep, roundAxis, steps, timeTicks } from './chart.ts';

test.each([
  [10, 2],
  [33, 10],
  [300, 50],
  [1.2, 0.2],
])('a scale to %d is marked every %d', (top, step) => expect(niceStep(top)).toBeCloseTo(step, 9));

test('marks run from nothing to the top', () => {
  expect(steps(100, 25)).toEqual([0, 25, 50, 75, 100]);
  expect(steps(0.3, 0.1)).toHaveLength(4);
});

test.each([
  ['a quarter of an hour', 15],
  ['two hours', 120],
  ['a day', 1440],
  ['a fortnight', 20_160],
])('%s has four to nine marks, on whole steps of the clock', (_, minutes) => {
  const from = new Date(2026, 2, 6, 17, 3, 41).getTime();
  const ticks = timeTicks(from, from + minutes * 60_000);
  expect(ticks.length).toBeGreaterThanOrEqual(4);
  expect(ticks.length).toBeLessThanOrEqual(9);
  for (const tick of ticks) {
    expect(tick).toBeGreaterThanOrEqual(from);
    expect(new Date(tick).getSeconds()).toBe(0);
  }
});

test('an axis goes from round number to round number, with round numbers between', () => {
  expect(roundAxis(10.44, 10.93)).toEqual({ domain: [10.4, 11], ticks: [10.4, 10.5, 10.6, 10.7, 10.8, 10.9, 11] });
  expect(roundAxis(0, 0.23).ticks).toEqual([0, 0.05, 0.1, 0.15, 0.2, 0.25]);
  expect(roundAxis(100, 700).domain).toEqual([100, 700]);
});
