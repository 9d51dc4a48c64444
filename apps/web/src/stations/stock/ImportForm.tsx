import type { ImportResult } from '@schmelz/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { request } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { ProblemNote } from '../../design/Notice.tsx';

/** A list of purchases; all rows are taken, or none and it says which row is wrong. */
export function ImportForm() {
  const load = useWrite((csv: string) => request<ImportResult>('POST', '/materials/import', csv, 'text/csv'));
  const [name, setName] = useState('');
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setName(file.name);
    load.mutate(await file.text(), { onSuccess: ({ rows }) => void toast(`${rows} purchases came in.`) });
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
      {name && <p className="quiet">{name}</p>}
      {load.data && <p className="text-good">{load.data.rows} purchases came in.</p>}
      <ProblemNote error={load.error} />
    </div>
  );
}
