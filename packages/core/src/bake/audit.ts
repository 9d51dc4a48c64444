import { FULL_ENOUGH } from './cure.ts';
import type { CureLaw } from './cure-law.ts';
import { cureFromLog, NO_DAMAGE, platingDamage, type PlatingDamage } from './from-log.ts';
import { airIn, loadHeat, type BakeWay, type KnownOven } from './known-oven.ts';
import { ovenAtStart } from './oven-air.ts';
import { airByProgram, type DoorOpening } from './running.ts';

/** One oven load as it was written down, with what hung in it. */
export interface PastBake extends Pick<BakeWay, 'setC' | 'preheated'> {
  id: string;
  /** When the door was shut, ms since 1970. */
  at: number;
  name: string;
  heads: number;
  /** Door shut to taken out, s. */
  seconds: number;
  /** When it was opened in between. */
  doors: readonly DoorOpening[];
  oven: KnownOven;
  headLagS: number;
  /** What has to be warmed of one head, J/K. */
  heatJK: number;
  laws: readonly { powder: string; law: CureLaw }[];
  limitC: number | null;
}
export interface AuditedBake extends Omit<PastBake, 'laws'> {
  /** Of the powder that cured least. */
  cure: number;
  powder: string;
  underCured: boolean;
  damage: PlatingDamage;
}
export interface AuditMonth {
  /** First moment of the month, ms since 1970, in the clock of who asks. */
  at: number;
  heads: number;
  underCuredHeads: number;
  leastCure: number;
}

/**
 * How far a past bake went, from its program, its door and the models of oven, head and powder.
 * @example auditBake({ ...load, id: 'b', at: 0, name: 'Load', heads: 40, doors: [], oven, headLagS: 110,
 *   heatJK: 1.6, laws: head.laws, limitC: null }).underCured // false
 */
export function auditBake(bake: PastBake): AuditedBake {
  const { laws, ...rest } = bake;
  const { at: loadedAt, oven, doors, headLagS, limitC } = bake;
  const seconds = Math.min(86_400, Math.max(0, bake.seconds));
  const now = loadedAt + 1000 * seconds;
  const air = airIn(oven, bake, loadHeat([{ ...bake, count: bake.heads }]));
  const readings = airByProgram({ ...air, loadedAt, doors, now });
  // Taken out again at once: nothing has happened to it.
  if (readings.length < 2) {
    return { ...rest, cure: 0, powder: laws[0]?.powder ?? '', underCured: laws.length > 0, damage: NO_DAMAGE };
  }
  const courses = laws.map(({ powder, law }) => ({
    powder,
    ...cureFromLog({ law, headLagS, readings, fromC: 20, wallsFromC: ovenAtStart(air).wallsC }),
  }));
  const [first] = courses;
  if (!first) return { ...rest, cure: Infinity, powder: '', underCured: false, damage: NO_DAMAGE };
  const least = courses.reduce((a, b) => (b.share < a.share ? b : a), first);
  return {
    ...rest,
    cure: least.share,
    powder: least.powder,
    underCured: least.share < FULL_ENOUGH,
    damage: platingDamage(least.points, limitC),
  };
}

/**
 * Audited bakes by month; `monthOf` gives the first moment of the month that a time falls in.
 * @example auditMonths([], () => 0) // []
 */
export function auditMonths(bakes: readonly AuditedBake[], monthOf: (at: number) => number): AuditMonth[] {
  const months = new Map<number, AuditMonth>();
  for (const bake of bakes) {
    const at = monthOf(bake.at);
    const month = months.get(at) ?? { at, heads: 0, underCuredHeads: 0, leastCure: Infinity };
    month.heads += bake.heads;
    if (bake.underCured) month.underCuredHeads += bake.heads;
    month.leastCure = Math.min(month.leastCure, bake.cure);
    months.set(at, month);
  }
  return [...months.values()].sort((a, b) => a.at - b.at);
}
