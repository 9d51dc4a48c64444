import { castMassKg } from '../cast/cast-mass.ts';
import type { KindOnMold } from './allocate.ts';
import type { HouseWays, MoldPlan } from './types.ts';

/** A part of the charge, by what it is for. */
export interface ChargePart {
  label: 'heads, rejects too' | 'sprues' | 'dross' | 'heel';
  kg: number;
}

/**
 * The metal that a pour needs, by what it is for, kg: the plan of an order and the pour itself ask here. Sprues are
 * those of full shots; they go back while it is poured.
 */
export function chargeParts(
  kinds: readonly KindOnMold[],
  molds: readonly MoldPlan[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
): ChargePart[] {
  const headsKg = kinds.reduce((sum, { casts, cavities }) => {
    return sum + casts * castMassKg({ nominalMassKg: cavities[0]!.nominalMassKg });
  }, 0);
  const spruesKg = molds.reduce(
    (sum, mold) => sum + mold.shots.value * mold.uses.reduce((shot, use) => shot + use.sprueKg, 0),
    0,
  );
  return [
    { label: 'heads, rejects too', kg: headsKg },
    { label: 'sprues', kg: spruesKg },
    { label: 'dross', kg: ways.drossShare * (headsKg + spruesKg) },
    { label: 'heel', kg: ways.heelKg },
  ];
}

export const chargeKgOf = (parts: readonly ChargePart[]): number => parts.reduce((sum, { kg }) => sum + kg, 0);
