import type { LotQuality } from '@schmelz/contract';
import { wilson } from '@schmelz/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { Choice } from '../../design/Field.tsx';
import { Heading } from '../../design/Page.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { writeMonth } from '../../units/dates.ts';
import { lotSays } from '../../shell/lot-says.ts';
import { ShareColumn } from './ShareColumn.tsx';

/** Lots of one part beside each other, by the heads that did not come back for a cause the part may be to blame for. */
export function ByLot({ lots, catalogue }: { lots: readonly LotQuality[]; catalogue: Catalogue }) {
  const [chosen, setChosen] = useState('');
  const used = lots.filter(({ heads }) => heads > 0);
  const parts = [...new Set(used.map(({ materialId }) => materialId))]
    .map((id) => ({ id, own: used.filter(({ materialId }) => materialId === id).sort((a, b) => a.at - b.at) }))
    // One lot alone has nothing beside it.
    .filter(({ own }) => own.length > 1)
    .sort((a, b) => Number(b.own.some(isOdd)) - Number(a.own.some(isOdd)));
  const part = parts.find(({ id }) => id === chosen) ?? parts[0];
  if (!part) return null;
  const nameOf = (id: string) => catalogue.materials.get(id)?.name ?? 'a part that is gone';
  return (
    <section>
      <Heading aside="heads not thrown back for what the part may do: loose hooks, full eyes, runs, bubbles">
        Lot by lot
      </Heading>
      <div className="w-64">
        <Choice
          label="Part"
          options={parts.map(({ id }) => ({ value: id, label: nameOf(id) }))}
          value={part.id}
          onChange={(event) => setChosen(event.target.value)}
        />
      </div>
      <ul className="mt-4 flex flex-wrap gap-y-3" aria-label="Lots">
        {part.own.map((lot) => {
          const share = 1 - lot.bad / lot.heads;
          return (
            <ShareColumn
              named
              key={lot.lotId}
              name={
                <Link to={`/trace/lot/${lot.lotId}`} className="hover:underline" title={lotSays(lot)}>
                  {writeMonth(lot.at)}
                </Link>
              }
              share={share}
              {...wilson(share, lot.heads)}
              bad={lot.standsOut}
            >
              <p className="quiet truncate" title={`${lot.bad} of ${lot.heads} heads`}>
                {lot.bad} of {lot.heads}
              </p>
            </ShareColumn>
          );
        })}
      </ul>
    </section>
  );
}

const isOdd = ({ standsOut }: LotQuality) => standsOut;
