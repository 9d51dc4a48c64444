import { type Alloy, massShareOfLead } from '../metal/alloy.ts';
import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import { aboveZero, productRange90, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { wilson } from '../count/wilson.ts';
import { blockNodes, LOSS_AT_K, lossShareAt, moldLossWPerK } from './block.ts';
import type { WarmPlan } from './warm-plan.ts';
import { BLANK_CYCLE_S } from './warm-up.ts';
import { cycleForMoldC, steadyMoldC, type PaceInput } from './pace.ts';
import { castAs, type CavityVariant, type VariantCavity } from './variants.ts';
import { quantityText } from '../quantity/said.ts';

/**
 * What a cavity casts as this variant in this metal, against its stamp.
 * @example castFigure({ position: 1, style: 'ball', nominalMassKg: 0.01, pin: null }, AS_CUT, SOFT_LEAD).value
 * // 0.01
 */
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
        given(`Density at ${quantityText(20, '°C')}`, alloy.densityKgM3, 'kg/m3'),
        ...takes.map(({ what, kg }) => given(`Less for ${what}`, kg, 'head-kg')),
      ],
    },
    productRange90(massKg, [SPREAD.massShare]),
  );
}

/** An answer of the pace where loss, shot and metal are as unsure as they are at a bench, or as they were fitted. */
function paceRange(input: PaceInput, of: (input: PaceInput) => number) {
  const { block, shotKg, metalC } = input;
  const { lossWPerK, lossPower } = blockNodes(block);
  const { lossShare, powerSd, aboveK } = block.doubt ?? { lossShare: SPREAD.lossShare, powerSd: 0, aboveK: LOSS_AT_K };
  return range90(
    ([loss, shot, metal, power]) => {
      // By another power it loses the same where it was read, and something else anywhere else.
      const there = lossShareAt(aboveK, lossPower) / lossShareAt(aboveK, power!);
      const other = { ...block, lossWPerK: loss! * there, lossPower: power! };
      return of({ ...input, shotKg: shot!, metalC: metal!, block: other });
    },
    [
      { ...aboveZero(lossWPerK, lossShare), least: 0.3 * lossWPerK },
      aboveZero(shotKg, SPREAD.shotShare),
      { value: metalC, sd: SPREAD.metalK, least: 130, most: 600 },
      { value: lossPower, sd: powerSd, least: 0, most: 1 },
    ],
  );
}

/**
 * The pace that holds a mold where it should be, and where the usual pace would take it.
 * @example paceFigures({ block: smallBlock, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 5 }, 120,
 *   60).cycle.value // 44.05
 */
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
        rule: `One shot in this time holds the block at ${quantityText(Math.round(holdC), '°C')} on average; quicker heats it further.`,
        formula: 't = Q_shot / (UA (T − T_room))',
        source,
        inputs: [...inputs, given('Hold at', holdC, 'C')],
      },
      paceRange(input, (each) => cycleForMoldC(each, holdC)),
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
      paceRange(input, (each) => steadyMoldC(each, usualCycleS)),
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

/**
 * What a metal weighs in a cavity against soft lead.
 * @example shareFigure(SOFT_LEAD).value // 1
 */
export const shareFigure = (alloy: Alloy): Figure =>
  figure(
    massShareOfLead(alloy),
    'ratio',
    {
      rule: 'The same cavity, filled with this metal in the place of soft lead.',
      formula: 'ρ_alloy / ρ_lead, with 1/ρ = Σ w/ρ_i',
      source: 'Ideal mixing; densities from the CRC Handbook, from memory',
      inputs: [given('Density', alloy.densityKgM3, 'kg/m3', alloy.name), given('Lead', 11_340, 'kg/m3')],
    },
    productRange90(massShareOfLead(alloy), [SPREAD.densityShare]),
  );

/**
 * Where the block stands when the warming is done.
 * @example readyFigure(warmPlan({ block: smallBlock, basis: 'given', shotKg: 0.08, metalC: 371, roomC: 20,
 *   school: 'blank shots', openBelow: false })).value // 71.77
 */
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
    { low: plan.readyC - Z_90 * SPREAD.moldK, high: plan.readyC + Z_90 * SPREAD.moldK, basis: plan.blanks.basis },
  );

/** The time on the pot is by the clock; the shots are so many more or fewer, and each takes as long as hands take. */
function warmTimeRange({ seconds, blanks: { value, low = value, high = value } }: WarmPlan) {
  const shotsS = value * BLANK_CYCLE_S;
  const { low: quick, high: slow } = productRange90(shotsS, [SPREAD.handsShare]);
  return {
    low: seconds - Math.hypot((value - low) * BLANK_CYCLE_S, shotsS - quick),
    high: seconds + Math.hypot((high - value) * BLANK_CYCLE_S, slow - shotsS),
  };
}

/**
 * How long the warming takes, blank shots at a usual pace.
 * @example warmTimeFigure(warmPlan({ block: smallBlock, basis: 'given', shotKg: 0.08, metalC: 371, roomC: 20,
 *   school: 'blank shots', openBelow: false })).unit // 's'
 */
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
    { ...warmTimeRange(plan), basis: plan.blanks.basis },
  );
