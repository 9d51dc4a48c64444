import type { HouseWays, PlanLine } from './types.ts';

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

/** Hands-on seconds at the stations after the pour, for all lines. */
export function handSeconds(ways: HouseWays, lines: readonly PlanLine[]) {
  const sum = (seconds: (line: PlanLine) => number) =>
    lines.reduce((total, line) => total + line.quantity * seconds(line), 0);
  const coats = (line: PlanLine) => line.product.layers.reduce((total, layer) => total + layer.coats, 0);
  return {
    trim: sum(() => ways.trimS),
    paint: sum((line) => coats(line) * ways.coatS),
    bake: sum((line) => (line.product.bake && line.product.layers.length ? ways.hangS : 0)),
    finish: sum(() => ways.finishS),
  };
}
