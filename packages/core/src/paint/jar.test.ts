import { DEFAULT_WAYS } from '../plan/ways.ts';
import fc from 'fast-check';
import { efficiencyFigure, jarFigure } from './jar-figures.ts';
import { headsInJar, jarEfficiency, jarLevel } from './jar.ts';

describe('the jar', () => {
  test('efficiency leans on the usual, then on what was weighed; it narrows', () => {
    expect(jarEfficiency([]).efficiency).toBeCloseTo(0.7, 9);
    // The plan of a new workshop and the jar begin with the same belief.
    expect(DEFAULT_WAYS.transferEfficiency).toBe(jarEfficiency([]).efficiency);
    const many = jarEfficiency(Array.from({ length: 6 }, () => ({ usedKg: 0.012, onHeadsKg: 0.009 })));
    expect(many.efficiency).toBeCloseTo(0.75, 1);
    expect(many.high - many.low).toBeLessThan(jarEfficiency([]).high - jarEfficiency([]).low);
    expect(jarEfficiency([{ usedKg: 0.001, onHeadsKg: 0.004 }]).efficiency).toBe(1);
  });
});

describe('what a jar holds', () => {
  const stays = (weighings = 0) =>
    jarEfficiency(Array.from({ length: weighings }, () => ({ usedKg: 0.02, onHeadsKg: 0.012 })));
  test('just weighed it holds what the scale said, give or take the scale', () => {
    const level = jarLevel({ lastKg: 0.2, receivedKg: 0, onHeadsKg: 0 }, stays());
    expect(level).toMatchObject({ kg: 0.2, weighed: true });
    expect(level.high - level.low).toBeLessThan(0.002);
    expect(jarFigure('White', { lastKg: 0.2, receivedKg: 0, onHeadsKg: 0 }, stays()).basis).toBe('measured');
  });
  test('since then it is an estimate that widens with every head, and less where jars were weighed', () => {
    const width = (onHeadsKg: number, weighings: number) => {
      const { low, high } = jarLevel({ lastKg: 0.2, receivedKg: 0, onHeadsKg }, stays(weighings));
      return high - low;
    };
    expect(width(0.02, 0)).toBeGreaterThan(width(0.005, 0));
    expect(width(0.02, 12)).toBeLessThan(0.5 * width(0.02, 0));
    expect(jarFigure('White', { lastKg: 0.2, receivedKg: 0, onHeadsKg: 0.01 }, stays()).basis).toBe('given');
    expect(jarFigure('White', { lastKg: 0.2, receivedKg: 0, onHeadsKg: 0.01 }, stays(3)).basis).toBe('fitted');
  });
  test('by hand: 200 g weighed, 225 g bought, 28 g on heads at seven tenths leave 385 g', () => {
    expect(jarLevel({ lastKg: 0.2, receivedKg: 0.225, onHeadsKg: 0.028 }, stays()).kg).toBeCloseTo(0.385, 9);
  });
  test('heads in a jar are whole ones, by the least that it may hold', () => {
    expect(headsInJar(0.05, 0.0002)).toBe(250);
    expect(headsInJar(0.0001, 0.0002)).toBe(0);
    expect(() => headsInJar(0.1, 0)).toThrow(/kgPerHead is 0\u00a0kg/);
  });
  test('never below empty; what is no weight is refused by name', () => {
    expect(jarLevel({ lastKg: 0.01, receivedKg: 0, onHeadsKg: 0.05 }, stays())).toMatchObject({ kg: 0, low: 0 });
    expect(() => jarLevel({ lastKg: -1, receivedKg: 0, onHeadsKg: 0 }, stays())).toThrow(/lastKg is -1\u00a0kg/);
    expect(() => jarLevel({ lastKg: 0.1, receivedKg: 0, onHeadsKg: NaN }, stays())).toThrow(/onHeadsKg is NaN/);
  });
  test('more on heads never leaves more, a better hand never less', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (last, a, b) => {
          const at = (onHeads: number, share = 0.6) =>
            jarLevel(
              { lastKg: last, receivedKg: 0, onHeadsKg: onHeads },
              { efficiency: share, low: share - 0.1, high: share + 0.1, weighings: 2 },
            ).kg;
          expect(at(Math.max(a, b))).toBeLessThanOrEqual(at(Math.min(a, b)));
          expect(at(a, 0.8)).toBeGreaterThanOrEqual(at(a, 0.5));
        },
      ),
    );
  });
  test('what stays on says what it rests on', () => {
    expect(efficiencyFigure(stays(), 0, 0)).toMatchObject({
      basis: 'given',
      why: { rule: expect.stringMatching(/No jar was weighed twice/) },
    });
    const figure = efficiencyFigure(stays(6), 0.12, 0.072);
    expect(figure).toMatchObject({ basis: 'fitted', value: expect.closeTo(0.6, 2) });
    expect(figure.low!).toBeLessThan(0.6);
  });
});
