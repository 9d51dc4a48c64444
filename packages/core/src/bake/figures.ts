import { figure, fitted, given, measured, type Figure } from '../quantity/figure.ts';
import type { AuditedBake } from './audit.ts';
import type { RunningState } from './running.ts';
import { PRIOR_ACTIVATION_J_MOL, type CureLaw } from './cure-law.ts';
import { cureShare, FULL_ENOUGH } from './cure.ts';
import type { LogCure } from './from-log.ts';
import { airIn, doorS, type BakeWay, type KnownOven, type OvenLoadHeat } from './known-oven.ts';
import { cureRate } from './step.ts';
import type { BakedHead, SolvedProgram } from './program.ts';

const LAW = {
  formula: 'cure = ∫ dt / t_label(T_metal)',
  source: "Arrhenius law through the jar's label; the oven at full power to its mark, the head behind it by its lag",
};

/** The same law at the ends of what its activation energy may be. */
const ends = (law: CureLaw): CureLaw[] => {
  const [low, high] =
    law.from === 'prior'
      ? [PRIOR_ACTIVATION_J_MOL.low, PRIOR_ACTIVATION_J_MOL.high]
      : [0.9 * law.activationJMol, 1.1 * law.activationJMol];
  return [low, high].map((activationJMol) => ({ ...law, activationJMol }));
};
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

/** How long the shortest program is, with what decides it. */
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
    { low: program.seconds * 0.9, high: program.seconds * 1.25 },
  );
}

/**
 * What a program gives this head in this oven, from the moment the door is shut: the least cured of its powders, as a
 * share of a full cure.
 */
export function scheduleFigure(head: BakedHead, way: BakeWay, oven: KnownOven, load?: OvenLoadHeat): Figure {
  const air = airIn(oven, way, load);
  const { airC } = air;
  const seconds = doorS(way, oven, head.headLagS, load);
  const of = (law: CureLaw) => cureShare({ law, headLagS: head.headLagS, ...air }, seconds);
  const shares = head.laws.map(({ powder, law }) => ({ powder, law, share: of(law) }));
  const least = shares.reduce((a, b) => (b.share < a.share ? b : a));
  const range = ends(least.law).map(of);
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
    { low: Math.min(least.share, ...range), high: Math.max(least.share, ...range) },
  );
}

/** How far a past bake went. */
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
    { low: 0.85 * bake.cure, high: 1.1 * bake.cure },
  );

/** How far a bake went by the log of its oven. */
export const logCureFigure = (cure: LogCure, readings: number, headLagS: number, law: CureLaw): Figure =>
  figure(
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
    { low: Math.min(cure.certain, 0.93 * cure.share), high: 1.07 * cure.share, basis: 'measured' },
  );

/** How far a bake has come that is still in the oven. */
export const runningCureFigure = ({ cure, metalC, airC, probed }: RunningState, powder: string): Figure =>
  figure(
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
    { low: (probed ? 0.93 : 0.8) * cure, high: (probed ? 1.07 : 1.15) * cure, basis: probed ? 'measured' : 'given' },
  );

/**
 * How many heads went out under-cured over all bakes on record; its range is what a tenth more or less of cure would
 * make of it.
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
    { low: below(0.9 * FULL_ENOUGH), high: below(1.1 * FULL_ENOUGH) },
  );
};
