import type { HeadSolid } from '../geometry/solid.ts';
import { halfHeightAt } from '../geometry/segments.ts';
import { inRange } from '../quantity/check.ts';

/** The collar of a head, where thread, wire and bands grip. */
export interface Collar {
  /** Of its neck, and of its barb, m. */
  neckM: number;
  barbM: number;
  lengthM: number;
}

/**
 * The collar as it is drawn and cast.
 * @example collarOf(cavitySolid('ball', 0.0142)).neckM // 0.003406
 */
export function collarOf({ style, scaleM }: HeadSolid): Collar {
  const collar = style.segments.slice(style.segments.length - style.collarSegments);
  const [first, last] = [collar[0]!, collar.at(-1)!];
  const widest = Math.max(...collar.flatMap((each) => [halfHeightAt(each, each.x0), halfHeightAt(each, each.x1)]));
  return {
    neckM: 2 * scaleM * halfHeightAt(first, first.x0),
    barbM: 2 * scaleM * widest,
    lengthM: scaleM * (last.x1 - first.x0),
  };
}

/** What is wound around a collar. */
interface Wound {
  turns: number;
  /** What it is wound on, and its own thickness, m. */
  coreM: number;
  strandM: number;
  /** Held in the hand and cut off, m. */
  endsM: number;
}

/**
 * Wire or thread for one head, m: turns times the circle through its own middle, and the ends. A dozen turns of thread
 * lie side by side, so that the circle stays one. Range: 0 to 500 turns on 0.1 to 40 mm.
 * @example windingM({ turns: 3, coreM: 0.004, strandM: 0.0005, endsM: 0.1 }) // 0.1424
 */
export function windingM({ turns, coreM, strandM, endsM }: Wound): number {
  inRange('turns', turns, '', 0, 500);
  inRange('core', coreM, 'm', 1e-4, 0.04);
  inRange('strand', strandM, 'm', 1e-5, 0.003);
  return turns * Math.PI * (coreM + strandM) + inRange('ends', endsM, 'm', 0, 2);
}

/** Keratin, kg/m3, and how much of a bundle that is held together is hair. From memory; common practice, no source. */
const HAIR_KG_M3 = 1310;
const PACKED = 0.6;

/**
 * Hair of one tail, kg: a bundle so thick when it is pressed together, so long. Range: bundle 0.5 to 20 mm, tail 5 to
 * 300 mm.
 * @example 1000 * hairKg({ bundleM: 0.0055, tailM: 0.075 }) // 1.401
 */
export function hairKg({ bundleM, tailM }: { bundleM: number; tailM: number }): number {
  inRange('bundle', bundleM, 'm', 0.0005, 0.02);
  return (Math.PI / 4) * bundleM ** 2 * inRange('tail', tailM, 'm', 0.005, 0.3) * PACKED * HAIR_KG_M3;
}

const ML_PER_M3 = 1e6;
/** A drop of glue at the mouth of the hole, ml: it is wiped off. Common practice, no source. */
const MOUTH_ML = 0.01;

/**
 * Glue that a guard takes, ml: what is left of its hole beside it, and a drop at the mouth. Range: hole and guard 0.5
 * to 10 mm, the guard no thicker than its hole; 1 to 40 mm deep.
 * @throws QuantityError for a guard that does not go in
 * @example guardGlueMl({ holeM: 0.0032, guardM: 0.003, depthM: 0.01 }) // 0.01974
 */
export function guardGlueMl({ holeM, guardM, depthM }: { holeM: number; guardM: number; depthM: number }): number {
  inRange('hole', holeM, 'm', 0.0005, 0.01);
  inRange('guard', guardM, 'm', 0.0005, holeM);
  inRange('depth', depthM, 'm', 0.001, 0.04);
  return (Math.PI / 4) * (holeM ** 2 - guardM ** 2) * depthM * ML_PER_M3 + MOUTH_ML;
}
