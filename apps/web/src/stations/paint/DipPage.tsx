import type { HouseWays, TicketProduct } from '@schmelz/core';
import { useMemo } from 'react';
import { useSettings } from '../../api/queries.ts';
import { useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import { SessionPage, type SessionKind } from '../../counting/SessionBench.tsx';
import { PaintPace, StirDue, usePaintRhythm } from './PaintPace.tsx';
import { paintAtStep, PaintPlan } from './PaintPlan.tsx';

const DIP: SessionKind = {
  ...{
    kind: 'dip',
    station: 'paint',
    ends: 'The cup is put away',
    list: 'Tickets in this paint',
    back: { to: '/paint', says: 'What waits for paint' },
  },
  left: (name) => `Left in ${name}`,
  all: (name) => `All are in ${name}`,
  keys: ({ stirred }) => [{ key: 'S', label: 'Stirred', weight: 'quiet', run: stirred }],
  Beside: ({ state }) => <p className="text-lg text-ink-2">{state.sinceStirred} since the jar was stirred.</p>,
  Above: ({ state, ticket, step, left }) => (
    <>
      <PaintPlan layers={paintAtStep(ticket.product, step)} />
      {left > 0 && <Pace product={ticket.product} sinceStirred={state.sinceStirred} />}
    </>
  ),
};

/** The seconds of this head, by ear where it is wanted, and when the jar wants stirring. */
function Pace({ product, sinceStirred }: { product: TicketProduct; sinceStirred: number }) {
  const { data: settings } = useSettings();
  return settings ? <PaceOf {...{ product, ways: settings.ways, sinceStirred }} /> : null;
}

function PaceOf({ product, ways, sinceStirred }: { product: TicketProduct; ways: HouseWays; sinceStirred: number }) {
  const rhythm = usePaintRhythm(product, product.ways, ways);
  useBenchKeys(useMemo(() => [metronome(rhythm.toggle)], [rhythm.toggle]));
  return (
    <>
      <PaintPace rhythm={rhythm} schools={product.ways} />
      <StirDue painted={sinceStirred} rhythm={rhythm} ways={product.ways} />
    </>
  );
}

const metronome = (run: () => void): BenchAction => ({ key: 'M', label: 'Metronome', weight: 'quiet', run });

/** The bench of a session in one paint, over all the tickets that wait for it. */
export const DipPage = () => <SessionPage kind={DIP} />;
