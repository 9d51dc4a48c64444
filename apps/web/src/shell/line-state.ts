import type { LineView, Ticket } from '@schmelz/contract';
import {
  nextThing,
  pourState,
  runningClocks,
  ticketState,
  waitingByStation,
  type Clock,
  type NextThing,
  type NextTicket,
  type TicketSetup,
} from '@schmelz/core';
import { useLine } from '../api/queries.ts';

export type LineTicket = Ticket & NextTicket;
export interface LineState {
  tickets: LineTicket[];
  clocks: Clock[];
  next: NextThing | null;
  /** Heads that wait at each station. */
  waiting: Record<string, number>;
  openPourId: string | null;
}

/** What a ticket's state is folded from, beside its log. */
export const setupOf = ({ route, source, poured, pourClosed }: Ticket): TicketSetup => ({
  route,
  source,
  poured,
  pourClosed,
});

/** The line as the shelf, the stations and the first page need it. */
export function lineState(view: LineView, now: number): LineState {
  const tickets = view.tickets.map((ticket) => ({ ...ticket, state: ticketState(setupOf(ticket), ticket.log) }));
  const openPour = view.pours.find((pour) => pourState(pour.setup, pour.log).phase !== 'closed');
  const clockTickets = view.tickets.map((ticket) => ({ ...ticket, setup: setupOf(ticket) }));
  return {
    tickets,
    clocks: runningClocks(view.pours, clockTickets, now),
    next: nextThing(tickets, openPour?.id ?? null, now),
    waiting: waitingByStation(tickets),
    openPourId: openPour?.id ?? null,
  };
}

export function useLineState(now: number): LineState | null {
  const { data } = useLine();
  return data ? lineState(data, now) : null;
}

/** Where a step of a ticket is worked on. */
export const benchPath = (station: string, ticketId: string, step: string | null): string =>
  step === null || step === station ? `/${station}/${ticketId}` : `/${station}/${ticketId}/${step}`;
