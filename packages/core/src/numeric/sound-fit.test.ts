import { fitLeastSquares, soundFit, type FitResult, type Parameter } from './least-squares.ts';

const parameter = (more: Partial<Parameter> = {}): Parameter => ({
  ...{ name: 'loss', start: 0.5, priorSd: 1, min: 0.1, max: 2 },
  ...more,
});
const found = (value: number, more: Partial<FitResult> = {}): FitResult => ({
  ...{ parameters: [{ name: 'loss', value, sd: 0.01 }], rms: 1, points: 40, rounds: 5 },
  ...more,
});
const sound = (fit: FitResult) => () => soundFit(fit, [parameter()], 'K', 8);

describe('a fit that is one', () => {
  test('lies well inside of its range', () => {
    for (const value of [0.11, 0.5, 1.99]) expect(sound(found(value))()).toEqual(found(value));
  });
  test('at either end of its range it is none, and says which value the readings push there', () => {
    for (const value of [0.1, 2, 0.1 + 1e-7, 2 - 1e-7])
      expect(sound(found(value))).toThrow(/loss is .*; allowed: between 0.1 and 2: the readings push it to the end/);
  });
  test('one that misses its readings by far, and one that never settled, say so', () => {
    expect(sound(found(0.5, { rms: 296.04 }))).toThrow(/misses a reading by is 296\u00a0K; allowed: up to 8/);
    expect(sound(found(0.5, { rms: 8 }))()).toBeTruthy();
    expect(sound(found(0.5, { rounds: 40 }))).toThrow(/still moving/);
  });
});

describe('least squares, against closed forms', () => {
  const xs = [0, 1, 2, 3, 4, 5, 6, 7];
  const noise = [0.3, -0.2, 0.1, -0.4, 0.2, 0.3, -0.1, -0.2];
  const ys = xs.map((x, i) => 2.5 + 1.5 * x + noise[i]!);
  const line = (starts: [number, number]) =>
    fitLeastSquares(
      [
        { name: 'a', start: starts[0], priorSd: 1e6, min: -1e3, max: 1e3 },
        { name: 'b', start: starts[1], priorSd: 1e6, min: -1e3, max: 1e3 },
      ],
      ([a, b]) => xs.map((x, i) => a! + b! * x - ys[i]!),
      0.3,
    );
  // Slope and intercept of ordinary least squares, and their standard deviations for a noise of 0.3, by the textbook.
  const n = xs.length;
  const [mx, my] = [xs, ys].map((of) => of.reduce((sum, each) => sum + each, 0) / n) as [number, number];
  const sxx = xs.reduce((sum, x) => sum + (x - mx) ** 2, 0);
  const slope = xs.reduce((sum, x, i) => sum + (x - mx) * (ys[i]! - my), 0) / sxx;
  test.each([[[0, 0]], [[100, -50]], [[-300, 7]]] as [[number, number]][])('a line from %j', (starts) => {
    const [a, b] = line(starts).parameters as [FitResult['parameters'][0], FitResult['parameters'][0]];
    expect(b.value).toBeCloseTo(slope, 6);
    expect(a.value).toBeCloseTo(my - slope * mx, 6);
    expect(b.sd).toBeCloseTo(0.3 / Math.sqrt(sxx), 4);
    expect(a.sd).toBeCloseTo(0.3 * Math.sqrt(1 / n + mx ** 2 / sxx), 4);
  });
  test('a curved valley (Rosenbrock 1960) is followed to its end at (1, 1)', () => {
    const { parameters, rms } = fitLeastSquares(
      ['x', 'y'].map((name, i) => ({ name, start: [-1.2, 1][i]!, priorSd: 1e6, min: -50, max: 50 })),
      ([x, y]) => [10 * (y! - x! ** 2), 1 - x!],
      1,
    );
    for (const { value } of parameters) expect(value).toBeCloseTo(1, 3);
    expect(rms).toBeLessThan(1e-3);
  });
});
