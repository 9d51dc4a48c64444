import type { Oven } from '@schmelz/contract';

/** An oven as it is reckoned with: what its own run taught outranks what was written down. */
export interface RealOven {
  lagS: number;
  /** What the air holds above its mark, K. */
  offsetK: number;
  swingK: number;
  learned: boolean;
}

/** A thermostat swings about so far where nobody has looked. Common practice, no source. */
const USUAL_SWING_K = 5;

export function realOven(oven: Oven | undefined): RealOven {
  const { learned } = oven ?? {};
  if (learned) return { lagS: learned.lagS, offsetK: learned.offsetK, swingK: learned.swingK, learned: true };
  return { lagS: oven?.lagS ?? 200, offsetK: 0, swingK: USUAL_SWING_K, learned: false };
}
