import type { Mold as StoredMold } from '@schmelz/contract';
import { useState } from 'react';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from './drawn.ts';
import { MoldForm } from './MoldForm.tsx';

/** A cavity's record hangs under its cavity. */
function Records({ mold }: { mold: StoredMold }) {
  const units = useUnits();
  const frame = moldFrame(drawnCavities(mold, units.massUnit));
  return (
    <ol className="relative h-16 max-w-[640px]">
      {mold.cavities.map((cavity, index) => {
        const share = cavity.casts ? cavity.good / cavity.casts : null;
        const { left, width } = frame.column(index);
        return (
          <li key={cavity.id} className="absolute text-sm" style={{ left: `${left * 100}%`, width: `${width * 100}%` }}>
            <span className="flex items-baseline gap-1.5">
              <span className="text-ink-3">{cavity.position}</span>
              <b className="fig text-[19px]">{share === null ? '–' : `${Math.round(share * 100)} %`}</b>
            </span>
            {cavity.condition === 'blocked' ? (
              <span className="flex items-center gap-1 text-stop">
                <Icon name="stop" size={12} /> blocked
              </span>
            ) : share !== null && share < 0.85 ? (
              <span className="flex items-center gap-1 font-medium text-watch">
                <Icon name="watch" size={12} /> of {cavity.casts}
              </span>
            ) : (
              <span className="text-ink-3">{share === null ? 'no record' : `of ${cavity.casts}`}</span>
            )}
          </li>
        );
      })}
    </ol>
  );
}

export function MoldsPage() {
  const { data: molds, error } = useList('molds');
  const units = useUnits();
  const [changing, setChanging] = useState<StoredMold | null>(null);
  if (!molds) return <Waiting error={error} />;
  return (
    <Page
      stub={
        <>
          <TheNumber value={molds.reduce((sum, mold) => sum + mold.cavities.length, 0)}>
            cavities in {molds.length} {molds.length === 1 ? 'mold' : 'molds'}
          </TheNumber>
          <Sheet
            title="A new mold"
            says="Give each cavity as it is stamped: mass and the hook it was cut for."
            trigger={
              <Button look="main" className="self-start">
                New mold
              </Button>
            }
          >
            <MoldForm />
          </Sheet>
          <Caution>
            A mold stays hot long after the last shot: hold it by its handles, lay it down where nobody reaches.
          </Caution>
        </>
      }
    >
      {molds.map((mold) => (
        <section key={mold.id} className="mb-8">
          <Heading aside={`${units.bulk(mold.bodyKg)} block · ${mold.shotsSinceSmoked} shots since smoked`}>
            {mold.name}{' '}
            <Button look="quiet" className="ml-3 text-sm font-normal" onClick={() => setChanging(mold)}>
              Change
            </Button>
          </Heading>
          <Mold
            className="w-full max-w-[640px]"
            cavities={drawnCavities(mold, units.massUnit, () => 'loaded')}
            sootWear={1 - Math.exp(-mold.shotsSinceSmoked / 40)}
            label={`${mold.name} with ${mold.cavities.length} cavities`}
          />
          <Records mold={mold} />
        </section>
      ))}
      {molds.length === 0 && <p className="quiet">No mold yet.</p>}
      <Sheet open={!!changing} onOpenChange={(open) => !open && setChanging(null)} title={changing?.name ?? ''}>
        {changing && <MoldForm mold={changing} onSaved={() => setChanging(null)} />}
      </Sheet>
    </Page>
  );
}
