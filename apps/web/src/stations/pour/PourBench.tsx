import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { writeClock } from '@schmelz/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useList, usePour, useSettings } from '../../api/queries.ts';
import { BenchFrame, BenchNumber, Unsaved, useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import { say, useFullScreen, useSpeech, useWakeLock } from '../../bench/device.ts';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Icon } from '../../design/Icon.tsx';
import { PotBody } from '../../drawing/Bodies.tsx';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../molds/drawn.ts';
import { CavityColumns } from './CavityColumns.tsx';
import { CoachPanel } from './CoachPanel.tsx';
import { ChargeForm, CloseForm, FeedForm } from './PourForms.tsx';
import { PourSummary } from './PourSummary.tsx';
import { SafetyList } from './SafetyList.tsx';
import { useCoach } from './useCoach.ts';
import { CAUSE_KEYS, usePourBench, type PourBench as Bench } from './usePourBench.ts';

/** The sentence, the number and the next thing, from where the pour stands. */
function whatNow(bench: Bench, pour: Pour, now: number) {
  const { state } = bench;
  const openIn = state.lastShotAt === null ? 0 : (state.lastShotAt + pour.openS * 1000 - now) / 1000;
  const blanksLeft = Math.max(0, pour.setup.plannedBlanks - state.blanks);
  if (state.phase === 'paused') return { says: 'Paused', value: '–', then: 'The mold cools: a blank shot before you load again.' }; // prettier-ignore
  if (openIn > 0) return { says: 'Open in', value: writeClock(openIn), unit: 's', then: 'Twice the freezing time; the sprue may be last to set.', setting: openIn }; // prettier-ignore
  if (state.phase === 'warming' && blanksLeft > 0) {
    const meltLeft = (state.startedAt! + pour.plannedMeltS * 1000 - now) / 1000;
    if (meltLeft > 0 && state.blanks === 0) return { says: 'Melt ready in', value: writeClock(meltLeft), then: 'Lay the mold on the pot meanwhile, hooks out.' }; // prettier-ignore
    return {
      says: 'Blank shots to go',
      value: String(blanksLeft),
      then: 'No hooks in. Knock them out and feed them back.',
    };
  }
  if (state.phase === 'enough' && Object.values(state.stillNeeded).some((count) => count > 0)) return { says: 'No cavity is left', value: '0', then: 'The cavities that these tickets want are out. Close the pour, or undo.' }; // prettier-ignore
  if (state.phase === 'enough') return { says: 'All heads are there', value: '0', unit: 'shots to go', then: 'Weigh what comes back, then close the pour.' }; // prettier-ignore
  return { says: 'Shots to go', value: String(state.shotsToGo), then: 'Load, close until it clicks, look at the seam, pour in one go.' }; // prettier-ignore
}

/** The shots so far as marks: blank ones open, good ones full, with a reject struck. */
function ShotMarks({ bench }: { bench: Bench }) {
  const { shots, blanks, shotsToGo } = bench.state;
  const shown = shots.slice(-36);
  return (
    <div>
      <p className="text-lg">
        <b>Shot {shots.length}</b> of {shots.length + shotsToGo}
        {blanks > 0 && `, ${blanks} blank`}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1" aria-hidden="true">
        {Array.from({ length: Math.min(blanks, 12) }, (_, i) => (
          <span key={`b${i}`} className="size-3.5 border-2 border-rule-2" />
        ))}
        {shown.map((shot) => (
          <span
            key={shot.id}
            className={`size-3.5 ${shot.heads.every((head) => head.verdict === 'good') ? 'bg-ink' : 'bg-[linear-gradient(135deg,var(--ink)_42%,var(--stop)_42%)]'}`}
          />
        ))}
        {Array.from({ length: Math.min(shotsToGo, 40) }, (_, i) => (
          <span key={`t${i}`} className="size-3.5 border border-rule" />
        ))}
      </div>
    </div>
  );
}

function PotLevel({ bench, pour }: { bench: Bench; pour: Pour }) {
  const units = useUnits();
  const { chargedKg, headsKg, rejectsKg } = bench.state;
  const inPot = Math.max(0, chargedKg - headsKg - rejectsKg);
  const level = units.bulkParts(inPot);
  return (
    <div className="flex items-end gap-4">
      <PotBody share={inPot / Math.max(pour.plannedChargeKg, 0.1)} hot={bench.state.phase !== 'cold'} />
      <p className="text-lg">
        <b className="fig block text-[34px]">
          {level.figure} <span className="text-lg">{level.unit}</span>
        </b>
        <span className="text-ink-2">in pot and sprues</span>
      </p>
    </div>
  );
}

/** The screen itself: as large as it goes, and words where sounds are not enough. */
function BenchTools() {
  const full = useFullScreen();
  const speech = useSpeech();
  const look = 'min-h-16 underline decoration-rule-2 underline-offset-4 text-lg';
  return (
    <span className="flex flex-wrap gap-x-6">
      {full.possible && (
        <button type="button" className={look} onClick={full.toggle}>
          {full.full ? 'Leave the full screen' : 'Full screen'}
        </button>
      )}
      {speech.possible && (
        <button type="button" className={look} aria-pressed={speech.on} onClick={speech.toggle}>
          Spoken words {speech.on ? 'on' : 'off'}
        </button>
      )}
    </span>
  );
}

function Running({ pour, mold, catalogue }: { pour: Pour; mold: StoredMold; catalogue: Catalogue }) {
  const bench = usePourBench(pour);
  const now = useNow(200);
  const units = useUnits();
  const { data: settings } = useSettings();
  const { data: pots } = useList('pots');
  const coached = useCoach(pour, mold, pots?.find((each) => each.id === pour.potId), bench, now); // prettier-ignore
  const [asking, setAsking] = useState<'feed' | 'close' | null>(null);
  const [ticked, setTicked] = useState<string[]>([]);
  const { state } = bench;
  useWakeLock(state.phase !== 'closed');
  const pressing = coached?.advice[0];
  const spoken = pressing && pressing.weight !== 'quiet' ? pressing.says : null;
  useEffect(() => {
    if (spoken) say(spoken);
  }, [spoken]);
  const hidden = useMemo(
    (): BenchAction[] => [
      ...pour.setup.loads.map(({ position }): BenchAction => ({
        key: String(position),
        label: '',
        weight: 'quiet',
        run: () => bench.toggleReject(position),
      })),
      ...Object.entries(CAUSE_KEYS).map(([key, cause]): BenchAction => ({
        key,
        label: '',
        weight: 'quiet',
        run: () => bench.cause(cause),
      })),
      { key: 'H', label: '', weight: 'quiet', disabled: bench.last?.kind !== 'reject', run: bench.hookLost },
      {
        key: 'K',
        label: '',
        weight: 'quiet',
        disabled: bench.last?.kind !== 'reject',
        run: () => bench.last?.kind === 'reject' && bench.block(bench.last.position),
      },
      { key: 'X', label: '', weight: 'quiet', run: () => bench.rejectAll('flash') },
    ],
    [bench, pour.setup.loads],
  );
  // Digits and letters have their targets under the mold, not in the bar of keys.
  useBenchKeys(hidden);
  if (state.phase === 'closed') return <PourSummary pour={pour} bench={bench} mold={mold} />;
  const what = whatNow(bench, pour, now);
  const setting = 'setting' in what && what.setting !== undefined;
  const warming = state.phase === 'warming' && state.blanks < pour.setup.plannedBlanks;
  const main: BenchAction =
    state.phase === 'enough'
      ? { key: 'Space', code: ' ', label: 'Weigh back and close', weight: 'main', run: () => setAsking('close') }
      : warming
        ? { key: 'Space', code: ' ', label: 'Blank poured', weight: setting ? 'quiet' : 'main', disabled: setting, hint: setting ? 'when it is open' : undefined, run: bench.blank } // prettier-ignore
        : { key: 'Space', code: ' ', label: 'Poured', weight: setting || state.phase === 'paused' ? 'quiet' : 'main', disabled: setting || state.phase === 'cold' || state.phase === 'paused', hint: setting ? 'when it is open' : undefined, run: bench.shot }; // prettier-ignore
  const actions: BenchAction[] =
    state.phase === 'cold'
      ? []
      : [
          main,
          ...(warming
            ? [{ key: 'G', label: 'Go on with hooks', weight: 'quiet' as const, disabled: setting, run: bench.shot }]
            : []),
          { key: 'Z', label: 'Undo', hint: bench.last?.kind, weight: 'quiet', disabled: !bench.last, run: bench.undo },
          {
            key: 'P',
            label: state.phase === 'paused' ? 'On again' : 'Pause',
            weight: state.phase === 'paused' ? 'due' : 'quiet',
            run: bench.togglePause,
          },
          ...(warming
            ? []
            : [{ key: 'B', label: 'Blank', weight: 'quiet' as const, disabled: setting, run: bench.blank }]),
          { key: 'M', label: 'Smoked', weight: 'quiet', run: bench.smoked },
          { key: 'A', label: 'Lead added', weight: 'quiet', run: () => setAsking('feed') },
          { key: 'W', label: 'Close', weight: 'quiet', disabled: state.chargedKg === 0, run: () => setAsking('close') },
        ];
  const filled = state.lastShotAt !== null && setting;
  const frozen = filled ? Math.min(1, (now - state.lastShotAt!) / (pour.openS * 500)) : 1;
  const used = new Set(pour.setup.loads.map((load) => load.position));
  const lastWasShot = state.shots.at(-1)?.at === state.lastShotAt;
  const cavities = drawnCavities(
    mold,
    units.massUnit,
    (position) => {
      if (filled && (!lastWasShot || state.shots.at(-1)!.heads.some((head) => head.position === position)))
        return 'filled';
      return used.has(position) && state.wantedPositions.includes(position) && state.phase === 'pouring'
        ? 'loaded'
        : 'empty';
    },
    frozen,
  );
  return (
    <>
      <BenchFrame
        actions={actions}
        stub={
          state.phase === 'cold' ? (
            <>
              <ChargeForm
                pour={pour}
                onCharge={(kg) => {
                  if (ticked.length) bench.checked(ticked);
                  bench.charge(kg);
                }}
              />
              <SafetyList items={settings?.safety ?? []} onTicked={setTicked} />
            </>
          ) : (
            <>
              <BenchNumber says={what.says} value={what.value} unit={'unit' in what ? what.unit : undefined} />
              {pressing && pressing.weight !== 'quiet' && !setting ? (
                <p
                  className={`flex items-start gap-2.5 text-lg font-semibold ${pressing.weight === 'stop' ? 'text-stop' : 'text-watch'}`}
                >
                  <Icon name={pressing.weight === 'stop' ? 'stop' : 'watch'} size={22} className="mt-0.5 shrink-0" />
                  <span>
                    {pressing.says} {pressing.first?.[0]}
                  </span>
                </p>
              ) : (
                <p className="text-lg text-ink-2">{what.then}</p>
              )}
              <ShotMarks bench={bench} />
              <PotLevel bench={bench} pour={pour} />
              <Unsaved count={bench.unsaved} />
            </>
          )
        }
      >
        <Mold
          className="w-full max-w-[620px]"
          cavities={cavities}
          sootWear={1 - Math.exp(-(state.shotsSinceSmoked ?? mold.shotsSinceSmoked + state.shots.length) / 40)}
          edge={state.shots.length ? 'var(--straw)' : undefined}
          label={`${mold.name}, open half`}
        />
        <CavityColumns pour={pour} mold={mold} bench={bench} catalogue={catalogue} frame={moldFrame(cavities)} />
        {coached && state.phase !== 'cold' && (
          <CoachPanel coached={coached} onDone={bench.done} onSmoked={bench.smoked} onFeed={() => setAsking('feed')} />
        )}
        <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
          {state.phase === 'cold' ? (
            <Caution>
              Wet metal in a hot pot explodes. Only dry ingots, lowered in; face shield on. Ventilate, and keep to your
              local rules.
            </Caution>
          ) : (
            <Caution>A head is solid in seconds and still 200 °C hot: pliers, not fingers.</Caution>
          )}
          <BenchTools />
        </div>
      </BenchFrame>
      <FeedForm open={asking === 'feed'} onOpenChange={(open) => setAsking(open ? 'feed' : null)} onFeed={bench.feed} />
      <CloseForm open={asking === 'close'} onOpenChange={(open) => setAsking(open ? 'close' : null)} bench={bench} />
    </>
  );
}

export function PourBenchPage() {
  const { id = '' } = useParams();
  const { data: pour, error } = usePour(id);
  const catalogue = useCatalogue();
  if (!pour || !catalogue) return <Waiting error={error} />;
  const mold = catalogue.molds.find((each) => each.id === pour.moldId);
  if (!mold)
    return (
      <p className="p-8">
        The mold of this pour is gone. <Link to="/pour">Back</Link>
      </p>
    );
  return <Running key={pour.id} pour={pour} mold={mold} catalogue={catalogue} />;
}
