import { STEEL_KG_M3 } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

/** Hook sizes from small to large. */
export const HOOK_SIZES = [
  '10',
  '8',
  '6',
  '4',
  '2',
  '1',
  '1/0',
  '2/0',
  '3/0',
  '4/0',
  '5/0',
  '6/0',
  '7/0',
  '8/0',
  '9/0',
  '10/0',
] as const;
export type HookSize = (typeof HOOK_SIZES)[number];

export const WIRES = ['light', 'standard', 'heavy'] as const;
export type Wire = (typeof WIRES)[number];
const WIRE_FACTOR: Record<Wire, number> = { light: 0.86, standard: 1, heavy: 1.16 };

/** Eye angles that jig hooks are sold with, degrees; 180 is a straight eye. */
export const EYE_ANGLES_DEG = [28, 30, 45, 60, 90, 180] as const;

export interface HookDimensions {
  lengthM: number;
  gapM: number;
  wireM: number;
  eyeLegM: number;
  massKg: number;
}

/**
 * Typical dimensions of a jig hook by its size number. Makers differ under one number, so this is only a default:
 * each size is 10.5 % longer than the one before it. Common practice, no source.
 */
export function typicalHook(size: HookSize, wire: Wire = 'standard'): HookDimensions {
  const step = HOOK_SIZES.indexOf(size);
  if (step < 0) throw new RangeError(`hook size is ${size}; allowed: ${HOOK_SIZES.join(', ')}`);
  const lengthM = 0.0152 * 1.105 ** step;
  const wireM = 0.00062 * 1.075 ** step * WIRE_FACTOR[wire];
  const stretchedM = lengthM * 2.2;
  return {
    lengthM,
    gapM: lengthM * 0.4,
    wireM,
    eyeLegM: lengthM * 0.235,
    massKg: STEEL_KG_M3 * Math.PI * (wireM / 2) ** 2 * stretchedM,
  };
}

/** A hook as lines to draw, metres, y down, the eye leg meeting the shank at the origin. */
export interface HookShape {
  /** Centre line of the wire from the eye ring to where the point begins. */
  wire: [number, number][];
  eye: { x: number; y: number; radiusM: number };
  point: [number, number][];
  barb: [number, number][];
  wireM: number;
  /** Farthest x of the bend. */
  outerM: number;
}

/**
 * Lines of a hook: eye leg bent up by the eye angle, straight shank, round bend, point.
 * @param legAtLeastM the eye must stand clear of the head it sits in
 */
export function hookShape(dimensions: Omit<HookDimensions, 'massKg'>, eyeAngleDeg: number, legAtLeastM = 0): HookShape {
  const { lengthM, gapM, wireM } = dimensions;
  inRange('eyeAngleDeg', eyeAngleDeg, 'degrees', 0, 180);
  const ringM = wireM * 0.55 + gapM * 0.085;
  const leg = Math.max(dimensions.eyeLegM, legAtLeastM + ringM * 1.5);
  const angle = eyeAngleDeg === 180 ? 0 : (eyeAngleDeg * Math.PI) / 180;
  const dx = -Math.cos(angle);
  const dy = -Math.sin(angle);
  const bend = gapM / 2;
  const shankEnd = lengthM - bend;
  const wire: [number, number][] = [
    [dx * (leg - ringM), dy * (leg - ringM)],
    [0, 0],
    [shankEnd, 0],
  ];
  for (let i = 1; i <= 16; i++) {
    const turn = (Math.PI * i) / 16;
    wire.push([shankEnd + bend * 0.96 * Math.sin(turn), -bend + bend * Math.cos(turn)]);
  }
  const arm = gapM * 0.92;
  const along = (share: number): [number, number] => [shankEnd - arm * share, -gapM - arm * 0.06 * share];
  const base = along(0.55);
  const half = wireM / 2;
  wire.push(base);
  const barbRoot = along(0.66);
  const barbTip = along(0.42);
  return {
    wire,
    eye: { x: dx * leg, y: dy * leg, radiusM: ringM },
    point: [[base[0], base[1] - half], along(1), [base[0], base[1] + half]],
    barb: [
      [barbRoot[0], barbRoot[1] + half * 0.4],
      [barbTip[0], barbTip[1] + half + gapM * 0.09],
      [barbTip[0] - gapM * 0.03, barbTip[1] + half * 0.5],
    ],
    wireM,
    outerM: shankEnd + bend * 0.96,
  };
}
