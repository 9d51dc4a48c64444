import { standing } from './log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { pourState } from './pour.ts';
import { ticketState, type TicketLog, type TicketSetup } from './ticket.ts';

/** A wait that runs by itself: what it is, when it began and when it is over (ms since 1970). */
export interface Clock {
  id: string;
  body: 'melt' | 'freeze' | 'oven' | 'cool' | 'dry';
  name: string;
  startedAt: number;
  endsAt: number;
  /** Where to go when it is over. */
  to: string;
}

export interface ClockPour {
  id: string;
  number: number;
  setup: PourSetup;
  plannedMeltS: number;
  log: PourLog;
}
export interface ClockTicket {
  id: string;
  number: number;
  setup: TicketSetup;
  log: TicketLog;
}

/** A clock that is over by this much has been forgotten or is of no more use; it leaves the shelf. */
const STALE_MS = 12 * 3600 * 1000;

/**
 * Every running wait: a pot that melts, a mold that sets, heads in the oven, first to end first. A freezing clock
 * leaves
 * the shelf when it is over; the others stay until what they wait for has happened.
 */
export function runningClocks(pours: readonly ClockPour[], tickets: readonly ClockTicket[], now: number): Clock[] {
  const clocks: Clock[] = [];
  for (const { id, number, setup, plannedMeltS, log } of pours) {
    const state = pourState(setup, log);
    const charge = standing<PourEntry>(log).find((entry) => entry.kind === 'charge');
    const to = `/pour/${id}`;
    if (charge && state.phase === 'warming' && state.blanks === 0) {
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
  for (const { id, number, setup, log } of tickets) {
    const { loads, coats } = ticketState(setup, log);
    const wet = coats.at(-1);
    if (wet && wet.dryAt > now) {
      const { id: coatId, coat, onAt: startedAt, dryAt: endsAt } = wet;
      clocks.push({
        id: `dry ${coatId}`,
        body: 'dry',
        name: `Coat ${coat} dries, ticket ${number}`,
        startedAt,
        endsAt,
        to: `/paint/${id}`,
      });
    }
    for (const load of loads) {
      if (load.unloadedAt !== null) {
        const endsAt = load.unloadedAt + load.coolS * 1000;
        const startedAt = load.unloadedAt;
        if (endsAt > now)
          clocks.push({
            id: `cool ${load.id}`,
            body: 'cool',
            name: `Hot, ticket ${number}`,
            startedAt,
            endsAt,
            to: `/bake/${id}`,
          });
        continue;
      }
      const { loadedAt, endsAt } = load;
      const name = `Bake, ticket ${number}`;
      clocks.push({ id: `oven ${load.id}`, body: 'oven', name, startedAt: loadedAt, endsAt, to: `/bake/${id}` });
    }
  }
  return clocks.filter((clock) => now - clock.endsAt < STALE_MS).sort((a, b) => a.endsAt - b.endsAt);
}
