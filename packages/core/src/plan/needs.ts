import { figure, given, type Figure } from '../quantity/figure.ts';
import type { KindOnMold } from './allocate.ts';
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
 */
export function materialNeeds(
  lines: readonly LinePlan[],
  kinds: readonly KindOnMold[],
  charge: Figure,
  { lead, stock }: PlanInput,
): MaterialNeed[] {
  const onHand = (materialId: string) => stock.find((each) => each.materialId === materialId);
  const hooks = new Map<string, number>();
  for (const { kind, casts } of kinds) {
    const id = kind.lines[0]!.product.hook.materialId;
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
    return [need(shelf, figure(kg, 'kg', why, { low: kg * 0.8, high: kg * 1.4 }))];
  });
  return [need(lead, charge), ...hookNeeds, ...powderNeeds];
}
