import { typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';

/** Metal stands over the gate while it runs. Common practice, no source. */
const OVER_GATE_M = 0.002;
import type { StyleId } from '../geometry/styles.ts';
import type { FillCavity } from './fill-index.ts';

/**
 * A cavity on record as the flow sees it, with the wire it was cut for.
 * @example fillCavityOf({ style: 'ball', nominalMassKg: 0.0142, hookSize: '3/0' }).sprueHeightM // 0.008
 */
export function fillCavityOf(cavity: {
  style: StyleId;
  nominalMassKg: number;
  hookSize: string;
  wire?: string;
}): FillCavity {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const { wireM } = typicalHook(cavity.hookSize as HookSize, (cavity.wire ?? 'standard') as Wire);
  return { solid, sprueHeightM: sprueOf(solid).heightM + OVER_GATE_M, wireM };
}
