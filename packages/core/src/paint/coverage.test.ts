import { LEAD_SOLID_KG_M3 } from '../metal/materials.ts';
import { KG_PER_POUND, M_PER_INCH } from '../quantity/units.ts';
import { powderKg } from './coverage.ts';

const ballAreaM2 = (massKg: number) => 4 * Math.PI * Math.cbrt((3 * massKg) / LEAD_SOLID_KG_M3 / (4 * Math.PI)) ** 2;

describe('powder', () => {
  // The powder-coating industry's published formula: 192.3 ft2 a pound for one mil at specific gravity 1.
  test('192.3 square feet a pound', () => {
    const foot = 12 * M_PER_INCH;
    const kg = powderKg({ paintedAreaM2: (192.3 * foot * foot) / 100, filmM: M_PER_INCH / 1000, specificGravity: 1 });
    expect((100 * kg) / KG_PER_POUND).toBeCloseTo(1, 3);
  });
  // 100 um of specific gravity 1.5 on a ball, worked by hand.
  test.each([
    [0.0142, 0.084],
    [0.0018, 0.021],
    [0.0567, 0.212],
  ])('a ball of %d kg takes %d g', (massKg, grams) => {
    const kg = powderKg({ paintedAreaM2: ballAreaM2(massKg), filmM: 100e-6, specificGravity: 1.5 });
    expect(kg * 1000).toBeCloseTo(grams, 3);
  });
  test('what is shaken off is taken from the jar too', () => {
    const input = { paintedAreaM2: 6e-4, filmM: 1e-4, specificGravity: 1.5 };
    expect(powderKg({ ...input, transferEfficiency: 0.5 })).toBeCloseTo(2 * powderKg(input), 12);
    expect(() => powderKg({ ...input, transferEfficiency: 0 })).toThrow(/transferEfficiency is 0/);
  });
});
