import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { holdingEnergyKWh, meltTime } from '../pot/time-to-pour.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import { cavitiesAShot, type MoldAllocation } from './allocate.ts';
import { CHANGE_METAL_S, LEAD_FREE_CAUTION } from './metal.ts';
import type { MetalRun } from './metal-runs.ts';
import { QuantityError } from '../quantity/check.ts';
import { potRange } from '../pot/melt-plan.ts';
import { range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { handsOf, paceOfStep, totalSeconds, type StepHands } from './minutes.ts';
import { paceOf, type PaceFactor } from '../ways/pace.ts';
import { shotsSeconds } from '../mold/shot-seconds.ts';
import { stationOf } from '../job/stations.ts';
import { ovenLoads, roomOf } from '../bake/rack.ts';
import { doorS, knownOven, loadHeat } from '../bake/known-oven.ts';
import { curedPowders, productBakedJK, productLagS, stepsOf } from './product.ts';
import type { KnownWays, Plan, PlanBake, PlanInput, PlanLayer, PlanLine, PlanOven, PlanPot } from './types.ts';

/** Share of its rated power that an oven draws on average while it holds temperature. Common practice, no source. */
export const OVEN_DUTY = 0.6;

/**
 * What an oven draws while a load is in it, kWh: the one rule, for what is planned and for what came.
 * @example loadKWh({ powerW: 1400 }, 1800) // 0.42
 */
export const loadKWh = ({ powerW }: { powerW: number }, seconds: number): number =>
  (powerW * OVEN_DUTY * seconds) / J_PER_KWH;

/** Seconds and kilowatt hours of a whole plan, from which its figures are made. */
export interface Timing {
  meltS: number;
  pourS: number;
  /** Of that, the pot emptied of one metal for another. */
  changeS: number;
  /** Of all that, by the blank that was poured ({@link blankKey}): a mold's time goes by its casts. */
  pourSByBlank: ReadonlyMap<string, number>;
  hands: StepHands[];
  ovenLoads: number;
  bakeWaitS: number;
  /** Waits of liquid paint between coats; the heads of a line dry together. */
  dryWaitS: number;
  /** Melting and holding, and an oven that holds its heat: kWh of all of it, and of one line's heads in its loads. */
  potKWh: number;
  ovenKWh: (line: PlanLine) => number;
}

/**
 * Melting, pouring, hands, oven loads and electricity of a plan.
 * @example timingOf(runs, order.lines, order).ovenLoads // 2
 */
export function timingOf(runs: readonly MetalRun[], lines: readonly PlanLine[], input: PlanInput): Timing {
  const { pot, oven, ways } = input;
  const pourSByBlank = new Map<string, number>();
  const poured = runs.map((run, nth) => {
    const changeS = nth > 0 ? CHANGE_METAL_S : 0;
    const seconds = pourSecondsOf(run, changeS, input);
    for (const [key, own] of seconds) pourSByBlank.set(key, (pourSByBlank.get(key) ?? 0) + own);
    const pourS = [...seconds.values()].reduce((sum, each) => sum + each, 0);
    const melt = meltTime(meltOf(run, pot));
    const held = { lossWPerK: pot.lossWPerK, potC: run.ways.pourC, roomC: ways.roomC, seconds: pourS - changeS };
    return { pourS, changeS, meltS: melt.seconds, potKWh: melt.energyKWh + holdingEnergyKWh(held) };
  });
  const sumOf = (key: 'pourS' | 'changeS' | 'meltS' | 'potKWh') => poured.reduce((sum, each) => sum + each[key], 0);
  const loads = bakeLoads(lines, oven);
  const bakeWaitS = loads.reduce((sum, each) => sum + each.loads * each.seconds, 0);
  return {
    meltS: sumOf('meltS'),
    pourS: sumOf('pourS'),
    changeS: sumOf('changeS'),
    pourSByBlank,
    hands: handsOf(ways, lines),
    ovenLoads: loads.reduce((sum, each) => sum + each.loads, 0),
    bakeWaitS,
    dryWaitS: Math.max(0, ...lines.map(({ product }) => dryWaitS(product.layers))),
    potKWh: sumOf('potKWh'),
    ovenKWh: (line) =>
      loads.reduce((sum, each) => sum + (each.loads * loadKWh(oven, each.seconds) * each.of(line)) / each.heads, 0),
  };
}

/** Seconds at the pot by blank: a mold's time goes by its casts, and so does the change to this metal. */
function pourSecondsOf(
  { molds, allocations }: MetalRun,
  changeS: number,
  { ways, twoOfEach }: PlanInput,
): Map<string, number> {
  const byBlank = new Map<string, number>();
  const castsOf = (kinds: MoldAllocation['kinds']) => kinds.reduce((sum, { casts }) => sum + casts.expected, 0);
  const allCasts = castsOf(allocations.flatMap(({ kinds }) => kinds));
  molds.forEach(({ blanks, shots, openS }, at) => {
    const { kinds } = allocations[at]!;
    const mold = { cavities: cavitiesAShot(allocations[at]!), openS: openS.value };
    // Two molds alike share the shots, and each is warmed.
    const shares = twoOfEach ? [Math.ceil(shots.value / 2), Math.floor(shots.value / 2)] : [shots.value];
    const pair = shares.filter((own) => own > 0).map((own) => ({ ...mold, shots: own }));
    const byWays = pair.length * blanks.value * BLANK_CYCLE_S + shotsSeconds(ways, pair, pair.length);
    const seconds = paceOf(ways.pace, 'pour').factor * byWays;
    const all = castsOf(kinds);
    for (const { kind, casts } of kinds) {
      const own = (seconds * casts.expected) / all + (changeS * casts.expected) / allCasts;
      byBlank.set(kind.key, (byBlank.get(kind.key) ?? 0) + own);
    }
  });
  return byBlank;
}

/**
 * How long liquid paint dries, coat after coat, s.
 * @example dryWaitS([]) // 0
 */
export const dryWaitS = (layers: readonly PlanLayer[]): number =>
  layers.reduce((sum, { powder, coats }) => sum + (powder.form === 'liquid' ? coats * (powder.dryS ?? 0) : 0), 0);

/** One bake of one line: a product that is baked twice goes into the oven twice. */
interface BakeOfLine {
  line: PlanLine;
  bake: PlanBake;
}

/**
 * Oven loads by program: packed onto the oven's racks where it has any, by its plain count of places otherwise.
 * @example bakeLoads([{ product: product(10), quantity: 88 }], planOven)[0].loads // 2
 */
export function bakeLoads(
  lines: readonly PlanLine[],
  oven: PlanOven,
): { seconds: number; heads: number; loads: number; of: (line: PlanLine) => number }[] {
  const programs = new Map<string, BakeOfLine[]>();
  for (const line of lines) {
    if (curedPowders(line.product.layers).length === 0) continue;
    for (const { key: step, bake } of stepsOf(line.product)) {
      if (!bake) continue;
      // Coats that are baked one after the other never share a load.
      const nth = stepsOf(line.product)
        .filter((each) => each.bake)
        .findIndex((each) => each.key === step);
      const key = `${bake.setC} ${bake.seconds} ${bake.preheated} ${bake.from ?? 'door'} ${nth}`;
      programs.set(key, [...(programs.get(key) ?? []), { line, bake }]);
    }
  }
  return [...programs.values()].map((own) => {
    const heads = own.reduce((sum, { line }) => sum + line.quantity, 0);
    const groups = own.map(({ line: { product, quantity } }) => ({
      id: product.id,
      program: 'one',
      heads: quantity,
      ...roomOf({ style: product.style, massKg: product.nominalMassKg, hookSize: product.hook?.size ?? null }),
    }));
    const packed = oven.racks?.length ? ovenLoads(oven.racks, groups) : null;
    // A head that no rack takes is still baked: it lies on the tray, by the plain count.
    const loads = packed && packed.unplaced.length === 0 ? packed.loads.length : Math.ceil(heads / oven.places);
    // The slowest head says how long a load is in, and all of its heads take of the oven's power.
    const load = loadHeat(
      own.map(({ line: { product, quantity } }) => ({
        heatJK: productBakedJK(product),
        headLagS: productLagS(product),
        count: quantity / Math.max(1, loads),
      })),
    );
    const known = knownOven(oven);
    const seconds = Math.max(...own.map(({ line, bake }) => doorS(bake, known, productLagS(line.product), load)));
    // A product that is baked twice by one program is in two kinds of load.
    const of = (one: PlanLine) => own.reduce((sum, { line }) => sum + (line === one ? line.quantity : 0), 0);
    return { seconds, heads, loads, of };
  });
}

/** All of a metal that is charged at once, from cold to where it is poured. */
const meltOf = (
  { chargeKg, alloy, ways }: Pick<MetalRun, 'chargeKg' | 'alloy' | 'ways'>,
  { capacityKg, powerW, lossWPerK, crucibleJPerK }: PlanPot,
) => ({
  leadKg: Math.min(capacityKg, Math.max(0.05, chargeKg)),
  ...{ powerW, lossWPerK, crucibleJPerK, alloy },
  ...{ toC: ways.pourC, roomC: ways.roomC, fromC: ways.roomC },
});

/** At the far end of its doubt a pot may never get there: then it takes long. */
function meltsInS(charge: Parameters<typeof meltTime>[0], longestS: number): number {
  try {
    return Math.min(longestS, meltTime(charge).seconds);
  } catch (error) {
    if (error instanceof QuantityError) return longestS;
    throw error;
  }
}

/**
 * Seconds until the charge can be poured, with what went into them; of several metals those of all together.
 * @example meltFigure(timing, runs, order).value // 262
 */
export const meltFigure = (timing: Timing, runs: readonly MetalRun[], { pot, ways }: PlanInput): Figure =>
  figure(
    timing.meltS,
    's',
    {
      rule: 'From cold, at full power. The last heel matters little, the power a lot.',
      formula: 'dH/dt = P − UA (T − T_room), to the pouring temperature',
      source: 'Enthalpy method',
      inputs: [
        ...runs.map(({ chargeKg }) => given('Metal at once', Math.min(pot.capacityKg, chargeKg), 'kg')),
        given('Power', pot.powerW, 'W'),
        ...(runs.length > 0 ? runs : [{ ways }]).map((run) => given('Pour at', run.ways.pourC, 'C')),
        given('Room', ways.roomC, 'C'),
      ],
    },
    timing.meltS === 0
      ? { low: 0, high: 0 }
      : potRange(pot, (each) =>
          runs.reduce((sum, run) => sum + meltsInS(meltOf(run, { ...pot, ...each }), 3 * timing.meltS), 0),
        ),
  );

const CHANGE = 'Change the metal';
const RULES: Record<string, string> = {
  pour: 'Blank shots, then shot by shot: load, close, pour, wait, open, look.',
  [CHANGE]: `The pot emptied into ingots, wiped out and charged with the next metal. ${LEAD_FREE_CAUTION}`,
  trim: 'Sprue off and edge, by your ways.',
  paint: 'Heat, dip, tap and what your ways add, layer by layer; the heating by the model.',
  bake: 'Hanging up and taking down; the oven works alone.',
  finish: 'Counting and bagging.',
};

/**
 * Seconds of several kinds of work, nine times in ten: each is off by itself.
 * @example handsRange([3600]) // { low: 2534, high: 4666 }
 */
export const handsRange = (parts: readonly number[]): { low: number; high: number } =>
  range90(
    (seconds) => seconds.reduce((sum, each) => sum + each, 0),
    parts.map((value) => ({ value, sd: SPREAD.handsShare * value })),
  );

function handsOfRow(
  { station, does, pace }: { station: string; does: string; pace: PaceFactor | null },
  seconds: number,
  heads: number,
): Plan['minutes'][number] {
  const own = stationOf(station).name === does ? RULES[station] : RULES[does];
  return {
    station,
    does,
    handsS: figure(
      seconds,
      's',
      {
        rule: own ?? `${does}: so many seconds a head.`,
        formula: 'heads · seconds a head',
        source: pace?.records
          ? `By your own evenings: ${heads ? `${Math.round(seconds / heads)} s a head, ` : ''}of ${pace.records} records`
          : 'House ways; common practice until your own pace is on record',
        inputs: [given('Heads', heads, 'count'), given('A head', heads ? seconds / heads : 0, 's')],
      },
      { ...handsRange([seconds]), basis: pace?.records ? 'fitted' : 'given' },
    ),
    waitS: null,
  };
}

/** Steps of all lines that are one and the same work, in the order in which they come. */
function rowsOf(hands: readonly StepHands[]): StepHands[][] {
  const rows = new Map<string, StepHands[]>();
  for (const each of hands) {
    const key = `${each.step.station} ${each.step.does}`;
    rows.set(key, [...(rows.get(key) ?? []), each]);
  }
  const place = (row: StepHands[]) => Math.max(...row.map(({ step, line }) => stepsOf(line.product).indexOf(step)));
  return [...rows.values()].sort((a, b) => place(a) - place(b));
}

/** What has to pass at a step by itself: paint dries, the oven bakes, glue sets. */
function waitOf(row: readonly StepHands[], timing: Timing, bakes: number): Figure | null {
  const { station } = row[0]!.step;
  if (station === 'bake') {
    return figure(timing.bakeWaitS / Math.max(1, bakes), 's', {
      rule: 'One load after another.',
      formula: 'loads · program',
      source: 'Program as set',
      inputs: [given('Loads', timing.ovenLoads, 'count')],
    });
  }
  const drying = station === 'paint' ? Math.max(0, ...row.map(({ step }) => dryWaitS(step.layers))) : 0;
  const setting = Math.max(0, ...row.map(({ step }) => step.wait?.seconds ?? 0));
  if (drying + setting === 0) return null;
  return figure(drying + setting, 's', {
    rule:
      drying > 0
        ? 'Liquid paint dries between its coats; the heads of a line dry side by side.'
        : `${row[0]!.step.wait?.name ?? 'A wait'}, all heads side by side.`,
    formula: 'Σ waits',
    source: 'The wait written down with the paint or the step',
    inputs: row.flatMap(({ step }) => [
      ...step.layers
        .filter(({ powder }) => powder.form === 'liquid')
        .map(({ powder, coats }) => given(powder.name, powder.dryS ?? 0, 's', `${coats} coats`)),
      ...(step.wait ? [given(step.wait.name, step.wait.seconds, 's')] : []),
    ]),
  });
}

/**
 * Hands-on seconds by step, and what passes by itself.
 * @example minutesOf(timing, order.lines, ways).map(({ does }) => does) // ['Pour', 'Trim', 'Paint', 'Bake', 'Finish']
 */
export function minutesOf(timing: Timing, lines: readonly PlanLine[], ways: KnownWays): Plan['minutes'] {
  const poured = lines.filter(({ product }) => product.source !== 'shelf');
  const heads = (of: readonly PlanLine[]) => of.reduce((sum, line) => sum + line.quantity, 0);
  const rows = rowsOf(timing.hands);
  const bakes = rows.filter((row) => row[0]!.step.station === 'bake' && row.some(({ step }) => step.bake)).length;
  return [
    handsOfRow(
      { station: 'pour', does: stationOf('pour').name, pace: paceOf(ways.pace, 'pour') },
      timing.pourS - timing.changeS,
      heads(poured),
    ),
    handsOfRow({ station: 'pour', does: CHANGE, pace: null }, timing.changeS, 0),
    ...rows.map((row) => {
      const { station, does } = row[0]!.step;
      const ids = new Set(row.map(({ line }) => line.product.id));
      const pace = paceOfStep(row[0]!.step, ways, ids.size === 1 ? [...ids][0] : undefined);
      const made = handsOfRow({ station, does, pace }, totalSeconds(row), heads(row.map(({ line }) => line)));
      return { ...made, waitS: waitOf(row, timing, bakes) };
    }),
  ].filter((row) => row.handsS.value > 0);
}

/**
 * All time with both hands at work.
 * @example handsFigure(timing).value // 7116
 */
export function handsFigure(timing: Timing): Figure {
  const parts: [string, number][] = [
    ['pour', timing.pourS - timing.changeS],
    ...(timing.changeS > 0 ? [[CHANGE.toLowerCase(), timing.changeS] as [string, number]] : []),
    ...rowsOf(timing.hands).map((row): [string, number] => [row[0]!.step.does.toLowerCase(), totalSeconds(row)]),
  ];
  const seconds = parts.reduce((sum, [, part]) => sum + part, 0);
  return figure(
    seconds,
    's',
    {
      rule: 'Time at work with both hands. Melting and baking run beside it.',
      formula: parts.map(([name]) => name).join(' + '),
      source: 'House ways',
      inputs: parts.map(([name, part]) => given(name, part, 's')),
    },
    handsRange(parts.map(([, part]) => part)),
  );
}

/**
 * How often the oven is loaded.
 * @example ovenLoadsFigure(timing, order.lines, order).value // 2
 */
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
