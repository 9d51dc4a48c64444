import { hookShape, typicalHook } from './hook.ts';
import { headSolid, outlineProfile } from './solid.ts';

// Drawings are measured as with a ruler on paper: not by the numbers that drew them.

const extent = (values: readonly number[]) => Math.max(...values) - Math.min(...values);

describe('a drawn hook, by the ruler', () => {
  const dimensions = typicalHook('3/0');
  const { lengthM, gapM } = dimensions;
  const { wire, outerM, point, barb } = hookShape(dimensions, 90);
  const bend = wire.slice(2, 19);
  test('its gap is the way from shank to point side, its length from the leg to the outside of the bend', () => {
    const lowest = Math.min(...wire.map(([, y]) => y));
    expect(Math.abs(-lowest - gapM)).toBeLessThan(0.06 * gapM);
    expect(Math.abs(outerM - lengthM)).toBeLessThan(0.03 * lengthM);
    // The outside of the bend is where the drawn wire goes farthest.
    expect(Math.abs(Math.max(...wire.map(([x]) => x)) - outerM)).toBeLessThan(1e-4);
  });
  test('the bend is round: half a circle as wide as the gap, its points as far apart as a sixteenth of it', () => {
    expect(bend).toHaveLength(17);
    expect(extent(bend.map(([, y]) => y))).toBeCloseTo(gapM, 6);
    const [cx, cy] = [bend[0]![0], -gapM / 2];
    for (const [x, y] of bend) {
      const away = Math.hypot(x - cx, y - cy);
      expect(away / (gapM / 2)).toBeGreaterThan(0.95);
      expect(away / (gapM / 2)).toBeLessThan(1.001);
      // It bulges away from the shank, never back along it.
      expect(x).toBeGreaterThanOrEqual(cx - 1e-9);
    }
    const steps = bend.slice(1).map(([x, y], i) => Math.hypot(x - bend[i]![0], y - bend[i]![1]));
    for (const step of steps) expect(Math.abs(step / ((Math.PI * gapM) / 2 / 16) - 1)).toBeLessThan(0.06);
  });
  test('the point lies over the gap and looks back at the eye, the barb just behind it', () => {
    const tip = point[1]!;
    expect(tip[0]).toBeLessThan(outerM - gapM);
    expect(tip[1]).toBeLessThan(-0.95 * gapM);
    expect(tip[0]).toBeLessThan(Math.min(...barb.map(([x]) => x)));
  });
  test('an eye of 90 degrees stands across the shank, one of 180 lies along it', () => {
    const across = hookShape(dimensions, 90).eye;
    expect(Math.abs(across.x)).toBeLessThan(1e-9);
    expect(across.y).toBeLessThan(0);
    const along = hookShape(dimensions, 180).eye;
    expect(along.x).toBeLessThan(0);
    expect(Math.abs(along.y)).toBeLessThan(1e-9);
  });
});

describe('a head of one millilitre, by the ruler', () => {
  const solid = headSolid('ball', 1e-6);
  test('as wide as the ball of that volume, less what the collar takes; its thinnest is the tip of the collar', () => {
    const ball = Math.cbrt(3e-6 / (4 * Math.PI));
    expect(solid.radiusM / ball).toBeGreaterThan(0.93);
    expect(solid.radiusM / ball).toBeLessThan(1.0001);
    const profile = outlineProfile(solid.style);
    const tip = profile.at(-1)!;
    expect(solid.thinnestM).toBeCloseTo(2 * tip[1] * solid.scaleM, 9);
    expect(solid.thinnestM).toBeLessThan(solid.radiusM);
  });
  test('more of it touches the mold than takes powder: the collar does not', () => {
    // The ball alone, as far as it is drawn: at least nine tenths of a sphere as wide.
    const sphere = 4 * Math.PI * solid.radiusM ** 2;
    expect(solid.paintedAreaM2 / sphere).toBeGreaterThan(0.9);
    expect(solid.paintedAreaM2 / sphere).toBeLessThan(1.05);
    expect(solid.cooledAreaM2 - solid.paintedAreaM2).toBeGreaterThan(0.08 * sphere);
  });
});
