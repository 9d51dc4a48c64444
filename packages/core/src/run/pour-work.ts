import { LONGEST_WORK_GAP_S, workSeconds, type HeldUp } from '../log/log.ts';
import type { PourEntry } from './pour-log.ts';

/** Hands at a pour, and what kept them from it. */
export interface PourWork {
  workS: number;
  heldUp: HeldUp;
}

/** From so many gaps on it is known how long one usually takes. Common practice, no source. */
const ENOUGH_GAPS = 5;
/** Longer than so many usual ones and what a sticking head or a smoked mold takes, s, somebody was away. As above. */
const TIMES_USUAL = 4;
const ASIDE_S = 60;

/** Longer than this before the first word nobody set up: the bench stood open. As above. */
const SETTING_UP_S = 15 * 60;

const isCast = ({ kind }: PourEntry) => kind === 'shot' || kind === 'blank';
/** Melting works by itself, and what was said to be a pause is none. */
const isNoWork = ({ kind }: PourEntry) => kind === 'charge' || kind === 'pause';

/** What passes from one cast to the next at this pour, s: the middle of all; null while they are few. */
function usualGapS(entries: readonly PourEntry[]): number | null {
  const casts = entries.filter(isCast);
  if (casts.length <= ENOUGH_GAPS) return null;
  const gaps = casts.slice(1).map(({ at }, i) => (at - casts[i]!.at) / 1000);
  return gaps.sort((a, b) => a - b)[Math.floor(gaps.length / 2)]!;
}

/**
 * Work at a pour: from each entry to the next, as far as the hands of its device were not at something else, and as far
 * as it can be by this pour's own pace. What goes beyond held the maker up, and so did every pause. A log of before
 * devices told of their hands goes by its gaps alone.
 * @param entries those that stand, in their order
 * @example pourWork([{ id: 'a', at: 0, kind: 'blank', moldId: 'm' }, { id: 'b', at: 40_000, sinceS: 40, kind: 'blank',
 *   moldId: 'm' }]) // { workS: 40, heldUp: { times: 0, seconds: 0 } }
 */
export function pourWork(entries: readonly PourEntry[]): PourWork {
  const heldUp: HeldUp = { times: 0, seconds: 0 };
  if (!entries.some(({ sinceS }) => sinceS !== undefined)) return { workS: workSeconds(entries), heldUp };
  const usualS = usualGapS(entries);
  const longestS = usualS === null ? LONGEST_WORK_GAP_S : TIMES_USUAL * usualS + ASIDE_S;
  const away = (seconds: number) => {
    heldUp.times += 1;
    heldUp.seconds += seconds;
  };
  let workS = 0;
  entries.forEach(({ at, sinceS = Infinity }, i) => {
    const before = entries[i - 1];
    if (!before) {
      // From the opening of the bench on it was set up: lead weighed, hooks counted out, the mold looked at.
      if (sinceS <= SETTING_UP_S) workS += sinceS;
      return;
    }
    const gapS = Math.max(0, (at - before.at) / 1000);
    if (isNoWork(before)) {
      if (before.kind === 'pause') away(gapS);
      return;
    }
    const ownS = Math.min(gapS, sinceS);
    const atWorkS = ownS <= longestS ? ownS : (usualS ?? longestS);
    workS += atWorkS;
    if (atWorkS < ownS) away(ownS - atWorkS);
  });
  return { workS, heldUp };
}
