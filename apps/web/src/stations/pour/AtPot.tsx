import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { moldsAtPot, openInS, setShare, sootLeft, writeClock, type PourState, type Turn } from '@schmelz/core';
import { Key } from '../../design/Button.tsx';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { HowHandled } from '../../shell/HowHandled.tsx';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
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
function OtherMold({
  pour,
  mold,
  state,
  now,
  onLook,
}: {
  pour: Pour;
  mold: StoredMold;
  state: PourState;
  now: number;
  onLook: (moldId: string) => void;
}) {
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
        <span className="text-ink-3">
          {own.shotsToGo} {own.shotsToGo === 1 ? 'shot' : 'shots'} to go
        </span>
      </p>
      {own.shots > 0 && (
        <button
          type="button"
          className="ml-auto flex min-h-16 items-center gap-2 text-lg font-semibold"
          onClick={(event) => {
            onLook(mold.id);
            event.currentTarget.blur();
          }}
        >
          <Key>.</Key> Its last shot
        </button>
      )}
    </div>
  );
}

/** How high a mold may be drawn at the bench: alone, and as one of a pair; more where the screen is a high one. */
const HIGH =
  '[--mold-high:205px] max-lg:[--mold-high:170px] [@media(min-height:900px)_and_(min-width:1024px)]:[--mold-high:300px]';
const LOWER =
  '[--mold-high:150px] max-lg:[--mold-high:120px] [@media(min-height:900px)_and_(min-width:1024px)]:[--mold-high:240px]';

/** The mold whose turn it is, with its columns; the one it takes turns with beside it. */
export function AtPot({
  pour,
  molds,
  bench,
  turn,
  onLook,
  catalogue,
  now,
}: {
  pour: Pour;
  molds: readonly StoredMold[];
  bench: PourBench;
  turn: Turn | null;
  /** Shows a mold that is not next, for the heads of its last shot. */
  onLook: (moldId: string) => void;
  catalogue: Catalogue;
  now: number;
}) {
  const units = useUnits();
  const { state } = bench;
  const moldId = bench.shownId;
  const mold = molds.find((each) => each.id === moldId)!;
  const own = state.molds.find((each) => each.moldId === moldId)!;
  const cavities = cavitiesNow(pour, mold, state, now, units.massUnit);
  const waiting = moldsAtPot(pour.setup, state);
  const last = bench.otherShotId;
  // The others at the pot, and the one that was poured last: its heads may not have been looked at yet.
  const others = state.molds
    .filter((each) => each.moldId !== moldId && (waiting.includes(each) || each.moldId === last))
    .slice(0, 2);
  const frame = moldFrame(cavities);
  // As high as leaves room for the columns and all that is said of a bad head; the columns stand under their cavities.
  const high = others.length > 0 ? LOWER : HIGH;
  const width = { maxWidth: `min(620px, calc(var(--mold-high) * ${(frame.width / frame.height).toFixed(3)}))` };
  return (
    <div className={high}>
      {pour.setup.molds.length > 1 && (
        <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3 text-lg">
          <b className="stamp text-[19px]">{mold.name}</b>
          <span className="voice text-ink-2">{turn?.moldId === moldId ? `is next: ${turn.why}` : 'its last shot'}</span>
        </h2>
      )}
      {others.map((each) => {
        const other = molds.find((one) => one.id === each.moldId);
        return (
          other && <OtherMold key={each.moldId} pour={pour} mold={other} state={state} now={now} onLook={onLook} />
        );
      })}
      {own.shots === 0 && <HowHandled moldId={moldId} at="bench" />}
      <Mold
        className="w-full"
        style={width}
        cavities={cavities}
        sootWear={1 - sootLeft(own.shotsSinceSmoked ?? mold.shotsSinceSmoked + own.shots + own.blanks)}
        edge={own.shots ? 'var(--straw)' : undefined}
        label={`${mold.name}, open half`}
      />
      <CavityColumns pour={pour} mold={mold} bench={bench} catalogue={catalogue} frame={frame} width={width} />
    </div>
  );
}
