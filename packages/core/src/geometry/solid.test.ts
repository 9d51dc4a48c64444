import { castMassKg } from '../cast/cast-mass.ts';
import { LEAD_SOLID_AT_MELTING_KG_M3 } from '../metal/materials.ts';
import { halfHeightAt, segmentArea, segmentVolume, zone, frustum } from './segments.ts';
import { cavitySolid, headSolid, segmentDepth, sideOutline } from './solid.ts';
import { headStyle, STYLE_IDS } from './styles.ts';
import { sprueOf } from './sprue.ts';

/** Composite Simpson over n even slices. */
function simpson(f: (x: number) => number, from: number, to: number, n = 2000): number {
  const h = (to - from) / n;
  let sum = f(from) + f(to);
  for (let i = 1; i < n; i++) sum += f(from + i * h) * (i % 2 ? 4 : 2);
  return (sum * h) / 3;
}

describe('solids against numeric integration', () => {
  test.each(STYLE_IDS)('%s: cast mass by slices of its cross section', (id) => {
    const solid = cavitySolid(id, 0.014);
    const volume = solid.style.segments.reduce((sum, segment, index) => {
      const depth = segmentDepth(solid.style, index);
      return sum + simpson((x) => Math.PI * depth * halfHeightAt(segment, x) ** 2, segment.x0, segment.x1);
    }, 0);
    const massKg = volume * solid.scaleM ** 3 * LEAD_SOLID_AT_MELTING_KG_M3;
    expect(massKg * 1000).toBeCloseTo(castMassKg({ nominalMassKg: 0.014 }) * 1000, 4);
  });

  test.each(STYLE_IDS)('%s: the drawn outline encloses the same solid', (id) => {
    // Pappus and Guldin would need the centroid; instead the half heights are read back from the drawn polygon.
    const solid = cavitySolid(id, 0.014);
    const outline = sideOutline(solid);
    const half = outline.length / 2;
    let volume = 0;
    const { segments, collarSegments } = solid.style;
    const collarX = segments[segments.length - collarSegments]!.x0 * solid.scaleM;
    for (let i = 0; i + 1 < half; i++) {
      const [x0, y0] = outline[i]!;
      const [x1, y1] = outline[i + 1]!;
      const r0 = (outline[outline.length - 1 - i]![1] - y0) / 2;
      const r1 = (outline[outline.length - 2 - i]![1] - y1) / 2;
      const depth = x0 < collarX - 1e-9 ? solid.style.depth : 1;
      volume += (Math.PI * depth * (x1 - x0) * (r0 * r0 + r0 * r1 + r1 * r1)) / 3;
    }
    expect(volume / solid.volumeM3).toBeCloseTo(1, 2);
  });

  test('areas of revolution by arc length', () => {
    for (const segment of [zone(-0.9, 0.6, 0.1, 1, 0.8), zone(-0.5, 0.5, 0, 0.7, 1.1), frustum(0, 0.2, 1, 0.7)]) {
      const slope = (x: number) => (halfHeightAt(segment, x + 1e-6) - halfHeightAt(segment, x - 1e-6)) / 2e-6;
      const numeric = simpson(
        (x) => 2 * Math.PI * halfHeightAt(segment, x) * Math.hypot(1, slope(x)),
        segment.x0 + 1e-5,
        segment.x1 - 1e-5,
      );
      expect(segmentArea(segment, 1) / numeric).toBeCloseTo(1, 3);
    }
  });

  // Archimedes: a sphere's surface is 4 pi r^2 and its volume 4/3 pi r^3; a flattened one by Knud Thomsen's formula (1
  // %).
  test('a whole ball, and one pressed flat', () => {
    const ball = zone(-1, 1, 0, 1, 1);
    expect(segmentVolume(ball, 1)).toBeCloseTo((4 / 3) * Math.PI, 12);
    expect(segmentArea(ball, 1)).toBeCloseTo(4 * Math.PI, 9);
    for (const depth of [0.48, 0.62, 1.5]) {
      const p = 1.6075;
      const thomsen = 4 * Math.PI * ((1 + depth ** p + depth ** p) / 3) ** (1 / p);
      expect(Math.abs(segmentArea(ball, depth) / thomsen - 1)).toBeLessThan(0.02);
    }
  });

  test('size goes by the cube root of mass', () => {
    const [small, large] = [cavitySolid('dart', 0.005), cavitySolid('dart', 0.04)];
    expect(large.scaleM / small.scaleM).toBeCloseTo(2, 9);
    expect(large.cooledAreaM2 / small.cooledAreaM2).toBeCloseTo(4, 9);
    expect(large.modulusM / small.modulusM).toBeCloseTo(2, 9);
  });

  test('collars are cooled but not painted; sprues are a share of the head', () => {
    for (const id of STYLE_IDS) {
      const solid = cavitySolid(id, 0.01);
      expect(solid.paintedAreaM2).toBeLessThan(solid.cooledAreaM2);
      expect(solid.flowLengthM).toBeGreaterThan(2 * solid.radiusM * 0.9);
      expect(sprueOf(solid).massKg).toBeGreaterThan(0.0005);
      expect(sprueOf(solid).massKg).toBeLessThan(0.01);
    }
  });

  test('unknown styles and sizes are refused by name', () => {
    expect(() => headStyle('cube')).toThrow(/head style is cube; allowed: ball/);
    expect(() => headSolid('ball', 0)).toThrow(/volumeM3 is 0 m3/);
  });
});
