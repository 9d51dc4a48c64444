import { schoolOf } from './house.ts';
import type { Schools } from './school.ts';

/** Heating to gloss after the dip, as a share of the first heating. Common practice, no source. */
const GLOSS_SHARE = 0.35;
const DIP_S = 1;
const TAP_S = 2;

export interface PaintStep {
  name: 'heat' | 'dip' | 'tap' | 'to gloss' | 'dip again' | 'eye' | 'pin' | 'hang' | 'foam' | 'water';
  seconds: number;
}

/**
 * One head from the gun to where it waits, step by step, s, by the ways that are followed; the heating comes from the
 * model. Stirring is not in it: it comes between heads, see {@link stirDue}.
 * @example paintSteps(16, USUAL_SCHOOLS)[0].seconds // 16
 */
export function paintSteps(heatS: number, ways: Schools): PaintStep[] {
  const seconds = (step: 'gloss' | 'eye' | 'hole' | 'after') => schoolOf(step, ways).seconds;
  const steps: PaintStep[] = [
    { name: 'heat', seconds: heatS },
    { name: 'dip', seconds: DIP_S },
    { name: 'tap', seconds: TAP_S },
  ];
  if (ways.gloss === 'twice') steps.push({ name: 'dip again', seconds: seconds('gloss') });
  if (ways.gloss === 'reheat') steps.push({ name: 'to gloss', seconds: Math.max(2, Math.round(heatS * GLOSS_SHARE)) });
  steps.push({ name: 'eye', seconds: seconds('eye') });
  if (ways.hole === 'pulled one by one') steps.push({ name: 'pin', seconds: seconds('hole') });
  steps.push({ name: ways.after, seconds: seconds('after') });
  return steps;
}

/**
 * Seconds that a head cools between its first coat and the heating for its second; null where water has cooled it
 * through.
 * @example restsS(paintSteps(16, USUAL_SCHOOLS), USUAL_SCHOOLS) // 4
 */
export function restsS(steps: readonly PaintStep[], ways: Schools): number | null {
  if (ways.after === 'water') return null;
  const hot = steps.findLastIndex(({ name }) => name === 'heat' || name === 'to gloss');
  return steps.slice(hot + 1).reduce((sum, step) => sum + step.seconds, 0);
}

/** Dips between two stirrings; null where air does it. Common practice, no source. */
const DIPS_A_STIR = { two: 2, six: 6, bed: null } as const;

/**
 * Whether the powder wants stirring before the next dip.
 * @example stirDue(0, USUAL_SCHOOLS) // false
 */
export function stirDue(dips: number, ways: Schools): boolean {
  const every = DIPS_A_STIR[ways.loose];
  return every !== null && dips > 0 && dips % every === 0;
}

/**
 * Where a metronome stands after so many seconds: which head, which step, how far in it.
 * @example rhythmAt([{ name: 'heat', seconds: 15 }, { name: 'dip', seconds: 1 }], 15.5) // { heads: 0, at: 1,
 *   withinS: 0.5 }
 */
export function rhythmAt(steps: readonly PaintStep[], passedS: number): { heads: number; at: number; withinS: number } {
  const round = steps.reduce((sum, step) => sum + step.seconds, 0);
  const heads = Math.floor(passedS / round);
  let left = passedS - heads * round;
  let at = 0;
  while (at < steps.length - 1 && left >= steps[at]!.seconds) left -= steps[at++]!.seconds;
  return { heads, at, withinS: left };
}
