import type { Product } from '@schmelz/contract';
import { schoolsFollowed, type HouseWays, type Schools } from '@schmelz/core';
import { useMemo } from 'react';
import { useSettings } from '../../api/queries.ts';
import { useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { SessionPage, type SessionKind } from '../count/SessionBench.tsx';
import { PaintPace, StirDue, usePaintRhythm } from './PaintPace.tsx';
import { laidOn, PaintPlan } from './PaintPlan.tsx';

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
  Above: ({ state, catalogue, ticket, step, left }) => (
    <>
      <PaintPlan layers={laidOn(ticket, step, catalogue)} />
      {left > 0 && <Pace productId={ticket.productId} sinceStirred={state.sinceStirred} catalogue={catalogue} />}
    </>
  ),
};

/** The seconds of this head, by ear where it is wanted, and when the jar wants stirring. */
function Pace({
  productId,
  sinceStirred,
  catalogue,
}: {
  productId: string;
  sinceStirred: number;
  catalogue: Catalogue;
}) {
  const { data: settings } = useSettings();
  const product = catalogue.product(productId);
  if (!settings || !product) return null;
  const schools = schoolsFollowed(settings.ways.schools, product.ways);
  return <PaceOf {...{ product, schools, ways: settings.ways, sinceStirred, catalogue }} />;
}

function PaceOf({
  product,
  schools,
  ways,
  sinceStirred,
  catalogue,
}: {
  product: Product;
  schools: Schools;
  ways: HouseWays;
  sinceStirred: number;
  catalogue: Catalogue;
}) {
  const rhythm = usePaintRhythm(product, schools, ways, catalogue);
  useBenchKeys(useMemo(() => [metronome(rhythm.toggle)], [rhythm.toggle]));
  return (
    <>
      <PaintPace rhythm={rhythm} schools={schools} />
      <StirDue painted={sinceStirred} rhythm={rhythm} ways={schools} />
    </>
  );
}

const metronome = (run: () => void): BenchAction => ({ key: 'M', label: 'Metronome', weight: 'quiet', run });

/** The bench of a session in one paint, over all the tickets that wait for it. */
export const DipPage = () => <SessionPage kind={DIP} />;
