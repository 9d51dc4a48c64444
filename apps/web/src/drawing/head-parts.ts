import {
  cavitySolid,
  hookShape,
  sideOutline,
  sprueOf,
  typicalHook,
  type HeadSolid,
  type HookShape,
  type HookSize,
  type StyleId,
  type Wire,
} from '@schmelz/core';
import { moved, pathOf, type Point } from './paths.ts';

export interface HeadSpec {
  style: StyleId;
  massKg: number;
  /** Null: no hook is cast in. */
  hookSize: HookSize | null;
  wire?: Wire;
  eyeAngleDeg: number;
}

export interface HeadParts {
  solid: HeadSolid;
  hook: HookShape | null;
  outline: Point[];
  /** Bounding box in metres with the hook. */
  box: { x0: number; y0: number; x1: number; y1: number };
  bodyEnd: number;
  /** Where the metal begins, m. */
  noseX: number;
}

const parts = new Map<string, HeadParts>();
/** One head like another. */
export const headKey = (spec: HeadSpec): string =>
  `${spec.style} ${spec.massKg} ${spec.hookSize} ${spec.wire} ${spec.eyeAngleDeg}`;

/** Outline and hook of a head from the core's geometry; kept, since the same head is drawn often. */
export function headParts(spec: HeadSpec): HeadParts {
  const key = headKey(spec);
  const known = parts.get(key);
  if (known) return known;
  const solid = cavitySolid(spec.style, spec.massKg);
  const outline = sideOutline(solid);
  const ys = outline.map(([, y]) => y);
  const xs = outline.map(([x]) => x);
  // The eye ring stands clear of the head: the leg is at least as long as the head is high where it leaves.
  const hook = spec.hookSize
    ? hookShape(typicalHook(spec.hookSize, spec.wire), spec.eyeAngleDeg, legInside(outline, spec.eyeAngleDeg))
    : null;
  const wireXs = hook ? [...hook.wire.map(([x]) => x), hook.eye.x - hook.eye.radiusM, hook.outerM] : [];
  const wireYs = hook
    ? [...hook.wire.map(([, y]) => y), hook.eye.y - hook.eye.radiusM, ...hook.point.map(([, y]) => y)]
    : [];
  const pad = hook?.wireM ?? 0.0005;
  const { segments, collarSegments } = solid.style;
  const made: HeadParts = {
    solid,
    hook,
    outline,
    box: {
      x0: Math.min(...xs, ...wireXs) - pad,
      x1: Math.max(...xs, ...wireXs) + pad,
      y0: Math.min(...ys, ...wireYs) - pad,
      y1: Math.max(...ys, ...wireYs) + pad,
    },
    bodyEnd: segments[segments.length - collarSegments - 1]!.x1 * solid.scaleM,
    noseX: Math.min(...xs),
  };
  parts.set(key, made);
  return made;
}

/** How far the eye leg runs inside the metal. */
function legInside(outline: readonly Point[], eyeAngleDeg: number): number {
  const angle = eyeAngleDeg === 180 ? 0 : (eyeAngleDeg * Math.PI) / 180;
  const inside = (x: number, y: number) => {
    let odd = false;
    outline.forEach(([x1, y1], i) => {
      const [x0, y0] = outline[(i + outline.length - 1) % outline.length]!;
      if (y1 > y !== y0 > y && x < ((x0 - x1) * (y - y1)) / (y0 - y1) + x1) odd = !odd;
    });
    return odd;
  };
  const step = 1e-4;
  let along = 0;
  while (along < 0.05 && inside(-Math.cos(angle) * along, -Math.sin(angle) * along)) along += step;
  return along;
}

/** The sprue on the nose, as an outline. */
export function sprueOutline({ solid, outline }: HeadParts): Point[] {
  const sprue = sprueOf(solid);
  const nose = Math.min(...outline.map(([x]) => x));
  const droop = solid.style.droop(solid.style.segments[0]!.x0) * solid.scaleM;
  const foot = nose + sprue.neckRadiusM * 0.6;
  const top = nose - sprue.heightM;
  const dome = sprue.heightM * 0.07;
  return [
    [foot, droop - sprue.neckRadiusM],
    [top, droop - sprue.topRadiusM],
    [top - dome, droop - sprue.topRadiusM * 0.55],
    [top - dome * 1.3, droop],
    [top - dome, droop + sprue.topRadiusM * 0.55],
    [top, droop + sprue.topRadiusM],
    [foot, droop + sprue.neckRadiusM],
  ];
}

interface Tones {
  shade: string;
  deep: string;
  rim: string;
}
const lit = new WeakMap<HeadParts, Tones>();

/** Light from above left, as flat tones: what lies inside the outline but outside the same outline moved; kept. */
export function tones(head: HeadParts): Tones {
  const known = lit.get(head);
  if (known) return known;
  const { outline, solid } = head;
  const r = solid.radiusM;
  const between = (dx: number, dy: number) => pathOf(outline) + pathOf(moved(outline, dx * r, dy * r));
  const made = { shade: between(-0.12, -0.22), deep: between(-0.24, -0.46), rim: between(0.09, 0.15) };
  lit.set(head, made);
  return made;
}
