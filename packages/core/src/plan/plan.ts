import { headsToCast } from '../job/owed.ts';
import { countInRange } from '../quantity/check.ts';
import { figure, given } from '../quantity/figure.ts';
import type { SolveLp } from '../numeric/program.ts';
import {
  allocate,
  asPlanned,
  blankKey,
  castingProblem,
  moldsCasting,
  onBestMold,
  type KindOnMold,
  type MoldShares,
} from './allocate.ts';
import { castsTonight } from './casts.ts';
import { chargeKgOf, chargeParts, leadFigures, leadRange, type ChargePart } from './charge.ts';
import { averageCost, linePlan } from './line.ts';
import { moldPlan } from './mold-plan.ts';
import { pinLimits } from './pins.ts';
import { bakeProblem } from './product.ts';
import { materialNeeds } from './needs.ts';
import { handsFigure, meltFigure, minutesOf, ovenLoadsFigure, timingOf } from './timing.ts';
import type { Plan, PlanInput, PlanLine } from './types.ts';

/** Largest order line that is planned; beyond it somebody has mistyped. */
const MOST_HEADS_PER_LINE = 20_000;

/**
 * Everything that can be said before the pot is switched on: shots, metal, hooks, powder, minutes, oven loads, cost,
 * and what is missing. Products that no mold can cast are listed in `problems` and left out of the rest.
 * @param solve a solver of integer programs: then the molds are those that take the least time at the pot; left out: of
 *   each blank the one with most cavities
 * @throws QuantityError for quantities or ways out of range
 * @example planOrder(workshop()).charge.value // 2.119
 */
export function planOrder(input: PlanInput, solve?: SolveLp): Plan {
  for (const line of input.lines) {
    countInRange(`quantity of ${line.product.name}`, line.quantity, 1, MOST_HEADS_PER_LINE);
  }
  const cast = input.lines.filter(({ product }) => product.source !== 'shelf');
  const problems = input.lines.flatMap((line) => {
    const { product } = line;
    const text = (cast.includes(line) ? castingProblem(product, input.molds) : null) ?? bakeProblem(product);
    return text ? [{ productId: product.id, text }] : [];
  });
  const lines = input.lines.filter(({ product }) => !problems.some((problem) => problem.productId === product.id));
  // What the steps behind the pour spoil is allowed for here, and nowhere behind it.
  const coming = lines.map(({ product, quantity }): PlanLine => {
    const heads = product.source === 'shelf' ? quantity : headsToCast(quantity, input.afterPour);
    return { product, quantity: heads };
  });
  const poured = coming.filter(({ product }) => product.source !== 'shelf');
  const choice = poured.some(({ product }) => moldsCasting(product, input.molds).length > 1);
  const shares = solve && choice ? inLeastTime(poured, input, solve) : onBestMold;
  const allocations = allocate(poured, input.molds, shares);
  const molds = allocations.map((allocation) => moldPlan(allocation, input.ways, input.pot));
  const kinds = allocations.flatMap((allocation) => allocation.kinds);
  const charge = kinds.length ? chargeOf(kinds, input) : NO_CHARGE;
  const lead = kinds.length ? leadFigures(allocations, input.ways) : { used: NO_CHARGE.figure, need: NO_CHARGE.figure };
  const timing = timingOf(allocations, molds, coming, charge.figure.value, input);
  const linePlans = lines.map((line, at) => linePlan(line, coming[at]!, { allocations, coming, timing }, input));
  return {
    lines: linePlans,
    molds,
    charge: charge.figure,
    chargeParts: charge.parts,
    melt: meltFigure(timing, charge.figure.value, input),
    leadUsed: lead.used,
    needs: materialNeeds(linePlans, { kinds, coming }, lead.need, input),
    minutes: minutesOf(timing, coming),
    handsTotal: handsFigure(timing),
    ovenLoads: ovenLoadsFigure(timing, coming, input),
    unitCost: averageCost(linePlans),
    pins: pinLimits(coming, input),
    problems,
  };
}

/** The molds that take the least time at the pot, one after another. */
function inLeastTime(lines: readonly PlanLine[], input: PlanInput, solve: SolveLp): MoldShares {
  const { molds, pot, ways } = input;
  const wanted = lines.map(({ product, quantity }) => ({ workId: product.id, product, heads: quantity }));
  const casts = castsTonight({ wanted, molds, pot, ways, atOnce: 1 }, solve);
  return asPlanned(({ product }, moldId) => {
    const uses = casts.molds.find((mold) => mold.moldId === moldId)?.uses ?? [];
    return uses.find(({ blankId }) => blankId === blankKey(product))?.casts ?? 0;
  });
}

/** Heads off the shelf need no pot. */
const NO_CHARGE = {
  parts: [],
  figure: figure(0, 'kg', {
    rule: 'Nothing is poured: these heads come off the shelf.',
    formula: '0',
    source: 'The products',
    inputs: [],
  }),
};

function chargeOf(kinds: readonly KindOnMold[], input: PlanInput) {
  const parts = chargeParts(kinds, input.ways);
  const value = chargeKgOf(parts);
  const kgOf = (label: ChargePart['label']) => parts.find((part) => part.label === label)!.kg;
  const over = value > input.pot.capacityKg;
  return {
    parts,
    figure: figure(
      value,
      'kg',
      {
        rule: over
          ? `More than the ${input.pot.name} holds: charge it full, feed sprues and ingots back in small lots while you pour.`
          : 'All the metal that this pour casts, melted at once: sprues, rejects and the heel included, nothing fed back.',
        formula: 'charge = casts · mass + shots · sprues + dross + heel',
        source: 'Mass balance; dross share and heel are house ways',
        inputs: parts.map((part) => given(part.label, part.kg, 'kg')),
      },
      leadRange(value, kgOf('dross'), kgOf('heads, rejects too') + kgOf('sprues')),
    ),
  };
}
