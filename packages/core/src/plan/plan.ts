import { headsToCast } from '../job/owed.ts';
import { countInRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import type { SolveLp } from '../numeric/program.ts';
import { castingProblem } from './allocate.ts';
import { leadRange, type ChargePart } from './charge.ts';
import { averageCost, linePlan } from './line.ts';
import { metalRuns, type MetalRun } from './metal-runs.ts';
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
  const runs = metalRuns(poured, input, solve);
  const charge = runs.length > 0 ? chargeOf(runs, input) : NO_CHARGE;
  const timing = timingOf(runs, coming, input);
  const linePlans = lines.map((line, at) => linePlan(line, coming[at]!, { runs, coming, timing }, input));
  return {
    lines: linePlans,
    molds: runs.flatMap((run) => run.molds),
    charge: charge.figure,
    chargeParts: charge.parts,
    melt: meltFigure(timing, runs, input),
    leadUsed: usedOf(runs),
    needs: materialNeeds(linePlans, { runs, coming }, input),
    minutes: minutesOf(timing, coming, input.ways),
    handsTotal: handsFigure(timing),
    ovenLoads: ovenLoadsFigure(timing, coming, input),
    unitCost: averageCost(linePlans),
    pins: pinLimits(coming, input),
    problems,
  };
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

/** Parts of the charge that are for the same, of all metals together. */
const together = (runs: readonly MetalRun[]): ChargePart[] =>
  runs[0]!.chargeParts.map(({ label }) => ({
    label,
    kg: runs.reduce((sum, run) => sum + run.chargeParts.find((part) => part.label === label)!.kg, 0),
  }));

function chargeOf(runs: readonly MetalRun[], input: PlanInput) {
  const parts = together(runs);
  const value = runs.reduce((sum, { chargeKg }) => sum + chargeKg, 0);
  const kgOf = (label: ChargePart['label']) => parts.find((part) => part.label === label)!.kg;
  const over = runs.some(({ chargeKg }) => chargeKg > input.pot.capacityKg);
  const rule = over
    ? `More than the ${input.pot.name} holds: charge it full, feed sprues and ingots back in small lots while you pour.`
    : 'All the metal that this pour casts, melted at once: sprues, rejects and the heel included, nothing fed back.';
  const others = runs.length > 1 ? ` ${runs.length} metals, one after the other, each with its heel.` : '';
  return {
    parts,
    figure: figure(
      value,
      'kg',
      {
        rule: `${rule}${others}`,
        formula: 'charge = casts · mass + shots · sprues + dross + heel',
        source: 'Mass balance; dross share and heel are house ways',
        inputs: [
          ...(runs.length > 1 ? runs.map(({ lead, chargeKg }) => given(lead.name, chargeKg, 'kg')) : []),
          ...parts.map((part) => given(part.label, part.kg, 'kg')),
        ],
      },
      leadRange(value, kgOf('dross'), kgOf('heads, rejects too') + kgOf('sprues')),
    ),
  };
}

/** What is used up of all metals together. */
function usedOf(runs: readonly MetalRun[]): Figure {
  const [first, ...others] = runs.map(({ used }) => used);
  if (!first) return NO_CHARGE.figure;
  if (others.length === 0) return first;
  const sum = (of: (used: Figure) => number) => runs.reduce((all, { used }) => all + of(used), 0);
  const { rule, formula, source } = first.why;
  const range = { low: sum(({ low, value }) => low ?? value), high: sum(({ high, value }) => high ?? value) };
  const inputs = runs.map(({ lead, used }) => given(lead.name, used.value, 'kg'));
  return figure(
    sum(({ value }) => value),
    'kg',
    { rule, formula, source, inputs },
    range,
  );
}
