import type { Mold as StoredMold } from '@schmelz/contract';
import { cavitiesFigure, sootDue, sootLeft, yieldFigure } from '@schmelz/core';
import { Link, useNavigate } from 'react-router';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Part } from '../../design/Part.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { TakeGift } from '../../shell/Gift.tsx';
import { PutAway } from '../../shell/PutAway.tsx';
import { useUnits } from '../../units/Units.tsx';
import { CavityColumns } from './CavityColumns.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
import { MoldForm } from './MoldForm.tsx';

/** A cavity's record hangs under its cavity. */
const Records = ({ mold }: { mold: StoredMold }) => (
  <CavityColumns mold={mold} label={`Cavities of ${mold.name}`} className="h-20 max-w-[640px] text-sm sm:h-16">
    {(cavity) => {
      const share = cavity.casts ? cavity.good / cavity.casts : null;
      return (
        <>
          <span className="flex flex-wrap items-baseline gap-x-1.5">
            <span className="text-ink-3">{cavity.position}</span>
            {share === null ? (
              <b className="fig text-[19px]">–</b>
            ) : (
              <Fig
                figure={yieldFigure(cavity.good, cavity.casts)}
                title={`Cavity ${cavity.position}`}
                className="fig text-[19px] max-sm:text-[13px]"
              >{`${Math.round(100 * share)} %`}</Fig>
            )}
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
        </>
      );
    }}
  </CavityColumns>
);

/** Mass, and what is due by the mold's own school of soot. */
function MoldAside({ mold }: { mold: StoredMold }) {
  const units = useUnits();
  const due = mold.cavities.filter(
    (cavity) =>
      cavity.condition === 'good' &&
      sootDue(mold.sootSchool ?? 'fifty', cavity.shotsSinceSmoked, cavity.everSmoked).due,
  );
  return (
    <span className="flex flex-wrap items-baseline gap-x-4">
      <span>
        {units.bulk(mold.bodyKg)} of {mold.metal ?? 'aluminium'} · {mold.shotsSinceSmoked} shots since smoked
      </span>
      {due.length > 0 && (
        <Link
          to={`/molds/${mold.id}/care`}
          className="inline-flex items-center gap-1 font-medium text-watch underline underline-offset-4"
        >
          <Icon name="watch" size={12} /> candle due:{' '}
          {due.length === mold.cavities.length ? 'all' : due.map((cavity) => cavity.position).join(', ')}
        </Link>
      )}
    </span>
  );
}

export function MoldsPage() {
  const { data: all, error } = useList('molds');
  const units = useUnits();
  const navigate = useNavigate();
  if (!all) return <Waiting error={error} />;
  const molds = all.filter((mold) => !mold.archived);
  const away = all.filter((mold) => mold.archived);
  return (
    <Page
      stub={
        <>
          <TheNumber value={<Fig figure={cavitiesFigure(molds)} title="Cavities" />}>
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
            <MoldForm onSaved={(mold) => void navigate(`/molds/${mold.id}`)} />
          </Sheet>
          <Button asChild look="quiet" className="self-start">
            <Link to="/molds/parts">Pins, plugs, keepers</Link>
          </Button>
          <TakeGift />
          <Caution>
            A mold stays hot long after the last shot: hold it by its handles, lay it down where nobody reaches.
          </Caution>
        </>
      }
    >
      {molds.map((mold) => (
        <Part key={mold.id} of={mold.name}>
          {() => (
            <section className="mb-8">
              <Heading aside={<MoldAside mold={mold} />}>
                <Link
                  to={`/molds/${mold.id}`}
                  className="underline decoration-rule-2 underline-offset-4 hover:decoration-ink"
                >
                  {mold.name}
                </Link>
              </Heading>
              <Mold
                className="w-full max-w-[640px]"
                cavities={drawnCavities(mold, units.massUnit, () => 'loaded')}
                sootWear={1 - sootLeft(mold.shotsSinceSmoked)}
                label={`${mold.name} with ${mold.cavities.length} cavities`}
              />
              <Records mold={mold} />
            </section>
          )}
        </Part>
      ))}
      {molds.length === 0 && <p className="quiet">No mold yet.</p>}
      {away.length > 0 && (
        <details>
          <summary className="cursor-pointer">Put away: {away.length}</summary>
          <ul>
            {away.map((mold) => (
              <li key={mold.id} className="flex flex-wrap items-center justify-between gap-4 border-b border-rule py-2">
                <Link to={`/molds/${mold.id}`} className="font-medium underline underline-offset-4">
                  {mold.name}
                </Link>
                <PutAway path="molds" thing={mold} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </Page>
  );
}
