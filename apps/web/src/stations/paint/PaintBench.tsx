import type { HouseWays } from '@schmelz/core';
import { useMemo } from 'react';
import { CountFrame, type BenchProps } from '../count/CountFrame.tsx';
import { liquidCoats, LiquidCoats, type LiquidCoat } from './LiquidCoats.tsx';
import { PaintPace, StirDue, usePaintRhythm } from './PaintPace.tsx';

/** Powder: paced head by head, the stirring called. */
function PowderBench({ ways, ...props }: BenchProps & { ways: HouseWays }) {
  const { bench, ticket, catalogue, finish } = props;
  const rhythm = usePaintRhythm(catalogue.product(ticket.productId)!, finish, ways, catalogue);
  const { here } = bench;
  return (
    <CountFrame
      {...props}
      station="paint"
      extra={[{ key: 'M', label: 'Metronome', weight: 'quiet', elsewhere: true, run: rhythm.toggle }]}
      beside={<StirDue painted={here.good + here.rejected} rhythm={rhythm} ways={finish} />}
      above={here.left > 0 && <PaintPace rhythm={rhythm} finish={finish} />}
    />
  );
}

/** Liquid paint: coat after coat for all heads, each with its wait. */
function LiquidBench({ coats, ...props }: BenchProps & { coats: LiquidCoat[] }) {
  const { bench } = props;
  const on = bench.state.coats;
  const next = coats.find(({ coat }) => !on.some((each) => each.coat === coat));
  return (
    <CountFrame
      {...props}
      station="paint"
      extra={next ? [{ key: 'C', label: `Coat ${next.coat} is on`, hint: next.paint, weight: 'due', run: () => bench.coat(next.coat, next.paint, next.dryS) }] : []} // prettier-ignore
      above={bench.here.left > 0 && <LiquidCoats coats={coats} on={on} />}
    />
  );
}

export function PaintBench({ ways, ...props }: BenchProps & { ways: HouseWays }) {
  const { ticket, catalogue } = props;
  const coats = useMemo(() => liquidCoats(catalogue.product(ticket.productId)!, catalogue), [ticket, catalogue]);
  return coats.length > 0 ? <LiquidBench {...props} coats={coats} /> : <PowderBench {...props} ways={ways} />;
}
