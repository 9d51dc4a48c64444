import { frustum, zone, type Segment } from './segments.ts';

/**
 * The head styles, each in units of its own size; x runs back along the shank, 0 is where the eye leg meets the shank.
 * Shapes are this project's own; they are scaled to the cavity's volume in solid.ts.
 */
export interface HeadStyle {
  id: StyleId;
  name: string;
  /** One line for a maker who has to choose. */
  says: string;
  segments: readonly Segment[];
  /** How many of the last segments are collar: not painted where thread or a skirt grips. */
  collarSegments: number;
  /** Half width over half height of every section. */
  depth: number;
  /** How far the middle of a section hangs below the shank, as a share of size: 0 but for fish heads. */
  droop: (x: number) => number;
  /** Where an eye may be put: x, y, radius. */
  eyeSpot: readonly [number, number, number];
}

export const STYLE_IDS = ['ball', 'football', 'mushroom', 'bullet', 'dart', 'fish', 'flat'] as const;
export type StyleId = (typeof STYLE_IDS)[number];

const NECK = 0.25;

/** A collar with one barb, from x back to the tail. */
const collar = (x: number, k = 1): Segment[] => [
  frustum(x, NECK * k, x + 0.24, NECK * k),
  frustum(x + 0.24, NECK * k, x + 0.28, 0.4 * k),
  frustum(x + 0.28, 0.4 * k, x + 0.36, 0.4 * k),
  frustum(x + 0.36, 0.4 * k, x + 0.86, 0.21 * k),
];

/** A zone of an ellipse from its front tip to where it has thinned to the neck; returns it with the x where it ends. */
const body = (xc: number, a: number, b: number, from = xc - a): { zone: Segment; end: number } => {
  const end = xc + a * Math.sqrt(1 - (NECK / b) ** 2);
  return { zone: zone(from, end, xc, a, b), end };
};

const straight = () => 0;

const ball = body(0.1, 0.97, 0.97);
const football = body(0.1, 0.86, 0.86);
const fishBack = body(0.35, 0.72, 0.98, 0.35);
const dartBack = body(0.45, 0.62, 0.94, 0.45);
const flat = body(0.35, 1.45, 1.15);

const STYLES: Record<StyleId, HeadStyle> = {
  ball: {
    id: 'ball',
    name: 'Ball',
    says: 'a sphere; fills easily, sinks fast',
    segments: [ball.zone, ...collar(ball.end)],
    collarSegments: 4,
    depth: 1,
    droop: straight,
    eyeSpot: [-0.3, -0.16, 0.26],
  },
  football: {
    id: 'football',
    name: 'Football',
    says: 'wider than high; rocks on stones',
    segments: [football.zone, ...collar(football.end)],
    collarSegments: 4,
    depth: 1.5,
    droop: straight,
    eyeSpot: [-0.25, -0.12, 0.24],
  },
  mushroom: {
    id: 'mushroom',
    name: 'Mushroom',
    says: 'half a ball on a stem; a bait sits flush behind it',
    segments: [
      zone(-0.78, 0.38, 0.38, 1.16, 1.16),
      frustum(0.38, 1.16, 0.5, 1.16),
      frustum(0.5, 0.36, 1.0, 0.36),
      frustum(1.0, 0.2, 1.45, 0.18),
    ],
    collarSegments: 2,
    depth: 1,
    droop: straight,
    eyeSpot: [-0.15, -0.3, 0.26],
  },
  bullet: {
    id: 'bullet',
    name: 'Bullet',
    says: 'a long nose; slips through weed',
    segments: [zone(-1.0, 0.9, 0.9, 1.9, 1.0), frustum(0.9, 1.0, 1.55, 0.9), ...collar(1.55)],
    collarSegments: 4,
    depth: 1,
    droop: straight,
    eyeSpot: [0.2, -0.3, 0.26],
  },
  dart: {
    id: 'dart',
    name: 'Dart',
    says: 'a cone with a round back; darts aside when it is jerked',
    segments: [frustum(-1.35, 0.14, 0.45, 0.94), dartBack.zone, ...collar(dartBack.end)],
    collarSegments: 4,
    depth: 1,
    droop: straight,
    eyeSpot: [-0.05, -0.22, 0.24],
  },
  fish: {
    id: 'fish',
    name: 'Fish',
    says: 'a small fish head, flat at the sides; wants two eyes',
    segments: [zone(-1.25, 0.35, 0.35, 1.6, 0.98), fishBack.zone, ...collar(fishBack.end)],
    collarSegments: 4,
    depth: 0.62,
    droop: (x) => 0.24 * Math.max(0, (0.35 - x) / 1.6) ** 1.6,
    eyeSpot: [-0.42, -0.14, 0.26],
  },
  flat: {
    id: 'flat',
    name: 'Flat',
    says: 'a disc; sinks slowly and glides',
    segments: [flat.zone, ...collar(flat.end)],
    collarSegments: 4,
    depth: 0.48,
    droop: straight,
    eyeSpot: [-0.5, -0.24, 0.24],
  },
};

/**
 * The style with this id; throws where there is none.
 * @example headStyle('ball').name // 'Ball'
 */
export function headStyle(id: string): HeadStyle {
  const style = STYLES[id as StyleId];
  if (!style) throw new RangeError(`head style is ${id}; allowed: ${STYLE_IDS.join(', ')}`);
  return style;
}
