import type { Basis } from '../quantity/figure.ts';

/** A pot as it is on record: what its plate says, and what a heat-up that a probe has seen taught. */
export interface PotRecord {
  powerW: number;
  lossWPerK: number;
  learned?: { powerW: number; lossWPerK: number; powerSdW: number; lossSdWPerK: number } | null;
}

/** A pot as it is reckoned with. */
export interface KnownPot {
  powerW: number;
  lossWPerK: number;
  /** How sure its own readings are of both; 0 where nobody has looked. */
  powerSdW: number;
  lossSdWPerK: number;
  basis: Basis;
}

/**
 * What is known of a pot: its own readings outrank its plate.
 * @example knownPot({ powerW: 700, lossWPerK: 0.55 }) // { powerW: 700, lossWPerK: 0.55, …, basis: 'given' }
 */
export function knownPot({ powerW, lossWPerK, learned }: PotRecord): KnownPot {
  if (!learned) return { powerW, lossWPerK, powerSdW: 0, lossSdWPerK: 0, basis: 'given' };
  const { powerW: fitted, lossWPerK: loss, powerSdW, lossSdWPerK } = learned;
  return { powerW: fitted, lossWPerK: loss, powerSdW, lossSdWPerK, basis: 'fitted' };
}
