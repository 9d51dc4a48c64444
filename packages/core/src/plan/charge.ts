import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { castKg } from './blank.ts';
import type { KindOnMold } from './allocate.ts';
import type { HouseWays, MoldPlan } from './types.ts';

/** A part of the charge, by what it is for. */
export interface ChargePart {
  label: 'heads, rejects too' | 'sprues' | 'dross' | 'heel';
  kg: number;
}

const headKg = ({ kind, cavities }: KindOnMold): number => castKg(cavities[0]!, kind.lines[0]!.product);

/**
 * The metal that a pour needs, by what it is for, kg: the plan of an order and the pour itself ask here. Sprues are
 * those of full shots; they go back while it is poured.
 * @example chargeParts(kinds, plan.molds, ways).map(({ label }) => label) // ['heads, rejects too', 'sprues',
 *   'dross', 'heel']
 */
export function chargeParts(
  kinds: readonly KindOnMold[],
  molds: readonly MoldPlan[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
  metalShare = 1,
): ChargePart[] {
  const headsKg = kinds.reduce((sum, each) => sum + metalShare * each.casts * headKg(each), 0);
  const spruesKg = molds.reduce(
    (sum, mold) => sum + mold.shots.value * mold.uses.reduce((shot, use) => shot + use.sprueKg, 0),
    0,
  );
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
 * @example leadRange(1, 0.02, 0.98) // { low: 0.9681, high: 1.032 }
 */
export const leadRange = (kg: number, drossKg: number, castKgOfIt: number): { low: number; high: number } =>
  range90(
    ([dross, cast]) => kg - drossKg - castKgOfIt + dross! + cast!,
    [aboveZero(drossKg, SPREAD.drossShare), aboveZero(castKgOfIt, SPREAD.massShare)],
  );

/**
 * Lead that is used up and lead that must be there, kg. Sprues and rejects come back: heads and dross are used up, and
 * beside them the heel and one round of sprues and rejects are in work.
 * @example leadFigures(kinds, plan.molds, ways).used.value // 0.9597
 */
export function leadFigures(
  kinds: readonly KindOnMold[],
  molds: readonly MoldPlan[],
  ways: Pick<HouseWays, 'drossShare' | 'heelKg'>,
): { used: Figure; need: Figure } {
  const goodKg = kinds.reduce((sum, each) => sum + each.kind.wanted * headKg(each), 0);
  const of = (label: ChargePart['label']) => chargeParts(kinds, molds, ways).find((part) => part.label === label)!.kg;
  const drossKg = of('dross');
  // The largest shot: its sprues, and a head of it that was not good.
  const roundKg = Math.max(
    0,
    ...molds.map((mold) => mold.uses.reduce((sum, use) => sum + use.sprueKg, 0) + (mold.uses[0]?.leadKg ?? 0)),
  );
  const heelKg = of('heel');
  const used = goodKg + drossKg;
  const need = used + heelKg + roundKg;
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
