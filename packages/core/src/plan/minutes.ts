import { finishWays } from '../ways/house.ts';
import { paintSeconds, trimSeconds } from '../ways/work.ts';
import { productHeated } from './product.ts';
import type { HouseWays, PlanLine, PlanProduct } from './types.ts';

/** Pouring one cavity, seconds. Common practice, no source. */
export const POUR_S_PER_CAVITY = 3;
/** Opening and closing the mold, seconds a shot. Common practice, no source. */
export const HANDLE_S_PER_SHOT = 5;

/**
 * Seconds of one whole shot: load hooks, close, pour, wait, open, take out and look. With the default ways a practised
 * person with a 5-cavity mold makes about 100 heads an hour (common practice, no source).
 */
export function shotSeconds(ways: Pick<HouseWays, 'loadS' | 'inspectS'>, cavities: number, openS: number): number {
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
 */
export function shotsSeconds(
  ways: Pick<HouseWays, 'loadS' | 'inspectS'>,
  molds: readonly MoldShots[],
  atOnce: number,
): number {
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

/** Seconds to trim one head: the maker's own, or by the ways that are followed. */
export const trimS = (ways: HouseWays, product: Pick<PlanProduct, 'ways'>): number =>
  ways.trimS ?? trimSeconds(finishWays(ways.finish, product.ways));

/** Seconds to paint one head, all its layers: the maker's own for a coat, or by the model and the ways. */
export function paintS(ways: HouseWays, product: PlanProduct): number {
  const { layers } = product;
  if (ways.coatS !== null) return ways.coatS * layers.reduce((total, layer) => total + layer.coats, 0);
  const painted = layers.map(({ zone, coats, powder }) => ({ zone, coats, form: powder.form ?? ('powder' as const) }));
  return paintSeconds(painted, productHeated(product), finishWays(ways.finish, product.ways), ways.roomC);
}

/** Hands-on seconds that are in a head when it comes to a station: what is lost with one that is spoiled there. */
export const workBeforeS = (station: 'trim' | 'paint', ways: HouseWays, product: Pick<PlanProduct, 'ways'>): number =>
  ways.loadS + ways.inspectS + (station === 'paint' ? trimS(ways, product) : 0);

/** Hands-on seconds at the stations after the pour, for all lines. */
export function handSeconds(ways: HouseWays, lines: readonly PlanLine[]) {
  const sum = (seconds: (line: PlanLine) => number) =>
    lines.reduce((total, line) => total + line.quantity * seconds(line), 0);
  return {
    trim: sum(({ product }) => trimS(ways, product)),
    paint: sum(({ product }) => paintS(ways, product)),
    bake: sum((line) => (line.product.bake && line.product.layers.length ? ways.hangS : 0)),
    finish: sum(() => ways.finishS),
  };
}
