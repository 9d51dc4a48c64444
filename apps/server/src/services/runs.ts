import {
  hasBegun,
  headsSet,
  inTurn,
  RUN_KINDS,
  runConflict,
  stepState,
  ticketState,
  type Around,
  type HeadsInRun,
  type RunEntry,
  type RunKindId,
  type UndoEntry,
} from '@schmelz/core';
import { Op, type Transaction } from 'sequelize';
import type { RunRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { append, type Keeper } from './append.ts';
import { notFound } from './errors.ts';
import { readRuns } from './run-views.ts';
import { downTheLine, loadTickets, setupOf, syncTicket, ticketLog } from './tickets.ts';

type Log = readonly (RunEntry | UndoEntry)[];

/** Which oven a load is in: the one it names, or the first of the house. */
const ovenOf = async (store: Store, ovenId: string | null, transaction: Transaction) =>
  ovenId ?? ((await rowsOf(store.models.ovens, { transaction }))[0]?.['id'] as string | undefined) ?? null;

/** What else is going on, as a new entry of a run must know it: read inside the transaction that writes. */
async function aroundOf(
  store: Store,
  run: { id: string; kind: RunKindId },
  heads: readonly HeadsInRun[],
  ovenId: string | null,
  at: number,
  transaction: Transaction,
): Promise<Around> {
  const ids = [...new Set(heads.map((each) => each.ticketId))];
  const tickets = ids.length ? await loadTickets(store, { id: ids }, transaction) : [];
  const states = new Map(tickets.map((each) => [each.row.id, ticketState(setupOf(each), ticketLog(each))]));
  const stepOf = (ticketId: string, step: string) => {
    const state = states.get(ticketId);
    return state && state.closedAt === null ? stepState(state, step) : undefined;
  };
  let busy: string | null = null;
  if (run.kind === 'oven') {
    const oven = await ovenOf(store, ovenId, transaction);
    const others = await readRuns(store, { kind: 'oven', closedAt: null, id: { [Op.ne]: run.id } }, transaction);
    for (const other of others.filter(hasBegun)) {
      const loaded = other.log.findLast((entry) => entry.kind === 'load');
      const its = loaded?.kind === 'load' ? await ovenOf(store, loaded.ovenId, transaction) : null;
      if (its === oven) busy = `load ${other.number}`;
    }
  }
  return {
    busy,
    stationOf: (ticketId, step) => stepOf(ticketId, step)?.station ?? null,
    waiting(ticketId, step) {
      const found = stepOf(ticketId, step);
      const ticket = tickets.find(({ row }) => row.id === ticketId);
      if (!found || !ticket) return null;
      // What was glued before and is not set yet waits for nothing else.
      return Math.min(found.left - found.inOven, headsSet(ticket.row.route, ticketLog(ticket), step, at).ready);
    },
  };
}

/** Heads that an entry speaks of. */
const headsIn = (entry: RunEntry | UndoEntry): HeadsInRun[] => {
  if ('heads' in entry) return entry.heads;
  return 'ticketId' in entry ? [entry] : [];
};

async function firstRow(store: Store, kind: RunKindId, id: string, at: number, transaction: Transaction) {
  const [row] = await store.select<{ top: number | null }>(
    'SELECT MAX(number) AS top FROM runs WHERE kind = :kind',
    { kind },
    transaction,
  );
  const made: RunRow = { id, kind, number: (row?.top ?? 0) + 1, startedAt: at, closedAt: null, version: 1 };
  await store.models.runs.create(made, { transaction });
  return made;
}

/**
 * Appends entries to a run; the first makes it, by an id that the device has chosen, so that a tap is never lost and
 * never makes two. Every ticket that takes part is brought in step with it.
 */
export async function addRunEntries(
  store: Store,
  kind: RunKindId,
  id: string,
  entries: readonly (RunEntry | UndoEntry)[],
  deviceNow: number | null = null,
): Promise<void> {
  const rules = RUN_KINDS[kind];
  const keep = async (transaction: Transaction): Promise<Keeper<RunEntry>> => {
    const [known] = await rowsOf(store.models.runs, { where: { id }, transaction });
    if (known && known.kind !== kind) throw notFound(rules.name, id);
    const [first] = entries;
    if (!known && first?.kind !== 'load' && first?.kind !== 'begin') throw notFound(rules.name, id);
    const row = known ?? (await firstRow(store, kind, id, first!.at, transaction));
    const before = await rowsOf(store.models.runTickets, { where: { runId: id }, transaction });
    return {
      kind,
      id,
      async judge(log: Log, entry) {
        const load = entry.kind === 'load' ? entry : log.findLast((each) => each.kind === 'load');
        const ovenId = load?.kind === 'load' ? load.ovenId : null;
        const around = await aroundOf(store, { id, kind }, headsIn(entry), ovenId, entry.at, transaction);
        const why = rules.refusal(log, entry, around);
        if (why || entry.kind !== 'undo') return why;
        const after = [...log, entry] as Log;
        const ids = new Set([...rules.heads(log), ...rules.heads(after)].map((each) => each.ticketId));
        return runConflict({ id, kind, log }, entry, await downTheLine(store, [...ids], transaction));
      },
      async sync(log: Log, at) {
        const heads = rules.heads(log);
        const closedAt = rules.closedAt(log);
        // Of a device whose clock was off, known by now, the beginning is another than it said.
        const startedAt = inTurn<RunEntry>(log)[0]?.at ?? row.startedAt;
        const changed = { startedAt, closedAt, version: row.version + 1 };
        await store.models.runs.update(changed, { where: { id }, transaction });
        await store.models.runTickets.destroy({ where: { runId: id }, transaction });
        await store.models.runTickets.bulkCreate(
          heads.map(({ ticketId, step, count }) => ({ runId: id, ticketId, step, heads: count })),
          { transaction },
        );
        const tickets = new Set([...before, ...heads].map((each) => each.ticketId));
        for (const ticketId of tickets) await syncTicket(store, ticketId, at, transaction);
      },
    };
  };
  await append<RunEntry>(store, entries, keep, deviceNow);
}
