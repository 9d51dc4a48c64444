import type { Ticket } from '@schmelz/contract';
import { stationOf, stepAtStation, stepOfRoute, ticketState, type HouseWays } from '@schmelz/core';
import type { ComponentType } from 'react';
import { useParams } from 'react-router';
import { useSettings, useTicket } from '../api/queries.ts';
import { Waiting } from '../design/Notice.tsx';
import { setupOf, wholeLog } from '../shell/line-state.ts';
import { CountFrame, type BenchProps } from './CountFrame.tsx';
import { useTicketBench } from './useTicketBench.ts';

/** A bench of a station: what it is given beside the settings of the house. */
export type StationBench = ComponentType<BenchProps & { ways: HouseWays }>;

interface At {
  Bench: StationBench;
  ticket: Ticket;
  station: string;
  step: string;
  ways: HouseWays;
}

function AtBench({ Bench, ticket, station, step, ways }: At) {
  const bench = useTicketBench(ticket, step);
  if (!bench) return <NotHere station={station} />;
  return <Bench ticket={ticket} bench={bench} schools={ticket.product.ways} ways={ways} />;
}

const NotHere = ({ station }: { station: string }) => (
  <p className="p-8">This ticket does not go through {stationOf(station).name.toLowerCase()}.</p>
);

/**
 * The bench of a ticket at one of its steps; where none is named, at the one that has heads at this station.
 * @param Bench the station's own, where it does more than count
 */
export function CountBenchPage({ station, Bench = CountFrame }: { station: string; Bench?: StationBench | undefined }) {
  const { id = '', step } = useParams();
  const { data: ticket, error } = useTicket(id);
  const { data: settings } = useSettings();
  if (!ticket || !settings) return <Waiting error={error} />;
  const key = step ?? stepAtStation(ticketState(setupOf(ticket), wholeLog(ticket)), station)?.key;
  if (key === undefined || stepOfRoute(ticket.route, key)?.station !== station) return <NotHere station={station} />;
  const at = { Bench, ticket, station, step: key, ways: settings.ways };
  return <AtBench key={ticket.id + key} {...at} />;
}
