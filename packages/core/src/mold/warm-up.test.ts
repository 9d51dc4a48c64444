import fc from 'fast-check';
import { ALUMINIUM_J_KG_K } from '../metal/materials.ts';
import { shotHeatJ } from './session.ts';
import { blankShots, moldTemperaturesC } from './warm-up.ts';

describe('blank shots', () => {
  // Common practice, no source: about 10 for micro heads, 4 to 5 usually, 2 to 3 for heavy heads, with one set of
  // defaults.
  test.each([
    [0.55, 0.06, 9, 12],
    [0.6, 0.2, 4, 5],
    [0.9, 0.35, 3, 3],
  ])('a %d kg mold with %d kg shots', (moldKg, shotKg, least, most) => {
    const { shots, ready } = blankShots({ moldKg, shotKg, metalC: 371 });
    expect(ready).toBe(true);
    expect(shots).toBeGreaterThanOrEqual(least);
    expect(shots).toBeLessThanOrEqual(most);
  });

  test('without loss, the heat of the shots is the heat in the block', () => {
    const input = { moldKg: 0.6, shotKg: 0.1, metalC: 371, lossWPerK: 0 };
    const after = moldTemperaturesC(input, 6);
    let heat = 0;
    [20, ...after].slice(0, -1).forEach((moldC) => (heat += shotHeatJ(0.1, 371, moldC)));
    const block = 0.6 * ALUMINIUM_J_KG_K * (after.at(-1)! - 20);
    expect(block / heat).toBeCloseTo(1, 9);
  });

  test('heavier shots never want more blanks; a shot too small never warms the mold', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.3, noNaN: true }), (shotKg) => {
        const { shots } = blankShots({ moldKg: 0.7, shotKg, metalC: 371 });
        expect(blankShots({ moldKg: 0.7, shotKg: shotKg * 1.2, metalC: 371 }).shots).toBeLessThanOrEqual(shots);
      }),
    );
    expect(blankShots({ moldKg: 5, shotKg: 0.01, metalC: 371 }).ready).toBe(false);
    expect(blankShots({ moldKg: 0.6, shotKg: 0.1, metalC: 371, fromC: 120 }).shots).toBe(0);
  });
});
