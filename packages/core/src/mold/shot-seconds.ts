/** The maker's own seconds a cavity: to load it, and to take its head out and look at it. */
export interface HandSeconds {
  loadS: number;
  inspectS: number;
}

/** Pouring one cavity, seconds. Common practice, no source. */
export const POUR_S_PER_CAVITY = 3;
/** Opening and closing the mold, seconds a shot. Common practice, no source. */
export const HANDLE_S_PER_SHOT = 5;

/**
 * Seconds of one whole shot: load hooks, close, pour, wait, open, take out and look. With the default ways a practised
 * person with a 5-cavity mold makes about 100 heads an hour (common practice, no source).
 * @example shotSeconds({ loadS: 17, inspectS: 12 }, 5, 4) // 169
 */
export function shotSeconds(ways: HandSeconds, cavities: number, openS: number): number {
  return cavities * (ways.loadS + POUR_S_PER_CAVITY + ways.inspectS) + openS + HANDLE_S_PER_SHOT;
}

export interface MoldShots {
  shots: number;
  cavities: number;
  openS: number;
}

/**
 * Seconds of all shots when `atOnce` molds (1 or 2) are poured in turn: while one sets, the hands are at the other, so
 * that a pair of shots takes as long as the hands or, where they are quicker, as the slower mold.
 * @example shotsSeconds({ loadS: 17, inspectS: 12 }, [{ shots: 20, cavities: 5, openS: 4 }], 1) // 3380
 */
export function shotsSeconds(ways: HandSeconds, molds: readonly MoldShots[], atOnce: number): number {
  const hands = (mold: MoldShots) => shotSeconds(ways, mold.cavities, 0);
  const waiting = molds.map((mold) => ({ ...mold }));
  let seconds = 0;
  for (;;) {
    const [a, b] = waiting.filter((mold) => mold.shots > 0);
    if (!a) return seconds;
    const shots = b && atOnce > 1 ? Math.min(a.shots, b.shots) : a.shots;
    a.shots -= shots;
    if (!b || atOnce <= 1) {
      seconds += shots * shotSeconds(ways, a.cavities, a.openS);
      continue;
    }
    b.shots -= shots;
    seconds += shots * Math.max(hands(a) + hands(b), hands(a) + a.openS, hands(b) + b.openS);
  }
}
