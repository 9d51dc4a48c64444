import type { Entry } from '@schmelz/core';

/** Since when the hands at this device are free for what comes next; all its pages share them. */
const KEY = 'schmelz-hands';

interface Hands {
  /** When a bench was opened last, ms. */
  opened: number;
  /** What each person said last, and in which log; nobody's name is the empty one. */
  said: Record<string, { at: number; path: string }>;
}

function read(): Hands | null {
  const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? 'null');
  // A device of before kept one number for all who stood at it.
  return typeof kept === 'number' ? { opened: kept, said: {} } : (kept as Hands | null);
}
const keep = (hands: Hands): void => localStorage.setItem(KEY, JSON.stringify(hands));

/** A bench is opened: what is said at it next was not begun before. */
export function benchOpened(at: number): void {
  const { opened, said } = read() ?? { opened: 0, said: {} };
  keep({ opened: Math.max(at, opened), said });
}

/**
 * Since when this person may have been at what is said now. Two people who share a device open each other's benches:
 * whoever goes on where they were before the other one said something has been at it all the while.
 */
function freeSince({ opened, said }: Hands, who: string, path: string): number {
  const mine = said[who];
  const others = Object.entries(said).flatMap(([name, { at }]) => (name === who ? [] : [at]));
  if (mine?.path === path && others.some((at) => at > mine.at)) return mine.at;
  return Math.max(opened, mine?.at ?? Math.max(0, ...others));
}

/** Since when the hands were at what was said on this page, by its id: taken back, they go on from there. */
const begun = new Map<string, number>();

/** What a model or a probe says takes nobody's hands. */
const isByItself = (said: object): boolean => 'by' in said && said.by !== 'hand';

/**
 * For how long the hands of this device may have been at what is said now, s; nothing where no bench was opened on it.
 * From now on they are free.
 * @param its.path the log that it is said in
 */
export function handsOf(
  said: { kind: string; target?: unknown },
  { id, at, who = '', path }: Pick<Entry, 'id' | 'at' | 'who'> & { path: string },
) {
  const hands = read();
  if (hands === null || isByItself(said)) return {};
  const free = (since: number) =>
    keep({
      opened: Math.min(hands.opened, since),
      said: { ...hands.said, [who]: { at: since, path } },
    });
  if (said.kind === 'undo') {
    const before = begun.get(String(said.target));
    if (before !== undefined) free(before);
    return {};
  }
  const from = freeSince(hands, who, path);
  begun.set(id, from);
  free(Math.max(at, from));
  return { sinceS: Math.max(0, Math.round((at - from) / 100) / 10) };
}
