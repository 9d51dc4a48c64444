import { writeClock, type HouseWays } from '@schmelz/core';
import { useMemo } from 'react';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../../bench/BenchFrame.tsx';
import { undoActions } from '../../bench/undo.ts';
import { useNow } from '../../shell/clock.ts';
import { Cautions, CountFrame, TicketLine, type BenchProps } from '../../counting/CountFrame.tsx';
import { HeadRack } from '../../counting/HeadRack.tsx';
import { liquidCoats, LiquidCoats, type LiquidCoat } from './LiquidCoats.tsx';
import { paintAtStep, PaintPlan } from './PaintPlan.tsx';
import { PaintPace, StirDue, usePaintRhythm } from './PaintPace.tsx';

/** Powder: paced head by head, the stirring called. */
function PowderBench({ ways, ...props }: BenchProps & { ways: HouseWays }) {
  const { bench, ticket, schools } = props;
  const rhythm = usePaintRhythm(ticket.product, schools, ways);
  const { here } = bench;
  return (
    <CountFrame
      {...props}
      extra={[{ key: 'M', label: 'Metronome', weight: 'quiet', elsewhere: true, run: rhythm.toggle }]}
      beside={<StirDue painted={here.good + here.rejected} rhythm={rhythm} ways={schools} />}
      above={
        here.left > 0 && (
          <>
            <PaintPlan layers={paintAtStep(ticket.product, here.key)} />
            <PaintPace rhythm={rhythm} schools={schools} />
          </>
        )
      }
    />
  );
}

/** A wait of hours needs no seconds. */
const clockOf = (seconds: number) =>
  seconds >= 3600 ? { value: writeClock(seconds).replace(/:\d\d$/, ''), unit: 'h' } : { value: writeClock(seconds) };
const LIQUID_CHECKS = ['The leader hole is clear', 'No drip on the nose', 'Dry to the touch before it is turned over'];
const LIQUID_CAUTIONS = [
  'Paint and thinner burn and give off fumes: no flame, no gun that is still hot, window open.',
  'Gloves; rags dry outdoors.',
];

/**
 * Liquid paint: coat after coat for all heads, each with its wait; when the last is on they are looked at one by one.
 */
function LiquidBench({ coats, ...props }: BenchProps & { coats: LiquidCoat[] }) {
  const { bench, ticket } = props;
  const now = useNow(1000);
  const on = bench.state.coats.filter((coat) => coat.step === bench.here.key);
  const next = coats.find(({ coat }) => !on.some((each) => each.coat === coat));
  const wet = on.findLast((each) => each.dryAt > now);
  const list = bench.here.left > 0 && <LiquidCoats coats={coats} on={on} now={now} />;
  if (!next || bench.here.left === 0)
    return <CountFrame {...props} checks={LIQUID_CHECKS} cautions={LIQUID_CAUTIONS} above={list} />;
  const actions: BenchAction[] = [
    {
      key: 'Space',
      code: ' ',
      label: `Coat ${next.coat} is on`,
      hint: next.paint,
      weight: wet ? 'quiet' : 'main',
      run: () => bench.coat(next.coat, next.paint, next.dryS),
    },
    ...undoActions(bench),
  ];
  return (
    <BenchFrame
      actions={actions}
      stub={
        <>
          <BenchNumber
            says={wet ? `Coat ${wet.coat} dries` : `Heads for coat ${next.coat}`}
            {...(wet ? clockOf((wet.dryAt - now) / 1000) : { value: String(bench.here.left) })}
          />
          <TicketLine ticket={ticket} bench={bench} />
          <Unsaved count={bench.unsaved} />
        </>
      }
    >
      {list}
      <HeadRack ticket={ticket} here={bench.here} />
      <Cautions all={LIQUID_CAUTIONS} />
    </BenchFrame>
  );
}

export function PaintBench({ ways, ...props }: BenchProps & { ways: HouseWays }) {
  const { ticket, bench } = props;
  const { key } = bench.here;
  const coats = useMemo(() => liquidCoats(ticket.product, key), [ticket, key]);
  return coats.length > 0 ? <LiquidBench {...props} coats={coats} /> : <PowderBench {...props} ways={ways} />;
}
