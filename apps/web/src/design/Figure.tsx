import type { Figure } from '@schmelz/core';
import { useRef, useState, type ReactNode } from 'react';
import { useUnits } from '../units/Units.tsx';
import { BasisMark } from './Icon.tsx';
import type * as WhyModule from './Why.tsx';

/** What answers "why", fetched when it is first asked or about to be. */
let why: Promise<typeof WhyModule> | null = null;
function fetchWhy(): Promise<typeof WhyModule> {
  why ??= import('./Why.tsx');
  why.catch(() => (why = null)); // the server may be back the next time
  return why;
}

/** A number that can be asked "why": underlined with dots, marked with what it rests on, its range behind one click. */
export function Fig({
  figure,
  title,
  children,
  className = '',
}: {
  figure: Figure;
  title: string;
  children?: ReactNode;
  className?: string;
}) {
  const { write } = useUnits();
  const [open, setOpen] = useState<typeof WhyModule | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const text = `${figure.beyond ? '> ' : ''}${write(figure.value, figure.unit)}`;
  const ask = () => fetchWhy().then(setOpen, () => undefined);
  const aboutToAsk = () => void fetchWhy().catch(() => undefined);
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-label={`${title}: ${typeof children === 'string' ? children : text}. Why?`}
        aria-haspopup="dialog"
        aria-expanded={open !== null}
        data-state={open ? 'open' : 'closed'}
        className={`group inline-flex cursor-help items-baseline whitespace-nowrap ${className}`}
        onPointerEnter={aboutToAsk}
        onFocus={aboutToAsk}
        onClick={() => (open ? setOpen(null) : void ask())}
      >
        <BasisMark basis={figure.basis} />
        <span className="border-b border-dotted border-rule-2 group-hover:border-ink group-data-[state=open]:border-solid group-data-[state=open]:border-ink">
          {children ?? text}
        </span>
      </button>
      {open && <open.Why figure={figure} title={title} asked={button} onClose={() => setOpen(null)} />}
    </>
  );
}
