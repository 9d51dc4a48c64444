import type { ImportOnRecord } from '@schmelz/contract';
import Papa from 'papaparse';
import { useState, type ReactNode } from 'react';
import { toast } from '../design/toast.ts';
import { call } from '../api/client.ts';
import { useImports, useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { Caution, ProblemNote } from '../design/Notice.tsx';
import { Heading } from '../design/Page.tsx';
import { writeDay, writeTime } from '../units/dates.ts';

/** A list as it was chosen: its headings, and its cells under them. */
export interface ListFile {
  name: string;
  headings: string[];
  rows: Record<string, string>[];
}
/** What the server says of a list: as it would be taken, or as it was. */
interface Looked {
  rows: number;
  takenAt: number | null;
}
interface Asked {
  look?: 'true';
  again?: 'true';
}

/** A kind of list that can be taken in, whatever its columns are called. */
export interface ListKind<M, R extends Looked> {
  kind: ImportOnRecord['kind'];
  /** What one row is, and several are. */
  one: string;
  many: string;
  /** How a list is most likely meant. */
  guess: (list: ListFile) => M;
  /** Whether every field that must be said has its column, and whether nothing need be asked. */
  isMapped: (mapping: M) => boolean;
  isUnderstood: (mapping: M) => boolean;
  /** The rows as they are sent; what is left out is not among them. */
  read: (list: ListFile, mapping: M) => object[];
  columns: readonly string[];
  send: (query: Asked) => (csv: string) => Promise<R>;
  /** Asks what is not understood. */
  ask: (list: ListFile, mapping: M, change: (mapping: M) => void) => ReactNode;
  /** What would come in, its first rows. */
  show: (result: R) => ReactNode;
}

/** So many rows of what would come in are shown. */
export const ROWS_SHOWN = 12;

const counted = (rows: number, { one, many }: { one: string; many: string }) =>
  rows === 1 ? `one ${one}` : `${rows} ${many}`;
const cameIn = (rows: number, words: { one: string; many: string }) => {
  const said = `${counted(rows, words)} came in.`;
  return said.charAt(0).toUpperCase() + said.slice(1);
};

/** Lists that came in before; each can be taken back whole. */
function Taken({ kind, ...words }: { kind: ImportOnRecord['kind']; one: string; many: string }) {
  const { data: imports } = useImports();
  const strike = useWrite((id: string) => call('POST /imports/:id/strike', { params: { id } }));
  const lists = imports?.filter((each) => each.kind === kind && !each.struck) ?? [];
  if (lists.length === 0) return null;
  return (
    <div>
      <Heading>Lists that came in</Heading>
      {lists.map(({ id, at, entries }: ImportOnRecord) => (
        <p key={id} className="flex items-center justify-between gap-3 border-b border-rule py-2">
          <span>
            {writeDay(at)}, {writeTime(at)}: {counted(entries, words)}
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

/** A list out of a file; what cannot be one says so. */
async function listIn(picked: File): Promise<ListFile> {
  const { data, meta } = Papa.parse<Record<string, string>>(await picked.text(), {
    header: true,
    skipEmptyLines: true,
  });
  const headings = (meta.fields ?? []).filter((each) => each.trim());
  if (headings.length < 2 || data.length === 0) {
    throw new Error(`${picked.name} has no line of headings with rows below it.`);
  }
  return { name: picked.name, headings, rows: data };
}

/**
 * A list of a maker's own: read as it is most likely meant, shown, then taken, all rows or none; the first wrong row is
 * named.
 */
export function TakeInList<M, R extends Looked>({ of }: { of: ListKind<M, R> }) {
  const look = useWrite(of.send({ look: 'true' }));
  const take = useWrite(({ csv, again }: { csv: string; again: boolean }) =>
    of.send(again ? { again: 'true' } : {})(csv),
  );
  const [list, setList] = useState<ListFile | null>(null);
  const [mapping, setMapping] = useState<M | null>(null);
  // What is understood is not asked: it can be read otherwise where it was misunderstood.
  const [asking, setAsking] = useState(false);
  const [problem, setProblem] = useState<Error | null>(null);
  const rowsOf = (of_: ListFile, by: M) => of.read(of_, by);
  const written = (of_: ListFile, by: M) => Papa.unparse(rowsOf(of_, by), { columns: [...of.columns] });
  const choose = async (picked: File | undefined) => {
    if (!picked) return;
    take.reset();
    look.reset();
    setProblem(null);
    try {
      const chosen = await listIn(picked);
      const guess = of.guess(chosen);
      const understood = of.isMapped(guess) && of.isUnderstood(guess);
      setList(chosen);
      setMapping(guess);
      setAsking(!understood);
      if (understood) look.mutate(written(chosen, guess));
    } catch (error) {
      setList(null);
      setProblem(error as Error);
    }
  };
  const change = (next: M) => {
    look.reset();
    setMapping(next);
  };
  const csv = list && mapping ? written(list, mapping) : '';
  const seen = look.data;
  const out = list && mapping ? list.rows.length - rowsOf(list, mapping).length : 0;
  const done = () => {
    toast(cameIn(seen?.rows ?? 0, of));
    look.reset();
    setList(null);
  };
  return (
    <div className="flex flex-col gap-4">
      <label className="font-medium">
        CSV file
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          className="mt-1 block w-full border border-rule-2 bg-sheet p-2"
          onChange={(event) => void choose(event.target.files?.[0])}
        />
      </label>
      {list && mapping && (
        <>
          {asking ? (
            of.ask(list, mapping, change)
          ) : (
            <Button look="quiet" className="self-start" onClick={() => setAsking(true)}>
              Read its columns otherwise
            </Button>
          )}
          {asking && !seen && (
            <Button
              className="self-start"
              disabled={look.isPending || !of.isMapped(mapping) || out === list.rows.length}
              onClick={() => look.mutate(csv)}
            >
              See what would come in
            </Button>
          )}
        </>
      )}
      {list && seen && (
        <>
          {of.show(seen)}
          {seen.rows > ROWS_SHOWN && <p className="quiet">and {seen.rows - ROWS_SHOWN} more</p>}
          {out > 0 && (
            <p className="quiet">
              {out} {out === 1 ? 'row is' : 'rows are'} left out.
            </p>
          )}
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
            onClick={() => take.mutate({ csv, again: seen.takenAt !== null }, { onSuccess: done })}
          >
            {seen.takenAt !== null
              ? 'Take them once more'
              : seen.rows === 1
                ? `Take this ${of.one}`
                : `Take these ${seen.rows} ${of.many}`}
          </Button>
        </>
      )}
      {take.data && <p className="text-good">{cameIn(take.data.rows, of)}</p>}
      <ProblemNote error={problem ?? look.error ?? take.error} />
      <Taken kind={of.kind} one={of.one} many={of.many} />
    </div>
  );
}
