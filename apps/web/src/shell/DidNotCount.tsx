import { lazy, Suspense } from 'react';
import { useDidNotCount } from '../api/did-not-count.ts';
import { Icon } from '../design/Icon.tsx';

/** Seldom needed: the first page loads without it. */
const RefusedTaps = lazy(() => import('./RefusedTaps.tsx').then((module) => ({ default: module.RefusedTaps })));

/** What was tapped and did not count stands here until somebody has seen it: no tap is lost unsaid. */
export function DidNotCount() {
  const taps = useDidNotCount();
  if (taps.length === 0) return null;
  const count = taps.length === 1 ? '1 tap did not count' : `${taps.length} taps did not count`;
  const button = (
    <button
      type="button"
      className="cut fixed bottom-4 left-4 z-40 flex min-h-12 items-center gap-2 bg-stop-wash px-4 font-semibold text-stop shadow-xl"
    >
      <Icon name="stop" /> {count}
    </button>
  );
  return (
    <Suspense fallback={button}>
      <RefusedTaps taps={taps} count={count} trigger={button} />
    </Suspense>
  );
}
