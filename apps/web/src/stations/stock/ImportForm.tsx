import type { ImportOnRecord, ImportResult, Query } from '@schmelz/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../api/client.ts';
import { useImports, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { writeDay, writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

const send = (query: Query<'POST /materials/import'>) => (body: string) =>
  call('POST /materials/import', { query, body });

/** What a file would bring in, before it does. */
function Purchases({ result }: { result: ImportResult }) {
  const units = useUnits();
  return (
    <table className="sheet-table">
      <tbody>
        {result.purchases.slice(0, 12).map(({ line, material, kind, quantity, priceMinor, on, lot }) => (
          <tr key={line}>
            <td className="text-sm whitespace-nowrap text-ink-3">{writeDay(on)}</td>
            <td>
              {material}
              {lot && <span className="quiet block">{lot}</span>}
            </td>
            <td className="num">{units.part(kind, quantity)}</td>
            <td className="num">{units.money(priceMinor)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Lists that came in before; each can be taken back whole. */
function Taken() {
  const { data: imports } = useImports();
  const strike = useWrite((id: string) => call('POST /imports/:id/strike', { params: { id } }));
  const lists = imports?.filter(({ kind, struck }) => kind === 'receipts' && !struck) ?? [];
  if (lists.length === 0) return null;
  return (
    <div>
      <Heading>Lists that came in</Heading>
      {lists.map(({ id, at, entries }: ImportOnRecord) => (
        <p key={id} className="flex items-center justify-between gap-3 border-b border-rule py-2">
          <span>
            {writeDay(at)}, {writeTime(at)}: {entries} purchases
          </span>
          <Button onClick={() => strike.mutate(id)} disabled={strike.isPending}>
            Undo it
          </Button>
        </p>
      ))}
      <ProblemNote error={strike.error} />
    </div>
  );
}

/** A list of purchases: shown first, then taken, all rows or none; the first wrong row is named. */
export function ImportForm() {
  const look = useWrite(send({ look: 'true' }));
  const take = useWrite(({ csv, again }: { csv: string; again: boolean }) =>
    send({ again: again ? 'true' : undefined })(csv),
  );
  const [file, setFile] = useState<{ name: string; csv: string } | null>(null);
  const choose = async (picked: File | undefined) => {
    if (!picked) return;
    take.reset();
    const csv = await picked.text();
    setFile({ name: picked.name, csv });
    look.mutate(csv);
  };
  const seen = look.data;
  const done = () => {
    toast(`${seen?.rows} purchases came in.`);
    look.reset();
  };
  return (
    <div className="flex flex-col gap-4">
      <pre className="overflow-x-auto bg-sheet p-3 text-sm">
        {`material,quantity,price,on,lot
Soft lead,12.5,31.20,2026-03-14,keel
Jig hook 2/0,100,17.90,2026-03-14,`}
      </pre>
      <label className="font-medium">
        CSV file
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          className="mt-1 block w-full border border-rule-2 bg-sheet p-2"
          onChange={(event) => void choose(event.target.files?.[0])}
        />
      </label>
      {file && <p className="quiet">{file.name}</p>}
      {file && seen && (
        <>
          <Purchases result={seen} />
          {seen.rows > 12 && <p className="quiet">and {seen.rows - 12} more</p>}
          {seen.takenAt !== null && (
            <Caution>
              The same file came in on {writeDay(seen.takenAt)} at {writeTime(seen.takenAt)}: taken again, all of it is
              counted twice.
            </Caution>
          )}
          <Button
            look="main"
            className="self-start"
            disabled={take.isPending}
            onClick={() => take.mutate({ csv: file.csv, again: seen.takenAt !== null }, { onSuccess: done })}
          >
            {seen.takenAt === null ? `Take these ${seen.rows} purchases` : 'Take them once more'}
          </Button>
        </>
      )}
      {take.data && <p className="text-good">{take.data.rows} purchases came in.</p>}
      <ProblemNote error={look.error ?? take.error} />
      <Taken />
    </div>
  );
}
