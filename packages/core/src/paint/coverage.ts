import { inRange } from '../quantity/check.ts';

interface CoverageInput {
  paintedAreaM2: number;
  filmM: number;
  /** Density of the cured powder over that of water. */
  specificGravity: number;
  /** Share of the powder taken that stays on the head. */
  transferEfficiency?: number;
}

/** Share of the powder taken that stays on, before any jar was weighed. Common practice, no source. */
export const USUAL_STAYS_ON = 0.7;

/**
 * Powder taken for one coat on one head, kg: area x film x density / efficiency. The industry's published form is 192.3
 * ft2/lb per mil at specific gravity 1. Check: 100 um of SG 1.5 on a 14.2 g ball is 0.084 g.
 * @example powderKg({ paintedAreaM2: 0.00056, filmM: 0.0001, specificGravity: 1.5, transferEfficiency: 0.7 }) //
 * 0.00012
 */
export function powderKg(input: CoverageInput): number {
  const area = inRange('paintedAreaM2', input.paintedAreaM2, 'm2', 0, 1);
  const film = inRange('filmM', input.filmM, 'm', 1e-6, 2e-3);
  const gravity = inRange('specificGravity', input.specificGravity, '', 0.5, 5);
  const efficiency = inRange('transferEfficiency', input.transferEfficiency ?? 1, '', 0.05, 1);
  return (area * film * gravity * 1000) / efficiency;
}

/** Zones of a head that a layer covers, as a share of the painted surface. */
export const ZONE_SHARE = { whole: 1, back: 0.5, nose: 0.35, speckle: 0.12, flake: 0.15 } as const;
export type PaintZone = keyof typeof ZONE_SHARE;
