import { heatMinor, paintHeat } from './paint-heat.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { partOf, sumOfCasts, wholeCasts, type Casts } from '../count/casts-for.ts';
import { yieldEstimate, type YieldEstimate } from '../count/yield.ts';
import { aboveZero, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { castInto, castKg } from './blank.ts';
import { blankKey, type KindOnMold } from './allocate.ts';
import { alloyOfProduct } from './metal.ts';
import type { MetalRun } from './metal-runs.ts';
import { serving, unitCostStack, wearMinor } from './cost.ts';
import { handsOf, totalSeconds } from './minutes.ts';
import { powdersByStep, productBake } from './product.ts';
import { perHead } from '../job/bill.ts';
import { COST_PARTS, partKind, type CostPart } from '../job/part-kinds.ts';
import type { Timing } from './timing.ts';
import {
  stackTotal,
  type CostStack,
  type LinePlan,
  type PlanInput,
  type PlanLine,
  type PlanProduct,
  type StockOnHand,
} from './types.ts';

/** Metal in one head of a line: as its cavity casts it, or by its stamp where it comes off the shelf. */
function headKg({ product }: PlanLine, kinds: readonly KindOnMold[]): number {
  const cavity = kinds.find((each) => each.kind.lines.some((line) => line.product === product))?.cavities[0];
  const alloy = alloyOfProduct(product);
  return cavity ? castKg(cavity, product, alloy) : castMassKg({ nominalMassKg: product.nominalMassKg, alloy });
}

/** The whole order that a line belongs to: its pours by metal, the heads that come down the line, its times. */
interface OfOrder {
  runs: readonly MetalRun[];
  coming: readonly PlanLine[];
  timing: Timing;
}

/**
 * What one line of an order comes to: casts, yield, powder, cure and unit cost, each with its why.
 * @param coming the line as its heads come down the line: with those that later steps will spoil
 * @example linePlan(order.lines[0], order.lines[0], { runs, coming: order.lines, timing },
 *   order).casts.value // 64
 */
export function linePlan(
  { quantity }: PlanLine,
  coming: PlanLine,
  { runs, coming: lines, timing }: OfOrder,
  input: PlanInput,
): LinePlan {
  const { product } = coming;
  const allocations = runs.flatMap((run) => run.allocations);
  const kinds = allocations.flatMap((each) => each.kinds);
  // Heads off the shelf are on no mold: they are metal and casting work that was paid for before.
  const onMolds = kinds.filter((each) => each.kind.lines.includes(coming));
  const onMold = onMolds[0] ?? null;
  // What is done to heads that are spoiled later is paid by those that are not.
  const aGood = coming.quantity / quantity;
  const leadKg = headKg(coming, kinds);
  const powders = powdersByStep(product, input.ways);
  const parts = product.parts ?? [];
  const { lead } = runs.find((run) => run.allocations.some((each) => each.kinds.includes(onMold!))) ?? input;
  const used = usedBy(product, { stock: input.stock, lead }, powders, onMold !== null);
  const priceOf = (materialId: string) => input.stock.find((each) => each.materialId === materialId)?.priceMinor ?? 0;
  const fromMinor = product.from ? aGood * priceOf(product.from.materialId) : 0;
  const partsCost = (costs: CostPart) =>
    parts.reduce((sum, part) => {
      return partKind(part.kind).costs === costs ? sum + aGood * perHead(part) * priceOf(part.partId) : sum;
    }, 0);
  const poured = lines.filter((each) => each.product.source !== 'shelf');
  const massShare = (aGood * leadKg) / poured.reduce((sum, each) => sum + each.quantity * headKg(each, kinds), 0);
  const blank = blankKey(product);
  const alike = lines.filter((each) => each.product.source !== 'shelf' && blankKey(each.product) === blank);
  const heads = alike.reduce((sum, each) => sum + each.quantity, 0);
  const ownHands = totalSeconds(handsOf(input.ways, [coming]));
  const workS = (onMold ? (aGood * timing.pourSByBlank.get(blank)!) / heads : 0) + ownHands / quantity;
  const casts = castsOfLine(coming, onMolds);
  const drossKg = (input.ways.drossShare * leadKg * casts.expected) / quantity;
  const stack = unitCostStack({
    leadKg: onMold ? leadKg : 0,
    leadMinorPerKg: priceOf(lead.materialId),
    drossKg,
    hookMinor: product.hook && onMold ? priceOf(product.hook.materialId) : 0,
    powderMinor: aGood * powders.reduce((sum, powder) => sum + powder.kgPerHead * priceOf(powder.materialId), 0),
    partsMinor: partsCost('parts') + fromMinor,
    packagingMinor: partsCost('packaging'),
    wearMinor: wearMinor(serving(product.id, input.tools)),
    energyKWh: (onMold ? timing.potKWh * massShare : 0) + timing.ovenKWh(coming) / quantity,
    energyMinorPerKWh: input.ways.energyMinorPerKWh,
    paintHeatMinor: heatMinor(input.ways, paintHeat(input.ways, product)),
    workS,
    labourMinorPerHour: input.ways.labourMinorPerHour,
  });
  const cavities = onMolds.flatMap((each) => each.cavities);
  const records = cavities.reduce((sum, cavity) => sum + cavity.casts, 0);
  const good = cavities.reduce((sum, cavity) => sum + cavity.good, 0);
  const estimate = yieldEstimate(good, records);
  return {
    productId: product.id,
    productName: product.name,
    quantity,
    coming: coming.quantity,
    casts: castsFigure(quantity, coming, casts, onMold),
    molds: allocations.flatMap(({ mold, kinds: own }) => {
      const here = castsOfLine(
        coming,
        own.filter(({ kind }) => kind.lines.includes(coming)),
      ).expected;
      return here > 0 ? [{ moldId: mold.id, casts: wholeCasts(here) }] : [];
    }),
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
      rule: `What this cavity casts in ${product.metal?.name ?? 'soft lead'}.`,
      formula: 'm = (V_cavity − V_pin and inserts) · ρ(327 °C)',
      source: 'Nominal mass stamped on the mold; pin, keeper and other inserts by their size',
      inputs: [given('Stamped', product.nominalMassKg, 'head-kg')],
    }),
    unitCost: unitCostFigure(stack, product.name, used),
    stack,
    unpriced: used.filter(({ priceMinor }) => priceMinor === null).map(({ name }) => name),
    priced: used.flatMap(({ name, priced }) => (priced ? [{ name, priced }] : [])),
    workS,
    powders,
    parts,
    bake: productBake(product, input.oven, Math.min(coming.quantity, input.oven.places)),
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

/**
 * Of the casts of its blank, on all molds that cast it, a line's part.
 * @example castsOfLine(order.lines[0], kinds.slice(0, 1)).provision // 73
 */
export function castsOfLine(coming: PlanLine, onMolds: readonly KindOnMold[]): Casts {
  const whole = onMolds[0]?.kind.whole ?? onMolds[0]?.kind.wanted ?? 1;
  return partOf(sumOfCasts(onMolds.map(({ casts }) => casts)), coming.quantity / whole);
}

const castsFigure = (heads: number, coming: PlanLine, casts: Casts, onMold: KindOnMold | null): Figure => {
  if (!onMold) {
    return figure(0, 'count', {
      rule: 'None: these heads come off the shelf.',
      formula: '0',
      source: 'The product',
      inputs: [given('Heads wanted', heads, 'count')],
    });
  }
  const spoiled = coming.quantity - heads;
  return figure(
    wholeCasts(casts.expected),
    'count',
    {
      rule: `Casting stops when enough are good: about so many casts. One evening in twenty it takes more than ${casts.provision}: lay out for that.`,
      formula:
        'E[n] = N (s − 1) / (y s − 1), the wait for the N-th good one; up to: smallest n with P(X ≥ N) ≥ 95 %, X beta-binomial',
      source: 'The yield y is only as sure as after s casts, and evenings differ',
      inputs: [
        given('Good heads wanted', heads, 'count'),
        ...(spoiled > 0 ? [fitted('Of those cast good, trim to finish spoil', spoiled, 'count')] : []),
        fitted('Good casts wanted, N', coming.quantity, 'count'),
        fitted('Yield, y', onMold.yieldShare, 'ratio'),
        fitted('An evening may miss it by', eveningSd(onMold), 'ratio'),
      ],
    },
    { low: Math.max(coming.quantity, casts.least), high: casts.provision, basis: 'fitted' },
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

/** Everything of the shelf that a line takes, each once. */
function usedBy(
  product: PlanProduct,
  { stock, lead }: Pick<PlanInput, 'stock' | 'lead'>,
  powders: readonly { materialId: string }[],
  isPoured: boolean,
): StockOnHand[] {
  const ids = [
    ...(isPoured ? [lead.materialId, ...castInto(product).map(({ materialId }) => materialId)] : []),
    ...(product.from ? [product.from.materialId] : []),
    ...powders.map(({ materialId }) => materialId),
    ...(product.parts ?? []).map(({ partId }) => partId),
  ];
  return [...new Set(ids)].flatMap((id) => stock.find(({ materialId }) => materialId === id) ?? []);
}

const unitCostFigure = (stack: CostStack, name: string, used: readonly StockOnHand[]): Figure => {
  const lacking = used.filter(({ priceMinor }) => priceMinor === null);
  const total = stackTotal(stack);
  return figure(
    total,
    'minor/head',
    {
      rule: `One ${name}: metal, hook, powder, other parts, its bag, what is skimmed off, electricity, your time and what your tools wear.${
        lacking.length > 0 ? ` Without ${lacking.map((each) => each.name).join(', ')}: no price of it is known.` : ''
      }`,
      formula: 'lead + hook + powder + parts + packaging + dross + energy + work + wear',
      source: 'Moving-average prices of your stock; house ways',
      inputs: [
        ...Object.entries(stack).map(([part, minor]) => given(part, minor, 'minor/head')),
        ...used.flatMap((each) => (each.priced ? [given(each.name, each.priced, 'text')] : [])),
      ],
    },
    range90(
      (parts) => parts.reduce((sum, part) => sum + part, 0),
      COST_PARTS.map((part) => aboveZero(stack[part], COST_SPREAD[part])),
    ),
  );
};

/**
 * Unit cost over all heads of the order.
 * @example averageCost(plan.lines).value // 48.96
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
