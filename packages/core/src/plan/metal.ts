import { knownMetal } from '../metal/known-metal.ts';
import type { Alloy } from '../metal/alloy.ts';
import { metalTaken, type MetalKind } from '../metal/wanted.ts';
import { variantFor } from './blank.ts';
import type { PlanMold, PlanProduct } from './types.ts';

/** Emptying the pot into ingots, wiping it out and charging the next metal, s. Common practice, no source. */
export const CHANGE_METAL_S = 900;

/** Said wherever lead and lead-free metal go through one pot. */
export const LEAD_FREE_CAUTION =
  'What lead is left in pot, ladle and mold gets into lead-free heads: where rules ask for lead-free, keep tools of their own for it.';

/**
 * The kind of metal that a product is cast in; soft where nobody has said.
 * @example kindOfMetal({}) // 'soft'
 */
export const kindOfMetal = ({ metal }: Pick<PlanProduct, 'metal'>): MetalKind => metal?.kind ?? 'soft';

/**
 * Whether a mold may be poured with the metal of a product: one that is kept for a metal sees no other.
 * @example takesMetal({ keptFor: 'hard' }, {}) // false
 */
export const takesMetal = ({ keptFor }: Pick<PlanMold, 'keptFor'>, product: Pick<PlanProduct, 'metal'>): boolean =>
  !keptFor || keptFor === kindOfMetal(product);

/**
 * The alloy that a product is cast in.
 * @example alloyOfProduct({}).liquidusC // 327.46
 */
export const alloyOfProduct = ({ metal }: Pick<PlanProduct, 'metal'>): Alloy => knownMetal(metal ?? undefined);

/**
 * A product with the metal that it is cast in: what it asks for itself; else what its molds are kept for, where they
 * all are; else the usual one.
 * @param leads what is on the shelf
 * @example withMetal(product(10), [], []).metal // null
 */
export function withMetal(
  product: PlanProduct,
  molds: readonly Pick<PlanMold, 'cavities' | 'keptFor'>[],
  leads: Parameters<typeof metalTaken>[1],
): PlanProduct {
  if (product.source === 'shelf') return product;
  const own = product.wantsMetal;
  const casting = molds.filter(({ cavities }) => cavities.some((cavity) => variantFor(cavity, product) !== null));
  const kept = new Set(casting.map(({ keptFor }) => keptFor ?? null));
  const [byMold = null] = kept.size === 1 ? kept : [];
  return { ...product, metal: metalTaken(own && own !== 'any' ? own : (byMold ?? own), leads) };
}
