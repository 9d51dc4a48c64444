import { hasBegun, RUN_KINDS, type RunEntry, type RunKindId } from '@schmelz/core';
import type { RunView } from '@schmelz/contract';
import { Op, type Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';
import { readLogs } from './append.ts';
import { notFound } from './errors.ts';

/** Runs with their logs, newest first. */
export async function readRuns(
  store: Store,
  where: Record<string, unknown>,
  transaction?: Transaction,
): Promise<RunView[]> {
  const rows = await rowsOf(store.models.runs, { where, order: [['startedAt', 'DESC']], transaction });
  const views: RunView[] = [];
  for (const kind of new Set(rows.map((row) => row.kind))) {
    const own = rows.filter((row) => row.kind === kind);
    const logs = await readLogs<RunEntry>(
      store,
      kind,
      own.map((row) => row.id),
      transaction,
    );
    views.push(...own.map(({ id, number, version }) => ({ id, kind, number, version, log: logs.get(id)! })));
  }
  return views;
}

/** So long after a run is over its waits may still stand on the shelf, ms: what is hot cools, glue sets overnight. */
const LOOKED_AFTER_MS = 24 * 3600 * 1000;

/** Runs that still want looking after: those that are going on, and those whose heads cool or set. */
export const openRuns = async (store: Store, now = Date.now()): Promise<RunView[]> =>
  (
    await readRuns(store, {
      [Op.or]: [{ closedAt: null }, { closedAt: { [Op.gte]: now - LOOKED_AFTER_MS } }],
    })
  ).filter(hasBegun);

export async function readRun(store: Store, kind: RunKindId, id: string): Promise<RunView> {
  const [run] = await readRuns(store, { id, kind });
  if (!run) throw notFound(RUN_KINDS[kind].name, id);
  return run;
}
