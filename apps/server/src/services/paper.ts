import { randomUUID } from 'node:crypto';
import {
  paperEveningSchema,
  parseWith,
  type EveningOnPaper,
  type EveningsResult,
  type PaperView,
} from '@schmelz/contract';
import { parseNumber } from '@schmelz/core';
import { rowsOf, type Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { rowsUnder, takeList, type TakeOptions } from './imports.ts';
import { noon } from './stock.ts';

const COLUMNS = ['on', 'name', 'mold', 'product', 'good', 'casts', 'minutes', 'note'] as const;
const OPTIONAL = ['name', 'mold', 'product', 'casts', 'minutes', 'note'];

const notEvenings = (detail: string) => new Refused(422, 'This is no log of evenings', detail);

/** Evenings of paper of files that were not undone. */
export const STANDING_PAPER = '(SELECT p.* FROM paperPours p JOIN imports i ON i.id = p.importId WHERE NOT i.struck)';

type ReadEvening = Omit<EveningOnPaper, 'mold' | 'product'> & {
  line: number;
  mold: { id: string; name: string } | null;
  product: { id: string; name: string } | null;
};

/** The rows of a log of evenings, checked; the first wrong one is named by its line, as it was written. */
async function eveningsIn(store: Store, csv: string): Promise<ReadEvening[]> {
  const rows = rowsUnder(csv, { columns: COLUMNS, optional: OPTIONAL }, notEvenings);
  const [molds, products] = await Promise.all([rowsOf(store.models.molds), rowsOf(store.models.products)]);
  return rows.map((row, index) => {
    const line = index + 2;
    const cell = (column: string) => row[column]?.trim() ?? '';
    const named = (column: string, all: readonly { id: string; name: string }[]) => {
      if (cell(column) === '') return null;
      const found = all.find(({ name }) => name.toLowerCase() === cell(column).toLowerCase());
      if (found) return found;
      throw notEvenings(
        `Line ${line}: ${column} is ${JSON.stringify(cell(column))}; allowed: the name of a ${column}, or nothing.`,
      );
    };
    const number = (column: string, empty: null | undefined) => {
      const value = parseNumber(cell(column));
      if (value === null && (cell(column) !== '' || empty === undefined)) {
        throw notEvenings(`Line ${line}: ${column} is ${JSON.stringify(cell(column))}; allowed: a number.`);
      }
      return value;
    };
    const evening = {
      ...{ on: cell('on'), name: cell('name'), note: cell('note') },
      ...{ good: number('good', undefined), casts: number('casts', null), minutes: number('minutes', null) },
    };
    const [mold, product] = [named('mold', molds), named('product', products)];
    try {
      return { line, ...parseWith(paperEveningSchema, evening), mold, product };
    } catch (error) {
      throw notEvenings(`Line ${line}: ${(error as Error).message}.`);
    }
  });
}

/**
 * Evenings that were kept on paper and typed up, from CSV. They tell what was cast, by month and by mold; nothing is
 * taken off a shelf for them. All rows are taken or none; the same contents once, unless `again` is said.
 */
export async function importEvenings(store: Store, csv: string, options: TakeOptions = {}): Promise<EveningsResult> {
  const evenings = await eveningsIn(store, csv);
  const list = { csv, kind: 'evenings', entries: evenings.length } as const;
  const taken = await takeList(store, list, options, async (importId, transaction) => {
    const rows = evenings.map(({ on, name, mold, product, casts, good, minutes, note }) => ({
      ...{ id: randomUUID(), at: noon(on), name, moldId: mold?.id ?? null, productId: product?.id ?? null },
      ...{ casts, good, seconds: minutes === null ? null : Math.round(60 * minutes), note, importId },
    }));
    await store.models.paperPours.bulkCreate(rows, { transaction });
  });
  const said = evenings.map(({ mold, product, ...rest }) => {
    return { ...rest, mold: mold?.name ?? null, product: product?.name ?? null };
  });
  return { ...taken, rows: said.length, evenings: said };
}

/** Casts of each mold in evenings of which all of them are written down. */
export async function castsOnPaper(store: Store): Promise<Map<string, { good: number; casts: number }>> {
  const rows = await store.select<{ moldId: string; good: number; casts: number }>(
    `SELECT moldId, SUM(good) AS good, SUM(casts) AS casts FROM ${STANDING_PAPER}
     WHERE moldId IS NOT NULL AND casts IS NOT NULL GROUP BY moldId`,
  );
  return new Map(rows.map(({ moldId, ...counts }) => [moldId, counts]));
}

/** Evenings that a page shows at once. */
const PAGE = 50;

/** Evenings of paper, newest first, a page at a time; and what all of them come to, by mold or name. */
export async function paperView(store: Store, skip = 0): Promise<PaperView> {
  const [rows, byName] = await Promise.all([
    store.select<Omit<PaperView['evenings'][number], 'minutes'> & { seconds: number | null }>(
      `SELECT e.id, date(e.at / 1000, 'unixepoch', 'localtime') AS "on", e.name, m.name AS mold, p.name AS product,
              e.good, e.casts, e.seconds, e.note
       FROM ${STANDING_PAPER} e LEFT JOIN molds m ON m.id = e.moldId LEFT JOIN products p ON p.id = e.productId
       ORDER BY e.at DESC, e.id LIMIT :most OFFSET :skip`,
      { most: PAGE + 1, skip },
    ),
    store.select<{
      name: string;
      moldId: string | null;
      evenings: number;
      good: number;
      judgedGood: number | null;
      judgedCasts: number | null;
      timedGood: number | null;
      seconds: number | null;
    }>(
      `SELECT COALESCE(m.name, p.name, e.name) AS name, e.moldId, COUNT(*) AS evenings, SUM(e.good) AS good,
              SUM(CASE WHEN e.casts IS NOT NULL THEN e.good END) AS judgedGood, SUM(e.casts) AS judgedCasts,
              SUM(CASE WHEN e.seconds IS NOT NULL THEN e.good END) AS timedGood, SUM(e.seconds) AS seconds
       FROM ${STANDING_PAPER} e LEFT JOIN molds m ON m.id = e.moldId LEFT JOIN products p ON p.id = e.productId
       GROUP BY COALESCE(m.name, p.name, e.name), e.moldId ORDER BY good DESC, 1`,
    ),
  ]);
  const sum = (of: 'evenings' | 'good') => byName.reduce((all, each) => all + each[of], 0);
  return {
    evenings: rows.slice(0, PAGE).map(({ seconds, ...rest }) => {
      return { ...rest, minutes: seconds === null ? null : Math.round(seconds / 60) };
    }),
    more: rows.length > PAGE,
    total: { evenings: sum('evenings'), good: sum('good') },
    byName: byName.map(({ name, moldId, evenings, good, judgedGood, judgedCasts, timedGood, seconds }) => ({
      ...{ name, moldId, evenings, good },
      judged: { good: judgedGood ?? 0, casts: judgedCasts ?? 0 },
      timed: { good: timedGood ?? 0, minutes: Math.round((seconds ?? 0) / 60) },
    })),
  };
}
