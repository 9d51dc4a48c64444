import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { castKg } from './blank.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import type { KindOnMold, MoldAllocation } from './allocate.ts';
import type { HouseWays, PlanCavity } from './types.ts';

/** A part of the charge, by what it is for. */
export interface ChargePart {
  label: 'heads, rejects too' | 'sprues' | 'dross' | 'heel';
  kg: number;
}

const headKg = ({ kind, cavities }: Pick<KindOnMold, 'kind' | 'cavities'>): number =>
  castKg(cavities[0]!, kind.lines[0]!.product);

/** Its sprue, as its cavities have it on average, kg. */
const sprueKg = ({ cavities }: Pick<KindOnMold, 'cavities'>): number =>
  cavities.reduce((sum, cavity) => sum + cavitySprueKg(cavity), 0) / cavities.length;

/**
 * Sprue of a cavity in soft lead, kg: there whenever it is filled.
 * @example cavitySprueKg(cavity(1, 10)) // 0.003103
 */
export const cavitySprueKg = ({ style, nominalMassKg }: Pick<PlanCavity, 'style' | 'nominalMassKg'>): number =>
  sprueOf(cavitySolid(style, nominalMassKg)).massKg;

/**
 * Soft lead through these molds until enough is good, kg: in heads, the bad ones too, and in the sprues of all cavities
 * that are filled.
 * @example throughMoldsKg(kinds).headsKg // 0.9996
 */
export const throughMoldsKg = (
  kinds: readonly Pick<KindOnMold, 'kind' | 'cavities' | 'casts'>[],
): { headsKg: number; spruesKg: number } => ({
  headsKg: kinds.reduce((sum, each) => sum + each.casts.expected * headKg(each), 0),
  spruesKg: kinds.reduce((sum, each) => sum + each.casts.expected * sprueKg(each), 0),
});

/**
 * Soft lead that is under way in the largest shot of a mold, kg: its sprues, and a head of it that was not good.
 * @example roundKgOf(kinds) // 0.03118
 */
export const roundKgOf = (kinds: readonly Pick<KindOnMold, 'kind' | 'cavities'>[]): number =>
  kinds.reduce((sum, each) => sum + each.cavities.length * sprueKg(each), 0) +
  Math.max(0, ...kinds.map((each) => headKg(each)));

/**
 * The metal that a pour needs, by what it is for, kg: the plan of an order, Tonight and the pour itself ask here.
 * Sprues go back while it is poured.
 * @example chargeParts(kinds, ways).map(({ label }) => label) // ['heads, rejects too', 'sprues', 'dross', 'heel']
 */
export function chargeParts(
  kinds: readonly Pick<KindOnMold, 'kind' | 'cavities' | 'casts'>[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
  metalShare = 1,
): ChargePart[] {
  const through = throughMoldsKg(kinds);
  const [headsKg, spruesKg] = [metalShare * through.headsKg, metalShare * through.spruesKg];
  return [
    { label: 'heads, rejects too', kg: headsKg },
    { label: 'sprues', kg: spruesKg },
    { label: 'dross', kg: ways.drossShare * (headsKg + spruesKg) },
    { label: 'heel', kg: ways.heelKg },
  ];
}

/**
 * All that is melted, kg.
 * @example chargeKgOf([{ label: 'sprues', kg: 0.5 }, { label: 'heel', kg: 0.8 }]) // 1.3
 */
export const chargeKgOf = (parts: readonly ChargePart[]): number => parts.reduce((sum, { kg }) => sum + kg, 0);

/**
 * Cavities cast a little more or less than their stamp, and dross is as much as the metal is dirty.
 * @example leadRange(1, 0.02, 0.98) // { low: 0.967, high: 1.032 }
 */
export const leadRange = (kg: number, drossKg: number, castKgOfIt: number): { low: number; high: number } =>
  range90(
    ([dross, cast]) => kg - drossKg - castKgOfIt + dross! + cast!,
    [aboveZero(drossKg, SPREAD.drossShare), aboveZero(castKgOfIt, SPREAD.massShare)],
  );

/** Metal of an order or a pour by what becomes of it, kg. */
function metalOf(
  allocations: readonly Pick<MoldAllocation, 'kinds'>[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
  metalShare = 1,
): { goodKg: number; drossKg: number; heelKg: number; roundKg: number } {
  const kinds = allocations.flatMap((each) => each.kinds);
  const { headsKg, spruesKg } = throughMoldsKg(kinds);
  return {
    goodKg: metalShare * kinds.reduce((sum, each) => sum + each.kind.wanted * headKg(each), 0),
    drossKg: metalShare * ways.drossShare * (headsKg + spruesKg),
    heelKg: ways.heelKg,
    roundKg: metalShare * Math.max(0, ...allocations.map((each) => roundKgOf(each.kinds))),
  };
}

/**
 * Metal that must be there, kg: good heads, dross, the heel and a round of sprues and rejects under way.
 * @example leadNeedKg(allocations, ways) > 0 // true
 */
export function leadNeedKg(...of: Parameters<typeof metalOf>): number {
  const { goodKg, drossKg, heelKg, roundKg } = metalOf(...of);
  return goodKg + drossKg + heelKg + roundKg;
}

/**
 * Lead that is used up and lead that must be there, kg. Sprues and rejects come back: heads and dross are used up, and
 * beside them the heel and one round of sprues and rejects are in work.
 * @example leadFigures(allocations, ways).used.value // 0.9555
 */
export function leadFigures(
  allocations: readonly Pick<MoldAllocation, 'kinds'>[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
  metalShare = 1,
): { used: Figure; need: Figure } {
  const { goodKg, drossKg, heelKg, roundKg } = metalOf(allocations, ways, metalShare);
  const used = goodKg + drossKg;
  const need = leadNeedKg(allocations, ways, metalShare);
  const source = 'Mass balance; dross share and heel are house ways';
  const inputs = [given('Good heads', goodKg, 'kg'), given('Dross', drossKg, 'kg')];
  return {
    used: figure(
      used,
      'kg',
      { rule: 'Sprues and rejects come back; heads and dross do not.', formula: 'heads + dross', source, inputs },
      leadRange(used, drossKg, goodKg),
    ),
    need: figure(
      need,
      'kg',
      {
        rule: 'What is used up, the heel, and one round of sprues and rejects under way: fed back while you pour, this is enough.',
        formula: 'heads + dross + heel + a round',
        source,
        inputs: [...inputs, given('Heel', heelKg, 'kg'), given('A round under way', roundKg, 'kg')],
      },
      leadRange(need, drossKg, goodKg + roundKg),
    ),
  };
}
