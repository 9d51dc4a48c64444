import type { LineView, RunView, Ticket } from '@schmelz/contract';
import {
  bakedLoads,
  countAll,
  hasBegun,
  nextThing,
  pourState,
  RUN_KINDS,
  runningClocks,
  sessionState,
  ticketState,
  waitingByStation,
  withShares,
  type Clock,
  type NextThing,
  type SessionLog,
  type TicketOnLine,
  type TicketEntry,
  type TicketLog,
  type TicketSetup,
} from '@schmelz/core';
import { followed, orderFollowed, type Followed } from './followed.ts';
import { useLine } from '../api/queries.ts';

/** Heads that were cast for a ticket: good ones, those thrown back at the pot, and those kept there as second grade. */
export const castsOfTicket = ({ poured, pourCauses, pourKept }: Ticket): number =>
  poured + countAll(pourCauses) + pourKept;

type LineTicket = Ticket & TicketOnLine;
export interface LineState {
  tickets: LineTicket[];
  clocks: Clock[];
  next: NextThing | null;
  /** Heads that wait at each station. */
  waiting: Record<string, number>;
  openPourId: string | null;
  runs: RunView[];
}

/** What a ticket's state is folded from, beside its log. */
export const setupOf = ({ route, source, poured, pourClosed, planned }: Ticket): TicketSetup => ({
  ...(planned.handsS ? { handsS: planned.handsS } : {}),
  route,
  source,
  poured,
  pourClosed,
});

/** A ticket's log with what its runs say of it. */
export const wholeLog = ({ id, log, runs }: Pick<Ticket, 'id' | 'log' | 'runs'>): TicketLog =>
  withShares<TicketEntry>(id, log, runs);

/** The line as the shelf, the stations and the first page need it. */
export function lineState(view: LineView, now: number, plan: Followed | null = null): LineState {
  const tickets = view.tickets.map((ticket) => ({ ...ticket, state: ticketState(setupOf(ticket), wholeLog(ticket)) }));
  const openPour = view.pours.find((pour) => pourState(pour.setup, pour.log).phase !== 'closed');
  const clockTickets = view.tickets.map((ticket) => ({ ...ticket, setup: setupOf(ticket), log: wholeLog(ticket) }));
  return {
    tickets,
    clocks: runningClocks(view.pours, clockTickets, view.runs, now),
    next: nextThing(tickets, openPour?.id ?? null, bakedLoads(view.runs, now), now, orderFollowed(plan, tickets)),
    waiting: waitingByStation(tickets, now),
    openPourId: openPour?.id ?? null,
    runs: view.runs,
  };
}

export function useLineState(now: number): LineState | null {
  const { data } = useLine();
  return data ? lineState(data, now, followed()) : null;
}

/** Where a run of several tickets is worked on. */
const RUN_BENCH: Record<string, string> = { oven: 'bake/load', dip: 'paint/dip', glue: 'finish/glue' };
export const runPath = (kind: string, id: string): string => `/${RUN_BENCH[kind] ?? `runs/${kind}`}/${id}`;

/** What is under way: where it goes on, and what it is. The pot first, then what was begun last; null: nothing is. */
export function underWay({
  openPourId,
  runs,
}: Pick<LineState, 'openPourId' | 'runs'>): { to: string; says: string } | null {
  if (openPourId) return { to: `/pour/${openPourId}`, says: 'the pot' };
  const going = runs.findLast((run) => hasBegun(run) && RUN_KINDS[run.kind].closedAt(run.log) === null);
  if (!going) return null;
  const { id, kind, log } = going;
  const name = kind === 'oven' ? 'the oven' : sessionState(log as SessionLog).name;
  return { to: runPath(kind, id), says: name };
}

/** Where a step of a ticket is worked on. */
export const benchPath = (station: string, ticketId: string, step: string | null): string =>
  step === null || step === station ? `/${station}/${ticketId}` : `/${station}/${ticketId}/${step}`;
