import type { Mold } from '@schmelz/contract';
import { writeHeadMass, type HookSize, type MassUnit, type StyleId } from '@schmelz/core';
import type { DrawnCavity } from './Mold.tsx';

/** A stored mold as it is drawn; `stateOf` says what lies in each open cavity. */
export function drawnCavities(
  mold: Pick<Mold, 'cavities'>,
  unit: MassUnit,
  stateOf: (position: number) => DrawnCavity['state'] = () => 'empty',
  frozen?: number,
): DrawnCavity[] {
  return mold.cavities.map((cavity) => ({
    position: cavity.position,
    style: cavity.style as StyleId,
    massKg: cavity.nominalMassKg,
    hookSize: cavity.hookSize as HookSize,
    eyeAngleDeg: cavity.eyeAngleDeg,
    stamp: writeHeadMass(cavity.nominalMassKg, unit).figure,
    state: cavity.condition === 'blocked' ? 'blocked' : stateOf(cavity.position),
    // By twentieths: the eye sees no finer, and fewer cavities are drawn anew.
    frozen: frozen === undefined ? undefined : Math.round(20 * frozen) / 20,
  }));
}
