/**
 * What every entry of a run's log has: made once at the bench, counted once, corrected by a later entry, never
 * erased.
 */
export interface Entry {
  /** Made by the device that was tapped, so that a repeated delivery is recognised. */
  id: string;
  /** Milliseconds since 1970, the tapping device's clock. */
  at: number;
  kind: string;
}

/** An entry that came from a run of several tickets: the part of its work that is this ticket's, by heads. */
export interface OfRun {
  share?: number;
}

export interface UndoEntry extends Entry {
  kind: 'undo';
  target: string;
}

/** The entries that stand: in order of time, each id once, without undone ones and the undoing. */
export function standing<E extends Entry>(entries: readonly (E | UndoEntry)[]): E[] {
  const undone = new Set<string>();
  for (const entry of entries) if (isUndo(entry)) undone.add(entry.target);
  const seen = new Set<string>();
  const kept: E[] = [];
  let inOrder = true;
  for (const entry of entries) {
    if (isUndo(entry) || undone.has(entry.id) || seen.has(entry.id)) continue;
    seen.add(entry.id);
    inOrder &&= kept.length === 0 || entry.at >= kept[kept.length - 1]!.at;
    kept.push(entry);
  }
  return inOrder ? kept : kept.sort((a, b) => a.at - b.at);
}

const isUndo = (entry: Entry): entry is UndoEntry => entry.kind === 'undo';

/** The entry that the next undo takes back: the newest standing one. */
export function nextUndo<E extends Entry>(entries: readonly (E | UndoEntry)[]): E | undefined {
  return standing<E>(entries).at(-1);
}

/** Longest gap between two taps that still counts as work; beyond it somebody went away and forgot the pause. */
export const LONGEST_WORK_GAP_S = 15 * 60;

const RUNS_BY_ITSELF: ReadonlySet<string> = new Set(['pause', 'charge', 'load', 'coat']);

/**
 * Seconds at work: from each entry to the next, but not across a pause, and at most {@link LONGEST_WORK_GAP_S} a gap.
 * What leads up to an entry of a run is shared among its tickets. Melting and baking run by themselves: the gap after
 * a 'charge', a 'load' and a wet 'coat' is no work.
 */
export function workSeconds(entries: readonly Entry[]): number {
  let seconds = 0;
  entries.forEach((entry, i) => {
    const next = entries[i + 1];
    if (!next || RUNS_BY_ITSELF.has(entry.kind)) return;
    const share = (next as OfRun).share ?? 1;
    seconds += share * Math.min(LONGEST_WORK_GAP_S, Math.max(0, (next.at - entry.at) / 1000));
  });
  return seconds;
}
