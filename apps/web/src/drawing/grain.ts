import { seeded } from '@schmelz/core';
import type { HeadParts } from './head-parts.ts';
import { dotsPath, pathOf, type Point } from './paths.ts';

const thrown = new Map<string, ReturnType<typeof grain>>();
/** The grain of a head, thrown once and kept: the same head is drawn often. */
export function grainOf(head: HeadParts, key: string, seed: number) {
  const known = thrown.get(key) ?? grain(head, seed);
  thrown.set(key, known);
  return known;
}

/** Grain of the edge between base and back, speckle and flake: thrown by a seeded hand, the same every time. */
export function grain(head: HeadParts, seed: number) {
  const random = seeded(seed);
  const { solid, outline, bodyEnd } = head;
  const x0 = Math.min(...outline.map(([x]) => x));
  const r = solid.radiusM;
  const edge = -0.08 * r;
  const anywhere = (least: number, most: number) => ({
    x: x0 + random() * (bodyEnd - x0),
    y: (random() * 2 - 1) * r,
    r: (least + (most - least) * random() ** 2) * r,
  });
  const near = (side: 1 | -1) => ({
    x: x0 + random() * (bodyEnd - x0),
    y: edge + side * random() ** 1.8 * 0.55 * r,
    r: (0.025 + 0.035 * random()) * r,
  });
  const many = <T>(count: number, make: () => T) => Array.from({ length: count }, make);
  const backEdge: Point[] = many(18, () => 0).map((_, i) => [
    x0 - r * 0.1 + ((bodyEnd - x0 + r) * i) / 17,
    edge + (random() - 0.5) * 0.1 * r,
  ]);
  const back: Point[] = [...backEdge, [bodyEnd + 2 * r, -3 * r], [x0 - r, -3 * r]];
  // A nose that was dipped: its edge stands across the head.
  const noseAt = x0 + 0.36 * (bodyEnd - x0);
  const noseEdge: Point[] = many(14, () => 0).map((_, i) => [
    noseAt + (random() - 0.5) * 0.09 * r,
    -1.6 * r + (3.2 * r * i) / 13,
  ]);
  const atNose = (side: 1 | -1) => ({
    x: noseAt + side * random() ** 1.8 * 0.4 * r,
    y: (random() * 2 - 1) * r,
    r: (0.025 + 0.035 * random()) * r,
  });
  const both = many(320, () => anywhere(0.024, 0.06));
  return {
    nosePath: pathOf([...noseEdge, [x0 - 2 * r, 1.6 * r], [x0 - 2 * r, -1.6 * r]]),
    noseDots: dotsPath(many(24, () => atNose(1))),
    backPath: pathOf(back),
    backDots: dotsPath(many(46, () => near(1))),
    baseDots: dotsPath(many(22, () => near(-1))),
    speckles: dotsPath(many(34, () => anywhere(0.03, 0.085))),
    /** Fine metal in a metallic powder: light and dark points. */
    glints: dotsPath(many(60, () => anywhere(0.016, 0.034))),
    shadows: dotsPath(many(44, () => anywhere(0.016, 0.034))),
    /** Tooth of a matte surface. */
    tooth: dotsPath(many(110, () => anywhere(0.012, 0.022))),
    /** Grains of the two powders of a mixture, each by its share. */
    grains: (share: number) => dotsPath(both.slice(0, Math.round(150 * share))),
    seconds: (share: number) => dotsPath(both.slice(150, 150 + Math.round(170 * share))),
    flakes: many(40, () => anywhere(0.045, 0.08))
      .map(({ x, y, r: size }) => {
        const turn = random() * 6.28;
        const corner = (k: number): Point => {
          const reach = size * (k % 2 ? 0.55 : 1);
          return [x + reach * Math.cos(turn + k * 1.57), y + reach * Math.sin(turn + k * 1.57)];
        };
        return pathOf([corner(0), corner(1), corner(2), corner(3)]);
      })
      .join(''),
  };
}
