import { Slot } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';

type Look = 'main' | 'plain' | 'quiet' | 'danger';
const LOOKS: Record<Look, string> = {
  main: 'cut bg-ink text-on-ink hover:bg-good px-4 h-11 font-semibold',
  plain: 'border border-rule-2 bg-sheet hover:border-ink px-3 h-10 font-medium',
  quiet: 'underline decoration-rule-2 underline-offset-4 hover:decoration-ink px-0 h-10 font-medium',
  danger: 'border border-stop text-stop hover:bg-stop-wash px-3 h-10 font-medium',
};

/** A button in one of four weights; with `asChild` a link gets the same look. */
export function Button({
  look = 'plain',
  asChild = false,
  className = '',
  ...props
}: ComponentProps<'button'> & { look?: Look; asChild?: boolean }) {
  const Part = asChild ? Slot.Root : 'button';
  return (
    <Part
      {...(asChild ? {} : { type: 'button' as const })}
      className={`inline-flex items-center justify-center gap-2.5 whitespace-nowrap disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...props}
    />
  );
}

/** A key as it stands on the keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="inline-grid max-sm:pointer-coarse:hidden min-w-6 place-items-center border border-b-2 border-current px-1.5 py-0.5 text-xs leading-none font-semibold rounded-key">
      {children}
    </kbd>
  );
}
