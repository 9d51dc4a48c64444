import type { ReactNode } from 'react';
import { writeDay } from '../units/dates.ts';
import { Button } from './Button.tsx';

/** A dated note in a list: corrected by striking it out, never erased. */
export const DatedRow = ({
  at,
  struck,
  onStrike,
  children,
}: {
  at: number;
  struck: boolean;
  /** Left out: it is taken back elsewhere. */
  onStrike?: (() => void) | undefined;
  children: ReactNode;
}) => (
  <li className={`flex items-baseline gap-4 border-b border-rule py-1.5 ${struck ? 'text-ink-3 line-through' : ''}`}>
    <span className="w-28 shrink-0 text-ink-3">{writeDay(at)}</span>
    {children}
    {!struck && onStrike && (
      <Button look="quiet" className="ml-auto" onClick={onStrike}>
        Strike out
      </Button>
    )}
  </li>
);
