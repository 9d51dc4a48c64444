import { standing } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { isMolten, pourState } from './pour.ts';
import { ticketState, type TicketSetup } from '../job/ticket.ts';
import type { Clock } from './clock.ts';
import { RUN_KINDS, type Run } from './runs.ts';
import type { TicketLog } from '../job/ticket-log.ts';

interface ClockPour {
  id: string;
  number: number;
  setup: PourSetup;
  plannedMeltS: number;
  log: PourLog;
}
interface ClockTicket {
  id: string;
  number: number;
  setup: TicketSetup;
  log: TicketLog;
}

/** A clock that is over by this much has been forgotten or is of no more use; it leaves the shelf. */
const STALE_MS = 12 * 3600 * 1000;

/**
 * Every running wait: a pot that melts, a mold that sets, heads in the oven, first to end first. A freezing clock
 * leaves the shelf when it is over; the others stay until what they wait for has happened.
 * @example runningClocks([], [], [], 0) // []
 */
export function runningClocks(
  pours: readonly ClockPour[],
  tickets: readonly ClockTicket[],
  runs: readonly Run[],
  now: number,
): Clock[] {
  const clocks: Clock[] = [];
  for (const { id, number, setup, plannedMeltS, log } of pours) {
    const state = pourState(setup, log);
    const charge = standing<PourEntry>(log).find((entry) => entry.kind === 'charge');
    const to = { station: 'pour', id, step: null };
    if (charge && state.phase === 'warming' && state.blanks === 0 && !isMolten(log)) {
      const endsAt = charge.at + plannedMeltS * 1000;
      clocks.push({ id: `melt ${id}`, body: 'melt', name: `Melt, pour ${number}`, startedAt: charge.at, endsAt, to });
    }
    if (state.phase === 'closed') continue;
    state.molds.forEach(({ moldId, lastPouredAt }, at) => {
      const endsAt = (lastPouredAt ?? 0) + setup.molds[at]!.openS * 1000;
      if (lastPouredAt === null || endsAt <= now) return;
      const name = state.molds.length > 1 ? `Open mold ${at + 1}` : 'Open the mold';
      clocks.push({ id: `freeze ${id} ${moldId}`, body: 'freeze', name, startedAt: lastPouredAt, endsAt, to });
    });
  }
  for (const ticket of tickets) clocks.push(...clocksOfTicket(ticket, now));
  for (const run of runs) clocks.push(...RUN_KINDS[run.kind].waits(run, now));
  return clocks.filter((clock) => now - clock.endsAt < STALE_MS).sort((a, b) => a.endsAt - b.endsAt);
}

/** Waits of one ticket: paint that dries, glue that sets. */
function clocksOfTicket({ id, number, setup, log }: ClockTicket, now: number): Clock[] {
  const state = ticketState(setup, log);
  const { coats, steps } = state;
  const at = (key: string) => ({ station: setup.route.find((step) => step.key === key)!.station, id, step: key });
  const clocks: Clock[] = [];
  const wet = coats.at(-1);
  if (wet && wet.dryAt > now) {
    const name = `Coat ${wet.coat} dries, ticket ${number}`;
    clocks.push({ id: `dry ${wet.id}`, body: 'dry', name, startedAt: wet.onAt, endsAt: wet.dryAt, to: at(wet.step) });
  }
  setup.route.forEach(({ wait, key }, i) => {
    const next = steps[i + 1];
    if (!wait || !next || next.readyAt === null || next.readyAt <= now || next.left <= 0) return;
    const startedAt = next.readyAt - 1000 * wait.seconds;
    const name = `${wait.name}, ticket ${number}`;
    clocks.push({ id: `wait ${id} ${key}`, body: 'wait', name, startedAt, endsAt: next.readyAt, to: at(next.key) });
  });
  return clocks;
}
