import type { Reading } from './block-codec.ts';

/** A heat-up is worth learning from when it rises at least so far. */
const LEAST_RISE_K = 60;
/** It ends where the pot has not got hotter for this long: the thermostat has cut in, or somebody has fed it. */
const PAUSE_MS = 120_000;
const RISE_K = 4;

/** Noise of a probe stays within this of the plateau of the melting metal, K. */
const PLATEAU_K = 8;
/** So many readings round each are looked at, so that noise does not look like a rise or a fall. */
const ROUND = 9;

/** Median of the readings round each: a jump of one of them is none. */
function calmed(readings: readonly Reading[]): number[] {
  const half = Math.floor(ROUND / 2);
  return readings.map((_, i) => {
    // As many on either side as there are, so that the ends are not pulled inwards.
    const reach = Math.min(half, i, readings.length - 1 - i);
    const around = readings.slice(i - reach, i + reach + 1).map(({ celsius }) => celsius);
    return around.sort((a, b) => a - b)[reach]!;
  });
}

/**
 * The stretches of a probe's readings in which a pot heats up without a break, oldest first. The plateau of the melting
 * metal belongs to it; a fall of more than the noise, or a long stand above the melting point, ends it.
 * @example heatUpsIn([]) // []
 */
export function heatUpsIn(readings: readonly Reading[], meltingC = 327.5): Reading[][] {
  const found: Reading[][] = [];
  const calm = calmed(readings);
  let from = 0;
  let top = 0;
  const close = (to: number) => {
    // The thermostat holds it below its highest: the heat-up is over where it first comes near that.
    const near = calm[to] ?? 0;
    const end = calm.findIndex((celsius, i) => i >= from && celsius >= near - 2 * RISE_K);
    const stretch = readings.slice(from, end + 1);
    if (stretch.length >= 8 && stretch.at(-1)!.celsius - stretch[0]!.celsius >= LEAST_RISE_K) found.push(stretch);
  };
  for (let i = 1; i < readings.length; i++) {
    const [celsius, highest] = [calm[i]!, calm[top]!];
    if (celsius > highest) {
      top = i;
      continue;
    }
    const melting = Math.abs(highest - meltingC) < PLATEAU_K;
    const fell = celsius < highest - 2 * RISE_K;
    const stood = !melting && readings[i]!.at - readings[top]!.at > PAUSE_MS;
    if (fell || stood) {
      close(top);
      from = top = i;
    }
  }
  close(top);
  return found;
}

/**
 * The heat-up that tells most of a pot: from the coldest to the hottest. What a pot does after it was fed is one as
 * well, and says little. Undefined where there is none.
 * @example fullestHeatUp([]) ?? null // null
 */
export const fullestHeatUp = (readings: readonly Reading[]): Reading[] | undefined =>
  heatUpsIn(readings).reduce<Reading[] | undefined>((best, each) => {
    const riseOf = (of: readonly Reading[]) => of.at(-1)!.celsius - of[0]!.celsius;
    return best && riseOf(best) >= riseOf(each) ? best : each;
  }, undefined);
