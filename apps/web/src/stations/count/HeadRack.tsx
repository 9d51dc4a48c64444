import type { Ticket } from '@schmelz/contract';
import type { CountStation, StationState } from '@schmelz/core';
import { memo, useMemo } from 'react';
import { Icon } from '../../design/Icon.tsx';
import { Head } from '../../drawing/Head.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { WORDS } from './words.ts';

const MOST_DRAWN = 70;

/** The heads of a ticket at a station, hung in rows: those that are done in their new state, rejects struck out. */
export const HeadRack = memo(function HeadRack({
  ticket,
  station,
  here,
  catalogue,
}: {
  ticket: Ticket;
  station: CountStation;
  here: StationState;
  catalogue: Catalogue;
}) {
  const product = catalogue.product(ticket.productId);
  // Kept from tap to tap, so that only the one head that changed is drawn again.
  const drawing = useMemo(
    () => product && { spec: catalogue.spec(product), paint: catalogue.paint(product) },
    [catalogue, product],
  );
  if (!drawing) return null;
  const { spec, paint } = drawing;
  const each = Math.max(1, Math.ceil(here.arrived / MOST_DRAWN));
  const drawn = (count: number) => Math.ceil(count / each);
  const scale = here.arrived > 44 ? 1.75 : here.arrived > 20 ? 2.4 : 3.3;
  const { before, after } = WORDS[station];
  const row = (count: number, state: typeof before, key: string, style = '') =>
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
        {row(here.left, before, 'l', station === 'finish' ? 'opacity-45' : '')}
      </div>
      {each > 1 && <p className="quiet mt-2">one drawn head stands for {each}</p>}
    </div>
  );
});
