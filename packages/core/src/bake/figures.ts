import { figure, fitted, given, measured, type Figure } from '../quantity/figure.ts';
import type { AuditedBake } from './audit.ts';
import type { RunningState } from './running.ts';
import { PRIOR_ACTIVATION_J_MOL, type CureLaw } from './cure-law.ts';
import { cureShare, FULL_ENOUGH, timeToFullCureS } from './cure.ts';
import { PROBE_SD_K } from '../pot/dial.ts';
import { aboveZero, productRange90, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { celsiusToKelvin, GAS_CONSTANT } from '../quantity/units.ts';
import type { LogCure } from './from-log.ts';
import { airIn, doorS, type BakeWay, type KnownOven, type OvenLoadHeat } from './known-oven.ts';
import { COLDEST_C, cureRate, HOTTEST_AIR_C } from './step.ts';
import type { BakedHead, SolvedProgram } from './program.ts';

/** Longest bake that is looked at, s. */
const LONGEST_BAKE_S = 8 * 3600;

const LAW = {
  formula: 'cure = ∫ dt / t_label(T_metal)',
  source: "Arrhenius law through the jar's label; the oven at full power to its mark, the head behind it by its lag",
};

/** A range is a tenth and more of its cure: longer steps than the cure's own are fine enough for it, s. */
const RANGE_STEP_S = 20;

/** How unsure the energy of activation is: 50 to 90 kJ/mol where a label has one line, nearer where it has two. */
const activationSd = ({ from, activationJMol }: CureLaw): number =>
  from === 'prior'
    ? (PRIOR_ACTIVATION_J_MOL.high - PRIOR_ACTIVATION_J_MOL.low) / (2 * Z_90)
    : SPREAD.activationShare * activationJMol;

/** What an oven holds against its mark, as a standard deviation. */
const ovenSdK = ({ basis }: Pick<KnownOven, 'basis'>): number =>
  basis === 'fitted' ? SPREAD.learnedOvenK : SPREAD.ovenK;

/** An answer of a bake where label, oven and head are as unsure as they are. */
function bakeRange(
  { law, oven, headLagS, setC }: { law: CureLaw; oven: KnownOven; headLagS: number; setC: number },
  of: (bake: { law: CureLaw; oven: KnownOven; headLagS: number }) => number,
) {
  return range90(
    ([activationJMol, offsetK, lagS, ovenLagS]) =>
      of({
        law: { ...law, activationJMol: activationJMol! },
        oven: { ...oven, offsetK: offsetK!, lagS: ovenLagS! },
        headLagS: lagS!,
      }),
    [
      { value: law.activationJMol, sd: activationSd(law), least: 10_000, most: 300_000 },
      { value: oven.offsetK, sd: ovenSdK(oven), least: COLDEST_C - setC, most: HOTTEST_AIR_C - setC },
      { ...aboveZero(headLagS, SPREAD.headLagShare), least: Math.min(headLagS, 5), most: 7200 },
      { ...aboveZero(oven.lagS, oven.basis === 'fitted' ? 0 : SPREAD.ovenLagShare), most: 3600 },
    ],
  );
}

/**
 * The range of a cure that is known by its course only: so many kelvin of its air, by the law's own slope E/RT², and
 * the lag of its head as a part of the time.
 */
function courseRange(cure: number, of: { airC: number; airSdK: number; headLagS: number; seconds: number }) {
  const perK = PRIOR_ACTIVATION_J_MOL.middle / (GAS_CONSTANT * celsiusToKelvin(of.airC) ** 2);
  const lag = Math.min(1, of.headLagS / Math.max(60, of.seconds));
  return productRange90(cure, [perK * of.airSdK, SPREAD.headLagShare * lag]);
}
const basisOfLaw = (law: CureLaw) =>
  given(
    'Activation energy',
    `${(law.activationJMol / 1000).toFixed(1)} kJ/mol`,
    'text',
    law.from === 'prior' ? 'one label line only: 50 to 90 are usual' : 'from the two lines of the label',
  );

/** An oven that was looked at holds more or less than its mark. */
const holds = (oven: KnownOven, airC: number) =>
  oven.basis === 'fitted' ? [fitted('It holds', airC, 'C', 'learned from its own run')] : [];

/** The time to a full cure at a program's mark; the program itself goes on to the next whole minute. */
function programRange(program: SolvedProgram, head: BakedHead, oven: KnownOven, preheated: boolean) {
  const slowest = head.laws.find(({ powder }) => powder === program.slowest.powder) ?? head.laws[0]!;
  const fullS = (of: { law: CureLaw; oven: KnownOven; headLagS: number }) =>
    timeToFullCureS({ ...of, ...airIn(of.oven, { setC: program.setC, preheated }) }) ?? LONGEST_BAKE_S;
  const bake = { law: slowest.law, oven, headLagS: head.headLagS, setC: program.setC };
  const { low, high } = bakeRange(bake, fullS);
  return { low: Math.min(low, program.seconds), high: Math.max(high, program.seconds) };
}

/**
 * How long the shortest program is, with what decides it.
 * @example programFigure(bakeProgram({ heads: [head], oven, preheated: true }).program, head, oven, true).value
 *   // 1260
 */
export function programFigure(program: SolvedProgram, head: BakedHead, oven: KnownOven, preheated: boolean): Figure {
  const { airC, ovenLagS } = airIn(oven, { setC: program.setC, preheated });
  return figure(
    program.seconds,
    's',
    {
      rule: `${program.slowest.powder} on ${program.slowest.name} is full last. At the end ${program.fastest.powder} on ${program.fastest.name} has ${Math.round(100 * program.fastest.cure)} % of a full cure: not over-baked.`,
      ...LAW,
      inputs: [
        given('Oven set to', program.setC, 'C'),
        ...holds(oven, airC),
        given('Head lags', head.headLagS, 's'),
        given('Oven lags', ovenLagS, 's', preheated ? 'hot first: only its air was let out' : 'from cold'),
        ...(head.limitC === null ? [] : [given('Its plating stands', head.limitC, 'C', head.hook)]),
        ...head.laws.map(({ law }) => basisOfLaw(law)),
      ],
    },
    programRange(program, head, oven, preheated),
  );
}

/**
 * What a program gives this head in this oven, from the moment the door is shut: the least cured of its powders, as a
 * share of a full cure.
 * @example scheduleFigure(head, load, oven).value // 1.022
 */
export function scheduleFigure(head: BakedHead, way: BakeWay, oven: KnownOven, load?: OvenLoadHeat): Figure {
  const air = airIn(oven, way, load);
  const { airC } = air;
  const seconds = doorS(way, oven, head.headLagS, load);
  const of = (bake: { law: CureLaw; oven: KnownOven; headLagS: number }, stepS?: number) =>
    cureShare({ law: bake.law, headLagS: bake.headLagS, ...airIn(bake.oven, way, load) }, seconds, stepS);
  const { headLagS } = head;
  const shares = head.laws.map(({ powder, law }) => ({ powder, law, share: of({ law, oven, headLagS }) }));
  const least = shares.reduce((a, b) => (b.share < a.share ? b : a));
  // An oven that stays cool never cures.
  const rate = cureRate(least.law, airC);
  return figure(
    least.share,
    'ratio',
    {
      rule: `For ${least.powder}, which cures slowest; counted from the metal's own temperature and not from closing the door.`,
      ...LAW,
      inputs: [
        given('Oven set to', way.setC, 'C'),
        ...holds(oven, airC),
        given(
          'Door shut to taken out',
          seconds,
          's',
          `${way.preheated ? 'oven hot first' : 'from cold'}${way.from === 'metal' ? ', the warming in it' : ''}`,
        ),
        given('Head lags', head.headLagS, 's'),
        ...(load
          ? [given('The load takes', `${Math.round(load.heatJK)} J/K`, 'text', 'and its share of the power')]
          : []),
        ...(rate > 0 ? [given('Full at this heat after', 1 / rate, 's')] : []),
        given('Powder', least.powder, 'text'),
        basisOfLaw(least.law),
      ],
    },
    bakeRange({ law: least.law, oven, headLagS, setC: way.setC }, (bake) => of(bake, RANGE_STEP_S)),
  );
}

/**
 * How far a past bake went.
 * @example pastCureFigure(auditBake({ ...load, id: 'b', at: 0, name: 'Load', heads: 40, doors: [], oven,
 *   headLagS: 110, heatJK: 1.6, laws: head.laws, limitC: null })).value // 1.022
 */
export const pastCureFigure = (bake: AuditedBake): Figure =>
  figure(
    bake.cure,
    'ratio',
    {
      rule: `${bake.powder} cured least. From the program that was logged; no probe was in the oven.`,
      ...LAW,
      inputs: [
        measured('Door shut to taken out', bake.seconds, 's'),
        given('Oven set to', bake.setC, 'C'),
        ...holds(bake.oven, airIn(bake.oven, bake).airC),
        given('Head lags', bake.headLagS, 's'),
      ],
    },
    courseRange(bake.cure, { ...bake, airC: airIn(bake.oven, bake).airC, airSdK: ovenSdK(bake.oven) }),
  );

/**
 * How far a bake went by the log of its oven.
 * @example logCureFigure(cureFromLog({ law, readings: ovenReadings, headLagS: 110 }), 60, 110, law).value // 2.45
 */
export function logCureFigure(cure: LogCure, readings: number, headLagS: number, law: CureLaw): Figure {
  const { share, certain, hottestC, points } = cure;
  const seconds = (points.at(-1)!.at - points[0]!.at) / 1000;
  const { low, high } = courseRange(share, { airC: hottestC, airSdK: PROBE_SD_K, headLagS, seconds });
  return figure(
    cure.share,
    'ratio',
    {
      rule:
        cure.gapsS > 0
          ? `Gaps of ${Math.round(cure.gapsS / 60)} min are bridged in a straight line; without them ${Math.round(100 * cure.certain)} % are certain.`
          : 'No gap in the log.',
      ...LAW,
      inputs: [
        measured('Readings', readings, 'count'),
        given('Head lags the probe by', headLagS, 's'),
        measured('Hottest metal', cure.hottestC, 'C'),
        basisOfLaw(law),
      ],
    },
    { low: Math.min(certain, low), high, basis: 'measured' },
  );
}

/**
 * How far a bake has come that is still in the oven.
 * @example runningCureFigure(runningBake(bake()), 'White', { oven, headLagS: 120 }).value // 0.2582
 */
export function runningCureFigure(
  { cure, metalC, airC, probed, points }: RunningState,
  powder: string,
  { oven, headLagS }: { oven: Pick<KnownOven, 'basis'>; headLagS: number },
): Figure {
  const seconds = (points.at(-1)!.at - points[0]!.at) / 1000;
  const airSdK = probed ? PROBE_SD_K : ovenSdK(oven);
  return figure(
    cure,
    'ratio',
    {
      rule: `${powder} cures last. Counted from the metal's own heat, not from the door; ${probed ? 'the air by the probe in the oven' : 'the air by the program and the door'}.`,
      ...LAW,
      inputs: [
        (probed ? measured : given)('Air now', airC, 'C'),
        given('Metal now', metalC, 'C', 'it follows the air by its lag'),
      ],
    },
    { ...courseRange(cure, { airC, airSdK, headLagS, seconds }), basis: probed ? 'measured' : 'given' },
  );
}

/** All of them at the upper end of their range, and all at the lower. */
function underCuredRange(bakes: readonly AuditedBake[], said: number) {
  const moved = bakes.map((bake) => {
    const { low = bake.cure, high = bake.cure } = pastCureFigure(bake);
    return { heads: bake.heads, low, high };
  });
  const under = (of: 'low' | 'high') => moved.reduce((sum, each) => sum + (each[of] < FULL_ENOUGH ? each.heads : 0), 0);
  return { low: Math.min(under('high'), said), high: Math.max(under('low'), said) };
}

/**
 * How many heads went out under-cured over all bakes on record; its range is what one common error of all of them would
 * make of it: they came out of the same oven.
 * @example underCuredFigure([]).value // 0
 */
export const underCuredFigure = (bakes: readonly AuditedBake[]): Figure => {
  const below = (share: number) => bakes.filter((bake) => bake.cure < share).reduce((sum, bake) => sum + bake.heads, 0);
  const under = bakes.filter((bake) => bake.underCured);
  return figure(
    below(FULL_ENOUGH),
    'count',
    {
      rule: `Heads of every bake that ended below ${Math.round(100 * FULL_ENOUGH)} % of a full cure, by the models from the program that was logged.`,
      formula: 'Σ heads where cure < 90 %',
      source: LAW.source,
      inputs: under.slice(-8).map((bake) => given(bake.name, bake.cure, 'ratio', `${bake.heads} heads`)),
    },
    underCuredRange(bakes, below(FULL_ENOUGH)),
  );
};
