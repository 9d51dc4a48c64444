import { figure, given, type Figure } from '../quantity/figure.ts';
import { productRange90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import type { KindOnMold } from './allocate.ts';
import { partKind } from '../job/part-kinds.ts';
import { perHead } from '../job/bill.ts';
import type { LinePlan, MaterialNeed, PlanInput, StockOnHand } from './types.ts';

const need = (stock: StockOnHand, figureOfNeed: Figure): MaterialNeed => ({
  materialId: stock.materialId,
  name: stock.name,
  kind: stock.kind,
  need: figureOfNeed,
  have: stock.quantity,
  missing: Math.max(0, figureOfNeed.value - stock.quantity),
});

/**
 * What the plan wants of each material against what is on the shelf: lead to charge, hooks to lay out, powder to dip.
 * @example materialNeeds(plan.lines, kinds, plan.leadUsed, order).map(({ name }) => name) // ['lead', 'hook-2/0',
 *   'hook-3/0', 'white']
 */
export function materialNeeds(
  lines: readonly LinePlan[],
  kinds: readonly KindOnMold[],
  leadNeed: Figure,
  { lead, stock }: PlanInput,
): MaterialNeed[] {
  const onHand = (materialId: string) => stock.find((each) => each.materialId === materialId);
  const hooks = new Map<string, number>();
  for (const { kind, casts } of kinds) {
    const id = kind.lines[0]!.product.hook?.materialId;
    if (!id) continue;
    hooks.set(id, (hooks.get(id) ?? 0) + casts);
  }
  const powders = new Map<string, { kg: number; heads: number }>();
  for (const line of lines) {
    for (const { materialId, kgPerHead } of line.powders) {
      const before = powders.get(materialId) ?? { kg: 0, heads: 0 };
      powders.set(materialId, { kg: before.kg + kgPerHead * line.quantity, heads: before.heads + line.quantity });
    }
  }
  const hookNeeds = [...hooks].flatMap(([materialId, casts]) => {
    const shelf = onHand(materialId);
    if (!shelf) return [];
    const why = {
      rule: 'One for every cast; those of rejects come back.',
      formula: 'hooks = casts',
      source: 'Counting',
      inputs: [given('Casts', casts, 'count')],
    };
    return [need(shelf, figure(casts, 'count', why))];
  });
  const powderNeeds = [...powders].flatMap(([materialId, { kg, heads }]) => {
    const shelf = onHand(materialId);
    if (!shelf) return [];
    const why = {
      rule: 'Painted surface of the heads, times film and density, plus what is shaken off.',
      formula: 'm = A · film · ρ / efficiency',
      source: "The powder-coating industry's coverage formula, 192.3 ft²/lb per mil at specific gravity 1",
      inputs: [given('Heads', heads, 'count'), given('A head', kg / Math.max(1, heads), 'kg')],
    };
    return [need(shelf, figure(kg, 'kg', why, productRange90(kg, [SPREAD.filmShare, SPREAD.staysOnShare])))];
  });
  return [...(kinds.length ? [need(lead, leadNeed)] : []), ...hookNeeds, ...powderNeeds, ...partNeeds(lines, onHand)];
}

/** Parts of all lines, by the heads that come to the step that uses them. */
function partNeeds(
  lines: readonly LinePlan[],
  onHand: (materialId: string) => StockOnHand | undefined,
): MaterialNeed[] {
  const wanted = new Map<string, { quantity: number; heads: number }>();
  for (const line of lines) {
    for (const part of line.parts) {
      const before = wanted.get(part.partId) ?? { quantity: 0, heads: 0 };
      const quantity = before.quantity + perHead(part) * line.quantity;
      wanted.set(part.partId, { quantity, heads: before.heads + line.quantity });
    }
  }
  return [...wanted].flatMap(([partId, { quantity, heads }]) => {
    const shelf = onHand(partId);
    if (!shelf) return [];
    const whole = partKind(shelf.kind).unit === 'pieces' ? Math.ceil(quantity - 1e-9) : quantity;
    const why = {
      rule: 'So many a head, and what is wasted, for every head that is wanted.',
      formula: 'heads · (quantity + waste)',
      source: 'The bill of the product',
      inputs: [given('Heads', heads, 'count')],
    };
    return [need(shelf, figure(whole, UNIT_OF[partKind(shelf.kind).unit], why))];
  });
}

const UNIT_OF = { kg: 'kg', pieces: 'count', m: 'm', ml: 'ml' } as const;
