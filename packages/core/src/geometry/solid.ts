import { LEAD_SOLID_AT_MELTING_KG_M3, LEAD_SOLID_KG_M3 } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';
import { halfHeightAt, segmentArea, segmentVolume, type Segment } from './segments.ts';
import { headStyle, type HeadStyle } from './styles.ts';

/** One head, in metres: the same solid gives its weight, its picture, its paint and its freezing time. */
export interface HeadSolid {
  style: HeadStyle;
  /** Metres per unit of the style. */
  scaleM: number;
  volumeM3: number;
  /** Surface that touches the mold. */
  cooledAreaM2: number;
  /** Surface that takes powder: all but the collar. */
  paintedAreaM2: number;
  /** V/A: what decides how long it takes to freeze. */
  modulusM: number;
  /** From the gate at the nose to the tip of the collar. */
  flowLengthM: number;
  /** Thinnest diameter the metal has to run through: the tip of the collar. */
  thinnestM: number;
  /** Largest half height of the body. */
  radiusM: number;
}

/**
 * Half width over half height of a style's segment: collars are round, whatever the body.
 * @example segmentDepth(headStyle('ball'), 0) // 1
 */
export const segmentDepth = (style: HeadStyle, index: number): number =>
  index < style.segments.length - style.collarSegments ? style.depth : 1;

/** Areas of the steps between segments and of the end, seen along the shank. */
const stepAreas = (segments: readonly { segment: Segment; depth: number }[]): number => {
  let area = 0;
  let last = 0;
  for (const { segment, depth } of segments) {
    const start = depth * Math.PI * halfHeightAt(segment, segment.x0) ** 2;
    area += Math.abs(start - last);
    last = depth * Math.PI * halfHeightAt(segment, segment.x1) ** 2;
  }
  return area + last;
};

/**
 * A head of this style and volume.
 * @param volumeM3 1e-9 to 1e-3 m3 (0.01 g to 11 kg of lead)
 * @example headSolid('ball', 1e-6).modulusM // 0.001864
 * @throws QuantityError outside the range; RangeError for an unknown style
 */
export function headSolid(styleId: string, volumeM3: number): HeadSolid {
  inRange('volumeM3', volumeM3, 'm3', 1e-9, 1e-3);
  const unit = unitSolid(headStyle(styleId));
  const scaleM = Math.cbrt(volumeM3 / unit.volume);
  const cooledAreaM2 = unit.area * scaleM ** 2;
  return {
    style: unit.style,
    scaleM,
    volumeM3,
    cooledAreaM2,
    paintedAreaM2: unit.painted * scaleM ** 2,
    modulusM: volumeM3 / cooledAreaM2,
    flowLengthM: unit.length * scaleM,
    thinnestM: unit.thinnest * scaleM,
    radiusM: unit.radius * scaleM,
  };
}

interface UnitSolid {
  style: HeadStyle;
  volume: number;
  area: number;
  painted: number;
  length: number;
  thinnest: number;
  radius: number;
}
const unitSolids = new WeakMap<HeadStyle, UnitSolid>();

/** A style in its own units: its areas are long sums, and every head of it is the same solid, larger or smaller. */
function unitSolid(style: HeadStyle): UnitSolid {
  const known = unitSolids.get(style);
  if (known) return known;
  const segments = style.segments.map((segment, index) => ({ segment, depth: segmentDepth(style, index) }));
  const lateral = segments.map(({ segment, depth }) => segmentArea(segment, depth));
  const sum = (parts: readonly number[]) => parts.reduce((total, part) => total + part, 0);
  const bodySegments = segments.length - style.collarSegments;
  const first = segments[0]!.segment;
  const last = segments.at(-1)!.segment;
  const unit = {
    style,
    volume: sum(segments.map(({ segment, depth }) => segmentVolume(segment, depth))),
    area: sum(lateral) + stepAreas(segments),
    painted: sum(lateral.slice(0, bodySegments)) + stepAreas(segments.slice(0, bodySegments)),
    length: last.x1 - first.x0,
    thinnest: 2 * halfHeightAt(last, last.x1),
    radius: Math.max(...outlineProfile(style).map(([, r]) => r)),
  };
  unitSolids.set(style, unit);
  return unit;
}

/**
 * The cavity that is stamped with this mass: its volume is that mass of just-frozen soft lead.
 * @example 1e6 * cavityVolumeM3(0.0142) // 1.286
 */
export const cavityVolumeM3 = (nominalMassKg: number): number =>
  inRange('nominalMassKg', nominalMassKg, 'kg', 1e-4, 2) / LEAD_SOLID_AT_MELTING_KG_M3;

/**
 * The cavity of a mold as a solid.
 * @example cavitySolid('ball', 0.0142).modulusM // 0.002027
 */
export const cavitySolid = (styleId: string, nominalMassKg: number): HeadSolid =>
  headSolid(styleId, cavityVolumeM3(nominalMassKg));

/**
 * The cooled head at room temperature: a little smaller than its cavity.
 * @example 1000 * coldHeadSolid('ball', 0.0142).radiusM // 6.545
 */
export const coldHeadSolid = (styleId: string, leadMassKg: number): HeadSolid =>
  headSolid(styleId, inRange('leadMassKg', leadMassKg, 'kg', 1e-4, 2) / LEAD_SOLID_KG_M3);

/**
 * (x, half height) along a style, in its own units: fine where it curves, both sides of every step.
 * @example outlineProfile(headStyle('ball'), 2).length // 11
 */
export function outlineProfile(style: HeadStyle, perZone = 28): [number, number][] {
  const points: [number, number][] = [];
  for (const segment of style.segments) {
    if (segment.kind === 'frustum') {
      points.push([segment.x0, segment.r0], [segment.x1, segment.r1]);
      continue;
    }
    const angle = (x: number) => Math.acos(Math.max(-1, Math.min(1, (x - segment.xc) / segment.a)));
    const from = angle(segment.x0);
    const to = angle(segment.x1);
    for (let i = 0; i <= perZone; i++) {
      const x = segment.xc + segment.a * Math.cos(from + ((to - from) * i) / perZone);
      points.push([x, halfHeightAt(segment, x)]);
    }
  }
  return points;
}

/**
 * Closed outline seen from the side, metres, y down: what is drawn.
 * @example sideOutline(headSolid('ball', 1e-6)).length // 74
 */
export function sideOutline(solid: HeadSolid): [number, number][] {
  const { style, scaleM } = solid;
  const profile = outlineProfile(style);
  const upper = profile.map(([x, r]): [number, number] => [x * scaleM, (style.droop(x) - r) * scaleM]);
  const lower = profile.map(([x, r]): [number, number] => [x * scaleM, (style.droop(x) + r) * scaleM]);
  return [...upper, ...lower.reverse()];
}

/**
 * Width of the ball that weighs as much: what a hook passes through, and what a head takes on a rack.
 * @example 1000 * headWidthM(0.0142) // 13.37
 */
export const headWidthM = (leadKg: number): number => 2 * Math.cbrt((3 * leadKg) / (4 * Math.PI * LEAD_SOLID_KG_M3));
