import type { Entry } from '@schmelz/core';
import { useState, type ReactNode } from 'react';
import { clearRefused } from '../api/did-not-count.ts';
import { sayAgain } from '../api/outbox.ts';
import type { RefusedTap } from '../api/tap-store.ts';
import { Button } from '../design/Button.tsx';
import { Sheet } from '../design/Sheet.tsx';
import { writeDayShort, writeTime } from '../units/dates.ts';

/** A tap in a few words, as it was made. */
function inWords(entry: Entry & { count?: number; step?: string; cause?: string; position?: number }): string {
  const { kind, count, step, cause, position } = entry;
  const of = [
    count,
    kind === 'reject' ? 'not good:' : kind,
    cause,
    position === undefined ? null : `cavity ${position}`,
    step && `at ${step}`,
  ];
  return of.filter((part) => part !== undefined && part !== null && part !== '').join(' ');
}

function Refused({ tap }: { tap: RefusedTap }) {
  const { entry, why } = tap;
  return (
    <li className="cut bg-sheet p-4">
      <p className="flex items-baseline justify-between gap-3">
        <strong>{inWords(entry)}</strong>
        <span className="quiet whitespace-nowrap">
          {writeDayShort(entry.at)} {writeTime(entry.at)}
        </span>
      </p>
      <p className="mt-1 text-sm text-stop">Did not count, because: {why}</p>
      <div className="mt-3 flex gap-2">
        <Button onClick={() => void clearRefused(entry.id)}>Seen, clear it</Button>
        <Button onClick={() => void sayAgain(tap)}>Say it again</Button>
      </div>
    </li>
  );
}

/** The taps that did not count, each with its reason, behind the button that counts them. */
export function RefusedTaps({
  taps,
  count,
  trigger,
}: {
  taps: readonly RefusedTap[];
  count: string;
  trigger: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      open={open}
      onOpenChange={setOpen}
      trigger={trigger}
      title={count}
      says="They are kept on this device until you clear them."
    >
      <ul className="flex flex-col gap-3">
        {taps.map((tap) => (
          <Refused key={tap.entry.id} tap={tap} />
        ))}
      </ul>
    </Sheet>
  );
}
