import { useEffect, useState, type ReactNode } from 'react';
import { useDidNotCount } from '../api/did-not-count.ts';
import type { RefusedTap } from '../api/tap-store.ts';
import { Icon } from '../design/Icon.tsx';
import type { RefusedTaps } from './RefusedTaps.tsx';

/** The button that counts them, and the list behind it. */
function Counted({ taps }: { taps: readonly RefusedTap[] }) {
  const [wanted, setWanted] = useState(false);
  // Seldom needed, so the first page comes without the list; it is fetched with the first tap that did not count.
  const [List, setList] = useState<typeof RefusedTaps | null>(null);
  useEffect(() => {
    if (List) return;
    import('./RefusedTaps.tsx').then((module) => setList(() => module.RefusedTaps)).catch(() => setWanted(false)); // the server has gone again: asked for anew when somebody wants to see it
  }, [List, wanted]);
  const count = taps.length === 1 ? '1 tap did not count' : `${taps.length} taps did not count`;
  return (
    <>
      <button
        type="button"
        onClick={() => setWanted(true)}
        aria-label={count}
        className="mt-1 -mb-2 flex min-h-6 items-center gap-1.5 bg-stop-wash px-2 text-[13px] font-semibold whitespace-nowrap text-stop"
      >
        <Icon name="stop" size={14} />
        <span className="max-sm:hidden">{count}</span>
        <span className="sm:hidden">{taps.length} not counted</span>
      </button>
      {wanted && List && <List taps={taps} title={count} onClose={() => setWanted(false)} />}
    </>
  );
}

/**
 * What was tapped and did not count stands here until somebody has seen it: no tap is lost unsaid. In the head of the
 * page, in a line that is there anyway, so that it covers nothing and nothing moves for it.
 */
export function DidNotCount({ children }: { children: ReactNode }) {
  const taps = useDidNotCount();
  return taps.length > 0 ? <Counted taps={taps} /> : children;
}
