import type { Ticket } from '@schmelz/contract';
import { stationOf, stepAt, stepBy, ticketState, type HouseWays } from '@schmelz/core';
import type { ComponentType } from 'react';
import { useParams } from 'react-router';
import { useSettings, useTicket } from '../../api/queries.ts';
import { Waiting } from '../../design/Notice.tsx';
import { setupOf, wholeLog } from '../../shell/line-state.ts';
import { BakeBench } from '../bake/BakeBench.tsx';
import { FinishBench } from '../finish/FinishBench.tsx';
import { PaintBench } from '../paint/PaintBench.tsx';
import { TrimBench } from '../trim/TrimBench.tsx';
import { CountFrame, type BenchProps } from './CountFrame.tsx';
import { useTicketBench } from './useTicketBench.ts';

/** Stations whose bench does more than count; every other one has the plain bench. */
const BENCHES: Record<string, ComponentType<BenchProps & { ways: HouseWays }>> = {
  trim: TrimBench,
  paint: PaintBench,
  bake: BakeBench,
  finish: FinishBench,
};

interface At {
  ticket: Ticket;
  station: string;
  step: string;
  ways: HouseWays;
}

function AtBench({ ticket, station, step, ways }: At) {
  const bench = useTicketBench(ticket, step);
  if (!bench) return <NotHere station={station} />;
  const Bench = BENCHES[station] ?? CountFrame;
  return <Bench ticket={ticket} bench={bench} schools={ticket.product.ways} ways={ways} />;
}

const NotHere = ({ station }: { station: string }) => (
  <p className="p-8">This ticket does not go through {stationOf(station).name.toLowerCase()}.</p>
);

/** The bench of a ticket at one of its steps; where none is named, at the one that has heads at this station. */
export function CountBenchPage({ station }: { station: string }) {
  const { id = '', step } = useParams();
  const { data: ticket, error } = useTicket(id);
  const { data: settings } = useSettings();
  if (!ticket || !settings) return <Waiting error={error} />;
  const key = step ?? stepAt(ticketState(setupOf(ticket), wholeLog(ticket)), station)?.key;
  if (key === undefined || stepBy(ticket.route, key)?.station !== station) return <NotHere station={station} />;
  const at = { ticket, station, step: key, ways: settings.ways };
  return <AtBench key={ticket.id + key} {...at} />;
}
