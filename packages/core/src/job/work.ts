import { LONGEST_WORK_GAP_S, workSeconds, type Entry } from '../log/log.ts';
import type { TicketEntry } from './ticket-log.ts';

/** Hands at one step: seconds at work, and heads of which nobody knows how long they took. */
interface StepWork {
  workS: number;
  notTimed: number;
}

const headsOf = (entry: TicketEntry): number => (entry.kind === 'good' || entry.kind === 'reject' ? entry.count : 0);

/** Heads that cool lie there by themselves: that is no work. */
const coolingS = (entries: readonly TicketEntry[]): number =>
  entries.reduce((sum, entry, i) => {
    const next = entries[i + 1];
    if (entry.kind !== 'unload' || !entry.coolS || !next) return sum;
    const share = (next as Entry & { share?: number }).share ?? 1;
    const gapS = Math.min(LONGEST_WORK_GAP_S, Math.max(0, (next.at - entry.at) / 1000));
    return sum + share * Math.min(gapS, entry.coolS);
  }, 0);

/**
 * Work at one step, from what was said there. Between two entries the hands were at the heads of the second; the first
 * heads took what the others took, where most of them were timed. Heads that were counted all at once with nothing
 * before them have no time: they are not timed, which is not the same as none.
 * @example stepWork([{ id: 'a', at: 0, kind: 'good', step: 'trim', count: 60 }]) // { workS: 0, notTimed: 60 }
 */
export function stepWork(entries: readonly TicketEntry[]): StepWork {
  const measuredS = Math.max(0, workSeconds(entries) - coolingS(entries));
  const first = entries.findIndex((entry) => headsOf(entry) > 0);
  const heads = entries.reduce((sum, entry) => sum + headsOf(entry), 0);
  // Something was said before them, so that their time has a beginning.
  const unbegun = first === 0 ? headsOf(entries[0]!) : 0;
  const timed = heads - unbegun;
  if (unbegun === 0) return { workS: measuredS, notTimed: 0 };
  if (timed < unbegun) return { workS: measuredS, notTimed: unbegun };
  return { workS: (measuredS * heads) / timed, notTimed: 0 };
}
