import { HOOK_SIZES, hookShape, typicalHook } from './hook.ts';

describe('hooks', () => {
  test('sizes run from 10 up to 10/0, each longer, wider and thicker', () => {
    const hooks = HOOK_SIZES.map((size) => typicalHook(size));
    hooks.slice(1).forEach((hook, i) => {
      expect(hook.lengthM).toBeGreaterThan(hooks[i]!.lengthM);
      expect(hook.wireM).toBeGreaterThan(hooks[i]!.wireM);
      expect(hook.massKg).toBeGreaterThan(hooks[i]!.massKg);
    });
    // Common practice, no source: a 2/0 jig hook is about 30 mm long and weighs about half a gram.
    expect(typicalHook('2/0').lengthM * 1000).toBeGreaterThan(27);
    expect(typicalHook('2/0').lengthM * 1000).toBeLessThan(34);
    expect(typicalHook('2/0').massKg * 1000).toBeLessThan(0.9);
  });

  test('the eye stands clear of the head it is cast into', () => {
    const shape = hookShape(typicalHook('1'), 60, 0.02);
    expect(Math.hypot(shape.eye.x, shape.eye.y) - shape.eye.radiusM).toBeGreaterThan(0.02);
  });
});
