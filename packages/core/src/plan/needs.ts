import { figure, given, type Figure } from '../quantity/figure.ts';
import { productRange90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import type { KindOnMold } from './allocate.ts';
import type { MetalRun } from './metal-runs.ts';
import { partKind } from '../job/part-kinds.ts';
import { castInWanted, type RejectWays } from '../job/cast-in.ts';
import { castInto } from './blank.ts';
import { perHead, POUR_STEP } from '../job/bill.ts';
import type { LinePlan, PlanLine, MaterialNeed, PlanInput, StockOnHand } from './types.ts';

const need = (stock: StockOnHand, figureOfNeed: Figure): MaterialNeed => ({
  materialId: stock.materialId,
  name: stock.name,
  kind: stock.kind,
  need: figureOfNeed,
  have: stock.quantity,
  missing: Math.max(0, figureOfNeed.value - stock.quantity),
});

/**
 * Pieces of everything that is cast in that are wanted for these blanks, with the good heads they are for: the one
 * answer to what is short of it.
 * @example castInNeeds(kinds, ways).get('hook-2/0').pieces // 64
 */
export function castInNeeds(
  kinds: readonly Pick<KindOnMold, 'kind' | 'casts' | 'cavities'>[],
  ways: RejectWays,
): Map<string, { good: number; pieces: number }> {
  const needs = new Map<string, { good: number; pieces: number }>();
  for (const { kind, casts, cavities } of kinds) {
    const heads = castInWanted({ toCast: kind.wanted, casts, load: cavities.length }, ways);
    for (const { materialId, perHead: each } of castInto(kind.lines[0]!.product)) {
      const before = needs.get(materialId) ?? { good: 0, pieces: 0 };
      needs.set(materialId, { good: before.good + kind.wanted, pieces: before.pieces + each * heads });
    }
  }
  return needs;
}

/**
 * What the plan wants of each material against what is on the shelf: lead to charge, hooks to lay out, powder to dip.
 * @example materialNeeds(plan.lines, { runs, coming: order.lines }, order).map(({ name }) => name)
 *   // ['lead', 'hook-2/0', 'hook-3/0', 'white']
 */
export function materialNeeds(
  lines: readonly LinePlan[],
  { runs, coming }: { runs: readonly MetalRun[]; coming: readonly PlanLine[] },
  { stock, ways }: PlanInput,
): MaterialNeed[] {
  const onHand = (materialId: string) => stock.find((each) => each.materialId === materialId);
  const castIn = castInNeeds(
    runs.flatMap(({ allocations }) => allocations.flatMap(({ kinds }) => kinds)),
    ways,
  );
  const powders = new Map<string, { kg: number; heads: number }>();
  for (const line of lines) {
    for (const { materialId, kgPerHead } of line.powders) {
      const before = powders.get(materialId) ?? { kg: 0, heads: 0 };
      powders.set(materialId, { kg: before.kg + kgPerHead * line.coming, heads: before.heads + line.coming });
    }
  }
  const castInFigures = [...castIn].flatMap(([materialId, { good, pieces }]) => {
    const shelf = onHand(materialId);
    if (!shelf) return [];
    const why = {
      rule:
        ways.wonBack === 'later'
          ? 'One for each good head, for each in a reject until you win it back another day, and one load of the mold.'
          : 'One for each good head, for those that rejects lose, and one load of the mold; the others are won back at once.',
      formula: 'good heads + lost + in rejects + one load, at most the casts laid out for',
      source: 'Counting; nineteen evenings in twenty',
      inputs: [given('Good heads to cast', good, 'count')],
    };
    const { unit } = partKind(shelf.kind);
    return [need(shelf, figure(unit === 'pieces' ? Math.ceil(pieces - 1e-9) : pieces, UNIT_OF[unit], why))];
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
  return [
    ...runs.map((run) => need(run.lead, run.need)),
    ...castInFigures,
    ...fromShelf(coming, onHand),
    ...powderNeeds,
    ...partNeeds(lines, onHand),
  ];
}

/** Bare heads and used jigs that lines begin with. */
function fromShelf(
  lines: readonly PlanLine[],
  onHand: (materialId: string) => StockOnHand | undefined,
): MaterialNeed[] {
  const wanted = new Map<string, number>();
  for (const { product, quantity } of lines) {
    if (product.from) wanted.set(product.from.materialId, (wanted.get(product.from.materialId) ?? 0) + quantity);
  }
  return [...wanted].flatMap(([materialId, heads]) => {
    const shelf = onHand(materialId);
    if (!shelf) return [];
    const why = {
      rule: 'One for every head that begins with it.',
      formula: 'heads',
      source: 'The product',
      inputs: [given('Heads', heads, 'count')],
    };
    return [need(shelf, figure(heads, 'count', why))];
  });
}

/** Parts of all lines that are put on behind the pour, by the heads that come to the step that uses them. */
function partNeeds(
  lines: readonly LinePlan[],
  onHand: (materialId: string) => StockOnHand | undefined,
): MaterialNeed[] {
  const wanted = new Map<string, { quantity: number; heads: number }>();
  for (const line of lines) {
    for (const part of line.parts) {
      if (part.step === POUR_STEP) continue;
      const before = wanted.get(part.partId) ?? { quantity: 0, heads: 0 };
      const quantity = before.quantity + perHead(part) * line.coming;
      wanted.set(part.partId, { quantity, heads: before.heads + line.coming });
    }
  }
  return [...wanted].flatMap(([partId, { quantity, heads }]) => {
    const shelf = onHand(partId);
    if (!shelf) return [];
    const whole = partKind(shelf.kind).unit === 'pieces' ? Math.ceil(quantity - 1e-9) : quantity;
    const why = {
      rule: 'So many a head, and what is wasted, for every head that comes to its step.',
      formula: 'heads · (quantity + waste)',
      source: 'The bill of the product',
      inputs: [given('Heads', heads, 'count')],
    };
    return [need(shelf, figure(whole, UNIT_OF[partKind(shelf.kind).unit], why))];
  });
}

const UNIT_OF = { kg: 'kg', pieces: 'count', m: 'm', ml: 'ml' } as const;
