import type { TakenInView } from '@schmelz/contract';
import { useState } from 'react';
import { request } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { ProblemNote } from '../../design/Notice.tsx';

/** What a maker knows by name, of all that lies in tables. */
const CALLED: Record<string, string> = {
  orders: 'orders',
  tickets: 'tickets',
  pours: 'pours',
  runs: 'oven loads, dips and mixes',
  entries: 'taps at the benches',
  stockMoves: 'movements of stock',
  goodsMoves: 'movements of finished heads',
  molds: 'molds',
  products: 'products',
  materials: 'parts and metals on the shelf',
  records: 'notes, trials and marks',
  leadLots: 'lots of lead',
  readingBlocks: 'stretches of readings',
};

/** A whole workshop out of a file: what would change is said first, and what is there is copied before it goes. */
export function TakeIn({ onPutBack, busy }: { onPutBack: (name: string) => void; busy: boolean }) {
  const [seen, setSeen] = useState<TakenInView | null>(null);
  // A field for each file: the same one chosen again after it was left is read again.
  const [nth, setNth] = useState(0);
  const leave = () => {
    setSeen(null);
    setNth(nth + 1);
  };
  const read = useWrite(async (file: File) =>
    request<TakenInView>('POST', '/backups/take-in', await file.text(), 'application/json'),
  );
  const look = (file: File | undefined) => {
    setSeen(null);
    if (file) read.mutate(file, { onSuccess: setSeen });
  };
  const known = Object.keys(CALLED).flatMap((name) => seen?.tables.find(({ table }) => table === name) ?? []);
  return (
    <div className="mt-5">
      <label className="block">
        <span className="font-medium">A whole workshop out of a file</span>
        <span className="quiet block">
          As <i>Everything as JSON</i> makes it, of this Schmelz or an older one. It is read into a copy first; nothing
          changes yet.
        </span>
        <input
          key={nth}
          type="file"
          accept=".json,application/json"
          className="mt-2 block w-full text-sm"
          onChange={(event) => look(event.target.files?.[0])}
        />
      </label>
      {read.isPending && <p className="quiet mt-2">Reading …</p>}
      {seen && (
        <div className="cut mt-3 bg-well px-4 py-3">
          <table className="w-full text-sm">
            <caption className="voice mb-2 text-left text-lg">What would change</caption>
            <thead>
              <tr className="text-left text-ink-3">
                <th className="font-normal">of</th>
                <th className="text-right font-normal">here</th>
                <th className="text-right font-normal">in the file</th>
              </tr>
            </thead>
            <tbody>
              {known.map(({ table, now, then }) => (
                <tr key={table} className="border-t border-rule">
                  <td className="py-1">{CALLED[table]}</td>
                  <td className="fig py-1 text-right">{now}</td>
                  <td className={`fig py-1 text-right ${then === now ? 'text-ink-3' : ''}`}>{then}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-3">
            All that is here goes, and all that is in the file comes. What is here is copied first.
          </p>
          <div className="mt-2 flex gap-3">
            <Button
              disabled={busy}
              onClick={() => {
                onPutBack(seen.copy.name);
                leave();
              }}
            >
              Put it in the place of this
            </Button>
            <Button look="quiet" onClick={leave}>
              Leave it
            </Button>
          </div>
        </div>
      )}
      <ProblemNote error={read.error} />
    </div>
  );
}
