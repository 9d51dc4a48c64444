import { heatMinor, paintHeat } from './paint-heat.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { yieldEstimate, type YieldEstimate, type YieldTonight } from '../count/yield.ts';
import { aboveZero, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { castKg } from './blank.ts';
import { blankKey, type KindOnMold } from './allocate.ts';
import { serving, unitCostStack, wearMinor } from './cost.ts';
import { handsOf, totalSeconds } from './minutes.ts';
import { powdersByStep, productBake } from './product.ts';
import { perHead } from '../job/bill.ts';
import { COST_PARTS, partKind, type CostPart } from '../job/part-kinds.ts';
import type { Timing } from './timing.ts';
import { stackTotal, type CostStack, type LinePlan, type PlanInput, type PlanLine } from './types.ts';

/** Soft lead in one head of a line: as its cavity casts it, or by its stamp where it comes off the shelf. */
function headKg({ product }: PlanLine, kinds: readonly KindOnMold[]): number {
  const cavity = kinds.find((each) => each.kind.lines.some((line) => line.product === product))?.cavities[0];
  return cavity ? castKg(cavity, product) : castMassKg({ nominalMassKg: product.nominalMassKg });
}

/**
 * What one line of an order comes to: casts, yield, powder, cure and unit cost, each with its why.
 * @example linePlan(order.lines[0], kinds, order.lines, timing, order).casts.value // 73
 */
export function linePlan(
  line: PlanLine,
  kinds: readonly KindOnMold[],
  lines: readonly PlanLine[],
  timing: Timing,
  input: PlanInput,
): LinePlan {
  const { product, quantity } = line;
  // Heads off the shelf are on no mold: they are metal and casting work that was paid for before.
  const onMold = kinds.find((each) => each.kind.lines.includes(line)) ?? null;
  const leadKg = headKg(line, kinds);
  const powders = powdersByStep(product, input.ways);
  const parts = product.parts ?? [];
  const priceOf = (materialId: string) => input.stock.find((each) => each.materialId === materialId)?.averageMinor ?? 0;
  const partsCost = (costs: CostPart) =>
    parts.reduce((sum, part) => {
      return partKind(part.kind).costs === costs ? sum + perHead(part) * priceOf(part.partId) : sum;
    }, 0);
  const massShare = leadKg / lines.reduce((sum, each) => sum + each.quantity * headKg(each, kinds), 0);
  const blank = blankKey(product);
  const alike = lines.filter((each) => each.product.source !== 'shelf' && blankKey(each.product) === blank);
  const heads = alike.reduce((sum, each) => sum + each.quantity, 0);
  const ownHands = totalSeconds(handsOf(input.ways, [line]));
  const workS = (onMold ? timing.pourSByBlank.get(blank)! / heads : 0) + ownHands / quantity;
  const drossKg = onMold ? input.ways.drossShare * leadKg * (onMold.casts / onMold.kind.wanted) : 0;
  const stack = unitCostStack({
    leadKg: onMold ? leadKg : 0,
    leadMinorPerKg: priceOf(input.lead.materialId),
    drossKg,
    hookMinor: product.hook && onMold ? priceOf(product.hook.materialId) : 0,
    powderMinor: powders.reduce((sum, powder) => sum + powder.kgPerHead * priceOf(powder.materialId), 0),
    partsMinor: partsCost('parts'),
    packagingMinor: partsCost('packaging'),
    wearMinor: wearMinor(serving(product.id, input.tools)),
    energyKWh: timing.energyKWh * massShare,
    energyMinorPerKWh: input.ways.energyMinorPerKWh,
    paintHeatMinor: heatMinor(input.ways, paintHeat(input.ways, product)),
    workS,
    labourMinorPerHour: input.ways.labourMinorPerHour,
  });
  const cavities = onMold?.cavities ?? [];
  const records = cavities.reduce((sum, cavity) => sum + cavity.casts, 0);
  const good = cavities.reduce((sum, cavity) => sum + cavity.good, 0);
  const estimate = yieldEstimate(good, records);
  return {
    productId: product.id,
    productName: product.name,
    quantity,
    casts: castsFigure(line, onMold, input.afterPour),
    yieldShare: figure(
      onMold?.yieldShare ?? 1,
      'ratio',
      {
        rule: records
          ? 'What these cavities gave so far, leaning on common practice while records are few.'
          : 'No casts on record yet: what a practised hand gets.',
        formula: '(good + 37.6) / (casts + 40)',
        source:
          'Beta prior; the range is one evening’s, nine in ten of them: evenings differ more than the mean is unsure',
        inputs: [fitted('Good', good, 'count'), fitted('Casts', records, 'count')],
      },
      { ...tonight(onMold, estimate), basis: records ? 'fitted' : 'given' },
    ),
    leadKgPerHead: figure(leadKg, 'head-kg', {
      rule: 'What this cavity casts in soft lead.',
      formula: 'm = (V_cavity − V_pin and inserts) · ρ(327 °C)',
      source: 'Nominal mass stamped on the mold; pin, keeper and other inserts by their size',
      inputs: [given('Stamped', product.nominalMassKg, 'head-kg')],
    }),
    unitCost: unitCostFigure(stack, product.name),
    stack,
    workS,
    powders,
    parts,
    bake: productBake(product, input.oven, Math.min(line.quantity, input.oven.places)),
  };
}

/** What one evening's yield may be, nine times in ten; of heads off the shelf, that of the records. */
function tonight(onMold: KindOnMold | null, { low, high }: YieldEstimate): { low: number; high: number } {
  if (!onMold) return { low, high };
  const off = Z_90 * eveningSd(onMold);
  return { low: Math.max(0, onMold.yieldShare - off), high: Math.min(1, onMold.yieldShare + off) };
}

/** Standard deviation of one evening's yield. */
const eveningSd = ({ yieldShare, yieldSure }: KindOnMold): number =>
  Math.sqrt((yieldShare * (1 - yieldShare)) / (yieldSure + 1));

const castsFigure = (line: PlanLine, onMold: KindOnMold | null, after: YieldTonight = { mean: 1 }): Figure => {
  if (!onMold) {
    return figure(0, 'count', {
      rule: 'None: these heads come off the shelf.',
      formula: '0',
      source: 'The product',
      inputs: [given('Heads wanted', line.quantity, 'count')],
    });
  }
  const share = line.quantity / onMold.kind.wanted;
  return figure(
    Math.ceil(onMold.casts * share),
    'count',
    {
      rule: 'Casts to plan, so that nineteen times in twenty enough good heads are left at the end of the route.',
      formula: 'smallest n with P(X ≥ N) ≥ 95 %, X beta-binomial',
      source: 'The yield is known only so well, and evenings differ',
      inputs: [
        given('Good heads wanted', line.quantity, 'count'),
        fitted('Yield', onMold.yieldShare, 'ratio'),
        fitted('An evening may miss it by', eveningSd(onMold), 'ratio'),
        ...(after.mean < 1 ? [fitted('Trim to finish leave of them', after.mean, 'ratio')] : []),
      ],
    },
    // A number to keep to, not one that is in doubt: what may come of it is in the yield.
    {},
  );
};

/** How unsure each part of a cost is, as a share of it: prices are on the bill, what is taken of it is not. */
const COST_SPREAD: Record<CostPart, number> = {
  lead: SPREAD.massShare,
  hook: 0,
  powder: Math.hypot(SPREAD.filmShare, SPREAD.staysOnShare),
  parts: 0,
  packaging: 0,
  dross: SPREAD.drossShare,
  energy: SPREAD.energyShare,
  work: SPREAD.handsShare,
  wear: 0,
};

const unitCostFigure = (stack: CostStack, name: string): Figure => {
  const total = stackTotal(stack);
  return figure(
    total,
    'minor/head',
    {
      rule: `One ${name}: metal, hook, powder, other parts, its bag, what is skimmed off, electricity, your time and what your tools wear.`,
      formula: 'lead + hook + powder + parts + packaging + dross + energy + work + wear',
      source: 'Moving-average prices of your stock; house ways',
      inputs: Object.entries(stack).map(([part, minor]) => given(part, minor, 'minor/head')),
    },
    range90(
      (parts) => parts.reduce((sum, part) => sum + part, 0),
      COST_PARTS.map((part) => aboveZero(stack[part], COST_SPREAD[part])),
    ),
  );
};

/**
 * Unit cost over all heads of the order.
 * @example averageCost(plan.lines).value // 50.75
 */
export function averageCost(lines: readonly LinePlan[]): Figure {
  const heads = lines.reduce((sum, line) => sum + line.quantity, 0);
  const mean = (of: (line: LinePlan) => number) =>
    heads ? lines.reduce((sum, line) => sum + line.quantity * of(line), 0) / heads : 0;
  return figure(
    mean((line) => line.unitCost.value),
    'minor/head',
    {
      rule: 'All heads of the order together.',
      formula: 'Σ heads · unit cost / Σ heads',
      source: 'Unit cost of each line',
      inputs: lines.map((line) => given(line.productName, line.unitCost.value, 'minor/head', `${line.quantity} heads`)),
    },
    // What makes one line dearer, hands or prices, makes all of them dearer.
    {
      low: mean(({ unitCost: { value, low = value } }) => low),
      high: mean(({ unitCost: { value, high = value } }) => high),
    },
  );
}
