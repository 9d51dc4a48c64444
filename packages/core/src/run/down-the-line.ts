import { ticketConflict, type TicketSetup } from '../job/ticket.ts';
import type { TicketLog } from '../job/ticket-log.ts';
import type { UndoEntry } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { pourState } from './pour.ts';
import { RUN_KINDS, type Run, type RunEntry } from './runs.ts';

/** A ticket as a pour or a run sees it that it is in. */
interface TicketDownTheLine {
  id: string;
  /** As it is named in a refusal. */
  name: string;
  /** Its steps as they would start from so many good heads of this pour, and whether this pour is closed. */
  setupWith(good: number, closed: boolean): TicketSetup;
  /** Its own log with what its runs say of it; `instead` stands in the place of the run of that id. */
  logWith(instead: Pick<Run, 'id' | 'kind' | 'log'> | null): TicketLog;
}

const LESSENS: ReadonlySet<string> = new Set(['undo', 'reject', 'shot']);
/**
 * Whether an entry of a pour may leave a ticket with fewer good heads than it had.
 * @example mayLessen({ id: 'c', at: 0, kind: 'pause' }) // false
 */
const mayLessen = (entry: PourEntry | UndoEntry): boolean => LESSENS.has(entry.kind);

/**
 * Whether an entry leaves a ticket with fewer good heads than it had, or opens the pour again: only then is it looked
 * at what the tickets have done with their heads.
 * @example takesAway(pour.setup, twoShots, { id: 'p', at: 1_030_000, kind: 'pause' }) // false
 */
export function takesAway(setup: PourSetup, log: PourLog, entry: PourEntry | UndoEntry): boolean {
  if (!mayLessen(entry)) return false;
  const [before, after] = [pourState(setup, log), pourState(setup, [...log, entry])];
  if (before.phase === 'closed' && after.phase !== 'closed') return true;
  return Object.keys(setup.needs).some((id) => (after.goodByTicket[id] ?? 0) < (before.goodByTicket[id] ?? 0));
}

/**
 * Why an entry of a pour may not be taken, beyond what the pour itself says: heads that it takes away are on their way
 * along the line already, or a ticket is closed whose pour would be open again. Null where nothing is in the way.
 * @example pourConflict(pour.setup, twoShots, { id: 'p', at: 1_030_000, kind: 'pause' }, []) // null
 */
export function pourConflict(
  setup: PourSetup,
  log: PourLog,
  entry: PourEntry | UndoEntry,
  tickets: readonly TicketDownTheLine[],
): string | null {
  if (!takesAway(setup, log, entry)) return null;
  const [before, after] = [pourState(setup, log), pourState(setup, [...log, entry])];
  const closed = after.phase === 'closed';
  const opens = before.phase === 'closed' && !closed;
  for (const { id, name, setupWith, logWith } of tickets) {
    const good = after.goodByTicket[id] ?? 0;
    if (!opens && good >= (before.goodByTicket[id] ?? 0)) continue;
    const why = ticketConflict(setupWith(good, closed), logWith(null));
    if (why) return `${name}: ${why}`;
  }
  return null;
}

/**
 * Whether an undo opens a closed pour again.
 * @example opensPour(pour.setup, twoShots, { id: 'p', at: 1_030_000, kind: 'pause' }) // false
 */
export const opensPour = (setup: PourSetup, log: PourLog, entry: PourEntry | UndoEntry): boolean =>
  entry.kind === 'undo' &&
  pourState(setup, log).phase === 'closed' &&
  pourState(setup, [...log, entry]).phase !== 'closed';

/**
 * Why something may not be taken back in a run: its tickets have gone on with it. Null where they have not.
 * @example runConflict({ id: 'r', kind: 'oven', log: [] }, { id: 'd', at: 0, kind: 'door', open: true }, []) // null
 */
export function runConflict(
  run: Pick<Run, 'id' | 'kind' | 'log'>,
  entry: RunEntry | UndoEntry,
  tickets: readonly (TicketDownTheLine & { setup: TicketSetup })[],
): string | null {
  if (entry.kind !== 'undo') return null;
  const after = { ...run, log: [...run.log, entry] };
  const touched = new Set(
    [...RUN_KINDS[run.kind].heads(run.log), ...RUN_KINDS[run.kind].heads(after.log)].map((each) => each.ticketId),
  );
  for (const { id, name, setup, logWith } of tickets) {
    const why = touched.has(id) ? ticketConflict(setup, logWith(after)) : null;
    if (why) return `${name}: ${why}`;
  }
  return null;
}
