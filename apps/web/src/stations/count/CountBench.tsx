import type { Ticket } from '@schmelz/contract';
import { finishWays, type CountStation, type HouseWays } from '@schmelz/core';
import type { ComponentType } from 'react';
import { useParams } from 'react-router';
import { useSettings, useTicket } from '../../api/queries.ts';
import { Waiting } from '../../design/Notice.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { BakeBench } from '../bake/BakeBench.tsx';
import { PaintBench } from '../paint/PaintBench.tsx';
import { TrimBench } from '../trim/TrimBench.tsx';
import { CountFrame, type BenchProps } from './CountFrame.tsx';
import { useTicketBench } from './useTicketBench.ts';

const BENCHES: Record<CountStation, ComponentType<BenchProps & { ways: HouseWays }>> = {
  trim: TrimBench,
  paint: PaintBench,
  bake: BakeBench,
  finish: (props) => <CountFrame {...props} station="finish" />,
};

function AtBench({
  ticket,
  station,
  catalogue,
  ways,
}: {
  ticket: Ticket;
  station: CountStation;
  catalogue: Catalogue;
  ways: HouseWays;
}) {
  const bench = useTicketBench(ticket, station);
  if (!bench) return <p className="p-8">This product does not go through {station}.</p>;
  const finish = finishWays(ways.finish, catalogue.product(ticket.productId)!.ways);
  const Bench = BENCHES[station];
  return <Bench ticket={ticket} bench={bench} catalogue={catalogue} finish={finish} ways={ways} />;
}

/** The bench of a ticket at one of the stations after the pour. */
export function CountBenchPage({ station }: { station: CountStation }) {
  const { id = '' } = useParams();
  const { data: ticket, error } = useTicket(id);
  const catalogue = useCatalogue();
  const { data: settings } = useSettings();
  if (!ticket || !catalogue || !settings) return <Waiting error={error} />;
  return (
    <AtBench key={ticket.id + station} ticket={ticket} station={station} catalogue={catalogue} ways={settings.ways} />
  );
}
