import type { Entry } from '@schmelz/core';

/** Since when the hands at this device are free for what comes next, ms; all its pages share them. */
const KEY = 'schmelz-hands';
const freeSince = (): number | null => Number(localStorage.getItem(KEY)) || null;
const freeFrom = (at: number): void => localStorage.setItem(KEY, String(at));

/** A bench is opened: what is said at it next was not begun before. */
export const benchOpened = (at: number): void => freeFrom(Math.max(at, freeSince() ?? 0));

/** Since when the hands were at what was said on this page, by its id: taken back, they go on from there. */
const begun = new Map<string, number>();

/** What a model or a probe says takes nobody's hands. */
const isByItself = (said: object): boolean => 'by' in said && said.by !== 'hand';

/**
 * For how long the hands of this device may have been at what is said now, s; nothing where no bench was opened on it.
 * From now on they are free.
 */
export function handsOf(said: { kind: string; target?: unknown }, { id, at }: Pick<Entry, 'id' | 'at'>) {
  const from = freeSince();
  if (from === null || isByItself(said)) return {};
  if (said.kind === 'undo') {
    const before = begun.get(String(said.target));
    if (before !== undefined) freeFrom(before);
    return {};
  }
  begun.set(id, from);
  freeFrom(Math.max(at, from));
  return { sinceS: Math.max(0, Math.round((at - from) / 100) / 10) };
}
