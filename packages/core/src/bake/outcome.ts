import { bakeTemperaturesC } from './cure.ts';
import { scheduleFigure } from './figures.ts';
import { platingDamage, type PlatingDamage } from './from-log.ts';
import { airIn, doorS, type BakeWay, type KnownOven, type OvenLoadHeat } from './known-oven.ts';
import type { BakedHead } from './program.ts';
import type { Figure } from '../quantity/figure.ts';

/** What a bake will have done to a head: to its powder, and to the part on it that stands the least heat. */
export interface BakeOutcome {
  cure: Figure;
  /** The part that stands the least heat, and what it stands, C; null where no limit is on record. */
  part: string;
  limitC: number | null;
  damage: PlatingDamage;
}

/** Points along a bake at which its metal is held against a limit. */
const POINTS = 240;

/**
 * What a program will have done to a head in this oven when it is taken out.
 * @example
 * ```ts
 * const law = cureLaw([{ metalC: 177, seconds: 1200 }]);
 * const head = { name: 'Ball', headLagS: 120, heatJK: 3, laws: [{ powder: 'White', law }] };
 * const way = { setC: 177, seconds: 1800, preheated: true };
 * bakeOutcome({ ...head, hook: 'Bronze', limitC: 150 }, way, knownOven(undefined))
 *   .damage.flag // 'browned'
 * ```
 */
export function bakeOutcome(head: BakedHead, way: BakeWay, oven: KnownOven, load?: OvenLoadHeat): BakeOutcome {
  const seconds = doorS(way, oven, head.headLagS, load);
  const atS = Array.from({ length: POINTS + 1 }, (_, i) => (i * seconds) / POINTS);
  const points = bakeTemperaturesC({ headLagS: head.headLagS, ...airIn(oven, way, load) }, atS).map(
    ({ atS: at, metalC }) => ({ at: at * 1000, metalC }),
  );
  const { hook: part, limitC } = head;
  return { cure: scheduleFigure(head, way, oven, load), part, limitC, damage: platingDamage(points, limitC) };
}
