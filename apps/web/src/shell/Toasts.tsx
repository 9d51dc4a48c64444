import { useEffect } from 'react';
import { toast, Toaster, type ToasterProps } from 'sonner';
import { showToasts } from '../design/toast.ts';

/** What is said for a moment, as it looks here. */
export function Toasts(at: ToasterProps) {
  // After the place itself has begun to listen: effects of children come first.
  useEffect(() => showToasts(toast), []);
  return (
    <Toaster
      {...at}
      style={{ fontFamily: 'inherit' }}
      toastOptions={{ unstyled: true, className: 'cut flex w-full gap-3 bg-ink p-4 text-on-ink text-sm' }}
    />
  );
}
