import { LONGEST_WORK_GAP_S, workSeconds, type Entry } from '../log/log.ts';
import type { TicketEntry } from './ticket-log.ts';

/** Hands at one step: seconds at work, and heads of which nobody knows how long they took. */
export interface StepWork {
  workS: number;
  notTimed: number;
  /** What passed while those were done, as far as it is known: all of it may be work, or a part, or none. */
  notTimedS: number;
}

const isCount = (entry: TicketEntry): entry is Extract<TicketEntry, { kind: 'good' | 'reject' }> =>
  entry.kind === 'good' || entry.kind === 'reject';
const headsOf = (entry: TicketEntry): number => (isCount(entry) ? entry.count : 0);

/** Heads that cool lie there by themselves: that is no work. */
const coolingS = (entries: readonly TicketEntry[]): number =>
  entries.reduce((sum, entry, i) => {
    const next = entries[i + 1];
    if (entry.kind !== 'unload' || !entry.coolS || !next) return sum;
    const share = (next as Entry & { share?: number }).share ?? 1;
    const gapS = Math.min(LONGEST_WORK_GAP_S, Math.max(0, (next.at - entry.at) / 1000));
    return sum + share * Math.min(gapS, entry.coolS);
  }, 0);

/** Of a log that was said before devices told for how long hands were at it: from one entry to the next. */
function fromGaps(entries: readonly TicketEntry[]): StepWork {
  const measuredS = Math.max(0, workSeconds(entries) - coolingS(entries));
  const first = entries.findIndex((entry) => headsOf(entry) > 0);
  const heads = entries.reduce((sum, entry) => sum + headsOf(entry), 0);
  // Something was said before them, so that their time has a beginning.
  const unbegun = first === 0 ? headsOf(entries[0]!) : 0;
  return filled({ timedS: measuredS, timed: heads - unbegun, notTimed: unbegun, notTimedS: 0 });
}

/** A few heads of which nobody knows took what the others took, where most of them were timed. */
function filled(of: { timedS: number; timed: number; notTimed: number; notTimedS: number }): StepWork {
  const { timedS, timed, notTimed, notTimedS } = of;
  if (notTimed === 0 || timed < notTimed) return { workS: timedS, notTimed, notTimedS: notTimed ? notTimedS : 0 };
  return { workS: (timedS * (timed + notTimed)) / timed, notTimed: 0, notTimedS: 0 };
}

/** Quicker than this part of the usual pace no head is done: it was counted after it was done, with the one before. */
const COUNTED_AFTERWARDS = 0.25;
/**
 * Longer than this somebody was away: one head may take four times what is usual, a hundred of them a third more, and a
 * minute is anybody's. Common practice, no source.
 */
const longestS = (heads: number, paceS: number): number => heads * paceS * (1 + 3 / Math.sqrt(heads)) + 60;
/** Hanging up, of what a bake takes of the hands; the other half is taking down and looking. */
const HANG_SHARE = 0.5;
/** What is weighed or thrown away on the side. */
const ASIDE_S = 300;

/** Heads that were counted together, and the time of the hands that is theirs. */
interface Group {
  who: string | undefined;
  heads: number;
  seconds: number;
}

/** Groups by whether their time can be theirs. */
function judged(groups: readonly Group[], paceS: number) {
  const sum = { timedS: 0, timed: 0, notTimed: 0, notTimedS: 0 };
  for (const { heads, seconds } of groups) {
    if (seconds >= COUNTED_AFTERWARDS * heads * paceS && seconds <= longestS(heads, paceS)) {
      sum.timedS += seconds;
      sum.timed += heads;
    } else {
      sum.notTimed += heads;
      sum.notTimedS += seconds;
    }
  }
  return sum;
}

/** Counts one after the other: those that come too quickly for a head of their own were done with the one before. */
function add(groups: Group[], who: string | undefined, heads: number, seconds: number, paceS: number): void {
  const last = groups.findLast((group) => group.who === who);
  if (last && seconds < COUNTED_AFTERWARDS * heads * paceS) {
    last.heads += heads;
    last.seconds += seconds;
  } else groups.push({ who, heads, seconds });
}

/** Of a log whose entries say for how long the hands of their device were at it. */
function fromHands(entries: readonly TicketEntry[], paceS: number): StepWork {
  const counted = entries.reduce((sum, entry) => sum + headsOf(entry), 0);
  const hung: Group[] = [];
  const looked: Group[] = [];
  let [asideS, restsUntil] = [0, -Infinity];
  const bakes = entries.some(({ kind }) => kind === 'load');
  for (const entry of entries) {
    const { at, who, sinceS = 0 } = entry;
    // What cooled or dried meanwhile lay there by itself.
    const handsS = Math.max(0, Math.min(sinceS, restsUntil > at - 1000 * sinceS ? (at - restsUntil) / 1000 : sinceS));
    const share = (entry as Entry & { share?: number }).share ?? 1;
    if (isCount(entry)) add(looked, who, entry.count, handsS, bakes ? (1 - HANG_SHARE) * paceS : paceS);
    if (entry.kind === 'load') add(hung, who, entry.count, share * handsS, HANG_SHARE * paceS);
    if (entry.kind === 'unload') restsUntil = at + 1000 * (entry.coolS ?? 0);
    if (entry.kind === 'coat') {
      // A coat is on all that are here: no more than they take altogether, however often it is done.
      if (handsS <= longestS(Math.max(1, counted), paceS)) asideS += handsS;
      restsUntil = at + 1000 * entry.dryS;
    }
    if ((entry.kind === 'sprue' || entry.kind === 'spoiled') && handsS <= ASIDE_S) asideS += handsS;
  }
  const coats = entries.some(({ kind }) => kind === 'coat') && asideS > 0;
  const of = judged(looked, bakes ? (1 - HANG_SHARE) * paceS : paceS);
  // Heads whose coats were timed are looked at in no time.
  if (coats) return { workS: asideS + of.timedS, notTimed: 0, notTimedS: 0 };
  if (!bakes) return filled({ ...of, timedS: of.timedS + asideS });
  const up = judged(hung, HANG_SHARE * paceS);
  // Where one half of a bake was timed it stands for the other.
  if (up.timed > 0 && of.timed === 0) return { workS: 2 * up.timedS, notTimed: 0, notTimedS: 0 };
  if (up.timed === 0 && of.timed > 0) return filled({ ...of, timedS: 2 * of.timedS });
  return filled({ ...of, timedS: of.timedS + up.timedS });
}

/**
 * Work at one step, from what was said there. Each entry says for how long the hands of its device may have been at it:
 * since its bench was opened, or something else was said there. That is work as far as it can be by this pace; heads
 * whose time cannot be told are not timed, which is not the same as none. What somebody has said by hand outranks all.
 * @param paceS what a head usually takes at this step, s; left out or 0: not known, and nothing is judged by it
 * @example stepWork([{ id: 'a', at: 0, kind: 'good', step: 'trim', count: 60 }]) // { workS: 0, notTimed: 60,
 *   notTimedS: 0 }
 * @example stepWork([{ id: 'a', at: 0, kind: 'good', step: 'trim', count: 60, sinceS: 720 }], 11) // { workS: 720,
 *   notTimed: 0, notTimedS: 0 }
 */
export function stepWork(entries: readonly TicketEntry[], paceS = 0): StepWork {
  const said = entries.findLast((entry) => entry.kind === 'minutes');
  if (said) return { workS: said.seconds, notTimed: 0, notTimedS: 0 };
  const told = paceS > 0 && entries.some(({ sinceS }) => sinceS !== undefined);
  return told ? fromHands(entries, paceS) : fromGaps(entries);
}
