import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { moldsAtPot, openInS, setShare, sootLeft, writeClock, type PourState, type Turn } from '@schmelz/core';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../molds/drawn.ts';
import { CavityColumns } from './CavityColumns.tsx';
import type { PourBench } from './usePourBench.ts';

/** The cavities of a mold as they stand: filled and setting, to be loaded, or empty. */
function cavitiesNow(pour: Pour, stored: StoredMold, state: PourState, now: number, massUnit: 'g' | 'oz') {
  const mold = state.molds.find((each) => each.moldId === stored.id)!;
  const setting = openInS(pour.setup, mold, now) > 0;
  const lastShot = state.shots.findLast((shot) => shot.moldId === stored.id);
  const lastWasShot = lastShot !== undefined && lastShot.at === mold.lastPouredAt;
  return drawnCavities(
    stored,
    massUnit,
    (position) => {
      if (setting && (!lastWasShot || lastShot.heads.some((head) => head.position === position))) return 'filled';
      return mold.wantedPositions.includes(position) && state.phase === 'pouring' ? 'loaded' : 'empty';
    },
    setShare(pour.setup, mold, now),
  );
}

/** The other mold of a pair, small: it sets, or it waits. */
function OtherMold({ pour, mold, state, now }: { pour: Pour; mold: StoredMold; state: PourState; now: number }) {
  const units = useUnits();
  const own = state.molds.find((each) => each.moldId === mold.id)!;
  const left = openInS(pour.setup, own, now);
  return (
    <div
      className="mb-2 flex items-center gap-4 border-b border-rule pb-2"
      aria-label={`The other mold, ${mold.name}`}
      role="group"
    >
      <Mold
        className="w-24 shrink-0"
        cavities={cavitiesNow(pour, mold, state, now, units.massUnit)}
        label={mold.name}
      />
      <p className="flex flex-wrap gap-x-4 text-lg leading-tight">
        <b>{mold.name}</b>
        <span className="text-ink-2">
          {left > 0
            ? `sets, open in ${writeClock(left)} s`
            : own.lastPouredAt === null
              ? 'still cold'
              : 'open, waits for its turn'}
        </span>
        <span className="text-ink-3">{own.shotsToGo} shots to go</span>
      </p>
    </div>
  );
}

/** The mold whose turn it is, with its columns; the one it takes turns with beside it. */
export function AtPot({
  pour,
  molds,
  bench,
  turn,
  catalogue,
  now,
}: {
  pour: Pour;
  molds: readonly StoredMold[];
  bench: PourBench;
  turn: Turn | null;
  catalogue: Catalogue;
  now: number;
}) {
  const units = useUnits();
  const { state } = bench;
  const moldId = turn?.moldId ?? bench.looked?.moldId ?? pour.setup.molds[0]!.moldId;
  const mold = molds.find((each) => each.id === moldId)!;
  const own = state.molds.find((each) => each.moldId === moldId)!;
  const cavities = cavitiesNow(pour, mold, state, now, units.massUnit);
  const others = moldsAtPot(pour.setup, state).filter((each) => each.moldId !== moldId);
  // Few large cavities of a pair stand lower, so that all of it is seen; the columns stand under them.
  const width = others.length > 0 && mold.cavities.length <= 3 ? 'max-w-[440px]' : 'max-w-[560px]';
  return (
    <>
      {pour.setup.molds.length > 1 && (
        <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3 text-lg">
          <b className="stamp text-[19px]">{mold.name}</b>
          {turn && <span className="voice text-ink-2">is next: {turn.why}</span>}
        </h2>
      )}
      {others.map((each) => {
        const other = molds.find((one) => one.id === each.moldId);
        return other && <OtherMold key={each.moldId} pour={pour} mold={other} state={state} now={now} />;
      })}
      <Mold
        className={`w-full ${width}`}
        cavities={cavities}
        sootWear={1 - sootLeft(own.shotsSinceSmoked ?? mold.shotsSinceSmoked + own.shots + own.blanks)}
        edge={own.shots ? 'var(--straw)' : undefined}
        label={`${mold.name}, open half`}
      />
      <CavityColumns
        pour={pour}
        mold={mold}
        bench={bench}
        catalogue={catalogue}
        frame={moldFrame(cavities)}
        width={mold.cavities.length > 6 ? 'max-w-[620px]' : width}
      />
    </>
  );
}
