import { standing, type Entry, type UndoEntry } from './log.ts';

/** What begins a run, and what ends it: nothing of the run was before the one, or after the other. */
const OPENS: ReadonlySet<string> = new Set(['load', 'begin']);
const CLOSES: ReadonlySet<string> = new Set(['unload', 'end']);

/**
 * Entries of a run that stand, in the order in which they must have been: its beginning first, its end last, whatever
 * the clocks of the devices said that tapped them. Where a clock contradicts that order, the times of devices that are
 * known to be off are put right by as much ({@link Entry.ahead}), and what still contradicts it is said to be of the
 * same moment.
 * @param log in the order in which it was taken
 * @example inTurn([{ id: 'l', at: 3_600_000, ahead: 3_600_000, kind: 'load' }, { id: 'u', at: 1_200_000,
 *   kind: 'unload' }]).map(({ at }) => at) // [0, 1200000]
 */
export function inTurn<E extends Entry>(log: readonly (E | UndoEntry)[]): E[] {
  const entries = standing<E>(log);
  const opening = entries.find(({ kind }) => OPENS.has(kind));
  const closing = entries.findLast(({ kind }) => CLOSES.has(kind));
  const holds = (all: readonly E[]) =>
    all.every(
      (entry) => (!opening || entry.at >= timeOf(all, opening)) && (!closing || entry.at <= timeOf(all, closing)),
    );
  if (!opening || holds(entries)) return entries;
  const right = entries.map((entry) => (entry.ahead ? { ...entry, at: entry.at - entry.ahead } : entry));
  const from = timeOf(right, opening);
  const after = right.map((entry) => (entry.at < from ? { ...entry, at: from } : entry));
  const to = Math.max(...after.map(({ at }) => at));
  const rank = ({ id }: E) => (id === opening.id ? -1 : id === closing?.id ? 1 : 0);
  return after
    .map((entry) => (entry.id === closing?.id ? { ...entry, at: to } : entry))
    .sort((a, b) => rank(a) - rank(b) || a.at - b.at);
}

const timeOf = (all: readonly Entry[], { id }: Entry): number => all.find((entry) => entry.id === id)!.at;
