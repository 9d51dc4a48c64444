import { HOOK_SIZES, hookMassKg, hookShape, typicalHook } from './hook.ts';

describe('hooks', () => {
  test('sizes run from 10 up to 10/0, each longer, wider and thicker', () => {
    const hooks = HOOK_SIZES.map((size) => typicalHook(size));
    hooks.slice(1).forEach((hook, i) => {
      expect(hook.lengthM).toBeGreaterThan(hooks[i]!.lengthM);
      expect(hook.wireM).toBeGreaterThan(hooks[i]!.wireM);
      expect(hook.massKg).toBeGreaterThan(hooks[i]!.massKg);
    });
  });

  // Hooks as they are sold, weighed ten at a time and laid along a ruler. From memory, 20 %.
  test.each([
    ['2', 0.3, 28],
    ['1/0', 0.58, 33],
    ['3/0', 0.95, 39],
    ['5/0', 1.7, 48],
    ['7/0', 3, 60],
    ['10/0', 8.5, null],
  ] as const)('size %s weighs about %s g', (size, grams, mm) => {
    const hook = typicalHook(size);
    expect(Math.abs(hook.massKg * 1000 - grams)).toBeLessThan(0.2 * grams);
    if (mm !== null) expect(Math.abs(hook.lengthM * 1000 - mm)).toBeLessThan(0.1 * mm);
    // Steel wire of that length and thickness weighs that much: 2.2 lengths of it, 7850 kg/m3.
    expect(7850 * 2.2 * hook.lengthM * Math.PI * (hook.wireM / 2) ** 2).toBeCloseTo(hook.massKg, 9);
    // A jig hook of a size this common is of wire between 0.5 and 3 mm.
    expect(hook.wireM).toBeGreaterThan(0.0005);
    expect(hook.wireM).toBeLessThan(0.003);
  });

  test('heavier wire weighs more, and the scale outranks the table', () => {
    const [light, standard, heavy] = (['light', 'standard', 'heavy'] as const).map((wire) => typicalHook('2/0', wire));
    expect(light!.massKg).toBeLessThan(0.85 * standard!.massKg);
    expect(heavy!.massKg).toBeGreaterThan(1.15 * standard!.massKg);
    expect(hookMassKg({ size: '2/0' })).toBe(standard!.massKg);
    expect(hookMassKg({ size: '2/0', wire: 'heavy', massKg: null })).toBe(heavy!.massKg);
    expect(hookMassKg({ size: '2/0', massKg: 0.00071 })).toBe(0.00071);
    expect(() => typicalHook('12' as never)).toThrow(/hook size is 12; allowed: 10, 8/);
  });

  test('the eye stands clear of the head it is cast into', () => {
    const shape = hookShape(typicalHook('1'), 60, 0.02);
    expect(Math.hypot(shape.eye.x, shape.eye.y) - shape.eye.radiusM).toBeGreaterThan(0.02);
  });
});
