import type { Figure } from '@schmelz/core';
import { Popover } from 'radix-ui';
import type { RefObject } from 'react';
import { useUnits } from '../units/Units.tsx';
import { BASIS_WORDS, BasisMark } from './Icon.tsx';

/** An estimate's range on a line of its own: hatched, with the value in it. */
function RangeBar({ figure }: { figure: Figure }) {
  const { write } = useUnits();
  const { value, low, high, unit } = figure;
  if (low === undefined || high === undefined || high <= low) return null;
  const at = Math.min(100, Math.max(0, ((value - low) / (high - low)) * 100));
  return (
    <div className="my-3">
      <div className="flex justify-between text-sm text-ink-2">
        <span>{write(low, unit)}</span>
        <span>{write(high, unit)}</span>
      </div>
      <div className="hatch relative mt-1 h-3.5 border border-rule-2">
        <span className="absolute -top-1 -bottom-1 w-1 bg-good" style={{ left: `calc(${at}% - 2px)` }} />
      </div>
    </div>
  );
}

/** A formula as it is written in the core, with T_pour set as a subscript. */
function Formula({ text }: { text: string }) {
  const parts = text.split(/_(\w+)/);
  return parts.map((part, index) => (index % 2 ? <sub key={index}>{part}</sub> : part));
}

/** The sheet that answers "why": rule, formula, what went in with its basis, and the source. */
function WhySheet({ figure, title }: { figure: Figure; title: string }) {
  const { write, said } = useUnits();
  const { why, value, unit, beyond } = figure;
  return (
    <div className="w-[min(420px,calc(100vw-32px))] bg-sheet p-4">
      <h3 className="voice text-xl">
        Why {beyond && 'more than '}
        {write(value, unit)}? <span className="sr-only">{title}</span>
      </h3>
      <RangeBar figure={figure} />
      <p className="mt-2 text-sm text-ink-2">{said(why.rule)}</p>
      <p className="voice mt-2 text-[16px]">
        <Formula text={why.formula} />
      </p>
      <ul className="mt-2 border-t border-rule">
        {why.inputs.map((input) => (
          <li
            key={input.label}
            className="grid grid-cols-[auto_1fr_auto] items-baseline gap-x-1.5 border-b border-rule py-1.5 text-sm"
          >
            <BasisMark basis={input.basis} />
            <span>
              {said(input.label)}
              {input.note && <span className="text-ink-3"> · {said(input.note)}</span>}
            </span>
            <b className="font-semibold">{write(input.value, input.unit)}</b>
          </li>
        ))}
      </ul>
      <p className="quiet mt-2">
        {BASIS_WORDS[figure.basis]}. Source: {why.source}.
      </p>
    </div>
  );
}

/** The sheet beside its figure, until it is closed. */
export function Why({
  figure,
  title,
  asked,
  onClose,
}: {
  figure: Figure;
  title: string;
  /** The figure that was asked. */
  asked: RefObject<HTMLElement | null>;
  onClose: () => void;
}) {
  // Beside the figure where there is room, so that it hides neither the figure nor what stands in its column.
  const side = window.innerWidth >= 1000 ? 'left' : 'bottom';
  return (
    <Popover.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Popover.Anchor virtualRef={asked as RefObject<HTMLElement>} />
      <Popover.Portal>
        <Popover.Content
          side={side}
          sideOffset={8}
          collisionPadding={12}
          className="cut arrive z-50 max-h-(--radix-popover-content-available-height) overflow-auto border border-rule-2 shadow-lg"
          // The figure itself closes it again: were it closed before, the same click would open it anew.
          onInteractOutside={(event) => asked.current?.contains(event.target as Node) && event.preventDefault()}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            asked.current?.focus();
          }}
        >
          <WhySheet figure={figure} title={title} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
