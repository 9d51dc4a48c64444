import { useSyncExternalStore } from 'react';
import { tapStore, type RefusedTap } from './tap-store.ts';

/**
 * Taps that the server did not take. None of them leaves this device before the maker has seen here what did not count,
 * and why.
 */
let list: readonly RefusedTap[] = [];
const listeners = new Set<() => void>();

function change(next: readonly RefusedTap[]): void {
  list = next;
  listeners.forEach((listener) => listener());
}

const without = (id: string) => list.filter((each) => each.entry.id !== id);

/** Sets a tap aside, on this device's disk. */
export async function setAside(refused: RefusedTap): Promise<void> {
  change([...without(refused.entry.id), refused]);
  await tapStore.refuse(refused);
}

/** The maker has seen it. */
export async function clearRefused(id: string): Promise<void> {
  change(without(id));
  await tapStore.clear(id);
}

/** What an earlier page had set aside. */
export async function loadRefused(): Promise<void> {
  const kept = await tapStore.refused();
  const known = new Set(list.map((each) => each.entry.id));
  change([...kept.filter((each) => !known.has(each.entry.id)), ...list]);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

export const useDidNotCount = (): readonly RefusedTap[] => useSyncExternalStore(subscribe, () => list);
