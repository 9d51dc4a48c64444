import { bakeTemperaturesC, cureShare, FULL_ENOUGH, fullCureS, type CureLaw } from './cure.ts';
import { NO_DAMAGE, platingDamage, type PlatingDamage } from './from-log.ts';

/** One oven load as it was written down, with what hung in it. */
export interface PastBake {
  id: string;
  /** When the door was shut, ms since 1970. */
  at: number;
  name: string;
  heads: number;
  setC: number;
  /** Door shut to taken out, s. */
  seconds: number;
  /** 0 where the oven was hot. */
  ovenLagS: number;
  headLagS: number;
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

/** A course is followed at such steps for what it did to the plating, s. */
const STEP_S = 15;

/** How far a past bake went, from its program and the models of oven, head and powder. */
export function auditBake(bake: PastBake): AuditedBake {
  const { laws, ...rest } = bake;
  const course = { headLagS: bake.headLagS, setC: bake.setC, ovenLagS: bake.ovenLagS };
  const seconds = Math.min(86_400, Math.max(0, bake.seconds));
  const cures = laws.map(({ powder, law }) => ({ powder, cure: cureShare({ law, ...course }, seconds) }));
  const least = cures.reduce((a, b) => (b.cure < a.cure ? b : a), { powder: '', cure: Infinity });
  const law = laws[0]?.law;
  const points = law
    ? Array.from({ length: Math.ceil(seconds / STEP_S) + 1 }, (_, i) => {
        const s = Math.min(seconds, i * STEP_S);
        return { at: bake.at + s * 1000, metalC: bakeTemperaturesC({ law, ...course }, s).metalC };
      })
    : [];
  const damage = points.length > 1 ? platingDamage(points, bake.limitC) : NO_DAMAGE;
  return { ...rest, cure: least.cure, powder: least.powder, underCured: least.cure < FULL_ENOUGH, damage };
}

/** Audited bakes by month; `monthOf` gives the first moment of the month that a time falls in. */
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

/** What one schedule is worth for one powder at the metal's temperature: its share of a full cure. */
export const scheduleWorth = (law: CureLaw, setC: number, seconds: number): number => seconds / fullCureS(law, setC);
