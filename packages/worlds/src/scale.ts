import { chance } from './chance.ts';

/**
 * A scale as it may really be: how it settles, what it rounds to, how its last digit flickers, how far its zero has
 * crept, and how often it speaks. Shares no function with the core.
 */
interface WorldScale {
  settleS: number;
  stepKg: number;
  /** Flicker, as a share of a step. */
  flicker: number;
  zeroKg: number;
  everyS: number;
}

/** What it shows from the moment that something is laid on it, kg by seconds. */
export function shownOn(scale: WorldScale, kg: number, seconds: number, seed: number): { atS: number; kg: number }[] {
  const { normal } = chance(seed);
  const shown = [];
  for (let atS = 0; atS <= seconds; atS += scale.everyS) {
    const settled = kg * (1 - Math.exp(-atS / scale.settleS)) + scale.zeroKg;
    const raw = settled + normal(scale.flicker * scale.stepKg);
    shown.push({ atS, kg: Math.round(raw / scale.stepKg) * scale.stepKg });
  }
  return shown;
}

/** Scales that differ in everything: a jeweller's, a kitchen's, a slow one that speaks often, one that flickers. */
export const WORLD_SCALES: WorldScale[] = [
  { settleS: 0.35, stepKg: 1e-5, flicker: 0.3, zeroKg: 0, everyS: 0.5 },
  { settleS: 0.5, stepKg: 1e-3, flicker: 0.1, zeroKg: 0, everyS: 1 },
  { settleS: 0.9, stepKg: 1e-5, flicker: 0.3, zeroKg: 2e-5, everyS: 0.1 },
  { settleS: 0.7, stepKg: 1e-4, flicker: 0.4, zeroKg: -1e-4, everyS: 0.2 },
];
