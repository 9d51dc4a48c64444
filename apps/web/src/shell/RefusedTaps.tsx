import { clearRefused } from '../api/did-not-count.ts';
import { sayAgain } from '../api/outbox.ts';
import type { RefusedTap } from '../api/tap-store.ts';
import { entryInWords } from '../bench/entry-words.ts';
import { Button } from '../design/Button.tsx';
import { Sheet } from '../design/Sheet.tsx';
import { writeDayShort, writeTime } from '../units/dates.ts';
import { useUnits } from '../units/Units.tsx';

function Refused({ tap }: { tap: RefusedTap }) {
  const { entry, why } = tap;
  const units = useUnits();
  return (
    <li className="cut bg-sheet p-4">
      <p className="flex items-baseline justify-between gap-3">
        <strong>{entryInWords(entry, units)}</strong>
        <span className="quiet whitespace-nowrap">
          {writeDayShort(entry.at)} {writeTime(entry.at)}
        </span>
      </p>
      <p className="mt-1 text-sm text-stop">Did not count, because: {units.said(why)}</p>
      <div className="mt-3 flex gap-2">
        <Button onClick={() => void clearRefused(entry.id)}>Seen, clear it</Button>
        <Button onClick={() => void sayAgain(tap)}>Say it again</Button>
      </div>
    </li>
  );
}

/** The taps that did not count, each with its reason. */
export function RefusedTaps({
  taps,
  title,
  onClose,
}: {
  taps: readonly RefusedTap[];
  title: string;
  onClose: () => void;
}) {
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
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
