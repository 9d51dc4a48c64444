import { fillIndex, type FillCavity, type FillSettings } from '../fill/fill-index.ts';
import type { FillThreshold } from '../fill/threshold.ts';
import { freezing, interfaceWPerM2K, OPENING_MARGIN } from '../freeze/freeze.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import type { Alloy } from '../metal/alloy.ts';
import { massShareOfLead } from '../metal/alloy.ts';
import { figure, fitted, given, measured, type Figure } from '../quantity/figure.ts';
import { wilson } from '../count/binomial.ts';
import type { Lever } from '../fill/levers.ts';
import type { WarmPlan } from './warm-plan.ts';
import { cycleForMoldC, steadyMoldC, type PaceInput } from './pace.ts';
import { castAs, type CavityVariant, type VariantCavity } from './variants.ts';

/** What a cavity casts as this variant in this metal, against its stamp. */
export function castFigure(cavity: VariantCavity, variant: CavityVariant, alloy: Alloy): Figure {
  const { massKg, takes } = castAs(cavity, variant, alloy);
  return figure(
    massKg,
    'head-kg',
    {
      rule: `The stamp is soft lead with its usual hook. ${alloy.name} weighs ${(100 * massShareOfLead(alloy)).toFixed(1)} % of it in the same cavity.`,
      formula: 'm = (V_cavity − V_pin − V_inserts) · ρ_alloy',
      source: 'Density by ideal mixing; sizes of inserts are common practice',
      inputs: [
        given('Stamped', cavity.nominalMassKg, 'head-kg'),
        given('Density at 20 °C', `${Math.round(alloy.densityKgM3)} kg/m³`, 'text'),
        ...takes.map(({ what, kg }) => given(`Less for ${what}`, kg, 'head-kg')),
      ],
    },
    { low: massKg * 0.97, high: massKg * 1.03 },
  );
}

/** Index of a cavity at these settings, with its terms; a fitted threshold turns it into a chance of a short. */
export function fillFigure(cavity: FillCavity, settings: FillSettings, threshold: FillThreshold | null): Figure {
  const fill = fillIndex(cavity, settings);
  const short = threshold ? Math.round(100 * threshold.shortShare(fill.index)) : null;
  return figure(
    fill.index,
    'count',
    {
      rule: `${fill.verdict === 'fills' ? 'It fills' : fill.verdict === 'marginal' ? 'Marginal' : 'A short is expected'}: the metal runs ${(1000 * fill.reachM).toFixed(0)} mm before the thinnest section stops it, ${(1000 * fill.flowLengthM).toFixed(0)} mm are wanted.${short === null ? '' : ` From your records: ${short} % short.`}`,
      formula: 'index = v · t_stop / flow length; v = C_d √(2 g H)',
      source: 'Interface-limited flow; C_d and the share that may set are common practice',
      inputs: [
        given(
          'Speed in the gate',
          fill.speedMS,
          'm/s',
          `${settings.pouring}, head ${(1000 * fill.headM).toFixed(0)} mm`,
        ),
        given('Runs for', `${fill.stopS.toFixed(2)} s`, 'text'),
        given('Thin section', fill.thinM, 'm', 'bore less wire, a quarter'),
        given('Wall takes', fill.interfaceWPerM2K, 'W/m2K', `${settings.shotsSinceSmoked} shots since smoked`),
        given('Metal', settings.metalC, 'C', settings.alloy.name),
        given('Mold', settings.moldC, 'C'),
        given('Sharpest edge', fill.sharpestM, 'm', 'radius'),
      ],
    },
    { low: fill.index * 0.75, high: fill.index * 1.3, basis: threshold ? 'fitted' : 'given' },
  );
}

/** Time to open, with what is last and what rules it. */
export function openTimeFigure(
  cavity: { style: string; nominalMassKg: number; shotsSinceSmoked: number; position: number },
  heat: { metalC: number; moldC: number; alloy: Alloy; moldMetal: 'aluminium' | 'iron' },
): Figure {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const interfaceW = interfaceWPerM2K(cavity.shotsSinceSmoked);
  const at = (modulusM: number) => freezing({ ...heat, modulusM, interfaceWPerM2K: interfaceW });
  const [head, sprue] = [at(solid.modulusM), at(sprueOf(solid).modulusM)];
  const last = head.seconds >= sprue.seconds ? head : sprue;
  const openS = OPENING_MARGIN * last.seconds;
  return figure(
    openS,
    's',
    {
      rule: `Its ${last === head ? 'head' : 'sprue'} sets last; ${last.rules === 'interface' ? 'the skin between metal and mold' : 'the mold wall'} decides. ${Math.round(100 * last.superheatShare)} % of the heat is superheat. Twice the time, to be safe.`,
      formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
      source: 'Interface-limited freezing, Chvorinov where the mold saturates; the margin is common practice',
      inputs: [
        given('Head', head.seconds, 's'),
        given('Sprue', sprue.seconds, 's'),
        given('Metal', heat.metalC, 'C'),
        given('Mold', heat.moldC, 'C'),
        fitted('Shots since smoked', cavity.shotsSinceSmoked, 'count'),
      ],
    },
    { low: openS * 0.75, high: openS * 1.35 },
  );
}

/** The pace that holds a mold where it should be, and where the usual pace would take it. */
export function paceFigures(input: PaceInput, holdC: number, usualCycleS: number) {
  const source = 'Two-node heat balance, at its steady state';
  const inputs = [
    given('Mold', input.block.bodyKg, 'kg'),
    given('One shot', input.shotKg, 'kg'),
    given('Metal', input.metalC, 'C'),
    given('Loss, closed', input.block.lossWPerK ?? 0.45, 'W/K'),
    given('Open share of a cycle', input.openShare, 'ratio'),
  ];
  const cycleS = cycleForMoldC(input, holdC);
  const steadyC = steadyMoldC(input, usualCycleS);
  return {
    cycle: figure(
      cycleS,
      's',
      {
        rule: `One shot in this time holds the block at ${Math.round(holdC)} °C on average; quicker heats it further.`,
        formula: 't = Q_shot / (UA (T − T_room))',
        source,
        inputs: [...inputs, given('Hold at', holdC, 'C')],
      },
      { low: cycleS * 0.8, high: cycleS * 1.25 },
    ),
    steady: figure(
      steadyC,
      'C',
      {
        rule: 'Going on at this pace tends to this.',
        formula: 'Q_shot(T) = UA (T − T_room) · t',
        source,
        inputs: [...inputs, given('A shot every', usualCycleS, 's')],
      },
      { low: steadyC - 15, high: steadyC + 15 },
    ),
  };
}

/** Share of good casts of a cavity or a mold, with its Wilson interval. */
export function yieldFigure(good: number, casts: number): Figure {
  const share = casts ? good / casts : 0;
  const { low, high } = casts ? wilson(share, casts) : { low: 0, high: 1 };
  return figure(
    share,
    'ratio',
    {
      rule: 'Counted at the pot, cast by cast. The range is what so few casts leave open.',
      formula: 'good / casts',
      source: 'Your pours; Wilson score interval, 95 %',
      inputs: [measured('Good', good, 'count'), measured('Casts', casts, 'count')],
    },
    { low, high, basis: 'measured' },
  );
}

/** What a metal weighs in a cavity against soft lead. */
export const shareFigure = (alloy: Alloy): Figure =>
  figure(
    massShareOfLead(alloy),
    'ratio',
    {
      rule: 'The same cavity, filled with this metal in the place of soft lead.',
      formula: 'ρ_alloy / ρ_lead, with 1/ρ = Σ w/ρ_i',
      source: 'Ideal mixing; densities from the CRC Handbook, from memory',
      inputs: [
        given('Density', `${Math.round(alloy.densityKgM3)} kg/m³`, 'text', alloy.name),
        given('Lead', '11340 kg/m³', 'text'),
      ],
    },
    { low: massShareOfLead(alloy) * 0.995, high: massShareOfLead(alloy) * 1.005 },
  );

/** What one change at the bench would do to a cavity. */
export function leverFigure(lever: Lever, cavity: FillCavity, settings: FillSettings): Figure {
  const before = fillIndex(cavity, settings).index;
  return figure(
    lever.index,
    'count',
    {
      rule: `${lever.says}, and nothing else: the index goes from ${before.toFixed(2)} to ${lever.index.toFixed(2)}.`,
      formula: 'index = v · t_stop / flow length, before and after',
      source: 'Fill model, one usual step of this lever',
      inputs: [given('Index now', before, 'count'), given('Times', lever.gain, 'count')],
    },
    { low: lever.index * 0.75, high: lever.index * 1.3 },
  );
}

/** Where the block stands when the warming is done. */
export const readyFigure = (plan: WarmPlan): Figure =>
  figure(
    plan.readyC,
    'C',
    {
      rule: 'Mean of the block just after the last blank shot, or at the end of its time on the pot.',
      formula: '(C_face T_face + C_back T_back) / (C_face + C_back)',
      source: plan.blanks.why.source,
      inputs: plan.blanks.why.inputs,
    },
    { low: plan.readyC - 8, high: plan.readyC + 8, basis: plan.blanks.basis },
  );

/** How long the warming takes, blank shots at a usual pace. */
export const warmTimeFigure = (plan: WarmPlan): Figure =>
  figure(
    plan.seconds,
    's',
    {
      rule: 'Time on the pot, then the blank shots one after the other at a usual pace.',
      formula: 't = t_pot + n t_shot',
      source: plan.blanks.why.source,
      inputs: plan.blanks.why.inputs,
    },
    { low: 0.85 * plan.seconds, high: 1.25 * plan.seconds, basis: plan.blanks.basis },
  );
