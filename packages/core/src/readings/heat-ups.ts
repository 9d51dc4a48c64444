import type { Reading } from './block-codec.ts';

/** A heat-up is worth learning from when it rises at least so far. */
const LEAST_RISE_K = 60;
/** It ends where the pot has not got hotter for this long: the thermostat has cut in, or somebody has fed it. */
const PAUSE_MS = 120_000;
const RISE_K = 4;

/**
 * The stretches of a probe's readings in which a pot heats up without a break, oldest first. The plateau of the melting
 * metal belongs to it; a fall of more than the noise, or a long stand above the melting point, ends it.
 */
export function heatUpsIn(readings: readonly Reading[], meltingC = 327.5): Reading[][] {
  const found: Reading[][] = [];
  let from = 0;
  let top = 0;
  const close = (to: number) => {
    // The thermostat holds it below its highest: the heat-up is over where it first comes near that.
    const near = readings[to]?.celsius ?? 0;
    const end = readings.findIndex((reading, i) => i >= from && reading.celsius >= near - 2 * RISE_K);
    const stretch = readings.slice(from, end + 1);
    if (stretch.length >= 8 && stretch.at(-1)!.celsius - stretch[0]!.celsius >= LEAST_RISE_K) found.push(stretch);
  };
  for (let i = 1; i < readings.length; i++) {
    const { at, celsius } = readings[i]!;
    const highest = readings[top]!;
    if (celsius > highest.celsius) {
      top = i;
      continue;
    }
    const melting = Math.abs(highest.celsius - meltingC) < 6;
    const fell = celsius < highest.celsius - 2 * RISE_K;
    const stood = !melting && at - highest.at > PAUSE_MS;
    if (fell || stood) {
      close(top);
      from = top = i;
    }
  }
  close(top);
  return found;
}
