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

/** Weights and lengths of jig hooks as they are sold, in standard wire. From memory, 20 %. */
const WEIGHED: readonly (readonly [size: HookSize, grams: number])[] = [
  ['2', 0.3],
  ['1/0', 0.58],
  ['3/0', 0.95],
  ['5/0', 1.7],
  ['7/0', 3],
  ['10/0', 8.5],
];
const MEASURED: readonly (readonly [size: HookSize, mm: number])[] = [
  ['2', 28],
  ['1/0', 33],
  ['3/0', 39],
  ['5/0', 48],
  ['7/0', 60],
];
/** Wire in a hook, eye, bend and barb, over its length. */
const STRETCHED = 2.2;

/** Between two sizes of a table, and beyond its ends as it ends there: each next size is larger by the same factor. */
function bySize(table: readonly (readonly [HookSize, number])[], step: number): number {
  const steps = table.map(([size]) => HOOK_SIZES.indexOf(size));
  const after = steps.findIndex((each) => each >= step);
  const i = after < 0 ? table.length - 1 : Math.max(1, after);
  const [from, to] = [table[i - 1]![1], table[i]![1]];
  return from * (to / from) ** ((step - steps[i - 1]!) / (steps[i]! - steps[i - 1]!));
}

/**
 * Typical dimensions of a jig hook by its size number. Makers differ under one number, so this is only a default; what
 * the scale says of a hook outranks it.
 * @throws RangeError for a size that is none
 * @example typicalHook('1/0').massKg // 0.00058
 */
export function typicalHook(size: HookSize, wire: Wire = 'standard'): HookDimensions {
  const step = HOOK_SIZES.indexOf(size);
  if (step < 0) throw new RangeError(`hook size is ${size}; allowed: ${HOOK_SIZES.join(', ')}`);
  const lengthM = bySize(MEASURED, step) / 1000;
  const massKg = (bySize(WEIGHED, step) / 1000) * WIRE_FACTOR[wire] ** 2;
  return {
    lengthM,
    gapM: lengthM * 0.4,
    wireM: Math.sqrt((4 * massKg) / (Math.PI * STEEL_KG_M3 * STRETCHED * lengthM)),
    eyeLegM: lengthM * 0.235,
    massKg,
  };
}

/**
 * What a hook weighs, kg: by the scale where it was weighed, else what its size number stands for.
 * @example hookMassKg({ size: '3/0', massKg: 0.00101 }) // 0.00101
 */
export const hookMassKg = (hook: { size: HookSize; wire?: Wire; massKg?: number | null }): number =>
  hook.massKg ?? typicalHook(hook.size, hook.wire).massKg;

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
 * @example hookShape(typicalHook('2/0'), 60).wireM // 0.001235
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
