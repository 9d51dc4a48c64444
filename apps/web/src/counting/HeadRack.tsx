import type { Ticket } from '@schmelz/contract';
import { lookBefore, stationOf, type StepState } from '@schmelz/core';
import { memo, useMemo } from 'react';
import { Icon } from '../design/Icon.tsx';
import { Head, type HeadState } from '../drawing/Head.tsx';
import { paintOn, specOf } from '../drawing/product.ts';

const MOST_DRAWN = 70;

/**
 * How a ticket's heads look before and after one of its steps; a step that changes nothing leaves them as they came.
 */
function looksAt({ route }: Ticket, { key, station }: StepState): { before: HeadState; after: HeadState } {
  const { before, after } = stationOf(station);
  const came = lookBefore(route, key);
  return { before: came, after: before === after ? came : after };
}

/** The heads of a ticket at a step, hung in rows: those that are done in their new state, rejects struck out. */
export const HeadRack = memo(function HeadRack({ ticket, here }: { ticket: Ticket; here: StepState }) {
  const { product } = ticket;
  // Kept from tap to tap, so that only the one head that changed is drawn again.
  const { spec, paint } = useMemo(() => ({ spec: specOf(product), paint: paintOn(product) }), [product]);
  const each = Math.max(1, Math.ceil(here.arrived / MOST_DRAWN));
  const drawn = (count: number) => Math.ceil(count / each);
  const scale = here.arrived > 44 ? 1.75 : here.arrived > 20 ? 2.4 : 3.3;
  const { before, after } = looksAt(ticket, here);
  const row = (count: number, state: HeadState, key: string, style = '') =>
    Array.from({ length: drawn(count) }, (_, i) => (
      <span key={`${key}${i}`} className="relative pt-1">
        <Head {...spec} paint={paint} state={state} pose="hang" scale={scale} className={style} />
        {key === 'r' && (
          <Icon name="close" size={18} className="absolute bottom-2 left-1/2 -translate-x-1/2 text-stop" />
        )}
      </span>
    ));
  return (
    <div>
      <div
        className="flex flex-wrap gap-x-1 gap-y-2 border-t-[3px] border-rule-2"
        role="img"
        aria-label={`${here.good} good, ${here.rejected} rejected, ${here.left} left`}
      >
        {row(here.good, after, 'g')}
        {row(here.rejected, after, 'r', 'opacity-45')}
        {row(here.left, before, 'l', before === after ? 'opacity-45' : '')}
      </div>
      {each > 1 && <p className="quiet mt-2">one drawn head stands for {each}</p>}
    </div>
  );
});
