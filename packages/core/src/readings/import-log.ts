import { QuantityError } from '../quantity/check.ts';
import { parseNumber } from '../quantity/parse.ts';
import { fahrenheitToCelsius } from '../quantity/units.ts';
import type { Reading } from './block-codec.ts';

/** How the columns of somebody's log are to be read. */
export interface LogMapping {
  /** Heading of the column that says when. */
  timeColumn: string;
  /** A date and time, or time passed since the start. */
  timeIs: 'date and time' | 'seconds' | 'minutes';
  /** Start of the log, ms since 1970, where times are passed time; also the day for a bare clock time. */
  startAt: number;
  /** Which column is which probe. */
  columns: { column: string; place: string; unit: 'C' | 'F' }[];
}
interface ImportedLog {
  series: { place: string; readings: Reading[] }[];
  /** Rows read, empty cells passed over, and gaps in time longer than five usual steps. */
  rows: number;
  empty: number;
  gaps: { fromAt: number; toAt: number }[];
}

const EMPTY = new Set(['', '-', '--', '---', 'nan', 'na', 'n/a', 'open', 'err', 'error', 'ol']);
const DAY_MS = 86_400_000;

function timeOf(text: string, row: number, mapping: LogMapping, before: number | null): number {
  const wrong = (allowed: string) =>
    new QuantityError(`${mapping.timeColumn}, row ${row}`, JSON.stringify(text), '', allowed);
  if (mapping.timeIs !== 'date and time') {
    const value = parseNumber(text);
    if (value === null || value < 0) throw wrong('a number of 0 or more');
    return mapping.startAt + value * (mapping.timeIs === 'seconds' ? 1000 : 60_000);
  }
  const clock = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?$/.exec(text);
  if (clock) {
    const [, h, m, s] = clock;
    const midnight = new Date(mapping.startAt).setHours(0, 0, 0, 0);
    let at = midnight + (Number(h) * 3600 + Number(m) * 60 + Number(s ?? 0)) * 1000;
    while (before !== null && at < before - DAY_MS / 2) at += DAY_MS; // past midnight
    return at;
  }
  const at = Date.parse(text.replace(/^(\d{4}-\d{2}-\d{2})[ T]+(?=\d)/, '$1T'));
  if (Number.isNaN(at)) throw wrong('a date and time such as 2026-05-31 18:04:00, or a clock time such as 18:04:00');
  return at;
}

/**
 * Reads a log by its mapping. Cells that say "nothing" are passed over and counted; anything else that is no number is
 * an error that names row, column, value and what is allowed. Readings must lie between -60 and 900 C.
 * @example importLog([{ Time: '0', Oven: '200' }, { Time: '1,5', Oven: '200' }], { timeColumn: 'Time',
 *   timeIs: 'minutes', startAt: 0, columns: [{ column: 'Oven', place: 'oven', unit: 'F' }] }).series[0].readings[1]
 *   // { at: 90000, celsius: 93.33 }
 */
export function importLog(rows: readonly Record<string, string>[], mapping: LogMapping): ImportedLog {
  if (mapping.columns.length === 0) throw new QuantityError('columns', 0, '', 'one probe column or more');
  const series = mapping.columns.map(({ place }) => ({ place, readings: [] as Reading[] }));
  let empty = 0;
  let before: number | null = null;
  rows.forEach((cells, index) => {
    const row = index + 2; // the heading is row 1
    const when = cells[mapping.timeColumn];
    if (when === undefined)
      throw new QuantityError('time column', mapping.timeColumn, '', Object.keys(cells).join(', '));
    const at = timeOf(when.trim(), row, mapping, before);
    if (before !== null && at < before)
      throw new QuantityError(
        `${mapping.timeColumn}, row ${row}`,
        JSON.stringify(when),
        '',
        'a time after that of the row before',
      );
    before = at;
    mapping.columns.forEach(({ column, unit }, i) => {
      const cell = cells[column]?.trim();
      if (cell === undefined || EMPTY.has(cell.toLowerCase())) {
        empty += 1;
        return;
      }
      const value = parseNumber(cell.replace(/\s*°?\s*[CF]$/i, ''));
      const celsius = value === null ? NaN : unit === 'F' ? fahrenheitToCelsius(value) : value;
      if (!(celsius >= -60 && celsius <= 900))
        throw new QuantityError(
          `${column}, row ${row}`,
          JSON.stringify(cell),
          unit,
          'a temperature from -60 to 900 C, or empty',
        );
      series[i]!.readings.push({ at, celsius });
    });
  });
  return { series, rows: rows.length, empty, gaps: gapsIn(series.map(({ readings }) => readings)) };
}

/**
 * Stretches without a reading, longer than five times the usual step (the median) and 10 s.
 * @example gapsIn([[{ at: 0, celsius: 20 }, { at: 3_600_000, celsius: 21 }]]) // []
 */
export function gapsIn(series: readonly (readonly Reading[])[]): { fromAt: number; toAt: number }[] {
  return series
    .flatMap((readings) => {
      const steps = readings.slice(1).map((reading, i) => reading.at - readings[i]!.at);
      const usual = [...steps].sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
      return steps.flatMap((step, i) =>
        step > Math.max(10_000, 5 * usual) ? [{ fromAt: readings[i]!.at, toAt: readings[i + 1]!.at }] : [],
      );
    })
    .sort((a, b) => a.fromAt - b.fromAt);
}

/** Hotter than this nothing of a shed gets there, C: what reads more is in F. Common practice, no source. */
const HOTTEST_C: Readonly<Record<string, number>> = { oven: 290, mold: 320, pot: 520 };

/**
 * The hottest cell of a column that can be no Celsius where it was measured; null where it can be, or nobody knows.
 * @example tooHotForCelsius([{ Oven: '68' }, { Oven: '352.4' }], { column: 'Oven', place: 'oven' }) // 352.4
 * @example tooHotForCelsius([{ Oven: '177' }], { column: 'Oven', place: 'oven' }) // null
 */
export function tooHotForCelsius(
  rows: readonly Record<string, string>[],
  { column, place }: Pick<LogMapping['columns'][number], 'column' | 'place'>,
): number | null {
  const values = rows.flatMap((cells) => parseNumber((cells[column] ?? '').trim()) ?? []);
  const hottest = values.reduce((most, value) => Math.max(most, value), -Infinity);
  return hottest > (HOTTEST_C[place] ?? Infinity) ? hottest : null;
}

/**
 * A guess at the mapping from the headings: what looks like a time, what looks like a probe, F where a heading says so.
 * @example guessMapping(['Elapsed s', 'Melt °F'], 0).columns // [{ column: 'Melt °F', place: 'pot', unit: 'F' }]
 */
export function guessMapping(headings: readonly string[], startAt: number): LogMapping {
  const time = headings.find((each) => /time|date|clock|^t$|elapsed|sec|min/i.test(each)) ?? headings[0] ?? '';
  const passed = /elapsed|sec|\bs\b|min/i.test(time);
  const place = (heading: string, index: number) =>
    /pot|melt|lead/i.test(heading)
      ? 'pot'
      : /mold|mould/i.test(heading)
        ? 'mold'
        : /oven|air/i.test(heading)
          ? 'oven'
          : (['pot', 'mold', 'oven'][index] ?? 'other');
  return {
    timeColumn: time,
    timeIs: passed ? (/min/i.test(time) ? 'minutes' : 'seconds') : 'date and time',
    startAt,
    columns: headings
      .filter((each) => each !== time)
      .filter((each) => /temp|°|probe|ch\d|pot|mold|oven|melt|[^a-z][cf]\b/i.test(each))
      .map((column, index) => ({
        column,
        place: place(column, index),
        unit: /(?:^|[^a-z])f(?:$|[^a-z])|fahrenheit/i.test(column) ? 'F' : 'C',
      })),
  };
}
