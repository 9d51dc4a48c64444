import { typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { FillCavity } from './fill-index.ts';

/** A cavity on record as the flow sees it, with the wire it was cut for. */
export function fillCavityOf(cavity: {
  style: StyleId;
  nominalMassKg: number;
  hookSize: string;
  wire?: string;
}): FillCavity {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const { wireM } = typicalHook(cavity.hookSize as HookSize, (cavity.wire ?? 'standard') as Wire);
  return { solid, sprueHeightM: sprueOf(solid).heightM, wireM };
}
