import type { Cavity, Mold as StoredMold } from '@schmelz/contract';
import { SOOT_SCHOOLS, sootLeft, yieldFigure, knownBlock } from '@schmelz/core';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../../api/client.ts';
import { useList, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { GiveIt } from '../../shell/Gift.tsx';
import { HowHandled } from '../../shell/HowHandled.tsx';
import { PutAway } from '../../shell/PutAway.tsx';
import { useUnits } from '../../units/Units.tsx';
import { CavityColumns, CavityPick } from './CavityColumns.tsx';
import { CavityPanel } from './CavityPanel.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
import { MoldForm } from './MoldForm.tsx';
import { conditionOf, moldInputOf, MoldRooms } from './rooms.tsx';

/** The mold that the address names. */
export function useMold(): { mold: StoredMold | undefined; error: unknown } {
  const { id } = useParams();
  const { data: molds, error } = useList('molds');
  const mold = molds?.find((each) => each.id === id);
  return { mold, error: molds && !mold ? new Error('There is no such mold.') : error };
}

export function MoldPage() {
  const { mold, error } = useMold();
  const units = useUnits();
  const navigate = useNavigate();
  const copy = useWrite(async () => {
    const { cavities, ...input } = moldInputOf(mold!);
    const body = {
      ...{ ...input, name: `${mold!.name}, second`, learned: null, archived: null },
      // Its cavities are others: they have records of their own.
      cavities: cavities.map(({ id: _id, ...cavity }) => cavity),
    };
    const made = await call('POST /molds', { body });
    void navigate(`/molds/${made.id}`);
  });
  const [position, setPosition] = useState<number | null>(null);
  const [changing, setChanging] = useState(false);
  if (!mold) return <Waiting error={error} />;
  const casts = mold.cavities.reduce((sum, cavity) => sum + cavity.casts, 0);
  const good = mold.cavities.reduce((sum, cavity) => sum + cavity.good, 0);
  const share = (cavity: Cavity) => (cavity.casts ? cavity.good / cavity.casts : null);
  const judged = mold.cavities.filter((cavity) => cavity.casts >= 20);
  const worst = [...judged].sort((a, b) => share(a)! - share(b)!)[0];
  const chosen = mold.cavities.find((cavity) => cavity.position === (position ?? worst?.position ?? 1))!;
  const school = SOOT_SCHOOLS.find((each) => each.id === mold.sootSchool);
  return (
    <Page
      stub={
        <>
          <TheNumber
            eyebrow={mold.name}
            value={
              casts ? (
                <Fig figure={yieldFigure(good, casts)} title="Yield">
                  {String(Math.round((100 * good) / casts))}
                </Fig>
              ) : (
                '–'
              )
            }
            unit={casts ? '%' : undefined}
          >
            {casts ? `of ${casts} casts came out good` : 'no casts on record yet'}
          </TheNumber>
          {worst && share(worst)! < 0.85 && (
            <p className="flex items-start gap-2 font-medium text-watch">
              <Icon name="watch" className="mt-1 shrink-0" />
              Cavity {worst.position} is the weak one:{' '}
              <Fig figure={yieldFigure(worst.good, worst.casts)} title={`Cavity ${worst.position}`} /> good.
            </p>
          )}
          <p className="text-ink-2">
            {units.bulk(mold.bodyKg)} of {knownBlock(mold).block.metal}. Smoked: {school?.name.toLowerCase()}. Warmed:{' '}
            {mold.warmSchool}.
          </p>
          <Button className="self-start" onClick={() => setChanging(true)}>
            Change this mold
          </Button>
          <Button asChild look="quiet" className="self-start">
            <Link to="/molds">All molds</Link>
          </Button>
          <Button look="quiet" className="self-start" disabled={copy.isPending} onClick={() => copy.mutate(undefined)}>
            Another mold just like it
          </Button>
          <ProblemNote error={copy.error} />
          <GiveIt kind="mold" id={mold.id} name={mold.name} />
          <PutAway path="molds" thing={mold} onGone={() => void navigate('/molds')} />
        </>
      }
    >
      <MoldRooms id={mold.id} />
      <div className="max-w-[720px]">
        <Mold
          className="w-full"
          cavities={drawnCavities(mold, units.massUnit, () => 'loaded')}
          sootWear={1 - sootLeft(mold.shotsSinceSmoked)}
          label={`${mold.name} with ${mold.cavities.length} cavities`}
        />
        <CavityColumns mold={mold} label="Cavities" className="h-20">
          {(cavity) => (
            <CavityPick
              cavity={cavity}
              chosen={cavity.position === chosen.position}
              onChoose={() => setPosition(cavity.position)}
              figure={cavity.casts ? yieldFigure(cavity.good, cavity.casts) : null}
              written={`${Math.round(100 * share(cavity)!)} %`}
            >
              <span className="block truncate">{conditionOf(cavity)}</span>
            </CavityPick>
          )}
        </CavityColumns>
      </div>
      <HowHandled moldId={mold.id} at="page" />
      <CavityPanel key={chosen.id} mold={mold} cavity={chosen} />
      <Sheet open={changing} onOpenChange={setChanging} title={mold.name}>
        <MoldForm mold={mold} onSaved={() => setChanging(false)} />
      </Sheet>
    </Page>
  );
}
