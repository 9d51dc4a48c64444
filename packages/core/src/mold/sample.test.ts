import { readSample, sampleFigure, type SampledHead } from './sample.ts';

const grams = (masses: number[], position: number | null = null): SampledHead[] =>
  masses.map((g, i) => ({ at: i, massKg: g / 1000, position }));
const of = (heads: SampledHead[]) => ({ heads, leadKg: 0.01, hookKg: 0.0009 });

test('a good sample says so; its mean and what it should be stand beside each other', () => {
  const input = of(grams([10.9, 10.95, 10.85, 10.9, 10.92]));
  const verdict = readSample(input)!;
  expect(verdict.says).toEqual(['As it should be: nothing to look into.']);
  expect(verdict.meanKg).toBeCloseTo(0.010904, 9);
  expect(verdict.off).toBeCloseTo(0.0004, 9);
  const figure = sampleFigure(verdict, input);
  expect(figure.low!).toBeLessThan(0.0109);
  expect(figure.high!).toBeGreaterThan(0.0109);
  expect(readSample(of([]))).toBeNull();
});

// Common practice, no source: a hard alloy also casts lighter than the weight stamped on the mold.
test('hard alloy, flash, one cavity, a drift and a single odd head are told apart', () => {
  expect(readSample(of(grams([10.5, 10.52, 10.48, 10.5])))!.says[0]).toMatch(/^All of it is 4.0 % light: a hard alloy/);
  expect(readSample(of(grams([11.4, 11.38, 11.42])))!.says[0]).toMatch(/^All of it is 5.0 % heavy: flash/);
  const two = [...grams([10.9, 10.92, 10.88], 1), ...grams([11.3, 11.28, 11.32], 2)];
  expect(readSample(of(two))!.says[0]).toMatch(/^Cavity 1 is 4.0 % lighter than its fellows/);
  expect(readSample(of(two))!.byPosition).toMatchObject([
    { position: 1, count: 3 },
    { position: 2, count: 3 },
  ]);
  const drift = [
    10.85, 10.86, 10.85, 10.87, 10.86, 10.85, 10.86, 10.87, 10.94, 10.93, 10.95, 10.94, 10.93, 10.94, 10.95, 10.94,
  ];
  expect(readSample(of(grams(drift)))!.says.join()).toMatch(/Eight in a row/);
  const odd = [10.9, 10.91, 10.9, 10.89, 10.9, 10.91, 10.9, 10.6, 10.9, 10.91, 10.9, 10.89, 10.9, 10.91, 10.9, 10.9];
  expect(readSample(of(grams(odd)))!.says.join()).toMatch(/Number 8/);
});

test('a weight that is none is refused', () => {
  expect(() => readSample(of(grams([-3])))).toThrow(/massKg is -0.003\u00a0kg/);
});
