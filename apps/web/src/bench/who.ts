import { useSyncExternalStore } from 'react';

const KEY = 'schmelz-who';
const listeners = new Set<() => void>();
const read = (): string => localStorage.getItem(KEY) ?? '';

/** Who stands at this device's bench; undefined where nobody has said so. */
export const whoIsHere = (): string | undefined => read() || undefined;

/** Says who stands here from now on; an empty name: nobody in particular. */
export function sayWho(name: string): void {
  if (name === '') localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, name);
  listeners.forEach((listener) => listener());
}

/** Who stands here, as it changes. */
export const useWho = (): string =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);
