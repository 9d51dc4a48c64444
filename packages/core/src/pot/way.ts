import { SOFT_LEAD } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';

/**
 * How metal gets from the pot into the mold, what it loses on its way, K, and what goes with it. Ladle 10 to 20 K from
 * memory; the others are common practice, no source.
 */
export const POT_WAYS = [
  {
    id: 'bottom spout',
    says: 'clean metal from below; the stream is looked at before every shot',
    lowK: 0,
    usualK: 0,
    highK: 4,
    injects: true,
    caution: 'A spout that drips is dirty, or the pot is very full. Clear it with a wire, gloves on.',
  },
  {
    id: 'ladle',
    says: 'for molds that do not fit under a spout; skim before dipping',
    lowK: 10,
    usualK: 15,
    highK: 20,
    injects: false,
    caution: 'Warm the ladle on the melt first: a cold or damp one spits. Never reach over the pot.',
  },
  {
    id: 'tipping pot',
    says: 'poured over its lip; no stream to check, nothing to clog',
    lowK: 2,
    usualK: 5,
    highK: 8,
    injects: false,
    caution: 'Both hands, feet clear: all of it is in your hands.',
  },
] as const;
export type PotWay = (typeof POT_WAYS)[number]['id'];

/**
 * The row of a way; a bottom spout where none was said.
 * @example potWay('ladle').injects // false
 */
export const potWay = (id: PotWay | null | undefined): (typeof POT_WAYS)[number] =>
  POT_WAYS.find((each) => each.id === id) ?? POT_WAYS[0];

/**
 * Metal as it reaches the gate, C; never colder than where it melts: it is poured as long as it runs.
 * @example metalAtMoldC(371, 'ladle') // 356
 */
export const metalAtMoldC = (potC: number, way?: PotWay | null, alloy = SOFT_LEAD): number =>
  Math.max(alloy.liquidusC, potC - potWay(way).usualK);

/** From full to nearly empty at one mark, metal gets hotter by this share of what it is above the room. */
const EMPTYING_SHARE = 0.06;

/**
 * How much hotter a pot runs at one mark than it did full, K: less metal wets less of the wall and loses less, the
 * element goes on as it is set. Linear in what is gone; common practice, no source: some 15 to 25 K over a pot. Range:
 * 0 to a full pot.
 * @example hotterAsItEmptiesK({ leadKg: 2, capacityKg: 9, potC: 371, roomC: 20 }) // 16.4
 */
export function hotterAsItEmptiesK(of: { leadKg: number; capacityKg: number; potC: number; roomC: number }): number {
  const capacityKg = inRange('capacityKg', of.capacityKg, 'kg', 0.05, 50);
  const left = Math.min(1, inRange('leadKg', of.leadKg, 'kg', 0, 50) / capacityKg);
  return EMPTYING_SHARE * (1 - left) * Math.max(0, of.potC - of.roomC);
}

/**
 * What reaches the gate, by the way it is poured.
 * @example atTheGateFigure(371, 'ladle').value // 356
 */
export function atTheGateFigure(potC: number, way?: PotWay | null): Figure {
  const { id, lowK, usualK, highK } = potWay(way);
  return figure(
    metalAtMoldC(potC, way),
    'C',
    {
      rule: `By ${id === 'ladle' ? 'a ladle' : `the ${id}`} so much of the pot's heat reaches the gate; plan, opening, filling and coach go by that.`,
      formula: 'T_pot − loss on the way',
      source: id === 'ladle' ? '10 to 20 K, from memory' : 'Common practice, no source',
      inputs: [given('Pot', potC, 'C'), given('Lost on the way', usualK, 'K')],
    },
    // From least to most is what is usual: nine in ten of it.
    { low: potC - highK, high: potC - lowK },
  );
}
