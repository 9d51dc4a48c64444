/** How often a maker smokes a mold. Each is a school; none is wrong. Common practice, no source. */
export const SOOT_SCHOOLS = [
  { id: 'never', name: 'Never', everyShots: null, says: 'for wide, open cavities' },
  { id: 'once', name: 'Once, ever', everyShots: null, says: 'a new mold is blackened and left' },
  { id: 'fifty', name: 'Every 50 shots', everyShots: 50, says: 'most makers, per cavity' },
  { id: 'five', name: 'Every 5 shots', everyShots: 5, says: 'for tiny, detailed cavities' },
  { id: 'sticking', name: 'When heads stick', everyShots: null, says: 'when they begin to hold on' },
] as const;
export type SootSchool = (typeof SOOT_SCHOOLS)[number]['id'];

interface SootDue {
  due: boolean;
  /** Shots until it is due; null in the schools without a count. */
  inShots: number | null;
}

/** Soot wears off over so many shots, to 1/e. Common practice, no source: smoked again every 50 to 60. */
const WEAR_SHOTS = 40;

/**
 * Share of its soot that a cavity still has, 1 just after the candle.
 * @example sootLeft(0) // 1
 */
export const sootLeft = (shotsSinceSmoked: number): number => Math.exp(-shotsSinceSmoked / WEAR_SHOTS);

/**
 * Whether a cavity wants the candle, by the maker's school.
 * @example sootDue('fifty', 49, true) // { due: false, inShots: 1 }
 */
export function sootDue(school: SootSchool, shotsSinceSmoked: number, everSmoked: boolean): SootDue {
  if (school === 'once') return { due: !everSmoked, inShots: null };
  const every = SOOT_SCHOOLS.find((each) => each.id === school)?.everyShots ?? null;
  if (every === null) return { due: false, inShots: null };
  return { due: shotsSinceSmoked >= every, inShots: Math.max(0, every - shotsSinceSmoked) };
}
