import type { Alloy } from '../metal/alloy.ts';
import { massShareOfLead } from '../metal/alloy.ts';
import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import { wilson } from '../count/wilson.ts';
import { moldLossWPerK } from './block.ts';
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

/** The pace that holds a mold where it should be, and where the usual pace would take it. */
export function paceFigures(input: PaceInput, holdC: number, usualCycleS: number) {
  const source = 'Two-node heat balance, at its steady state';
  const inputs = [
    given('Mold', input.block.bodyKg, 'kg'),
    given('One shot', input.shotKg, 'kg'),
    given('Metal', input.metalC, 'C'),
    given('Loss, closed', input.block.lossWPerK ?? moldLossWPerK(input.block.bodyKg), 'W/K'),
    given('Closed after the pour for', input.closedS, 's'),
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

/**
 * Share of good casts of a cavity or a mold, with its Wilson interval.
 * @example yieldFigure(45, 50).value // 0.9
 */
export function yieldFigure(good: number, casts: number): Figure {
  const share = casts ? good / casts : 0;
  const { low, high } = casts ? wilson(share, casts) : { low: 0, high: 1 };
  return figure(
    share,
    'ratio',
    {
      rule: 'Counted at the pot, cast by cast. The range is what so few casts leave open.',
      formula: 'good / casts',
      source: 'Your pours; Wilson score interval, 90 %',
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
