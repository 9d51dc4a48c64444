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
  test('a reading that no bench scale gives is refused by name', () => {
    expect(() => onScale([{ at: 0, kg: 500 }])).toThrow(/weight is 500 kg/);
  });
});
