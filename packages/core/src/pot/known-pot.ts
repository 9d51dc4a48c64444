import type { Basis } from '../quantity/figure.ts';

/** A pot as it is on record: what its plate says, and what a heat-up that a probe has seen taught. */
interface PotRecord {
  capacityKg: number;
  powerW: number;
  lossWPerK: number;
  learned?: {
    powerW: number;
    lossWPerK: number;
    powerSdW: number;
    lossSdWPerK: number;
    /** Left out in what was learned before crucibles were reckoned with. */
    crucibleJPerK?: number;
    crucibleSdJPerK?: number;
  } | null;
}

/** A pot as it is reckoned with. */
export interface KnownPot {
  powerW: number;
  lossWPerK: number;
  /** How sure its own readings are of both; 0 where nobody has looked. */
  powerSdW: number;
  lossSdWPerK: number;
  crucibleJPerK: number;
  crucibleSdJPerK: number;
  basis: Basis;
}

/** Crucible and element hold about so much for each kg that a pot takes, J/K. From memory; fitted by a heat-up. */
const CRUCIBLE_J_PER_KG_K = 60;
/**
 * What crucible and element of a pot hold, J/K, before anybody has looked.
 * @example usualCrucibleJPerK(9) // 540
 */
export const usualCrucibleJPerK = (capacityKg: number): number => CRUCIBLE_J_PER_KG_K * capacityKg;

/**
 * What is known of a pot: its own readings outrank its plate.
 * @example knownPot({ capacityKg: 9, powerW: 700, lossWPerK: 0.41 }).crucibleJPerK // 540
 */
export function knownPot({ capacityKg, powerW, lossWPerK, learned }: PotRecord): KnownPot {
  const usual = usualCrucibleJPerK(capacityKg);
  if (!learned) {
    const none = { powerSdW: 0, lossSdWPerK: 0, crucibleSdJPerK: 0 };
    return { powerW, lossWPerK, crucibleJPerK: usual, ...none, basis: 'given' };
  }
  // What was learned before has the crucible in its power: it goes on as it was until it is learned anew.
  const { crucibleJPerK = 0, crucibleSdJPerK = 0 } = learned;
  return {
    ...{ powerW: learned.powerW, powerSdW: learned.powerSdW },
    ...{ lossWPerK: learned.lossWPerK, lossSdWPerK: learned.lossSdWPerK },
    ...{ crucibleJPerK, crucibleSdJPerK, basis: 'fitted' as const },
  };
}
