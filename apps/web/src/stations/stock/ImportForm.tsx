import type { ImportOnRecord, ImportResult, Material, Query } from '@schmelz/contract';
import { guessPurchases, PURCHASE_FIELDS, readPurchases, type PurchaseMapping } from '@schmelz/core';
import Papa from 'papaparse';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../api/client.ts';
import { useImports, useList, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { writeDay, writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { isMapped, listedMaterials, PurchaseColumns, type PurchaseList } from './PurchaseColumns.tsx';

const cameIn = (rows: number) => (rows === 1 ? 'One purchase came in.' : `${rows} purchases came in.`);

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
            {writeDay(at)}, {writeTime(at)}: {entries === 1 ? 'one purchase' : `${entries} purchases`}
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

/** The list as it is sent: in names of Stock, its units and its way to write a day. */
const written = ({ rows }: PurchaseList, mapping: PurchaseMapping, materials: readonly Material[]) =>
  Papa.unparse(readPurchases(rows, mapping, listedMaterials(materials)), { columns: [...PURCHASE_FIELDS] });

/**
 * A list of purchases, whatever its columns are called: read as it is most likely meant, shown, then taken, all rows or
 * none; the first wrong row is named.
 */
export function ImportForm() {
  const { data: materials = [] } = useList('materials');
  const look = useWrite(send({ look: 'true' }));
  const take = useWrite(({ csv, again }: { csv: string; again: boolean }) =>
    send({ again: again ? 'true' : undefined })(csv),
  );
  const [list, setList] = useState<PurchaseList | null>(null);
  const [mapping, setMapping] = useState<PurchaseMapping | null>(null);
  // What is understood is not asked: it can be read otherwise where it was misunderstood.
  const [asking, setAsking] = useState(false);
  const [problem, setProblem] = useState<Error | null>(null);
  const choose = async (picked: File | undefined) => {
    if (!picked) return;
    take.reset();
    look.reset();
    setProblem(null);
    const text = await picked.text();
    const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
    const headings = (meta.fields ?? []).filter((each) => each.trim());
    if (headings.length < 2 || data.length === 0) {
      setList(null);
      setProblem(new Error(`${picked.name} has no line of headings with rows below it.`));
      return;
    }
    const list = { name: picked.name, headings, rows: data };
    const guess = guessPurchases(headings, data, listedMaterials(materials));
    const understood = isMapped(guess) && Object.values(guess.names).every((name) => name !== null);
    setList(list);
    setMapping(guess);
    setAsking(!understood);
    if (understood) look.mutate(written(list, guess, materials));
  };
  const change = (mapping: PurchaseMapping) => {
    look.reset();
    setMapping(mapping);
  };
  const csv = list && mapping ? written(list, mapping, materials) : '';
  const seen = look.data;
  const out =
    list && mapping ? list.rows.length - readPurchases(list.rows, mapping, listedMaterials(materials)).length : 0;
  const done = () => {
    toast(cameIn(seen?.rows ?? 0));
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
            <PurchaseColumns list={list} mapping={mapping} materials={materials} onChange={change} />
          ) : (
            <Button look="quiet" className="self-start" onClick={() => setAsking(true)}>
              Read its columns otherwise
            </Button>
          )}
          {asking && !seen && (
            <Button
              className="self-start"
              disabled={look.isPending || !isMapped(mapping) || out === list.rows.length}
              onClick={() => look.mutate(csv)}
            >
              See what would come in
            </Button>
          )}
        </>
      )}
      {list && seen && (
        <>
          <Purchases result={seen} />
          {seen.rows > 12 && <p className="quiet">and {seen.rows - 12} more</p>}
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
                ? 'Take this purchase'
                : `Take these ${seen.rows} purchases`}
          </Button>
        </>
      )}
      {take.data && <p className="text-good">{cameIn(take.data.rows)}</p>}
      <ProblemNote error={problem ?? look.error ?? take.error} />
      <Taken />
    </div>
  );
}
