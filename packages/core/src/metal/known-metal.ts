import { alloyOf, SOFT_LEAD, type Alloy, type LeadComposition } from './alloy.ts';

/** A lead on the shelf, as far as the models ask. */
interface MetalRecord {
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

/**
 * The lead that is poured where nobody says which: the soft lead there is most of, else the lead there is most of.
 * @example usualLead([{ kind: 'lead', metalId: 'tyre-weight', quantity: 9 }, { kind: 'hook', quantity: 100 }]).quantity
 *   // 9
 */
export function usualLead<L extends { kind: string; metalId?: string | null; quantity: number }>(
  parts: readonly L[],
): L | undefined {
  const leads = parts.filter(({ kind }) => kind === 'lead');
  const soft = leads.filter(({ metalId }) => metalId === 'soft-lead');
  return [...(soft.length > 0 ? soft : leads)].sort((a, b) => b.quantity - a.quantity)[0];
}
