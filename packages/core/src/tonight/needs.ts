import { perHead, POUR_STEP } from '../job/bill.ts';
import { powdersByStep, stepsOf } from '../plan/product.ts';
import type { CastsTonight } from './casts.ts';
import type { TonightAsked, TonightWishes } from './tonight.ts';

/** What an evening takes of a material, against what is on the shelf. */
export interface NeedTonight {
  materialId: string;
  name: string;
  kind: string;
  need: number;
  have: number;
  missing: number;
}

/**
 * What the open work still takes: hooks and parts that are cast in for every cast, metal for the heads that stay and
 * what is skimmed off, powder and parts for every head that still comes through the step that uses them.
 * @example needsTonight(asked, wishes, casts).find(({ missing }) => missing > 0)?.name
 */
export function needsTonight(asked: TonightAsked, wishes: TonightWishes, casts: CastsTonight): NeedTonight[] {
  const { stock, leadId, ways } = asked;
  const needs = new Map<string, number>();
  const add = (materialId: string, quantity: number) => {
    if (quantity > 0) needs.set(materialId, (needs.get(materialId) ?? 0) + quantity);
  };
  const wanted = asked.wanted.filter(({ id }) => !wishes.leftOut.includes(id));
  for (const { casts: count, missing, works } of casts.blanks) {
    const product = wanted.find(({ id }) => works.includes(id))?.product;
    const made = Math.max(0, count - missing);
    if (product?.hook) add(product.hook.materialId, made);
    for (const part of product?.parts ?? []) if (part.step === POUR_STEP) add(part.partId, made * perHead(part));
  }
  // Sprues come back; what is cast beyond the heads wanted is melted down again, in the end.
  const castKg = casts.molds.reduce((sum, mold) => sum + mold.castKg, 0);
  const keptKg = casts.molds.reduce((sum, mold) => sum + mold.headsKg, 0);
  if (castKg > 0) add(leadId, keptKg + ways.drossShare * castKg + ways.heelKg);
  for (const { product, heads, left } of wanted) {
    let come = product.source === 'shelf' ? 0 : heads;
    const powders = powdersByStep(product, ways);
    for (const [at, { key }] of stepsOf(product).entries()) {
      come += (left[key] ?? 0) + (product.source === 'shelf' && at === 0 ? heads : 0);
      for (const powder of powders) if (powder.step === key) add(powder.materialId, come * powder.kgPerHead);
      for (const part of product.parts ?? []) if (part.step === key) add(part.partId, come * perHead(part));
    }
  }
  return [...needs].flatMap(([materialId, need]) => {
    const there = stock.find((each) => each.materialId === materialId);
    if (!there) return [];
    const { name, kind, quantity: have } = there;
    return [{ materialId, name, kind, need, have, missing: Math.max(0, need - have) }];
  });
}
