import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';
import { ApiProblem } from '../api/client.ts';
import { useSettings } from '../api/queries.ts';
import { Waiting } from '../design/Notice.tsx';
import { UnitsProvider } from '../units/Units.tsx';
import { LineNav } from './LineNav.tsx';
import { Login } from './Login.tsx';
import type { TypedAhead } from './Palette.tsx';
import { Shelf } from './Shelf.tsx';
import { ToastPlace } from './ToastPlace.tsx';
import { useTheme } from './theme.ts';

const loadPalette = () => import('./Palette.tsx').then((module) => ({ default: module.Palette }));
const Palette = lazy(loadPalette);

export const isTyping = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement &&
  event.target.closest('input, select, textarea, [contenteditable], [role=dialog]') !== null;

/** So long letters are kept for a palette that is being fetched; then keys are the page's again. */
const FETCHED_WITHIN_MS = 2000;

/**
 * Opens the palette by its key. It is fetched when it is first wanted, so that no page loads it for nothing: letters
 * that are typed until it stands are the beginning of what is sought.
 */
function useTypedAhead(open: (open: true) => void): TypedAhead {
  const [typed] = useState(() => {
    let letters: string | null = null;
    let since = 0;
    return {
      begin: () => void ([letters, since] = ['', performance.now()]),
      /** Whether a letter is of what is sought. */
      add(letter: string): boolean {
        if (letters === null || performance.now() - since > FETCHED_WITHIN_MS) return false;
        letters += letter;
        return true;
      },
      take(): string {
        const all = letters ?? '';
        letters = null;
        return all;
      },
    };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      if (event.key === '/') {
        typed.begin();
        open(true);
      } else if (event.key.length !== 1 || !typed.add(event.key)) return;
      event.preventDefault();
      event.stopPropagation(); // it is no key of a bench
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, [typed, open]);
  return typed;
}

/** Shelf, line and the page below; a bench has light and room of its own. */
export function Layout({ isBench, children }: { isBench: boolean; children: ReactNode }) {
  const [palette, setPalette] = useState(false);
  const typed = useTypedAhead(setPalette);
  const { error } = useSettings();
  useTheme(isBench ? 'bench' : 'desk');
  if (error instanceof ApiProblem && error.problem.status === 401) return <Login />;
  return (
    <UnitsProvider>
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        To the page
      </a>
      <Shelf onPalette={() => setPalette(true)} />
      <LineNav bench={isBench} />
      <main id="main">
        <Suspense fallback={<Waiting />}>{children}</Suspense>
      </main>
      {palette && (
        <Suspense>
          <Palette open={palette} onOpenChange={setPalette} typed={typed} />
        </Suspense>
      )}
      <ToastPlace isBench={isBench} />
    </UnitsProvider>
  );
}
