import { useEffect, useState } from 'react';
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
        className="cut fixed bottom-4 left-4 z-40 flex min-h-12 items-center gap-2 bg-stop-wash px-4 font-semibold text-stop shadow-xl"
      >
        <Icon name="stop" /> {count}
      </button>
      {wanted && List && <List taps={taps} title={count} onClose={() => setWanted(false)} />}
    </>
  );
}

/** What was tapped and did not count stands here until somebody has seen it: no tap is lost unsaid. */
export function DidNotCount() {
  const taps = useDidNotCount();
  return taps.length > 0 ? <Counted taps={taps} /> : null;
}
