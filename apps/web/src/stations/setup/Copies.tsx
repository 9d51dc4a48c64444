import { CSV_TABLES, type BackupView, type CsvTable } from '@schmelz/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice } from '../../design/Field.tsx';
import { Caution, ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { TakeIn } from './TakeIn.tsx';
import { moment, writeDay, writeTime } from '../../units/dates.ts';

const DAY_MS = 24 * 3600_000;
const FIRST = 5;

const WHY: Record<BackupView['why'], string> = {
  daily: 'the copy of that day',
  asked: 'because you asked',
  'before-restore': 'before a copy was put back',
  before: 'before a new Schmelz changed the tables',
  'taken-in': 'out of a file',
};

const age = (at: number) => {
  const days = Math.floor((moment() - at) / DAY_MS);
  return days < 1 ? 'less than a day' : days === 1 ? 'a day' : `${days} days`;
};

/** Any table of the workshop for a spreadsheet, each by itself. */
function TableAsCsv() {
  const [table, setTable] = useState<CsvTable>('tickets');
  return (
    <div className="mt-4 flex flex-wrap items-end gap-3">
      <div className="w-56">
        <Choice
          label="One table for a spreadsheet"
          options={CSV_TABLES.map((name) => ({ value: name, label: wordsOf(name) }))}
          value={table}
          onChange={(event) => setTable(event.target.value as CsvTable)}
        />
      </div>
      <Button asChild>
        <a href={`/api/export/tables/${table}`}>As CSV</a>
      </Button>
    </div>
  );
}
/** A table in words: orderLines are order lines. */
const wordsOf = (name: string) => name.replaceAll(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** Copies of all data: how old the newest is, one more now, and putting one back. */
export function Copies() {
  const queries = useQueryClient();
  const { data: copies } = useQuery({ queryKey: ['backups'], queryFn: () => call('GET /backups') });
  const [asking, setAsking] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const make = useWrite(() => call('POST /backups'));
  const putBack = useWrite((name: string) => call('POST /backups/restore', { body: { name } }));
  const put = (name: string) =>
    putBack.mutate(name, {
      onSuccess: () => {
        setAsking(null);
        void queries.invalidateQueries();
        toast('It is as it was then. What was there is a copy too.');
      },
    });
  if (!copies) return null;
  const newest = copies.find(({ wrong }) => wrong === null);
  return (
    <section>
      <Heading>Copies</Heading>
      {newest ? (
        <p>
          The newest is {age(newest.at)} old. A copy is made each day while Schmelz runs, and older ones go by their
          age.
        </p>
      ) : (
        <Caution>There is no copy yet. One is made each day while Schmelz runs; make the first one now.</Caution>
      )}
      <p className="quiet mt-1">They lie beside your data: keep one on another machine too.</p>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button
          disabled={make.isPending}
          onClick={() => make.mutate(undefined, { onSuccess: () => void toast('A copy was made, and opened to see.') })}
        >
          Make a copy now
        </Button>
        <Button asChild look="quiet">
          <a href="/api/export">Everything as JSON</a>
        </Button>
      </div>
      <TableAsCsv />
      <ul className="mt-3">
        {copies.slice(0, all ? undefined : FIRST).map(({ name, why, at, bytes, wrong }) => (
          <li
            key={name}
            className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b border-rule py-2"
          >
            <span>
              {writeDay(at)}, {writeTime(at)}
              <span className="quiet block">
                {WHY[why]}, {Math.max(0.1, Math.round(bytes / 1e5) / 10)} MB
              </span>
            </span>
            {wrong !== null ? (
              <Caution>This copy {wrong}: it cannot be put back.</Caution>
            ) : asking === name ? (
              <span className="flex flex-wrap items-center gap-2">
                <span>Everything since then goes; it is copied first.</span>
                <Button disabled={putBack.isPending} onClick={() => put(name)}>
                  Put it back
                </Button>
                <Button look="quiet" onClick={() => setAsking(null)}>
                  Leave it
                </Button>
              </span>
            ) : (
              <Button look="quiet" onClick={() => setAsking(name)}>
                Put back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {copies.length > FIRST && (
        <Button look="quiet" className="mt-2" onClick={() => setAll(!all)}>
          {all ? 'Only the newest' : `All ${copies.length}`}
        </Button>
      )}
      <ProblemNote error={make.error ?? putBack.error} />
      <TakeIn busy={putBack.isPending} onPutBack={put} />
    </section>
  );
}
