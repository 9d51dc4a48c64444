import { useEffect, useState } from 'react';
import type { ToasterProps } from 'sonner';
import { whenToastsWait } from '../design/toast.ts';

const loadToasts = () => import('./Toasts.tsx');
type Toasts = Awaited<ReturnType<typeof loadToasts>>['Toasts'];

const BELOW_HEADER_PX = 76;
const AT_A_BENCH: ToasterProps = {
  position: 'top-right',
  offset: { top: BELOW_HEADER_PX, right: 32 },
  mobileOffset: { top: BELOW_HEADER_PX, left: 16, right: 16 },
};

/** The page stands by then; and a server that goes away later is told of all the same. */
const FETCHED_AFTER_MS = 4000;

/** Where what is said for a moment stands: at a bench the keys stand below, so it stands under the header. */
export function ToastPlace({ isBench }: { isBench: boolean }) {
  const [fetched, setFetched] = useState<{ Toasts: Toasts } | null>(null);
  useEffect(() => {
    // Where it does not arrive it is asked for again by the next that is said.
    const fetchIt = () => void loadToasts().then(setFetched, () => undefined);
    whenToastsWait(fetchIt);
    const timer = setTimeout(fetchIt, FETCHED_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  return fetched && <fetched.Toasts {...(isBench ? AT_A_BENCH : { position: 'bottom-right' })} />;
}
