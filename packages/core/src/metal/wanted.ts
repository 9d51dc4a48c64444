import { METAL_IDS, type LeadComposition, type MetalId } from './alloy.ts';
import { usualLead } from './known-metal.ts';

/** What makers tell apart at the pot: metals of one kind may go into it one after the other. */
export const METAL_KINDS = ['soft', 'hard', 'lead-free'] as const;
export type MetalKind = (typeof METAL_KINDS)[number];
/** What a product may ask for: a kind, or any lead there is. */
export const METALS_WANTED = [...METAL_KINDS, 'any'] as const;
export type MetalWanted = (typeof METALS_WANTED)[number];
export const METAL_WANTED_NAMES: Record<MetalWanted, string> = {
  soft: 'soft lead',
  hard: 'hard lead',
  'lead-free': 'lead-free metal',
  any: 'any lead',
};

const KIND_OF: Record<MetalId, MetalKind> = {
  'soft-lead': 'soft',
  'tyre-weight': 'hard',
  'hard-lead': 'hard',
  'bismuth-tin': 'lead-free',
};

/**
 * Which kind of metal a lead on the shelf is; soft where nothing is said.
 * @example metalKind('tyre-weight') // 'hard'
 */
export const metalKind = (metalId: string | null | undefined): MetalKind =>
  METAL_IDS.includes(metalId as MetalId) ? KIND_OF[metalId as MetalId] : 'soft';

/**
 * Whether a metal will do for what is asked for; where nothing is asked for every metal will.
 * @example willDo('hard', 'soft') // false
 */
export const willDo = (kind: MetalKind, wanted: MetalWanted | null | undefined): boolean =>
  !wanted || wanted === kind || (wanted === 'any' && kind !== 'lead-free');

/** The metal that a product is cast in, as it is on the shelf. */
export interface CastMetal {
  materialId: string;
  name: string;
  kind: MetalKind;
  metalId: string;
  composition?: LeadComposition | null;
}

interface LeadOnShelf {
  id: string;
  name: string;
  kind: string;
  metalId?: string | null;
  composition?: LeadComposition | null;
  quantity: number;
}

/**
 * The metal that is taken for what is asked for: of a kind the lead there is most of; of any the one there is most of,
 * lead-free apart; the usual one where nothing is asked for. Null where there is none on record.
 * @example metalTaken('hard', [{ id: 'a', name: 'Soft', kind: 'lead', metalId: 'soft-lead', quantity: 9 }]) // null
 */
export function metalTaken(wanted: MetalWanted | null | undefined, parts: readonly LeadOnShelf[]): CastMetal | null {
  const leads = parts.filter(({ kind, metalId }) => kind === 'lead' && willDo(metalKind(metalId), wanted));
  const most = [...leads].sort((a, b) => b.quantity - a.quantity)[0];
  const lead = wanted === 'any' ? most : usualLead(leads);
  if (!lead) return null;
  const { id: materialId, name, metalId, composition } = lead;
  const known = { materialId, name, kind: metalKind(metalId), metalId: metalId ?? 'soft-lead' };
  return { ...known, ...(composition ? { composition } : {}) };
}
