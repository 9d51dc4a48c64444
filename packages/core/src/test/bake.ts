import { cureLaw } from '../bake/cure-law.ts';
import type { RunningBake } from '../bake/running.ts';

/** A usual jar's label, two lines of it. */
export const label = [
  { metalC: 177, seconds: 1200 },
  { metalC: 200, seconds: 600 },
];
export const law = cureLaw(label);
export const minutes = (n: number) => n * 60_000;

/** A half-ounce head in a hot oven that is left alone, ten minutes in. */
export const bake = (more: Partial<RunningBake> = {}): RunningBake => ({
  law,
  headLagS: 120,
  airC: 177,
  ovenLagS: 200,
  loadedAt: 0,
  preheated: true,
  doors: [],
  readings: [],
  now: minutes(10),
  ...more,
});
