import { useEffect, useSyncExternalStore } from 'react';

export type ThemeChoice = 'by place' | 'light' | 'dark';
const KEY = 'schmelz-theme';
const listeners = new Set<() => void>();

const readChoice = (): ThemeChoice => (localStorage.getItem(KEY) as ThemeChoice | null) ?? 'by place';

export function chooseTheme(choice: ThemeChoice): void {
  localStorage.setItem(KEY, choice);
  listeners.forEach((listener) => listener());
}

export const useThemeChoice = (): ThemeChoice =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, readChoice);

/** The desk is light and the bench dark, unless the maker chose one for everywhere. */
export function useTheme(place: 'desk' | 'bench'): void {
  const choice = useThemeChoice();
  useEffect(() => {
    const theme = choice === 'by place' ? (place === 'bench' ? 'dark' : 'light') : choice;
    document.documentElement.dataset['theme'] = theme;
  }, [choice, place]);
}
