import { alloyOf, SOFT_LEAD, type Alloy, type LeadComposition } from './alloy.ts';

/** A lead on the shelf, as far as the models ask. */
export interface MetalRecord {
  name: string;
  metalId?: string | null;
  composition?: LeadComposition | null;
}

/**
 * What is known of a metal: its own composition outranks the usual one of its kind; soft lead where nothing is said.
 * @example knownMetal(undefined).liquidusC // 327.46
 */
export const knownMetal = (part: MetalRecord | undefined): Alloy =>
  part?.metalId ? { ...alloyOf(part.metalId, part.composition ?? undefined), name: part.name } : SOFT_LEAD;
