import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet, useMatches } from 'react-router';
import { Toaster, type ToasterProps } from 'sonner';
import { ApiProblem } from '../api/client.ts';
import { useSettings } from '../api/queries.ts';
import { Waiting } from '../design/Notice.tsx';
import { UnitsProvider } from '../units/Units.tsx';
import { LineNav } from './LineNav.tsx';
import { Login } from './Login.tsx';
import { Shelf } from './Shelf.tsx';
import { useTheme } from './theme.ts';

const loadPalette = () => import('./Palette.tsx').then((module) => ({ default: module.Palette }));
const Palette = lazy(loadPalette);

export const isTyping = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement &&
  event.target.closest('input, select, textarea, [contenteditable], [role=dialog]') !== null;

const BELOW_HEADER_PX = 76;
const AT_A_BENCH: ToasterProps = {
  position: 'top-right',
  offset: { top: BELOW_HEADER_PX, right: 32 },
  mobileOffset: { top: BELOW_HEADER_PX, left: 16, right: 16 },
};

/** Shelf, line and the page below; bench pages say so in their route. */
export function Layout() {
  const bench = useMatches().some((match) => (match.handle as { bench?: boolean } | undefined)?.bench);
  const [palette, setPalette] = useState(false);
  const { error } = useSettings();
  useTheme(bench ? 'bench' : 'desk');
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '/' || isTyping(event)) return;
      event.preventDefault();
      setPalette(true);
    };
    // Fetched once the page stands, so that the first letters typed after / are not lost.
    const warm = setTimeout(() => void loadPalette(), 1500);
    window.addEventListener('keydown', onKey);
    return () => {
      clearTimeout(warm);
      window.removeEventListener('keydown', onKey);
    };
  }, []);
  if (error instanceof ApiProblem && error.problem.status === 401) return <Login />;
  return (
    <UnitsProvider>
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        To the page
      </a>
      <Shelf onPalette={() => setPalette(true)} />
      <LineNav bench={bench} />
      <main id="main">
        <Suspense fallback={<Waiting />}>
          <Outlet />
        </Suspense>
      </main>
      {palette && (
        <Suspense>
          <Palette open={palette} onOpenChange={setPalette} />
        </Suspense>
      )}
      {/* At a bench the keys stand below: what is said there stands under the header. */}
      <Toaster
        {...(bench ? AT_A_BENCH : { position: 'bottom-right' })}
        style={{ fontFamily: 'inherit' }}
        toastOptions={{ unstyled: true, className: 'cut flex w-full gap-3 bg-ink p-4 text-on-ink text-sm' }}
      />
    </UnitsProvider>
  );
}
