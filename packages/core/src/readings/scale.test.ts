import { shownOn, WORLD_SCALES } from '@schmelz/worlds';
import { onScale } from './scale.ts';

const weights = (...grams: number[]) => grams.map((g, i) => ({ at: i * 1000, kg: g / 1000 }));

describe('what a scale says', () => {
  test('nothing read, nothing on it', () => {
    expect(onScale([])).toBeNull();
    expect(onScale(weights(0, 0.01, 0))).toMatchObject({ empty: true, steady: false });
  });
  test('steady once three readings agree to its step, and then it is their mean', () => {
    expect(onScale(weights(0, 9.2, 10.61))!.steady).toBe(false);
    expect(onScale(weights(9.2, 10.61, 10.62))!.steady).toBe(false);
    const settled = onScale(weights(9.2, 10.61, 10.62, 10.6))!;
    expect(settled.steady).toBe(true);
    expect(settled.kg).toBeCloseTo(0.01061, 8);
    expect(onScale(weights(10.61, 10.62, 10.6, 4))!.steady).toBe(false);
  });
  // What a scale in a shed does the model does not know: how slow, how coarse, how restless it is.
  test.each(WORLD_SCALES)('of %o it says what lies on it, and not while it still moves', (scale) => {
    for (const trueKg of [0.00243, 0.0107, 0.0573, 0.2268]) {
      const shown = shownOn(scale, trueKg, 12, Math.round(1e6 * trueKg));
      const said = shown.map((_, i) =>
        onScale(shown.slice(Math.max(0, i - 31), i + 1).map(({ atS, kg }) => ({ at: 1000 * atS, kg }))),
      );
      const first = said.findIndex((each) => each!.steady);
      expect(first).toBeGreaterThan(0);
      expect(shown[first]!.atS).toBeLessThan(11);
      // What its zero has crept nobody can know; else four of its steps, or a tenth of a percent.
      const off = Math.abs(said[first]!.kg - scale.zeroKg - trueKg);
      expect(off).toBeLessThanOrEqual(Math.max(4 * scale.stepKg, 0.001 * trueKg));
    }
  });
  test('a reading that no bench scale gives is refused by name', () => {
    expect(() => onScale([{ at: 0, kg: 500 }])).toThrow(/weight is 500\u00a0kg/);
  });
});
