import type { Entry, UndoEntry } from '@schmelz/core';
import type { Transaction } from 'sequelize';
import type { EntryRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed } from './errors.ts';

/** What a log belongs to. */
type LogKind = 'pour' | 'ticket' | 'oven' | 'dip' | 'glue';

/** A log of some kind: how it is judged, and what follows from it. */
export interface Keeper<E extends Entry> {
  kind: LogKind;
  id: string;
  /** The log as it stands in the transaction, where whoever keeps it has read it already. */
  log?: readonly (E | UndoEntry)[];
  /** Refuses in words what a new entry may not do; null when it may. Asked inside the transaction that writes. */
  judge(log: readonly (E | UndoEntry)[], entry: E | UndoEntry, transaction: Transaction): Promise<string | null>;
  /** Brings everything that is derived from the log in step with it. */
  sync(log: readonly (E | UndoEntry)[], at: number, transaction: Transaction): Promise<void>;
}

/**
 * A clock that is off by more than this is wrong by a day or a year, not by what a bench goes by, and is put right. One
 * that is off by less is left: its own waits run by it.
 */
const CLOCK_TRUST_MS = 6 * 3600 * 1000;
/** Nothing was said before there was anything to say it to. */
const EARLIEST_MS = Date.UTC(2020, 0, 1);

/**
 * The time of an entry by the server's clock. `deviceNow` is what the device's clock said when it sent the entry: so
 * far as it is off, so far is the time of the entry. What would still be to come, or before all time, is said now. A
 * time that was put right keeps its order behind what the same hand said before, and is marked with what the device
 * said.
 */
export function putRight(
  at: number,
  { now, deviceNow, after }: { now: number; deviceNow: number | null; after: number | null },
): { at: number; saidAt?: number } {
  const off = deviceNow === null ? 0 : deviceNow - now;
  const believed = Math.abs(off) > CLOCK_TRUST_MS ? at - off : at;
  const possible = believed > now + CLOCK_TRUST_MS || believed < EARLIEST_MS ? now : believed;
  const right =
    possible === at || after === null || after >= now + CLOCK_TRUST_MS ? possible : Math.max(possible, after + 1);
  return right === at ? { at } : { at: right, saidAt: at };
}

/** By less two clocks of a house differ, and so does what lies between a tap and its arrival. */
const CLOCK_AGREES_MS = 60_000;

/** How far a device's clock was before the server's: by what it says of itself, or by a time that is still to come. */
function aheadOf(at: number, now: number, deviceNow: number | null): { ahead?: number } {
  const ahead = deviceNow === null ? Math.max(0, at - now) : deviceNow - now;
  return Math.abs(ahead) >= CLOCK_AGREES_MS ? { ahead } : {};
}

const entryOf = <E extends Entry>(row: EntryRow) =>
  ({ ...row.body, id: row.id, at: row.at, kind: row.kind }) as unknown as E | UndoEntry;

/** Logs of one kind by what they belong to, each in the order in which it was taken. */
export async function readLogs<E extends Entry>(
  store: Store,
  kind: LogKind,
  ids: readonly string[],
  transaction?: Transaction,
): Promise<Map<string, (E | UndoEntry)[]>> {
  const logs = new Map<string, (E | UndoEntry)[]>(ids.map((id) => [id, []]));
  if (ids.length === 0) return logs;
  const where = { logKind: kind, logId: [...ids] };
  const rows = await rowsOf(store.models.entries, { where, order: [['seq', 'ASC']], transaction });
  for (const row of rows) logs.get(row.logId)!.push(entryOf<E>(row));
  return logs;
}

/**
 * Appends entries to a log, whatever it belongs to. An id that is there already is skipped: a tap that is delivered
 * twice counts once. All or none are taken; what each may do is judged by the log as it stands in the transaction.
 */
export async function append<E extends Entry>(
  store: Store,
  entries: readonly (E | UndoEntry)[],
  open: (transaction: Transaction) => Promise<Keeper<E>>,
  deviceNow: number | null = null,
): Promise<void> {
  await store.write(async (transaction) => {
    const keeper = await open(transaction);
    const { kind: logKind, id: logId } = keeper;
    const log = [...(keeper.log ?? (await readLogs<E>(store, logKind, [logId], transaction)).get(logId)!)];
    const known = new Set(log.map((entry) => entry.id));
    for (const said of entries) {
      if (known.has(said.id)) continue;
      const last = log.at(-1)?.at ?? null;
      const now = Date.now();
      const right = putRight(said.at, { now, deviceNow, after: last });
      // What was put right is the server's time already.
      const entry = { ...said, ...right, ...('saidAt' in right ? {} : aheadOf(said.at, now, deviceNow)) };
      const why = await keeper.judge(log, entry, transaction);
      if (why) throw notAllowed(why);
      const { id, at, kind, ...body } = entry;
      if ((await store.models.entries.count({ where: { id }, transaction })) > 0) {
        throw notAllowed(`id is ${id}; allowed: one that no entry of another log has`);
      }
      await store.models.entries.create({ id, logKind, logId, kind, at, body }, { transaction });
      known.add(id);
      log.push(entry);
    }
    await keeper.sync(log, log.at(-1)?.at ?? Date.now(), transaction);
  });
}
