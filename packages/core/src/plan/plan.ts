import { yieldEstimate } from '../count/binomial.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { holdingEnergyKWh, meltTime } from '../pot/time-to-pour.ts';
import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { countInRange } from '../quantity/check.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import { allocate, castingProblem, type KindOnMold, type MoldAllocation } from './allocate.ts';
import { unitCostStack } from './cost.ts';
import { handSeconds, shotSeconds } from './minutes.ts';
import { moldPlan } from './mold-plan.ts';
import { materialNeeds } from './needs.ts';
import { powdersPerHead, productCure } from './product.ts';
import {
  stackTotal,
  type CostStack,
  type LinePlan,
  type MoldPlan,
  type Plan,
  type PlanInput,
  type PlanLine,
} from './types.ts';

/** Share of its rated power that an oven draws on average while it holds temperature. Common practice, no source. */
export const OVEN_DUTY = 0.6;

/** Largest order line that is planned; beyond it somebody has mistyped. */
export const MOST_HEADS_PER_LINE = 20_000;

interface Timing {
  meltS: number;
  meltKWh: number;
  pourS: number;
  hands: ReturnType<typeof handSeconds>;
  ovenLoads: number;
  bakeWaitS: number;
  energyKWh: number;
}

/**
 * Everything that can be said before the pot is switched on: shots, metal, hooks, powder, minutes, oven loads, cost, and
 * what is missing. Products that no mold can cast are listed in `problems` and left out of the rest.
 * @throws QuantityError for quantities or ways out of range
 */
export function planOrder(input: PlanInput): Plan {
  for (const line of input.lines) {
    countInRange(`quantity of ${line.product.name}`, line.quantity, 1, MOST_HEADS_PER_LINE);
  }
  const problems = input.lines.flatMap(({ product }) => {
    const text = castingProblem(product, input.molds);
    return text ? [{ productId: product.id, text }] : [];
  });
  const lines = input.lines.filter(({ product }) => !problems.some((problem) => problem.productId === product.id));
  const allocations = allocate(lines, input.molds);
  const molds = allocations.map((allocation) => moldPlan(allocation, input.ways));
  const kinds = allocations.flatMap((allocation) => allocation.kinds);
  const charge = chargeOf(kinds, molds, input);
  const timing = timingOf(allocations, molds, lines, charge.figure.value, input);
  const linePlans = lines.map((line) => linePlan(line, kinds, lines, timing, input));
  return {
    lines: linePlans,
    molds,
    charge: charge.figure,
    chargeParts: charge.parts,
    melt: meltFigure(timing, charge.figure.value, input),
    needs: materialNeeds(linePlans, kinds, charge.figure, input),
    minutes: minutesOf(timing, lines),
    handsTotal: handsFigure(timing),
    ovenLoads: ovenLoadsFigure(timing, lines, input),
    unitCost: averageCost(linePlans),
    problems,
  };
}

function chargeOf(kinds: readonly KindOnMold[], molds: readonly MoldPlan[], input: PlanInput) {
  const headsKg = kinds.reduce(
    (sum, each) => sum + each.casts * castMassKg({ nominalMassKg: each.cavities[0]!.nominalMassKg }),
    0,
  );
  // Sprues go back while it is poured; what must be there at once is half of them.
  const spruesKg = molds.reduce(
    (sum, mold) => sum + mold.shots.value * mold.uses.reduce((shot, use) => shot + use.sprueKg, 0),
    0,
  );
  const drossKg = input.ways.drossShare * (headsKg + spruesKg);
  const parts = [
    { label: 'heads, rejects too', kg: headsKg },
    { label: 'sprues', kg: spruesKg },
    { label: 'dross', kg: drossKg },
    { label: 'heel', kg: input.ways.heelKg },
  ];
  const value = parts.reduce((sum, part) => sum + part.kg, 0);
  const over = value > input.pot.capacityKg;
  return {
    parts,
    figure: figure(
      value,
      'kg',
      {
        rule: over
          ? `More than the ${input.pot.name} holds: charge it full, feed sprues and ingots back in small lots while you pour.`
          : 'All the metal that this pour needs at once, sprues and the heel that stays in the pot included.',
        formula: 'charge = casts · mass + shots · sprues + dross + heel',
        source: 'Mass balance; dross share and heel are house ways',
        inputs: parts.map((part) => given(part.label, part.kg, 'kg')),
      },
      { low: value * 0.95, high: value * 1.08 },
    ),
  };
}

function timingOf(
  allocations: readonly MoldAllocation[],
  molds: readonly MoldPlan[],
  lines: readonly PlanLine[],
  chargeKg: number,
  { pot, oven, ways }: PlanInput,
): Timing {
  const atOnceKg = Math.min(pot.capacityKg, Math.max(0.05, chargeKg));
  const melt = meltTime({ leadKg: atOnceKg, powerW: pot.powerW, lossWPerK: pot.lossWPerK, toC: ways.pourC, roomC: ways.roomC, fromC: ways.roomC }); // prettier-ignore
  const pourS = molds.reduce((sum, mold, at) => {
    const cavities = allocations[at]!.kinds.reduce((n, kind) => n + kind.cavities.length, 0);
    return sum + mold.blanks.value * BLANK_CYCLE_S + mold.shots.value * shotSeconds(ways, cavities, mold.openS.value);
  }, 0);
  const baked = lines.filter((line) => line.product.bake && line.product.layers.length > 0);
  const programs = new Map<string, { heads: number; seconds: number }>();
  for (const { product, quantity } of baked) {
    const key = `${product.bake!.setC} ${product.bake!.seconds}`;
    const program = programs.get(key) ?? { heads: 0, seconds: product.bake!.seconds };
    program.heads += quantity;
    programs.set(key, program);
  }
  const loads = [...programs.values()].map((each) => ({ ...each, loads: Math.ceil(each.heads / oven.places) }));
  const bakeWaitS = loads.reduce((sum, each) => sum + each.loads * each.seconds, 0);
  const holdKWh = holdingEnergyKWh(pot.lossWPerK, ways.pourC, ways.roomC, pourS);
  return {
    meltS: melt.seconds,
    meltKWh: melt.energyKWh + holdKWh,
    pourS,
    hands: handSeconds(ways, lines),
    ovenLoads: loads.reduce((sum, each) => sum + each.loads, 0),
    bakeWaitS,
    energyKWh: melt.energyKWh + holdKWh + (oven.powerW * OVEN_DUTY * bakeWaitS) / J_PER_KWH,
  };
}

const meltFigure = (timing: Timing, chargeKg: number, { pot, ways }: PlanInput): Figure =>
  figure(
    timing.meltS,
    's',
    {
      rule: 'From cold, at full power. The last heel matters little, the power a lot.',
      formula: 'dH/dt = P − UA (T − T_room), to the pouring temperature',
      source: 'Enthalpy method',
      inputs: [
        given('Metal at once', Math.min(pot.capacityKg, chargeKg), 'kg'),
        given('Power', pot.powerW, 'W'),
        given('Pour at', ways.pourC, 'C'),
        given('Room', ways.roomC, 'C'),
      ],
    },
    { low: timing.meltS * 0.85, high: timing.meltS * 1.2 },
  );

function minutesOf(timing: Timing, lines: readonly PlanLine[]): Plan['minutes'] {
  const heads = lines.reduce((sum, line) => sum + line.quantity, 0);
  const step = (station: string, seconds: number, rule: string) => ({
    station,
    handsS: figure(
      seconds,
      's',
      {
        rule,
        formula: 'heads · seconds a head',
        source: 'House ways; common practice until your own pace is on record',
        inputs: [given('Heads', heads, 'count'), given('A head', heads ? seconds / heads : 0, 's')],
      },
      { low: seconds * 0.8, high: seconds * 1.3 },
    ),
    waitS: null as Figure | null,
  });
  const steps = [
    step('pour', timing.pourS, 'Blank shots, then shot by shot: load, close, pour, wait, open, look.'),
    step('trim', timing.hands.trim, 'Sprue off, edge smoothed.'),
    step('paint', timing.hands.paint, 'Heat, dip, tap, flow; each coat counts.'),
    step('bake', timing.hands.bake, 'Hanging up and taking down; the oven works alone.'),
    step('finish', timing.hands.finish, 'Counting and bagging.'),
  ];
  const bake = steps[3]!;
  bake.waitS = figure(timing.bakeWaitS, 's', {
    rule: 'One load after another.',
    formula: 'loads · program',
    source: 'Program as set',
    inputs: [given('Loads', timing.ovenLoads, 'count')],
  });
  return steps.filter((each) => each.handsS.value > 0);
}

function handsFigure(timing: Timing): Figure {
  const parts = { pour: timing.pourS, ...timing.hands };
  const seconds = Object.values(parts).reduce((sum, part) => sum + part, 0);
  return figure(
    seconds,
    's',
    {
      rule: 'Time at work with both hands. Melting and baking run beside it.',
      formula: 'pour + trim + paint + bake + finish',
      source: 'House ways',
      inputs: Object.entries(parts).map(([station, part]) => given(station, part, 's')),
    },
    { low: seconds * 0.8, high: seconds * 1.3 },
  );
}

const ovenLoadsFigure = (timing: Timing, lines: readonly PlanLine[], { oven }: PlanInput): Figure =>
  figure(timing.ovenLoads, 'count', {
    rule: 'One program a load; what does not fit waits for the next.',
    formula: 'loads = Σ over programs ⌈heads / places⌉',
    source: 'Counting',
    inputs: [
      given(
        'Heads to bake',
        lines.reduce((sum, line) => sum + (line.product.bake ? line.quantity : 0), 0),
        'count',
      ),
      given(`Places in ${oven.name}`, oven.places, 'count'),
    ],
  });

function linePlan(
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
  const massShare = leadKg / lines.reduce((sum, each) => sum + each.quantity * castMassKg({ nominalMassKg: each.product.nominalMassKg }), 0); // prettier-ignore
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
        rule: records ? 'What these cavities gave so far, leaning on common practice while records are few.' : 'No casts on record yet: what a practised hand gets.',
        formula: '(good + 37.6) / (casts + 40)',
        source: 'Beta prior; Wilson interval',
        inputs: [fitted('Good', good, 'count'), fitted('Casts', records, 'count')],
      },
      { low: estimate.low, high: estimate.high, basis: records ? 'fitted' : 'given' },
    ), // prettier-ignore
    leadKgPerHead: figure(leadKg, 'head-kg', {
      rule: 'What this cavity casts in soft lead.',
      formula: 'm = V_cavity · ρ(327 °C)',
      source: 'Nominal mass stamped on the mold',
      inputs: [given('Stamped', product.nominalMassKg, 'head-kg')],
    }),
    unitCost: unitCostFigure(stack, product.name),
    stack,
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

function averageCost(lines: readonly LinePlan[]): Figure {
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
