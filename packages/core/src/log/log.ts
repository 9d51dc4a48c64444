/**
 * What every entry of a run's log has: made once at the bench, counted once, corrected by a later entry, never erased.
 */
export interface Entry {
  /** Made by the device that was tapped, so that a repeated delivery is recognised. */
  id: string;
  /** Milliseconds since 1970, the tapping device's clock. */
  at: number;
  /** What the device's clock said, where it was so far off that the server put the time right; ms since 1970. */
  saidAt?: number;
  /** By how much the clock of the device was before the server's when it sent this, where by a minute or more; ms. */
  ahead?: number;
  /** For how long the hands at this device may have been at it, s: since the bench was opened, or it said something. */
  sinceS?: number;
  /** Who stood at the bench, where the workshop has said who works there. */
  who?: string;
  kind: string;
}

/** An entry that came from a run of several tickets: the part of its work that is this ticket's, by heads. */
export interface OfRun {
  share?: number;
  /** The entry that loaded what this one speaks of. */
  loadId?: string;
}

export interface UndoEntry extends Entry {
  kind: 'undo';
  target: string;
}

const isUndo = (entry: Entry): entry is UndoEntry => entry.kind === 'undo';

/**
 * Ids of all that is taken back, in the order of the log: an undo that was itself taken back takes nothing back. An id
 * that was delivered twice counts where it first stood.
 */
function takenBack(entries: readonly Entry[]): Set<string> {
  const seen = new Set<string>();
  const undos = entries.filter((entry): entry is UndoEntry => {
    if (!isUndo(entry) || seen.has(entry.id)) return false;
    seen.add(entry.id);
    return true;
  });
  const undone = new Set<string>();
  // What was said last is never taken back by anything, so from the end each is known when its turn comes.
  for (const undo of undos.reverse()) if (!undone.has(undo.id)) undone.add(undo.target);
  return undone;
}

/**
 * The entries that stand: in order of time, each id once, without undone ones and the undoing.
 * @example standing([{ id: 'a', at: 0, kind: 'x' }, { id: 'u', at: 1, kind: 'undo', target: 'a' }]) // []
 */
export function standing<E extends Entry>(entries: readonly (E | UndoEntry)[]): E[] {
  const undone = takenBack(entries);
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

/**
 * The entry that the next undo takes back: the newest standing one.
 * @example nextUndo([{ id: 'a', at: 0, kind: 'x' }]).id // 'a'
 */
export function nextUndo<E extends Entry>(entries: readonly (E | UndoEntry)[]): E | undefined {
  return standing<E>(entries).at(-1);
}

/**
 * The undo that can be taken back, so that what it took away stands again: the last thing that was said, or what is
 * left of several in a row. Nothing once something new was said.
 * @example nextRedo([{ id: 'a', at: 0, kind: 'x' }, { id: 'u', at: 1, kind: 'undo', target: 'a' }]).id // 'u'
 */
export function nextRedo<E extends Entry>(entries: readonly (E | UndoEntry)[]): UndoEntry | undefined {
  const undone = takenBack(entries);
  const undos = new Set(entries.filter(isUndo).map((entry) => entry.id));
  for (const entry of [...entries].reverse()) {
    if (!isUndo(entry)) {
      if (undone.has(entry.id)) continue;
      return undefined;
    }
    if (!undos.has(entry.target) && !undone.has(entry.id)) return entry;
  }
  return undefined;
}

/**
 * The entries that `keep` names, with what was taken back of them and brought back.
 * @example partOfLog([{ id: 'a', at: 0, kind: 'x' }, { id: 'b', at: 1, kind: 'y' }], ({ kind }) => kind ===
 *   'y').length // 1
 */
export function partOfLog<E extends Entry>(
  entries: readonly (E | UndoEntry)[],
  keep: (entry: E) => boolean,
): (E | UndoEntry)[] {
  const ids = new Set<string>();
  return entries.filter((entry) => {
    const kept = isUndo(entry) ? ids.has(entry.target) : keep(entry);
    if (kept) ids.add(entry.id);
    return kept;
  });
}

/**
 * Why an undo may not be said of a log, whatever the log is of; null where its target is there and stands.
 * @example undoRefusal([], { id: 'u', at: 1, kind: 'undo', target: 'a' }) // 'There is no such entry here to take
 *   back.'
 */
export function undoRefusal(log: readonly (Entry | UndoEntry)[], { target }: UndoEntry): string | null {
  if (!log.some((entry) => entry.id === target)) return 'There is no such entry here to take back.';
  return takenBack(log).has(target) ? 'That was taken back already.' : null;
}

/** Longest gap between two taps that still counts as work; beyond it somebody went away and forgot the pause. */
export const LONGEST_WORK_GAP_S = 15 * 60;

/** What held somebody up at work: how often, and for how long altogether, s. */
export interface HeldUp {
  times: number;
  seconds: number;
}

const RUNS_BY_ITSELF: ReadonlySet<string> = new Set(['pause', 'charge', 'load', 'coat']);

/**
 * Seconds at work: from each entry to the next, but not across a pause, and at most {@link LONGEST_WORK_GAP_S} a gap.
 * What leads up to an entry of a run is shared among its tickets. Melting and baking run by themselves: the gap after a
 * 'charge', a 'load' and a wet 'coat' is no work.
 * @example workSeconds([{ id: 'a', at: 0, kind: 'x' }, { id: 'b', at: 20_000, kind: 'x' }]) // 20
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
