import { logMappingSchema, parseWith, type LogImport, type ProbePlace } from '@schmelz/contract';
import { importLog, QuantityError } from '@schmelz/core';
import type { Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { digestOf, readCsv, takenAlready, takenBefore } from './imports.ts';
import { addLog } from './readings.ts';

const noLog = (detail: string) => new Refused(422, 'This is no log', detail);

/** A real logger's CSV, read by a mapping of its columns. All of it is taken, or nothing. */
export async function importLogCsv(
  store: Store,
  csv: string,
  mappingJson: string,
  { again = false, at = Date.now() } = {},
): Promise<LogImport> {
  let given: unknown;
  try {
    given = JSON.parse(mappingJson);
  } catch {
    throw noLog('The mapping of the columns is no JSON.');
  }
  const { name, ...mapping } = parseWith(logMappingSchema, given);
  const digest = digestOf(csv);
  const known = await takenBefore(store, digest);
  if (known && !again) throw takenAlready(known);
  const parsed = readCsv(csv, noLog);
  const { headings } = parsed;
  const wanted = [mapping.timeColumn, ...mapping.columns.map((each) => each.column)];
  const missing = wanted.filter((column) => !headings.includes(column));
  if (missing.length)
    throw noLog(
      `There is no column ${missing.map((each) => JSON.stringify(each)).join(', ')}; found: ${headings.slice(0, 10).join(', ') || 'nothing'}.`,
    );
  if (parsed.rows.length === 0) throw noLog('There is no row below the headings.');
  try {
    const log = importLog(parsed.rows, mapping);
    const series = log.series.map(({ place, readings }, i) => ({
      place: place as ProbePlace,
      name: mapping.columns[i]!.column,
      readings,
    }));
    const channels = await addLog(store, name, series, { at, digest });
    return { rows: log.rows, empty: log.empty, gaps: log.gaps, channels };
  } catch (error) {
    if (error instanceof QuantityError) throw noLog(`${error.message}.`);
    throw error;
  }
}
