import { castMassKg } from '../cast/cast-mass.ts';
import { yieldEstimate } from '../count/binomial.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import type { KindOnMold } from './allocate.ts';
import { unitCostStack } from './cost.ts';
import { handSeconds } from './minutes.ts';
import { powdersPerHead, productCure } from './product.ts';
import type { Timing } from './timing.ts';
import { stackTotal, type CostStack, type LinePlan, type PlanInput, type PlanLine } from './types.ts';

/** What one line of an order comes to: casts, yield, powder, cure and unit cost, each with its why. */
export function linePlan(
  line: PlanLine,
  kinds: readonly KindOnMold[],
  lines: readonly PlanLine[],
  timing: Timing,
  input: PlanInput,
): LinePlan {
  const { product, quantity } = line;
  const onMold = kinds.find((each) => each.kind.lines.includes(line))!;
  const leadKg = castMassKg({ nominalMassKg: product.nominalMassKg });
  const powders = powdersPerHead(product, input.ways);
  const priceOf = (materialId: string) => input.stock.find((each) => each.materialId === materialId)?.averageMinor ?? 0;
  const massShare =
    leadKg /
    lines.reduce((sum, each) => sum + each.quantity * castMassKg({ nominalMassKg: each.product.nominalMassKg }), 0);
  const heads = lines.reduce((sum, each) => sum + each.quantity, 0);
  const ownHands = handSeconds(input.ways, [line]);
  const workS = timing.pourS / heads + (ownHands.trim + ownHands.paint + ownHands.bake + ownHands.finish) / quantity;
  const drossKg = input.ways.drossShare * leadKg * (onMold.casts / onMold.kind.wanted);
  const stack = unitCostStack({
    leadKg,
    leadMinorPerKg: priceOf(input.lead.materialId),
    drossKg,
    hookMinor: priceOf(product.hook.materialId),
    powderMinor: powders.reduce((sum, powder) => sum + powder.kgPerHead * priceOf(powder.materialId), 0),
    energyKWh: timing.energyKWh * massShare,
    energyMinorPerKWh: input.ways.energyMinorPerKWh,
    workS,
    labourMinorPerHour: input.ways.labourMinorPerHour,
  });
  const records = onMold.cavities.reduce((sum, cavity) => sum + cavity.casts, 0);
  const good = onMold.cavities.reduce((sum, cavity) => sum + cavity.good, 0);
  const estimate = yieldEstimate(good, records);
  return {
    productId: product.id,
    productName: product.name,
    quantity,
    casts: castsFigure(line, onMold),
    yieldShare: figure(
      onMold.yieldShare,
      'ratio',
      {
        rule: records
          ? 'What these cavities gave so far, leaning on common practice while records are few.'
          : 'No casts on record yet: what a practised hand gets.',
        formula: '(good + 37.6) / (casts + 40)',
        source: 'Beta prior; Wilson interval',
        inputs: [fitted('Good', good, 'count'), fitted('Casts', records, 'count')],
      },
      { low: estimate.low, high: estimate.high, basis: records ? 'fitted' : 'given' },
    ),
    leadKgPerHead: figure(leadKg, 'head-kg', {
      rule: 'What this cavity casts in soft lead.',
      formula: 'm = V_cavity · ρ(327 °C)',
      source: 'Nominal mass stamped on the mold',
      inputs: [given('Stamped', product.nominalMassKg, 'head-kg')],
    }),
    unitCost: unitCostFigure(stack, product.name),
    stack,
    workS,
    powders,
    cure: productCure(product, input.oven),
  };
}

const castsFigure = (line: PlanLine, onMold: KindOnMold): Figure => {
  const share = line.quantity / onMold.kind.wanted;
  return figure(
    Math.ceil(onMold.casts * share),
    'count',
    {
      rule: 'Casts to plan, so that nineteen evenings in twenty give enough good heads.',
      formula: 'smallest n with P(Bin(n, y) ≥ N) ≥ 95 %',
      source: 'Binomial distribution',
      inputs: [given('Good heads wanted', line.quantity, 'count'), fitted('Yield', onMold.yieldShare, 'ratio')],
    },
    { low: line.quantity, high: Math.ceil(onMold.casts * share * 1.04), basis: 'given' },
  );
};

const unitCostFigure = (stack: CostStack, name: string): Figure => {
  const total = stackTotal(stack);
  return figure(
    total,
    'minor/head',
    {
      rule: `One ${name}: metal, hook, powder, what is skimmed off, electricity and your time.`,
      formula: 'lead + hook + powder + dross + energy + work',
      source: 'Moving-average prices of your stock; house ways',
      inputs: Object.entries(stack).map(([part, minor]) => given(part, minor, 'minor/head')),
    },
    { low: total * 0.85, high: total * 1.25 },
  );
};

/** Unit cost over all heads of the order. */
export function averageCost(lines: readonly LinePlan[]): Figure {
  const heads = lines.reduce((sum, line) => sum + line.quantity, 0);
  const total = lines.reduce((sum, line) => sum + line.quantity * line.unitCost.value, 0);
  return figure(
    heads ? total / heads : 0,
    'minor/head',
    {
      rule: 'All heads of the order together.',
      formula: 'Σ heads · unit cost / Σ heads',
      source: 'Unit cost of each line',
      inputs: lines.map((line) => given(line.productName, line.unitCost.value, 'minor/head', `${line.quantity} heads`)),
    },
    { low: (total * 0.85) / Math.max(1, heads), high: (total * 1.25) / Math.max(1, heads) },
  );
}
