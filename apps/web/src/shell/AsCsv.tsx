import Papa from 'papaparse';
import { Button } from '../design/Button.tsx';
import { save } from './save.ts';

/** A table as every spreadsheet reads it: cells that one would run are written as words. */
export const csvOf = (rows: readonly Record<string, string | number | null>[]): string =>
  Papa.unparse([...rows], { escapeFormulae: true });

/** What a page shows as a file for a spreadsheet; made when it is asked for. */
export function AsCsv({
  name,
  rows,
}: {
  /** Of the file, as *months*. */
  name: string;
  rows: () => readonly Record<string, string | number | null>[];
}) {
  return <Button onClick={() => save(csvOf(rows()), 'text/csv', `schmelz-${name}.csv`)}>As CSV</Button>;
}
