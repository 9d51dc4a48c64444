import fc from 'fast-check';
import { linearRegression, linearRegressionLine } from 'simple-statistics';
import { fitLeastSquares, FitStopped } from './least-squares.ts';
import { pchip } from './pchip.ts';
import { rungeKuttaWithTotal } from './runge-kutta.ts';
import { choleskyInverse, choleskySolve } from './solve.ts';

describe('monotone cubic', () => {
  // Fritsch & Carlson (1980), data of their figure 1 (RPN 14), from memory: flat to the left, steep in the middle,
  // never overshooting.
  const xs = [7.99, 8.09, 8.19, 8.7, 9.2, 10, 12, 15, 20];
  const ys = [0, 2.76429e-5, 4.37498e-2, 0.169183, 0.469428, 0.94374, 0.998636, 0.999919, 0.999994];

  test('goes through its points and never turns between them', () => {
    const curve = pchip(xs, ys);
    xs.forEach((x, i) => expect(curve.at(x)).toBeCloseTo(ys[i]!, 12));
    let last = -1;
    for (let x = 7.99; x <= 20; x += 0.01) {
      const y = curve.at(x);
      expect(y).toBeGreaterThanOrEqual(last - 1e-12);
      expect(y).toBeLessThanOrEqual(1);
      last = y;
    }
  });
  test('keeps a straight line straight, and any rising data rising', () => {
    const line = pchip([0, 1, 3, 7], [1, 3, 7, 15]);
    for (const x of [0.3, 2.2, 6.9]) expect(line.at(x)).toBeCloseTo(1 + 2 * x, 12);
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 9, noNaN: true }), { minLength: 2, maxLength: 9 }), (steps) => {
        const ups = steps.reduce<number[]>((all, step) => [...all, (all.at(-1) ?? 0) + step], []);
        const curve = pchip(
          ups.map((_, i) => i),
          ups,
        );
        for (let x = 0; x < ups.length - 1; x += 0.07) {
          expect(curve.at(x + 0.05)).toBeGreaterThanOrEqual(curve.at(x) - 1e-9);
        }
      }),
    );
  });
  test('refuses points that do not rise', () => {
    expect(() => pchip([1, 1], [2, 3])).toThrow(/rising values/);
    expect(() => pchip([1, 2, 2], [2, 3, 4])).toThrow(/rising values/);
    expect(() => pchip([1, 2, 1.5], [2, 3, 4])).toThrow(/rising values/);
    expect(() => pchip([1], [2])).toThrow(/two or more/);
    expect(() => pchip([1, 2, 3], [2, 3])).toThrow(/two or more pairs/);
  });
});

describe('least squares', () => {
  // npm simple-statistics: an ordinary straight line is the case with weak priors.
  test('agrees with a reference regression', () => {
    const points = [
      [0, 1.1],
      [1, 2.8],
      [2, 5.2],
      [3, 7.1],
      [4, 8.7],
    ];
    const reference = linearRegression(points);
    const { parameters, rms } = fitLeastSquares(
      [
        { name: 'slope', start: 0, priorSd: 1e4, min: -100, max: 100 },
        { name: 'offset', start: 0, priorSd: 1e4, min: -100, max: 100 },
      ],
      ([m, b]) => points.map(([x, y]) => y! - (m! * x! + b!)),
      1,
    );
    expect(parameters[0]!.value).toBeCloseTo(reference.m, 4);
    expect(parameters[1]!.value).toBeCloseTo(reference.b, 4);
    const line = linearRegressionLine(reference);
    const squares = points.map(([x, y]) => (y! - line(x!)) ** 2);
    expect(rms).toBeCloseTo(Math.sqrt(squares.reduce((a, b) => a + b) / 5), 5);
  });
  test('a parameter stays in its range, and is found from its very end: the model is never asked beyond it', () => {
    const asked: number[] = [];
    const fit = (truth: number, start: number) =>
      fitLeastSquares(
        [{ name: 'share', start, priorSd: 10, min: 0, max: 1 }],
        ([share]) => {
          asked.push(share!);
          return [1, 2, 3].map((x) => x * Math.sqrt(truth) - x * Math.sqrt(share!)); // no number below zero
        },
        0.001,
      ).parameters[0]!.value;
    expect(fit(0.49, 1)).toBeCloseTo(0.49, 5);
    expect(fit(0.49, 0.2)).toBeCloseTo(0.49, 5);
    expect(fit(1, 1)).toBeCloseTo(1, 6);
    expect(fit(4, 0.5)).toBeCloseTo(1, 6); // the truth lies outside: the end of the range
    expect(Math.min(...asked)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...asked)).toBeLessThanOrEqual(1);
  });
  test('a prior holds where the data say nothing; a stop is honoured', () => {
    const fit = (progress?: (share: number) => boolean) =>
      fitLeastSquares([{ name: 'x', start: 3, priorSd: 0.5, min: 0, max: 10 }], () => [0.1, -0.1], 1, progress)
        .parameters[0]!;
    expect(fit()).toMatchObject({ value: expect.closeTo(3, 6), sd: expect.closeTo(0.5, 6) });
    expect(() => fit(() => false)).toThrow(FitStopped);
  });
  test('small systems are solved, and refused where they are none', () => {
    const a = [
      [4, 2],
      [2, 3],
    ];
    const [x, y] = choleskySolve(a, [10, 9])!;
    expect([4 * x! + 2 * y!, 2 * x! + 3 * y!]).toEqual([expect.closeTo(10, 9), expect.closeTo(9, 9)]);
    expect(choleskyInverse(a)![0]![0]).toBeCloseTo(3 / 8, 12);
    expect(
      choleskySolve(
        [
          [1, 2],
          [2, 1],
        ],
        [1, 1],
      ),
    ).toBeNull();
  });
});

test('Runge-Kutta meets the closed form of decay to fourth order', () => {
  const error = (steps: number) => {
    let y = 1;
    for (let i = 0; i < steps; i++)
      y = rungeKuttaWithTotal(
        (q) => -q,
        (v) => v,
        y,
        1 / steps,
      ).value;
    return Math.abs(y - Math.exp(-1));
  };
  expect(error(10)).toBeLessThan(1e-6);
  expect(error(10) / error(20)).toBeGreaterThan(14);
});
