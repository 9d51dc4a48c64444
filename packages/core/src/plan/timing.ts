import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { holdingEnergyKWh, meltTime } from '../pot/time-to-pour.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import type { MoldAllocation } from './allocate.ts';
import { handSeconds, shotSeconds } from './minutes.ts';
import { ovenLoads, roomOf } from '../bake/rack.ts';
import { bakeDoorS, curedPowders } from './product.ts';
import type { MoldPlan, Plan, PlanInput, PlanLayer, PlanLine, PlanOven } from './types.ts';

/** Share of its rated power that an oven draws on average while it holds temperature. Common practice, no source. */
export const OVEN_DUTY = 0.6;

/** Seconds and kilowatt hours of a whole plan, from which its figures are made. */
export interface Timing {
  meltS: number;
  meltKWh: number;
  pourS: number;
  hands: ReturnType<typeof handSeconds>;
  ovenLoads: number;
  bakeWaitS: number;
  /** Waits of liquid paint between coats; the heads of a line dry together. */
  dryWaitS: number;
  energyKWh: number;
}

/** Melting, pouring, hands, oven loads and electricity of a plan. */
export function timingOf(
  allocations: readonly MoldAllocation[],
  molds: readonly MoldPlan[],
  lines: readonly PlanLine[],
  chargeKg: number,
  { pot, oven, ways }: PlanInput,
): Timing {
  const atOnceKg = Math.min(pot.capacityKg, Math.max(0.05, chargeKg));
  const melt = meltTime({
    leadKg: atOnceKg,
    powerW: pot.powerW,
    lossWPerK: pot.lossWPerK,
    toC: ways.pourC,
    roomC: ways.roomC,
    fromC: ways.roomC,
  });
  const pourS = molds.reduce((sum, mold, at) => {
    const cavities = allocations[at]!.kinds.reduce((n, kind) => n + kind.cavities.length, 0);
    return sum + mold.blanks.value * BLANK_CYCLE_S + mold.shots.value * shotSeconds(ways, cavities, mold.openS.value);
  }, 0);
  const loads = bakeLoads(lines, oven);
  const bakeWaitS = loads.reduce((sum, each) => sum + each.loads * each.seconds, 0);
  const holdKWh = holdingEnergyKWh(pot.lossWPerK, ways.pourC, ways.roomC, pourS);
  return {
    meltS: melt.seconds,
    meltKWh: melt.energyKWh + holdKWh,
    pourS,
    hands: handSeconds(ways, lines),
    ovenLoads: loads.reduce((sum, each) => sum + each.loads, 0),
    bakeWaitS,
    dryWaitS: Math.max(0, ...lines.map(({ product }) => dryWaitS(product.layers))),
    energyKWh: melt.energyKWh + holdKWh + (oven.powerW * OVEN_DUTY * bakeWaitS) / J_PER_KWH,
  };
}

/** How long liquid paint dries, coat after coat, s. */
export const dryWaitS = (layers: readonly PlanLayer[]): number =>
  layers.reduce((sum, { powder, coats }) => sum + (powder.form === 'liquid' ? coats * (powder.dryS ?? 0) : 0), 0);

/** Oven loads by program: packed onto the oven's racks where it has any, by its plain count of places otherwise. */
export function bakeLoads(
  lines: readonly PlanLine[],
  oven: PlanOven,
): { seconds: number; heads: number; loads: number }[] {
  const programs = new Map<string, PlanLine[]>();
  for (const line of lines) {
    const { bake, layers } = line.product;
    if (!bake || curedPowders(layers).length === 0) continue;
    const key = `${bake.setC} ${bake.seconds} ${bake.from ?? 'door'}`;
    programs.set(key, [...(programs.get(key) ?? []), line]);
  }
  return [...programs.values()].map((own) => {
    // The slowest head of the load says how long it is in.
    const seconds = Math.max(...own.map(({ product }) => bakeDoorS(product, product.bake!, oven)));
    const heads = own.reduce((sum, line) => sum + line.quantity, 0);
    const batches = own.map(({ product, quantity }) => ({
      id: product.id,
      program: 'one',
      heads: quantity,
      ...roomOf({ style: product.style, massKg: product.nominalMassKg, hookSize: product.hook.size }),
    }));
    const packed = oven.racks?.length ? ovenLoads(oven.racks, batches) : null;
    // A head that no rack takes is still baked: it lies on the tray, by the plain count.
    const loads = packed && packed.homeless.length === 0 ? packed.loads.length : Math.ceil(heads / oven.places);
    return { seconds, heads, loads };
  });
}

export const meltFigure = (timing: Timing, chargeKg: number, { pot, ways }: PlanInput): Figure =>
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

/** Hands-on seconds by station, and the oven's own. */
export function minutesOf(timing: Timing, lines: readonly PlanLine[]): Plan['minutes'] {
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
    step('trim', timing.hands.trim, 'Sprue off and edge, by your ways.'),
    step(
      'paint',
      timing.hands.paint,
      'Heat, dip, tap and what your ways add, layer by layer; the heating by the model.',
    ),
    step('bake', timing.hands.bake, 'Hanging up and taking down; the oven works alone.'),
    step('finish', timing.hands.finish, 'Counting and bagging.'),
  ];
  const paint = steps[2]!;
  if (timing.dryWaitS > 0) {
    paint.waitS = figure(timing.dryWaitS, 's', {
      rule: 'Liquid paint dries between its coats; the heads of a line dry side by side.',
      formula: 'Σ coats · wait',
      source: 'The wait written down with the paint',
      inputs: lines.flatMap(({ product }) =>
        product.layers
          .filter(({ powder }) => powder.form === 'liquid')
          .map(({ powder, coats }) => given(powder.name, powder.dryS ?? 0, 's', `${coats} coats`)),
      ),
    });
  }
  const bake = steps[3]!;
  bake.waitS = figure(timing.bakeWaitS, 's', {
    rule: 'One load after another.',
    formula: 'loads · program',
    source: 'Program as set',
    inputs: [given('Loads', timing.ovenLoads, 'count')],
  });
  return steps.filter((each) => each.handsS.value > 0);
}

export function handsFigure(timing: Timing): Figure {
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

export const ovenLoadsFigure = (timing: Timing, lines: readonly PlanLine[], { oven }: PlanInput): Figure =>
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
