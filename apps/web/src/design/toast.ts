import type { ExternalToast, toast as shown } from 'sonner';
import type { ReactNode } from 'react';

type Shown = typeof shown;

/** What is said before there is a place that shows it. */
const waiting: ((shown: Shown) => void)[] = [];
let place: Shown | null = null;
let onWaiting = () => undefined as void;

function say(what: (shown: Shown) => void): void {
  if (place) return what(place);
  waiting.push(what);
  onWaiting();
}

/**
 * Says something for a moment, at the edge of the page. What shows it is fetched when the page stands: what is said
 * before waits for it.
 */
export const toast = Object.assign(
  (says: ReactNode, options?: ExternalToast) => say((shown) => void shown(says, options)),
  {
    error: (says: ReactNode, options?: ExternalToast) => say((shown) => void shown.error(says, options)),
    dismiss: (id: string) => say((shown) => void shown.dismiss(id)),
  },
);

/** The place calls this when it stands: what waited is said there. */
export function showToasts(shown: Shown): void {
  place = shown;
  for (const what of waiting.splice(0)) what(shown);
}

/** Calls where something waits for a place. */
export function whenToastsWait(call: () => void): void {
  onWaiting = call;
  if (waiting.length > 0) call();
}
