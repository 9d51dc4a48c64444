import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { inPotKg, nextTurn, potIsOff, turnAfterPause, type Turn } from '@schmelz/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useList, usePour, useSettings } from '../../api/queries.ts';
import { BenchFrame, BenchNumber, Unsaved, useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import { undoActions } from '../../bench/undo.ts';
import { say, useFullScreen, useSpeech, useSwitch, useWakeLock, type Switch } from '../../bench/device.ts';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Icon } from '../../design/Icon.tsx';
import { PotBody } from '../../drawing/Bodies.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { setSoundVolume, sound, SOUNDS, soundVolume, useNow } from '../../shell/clock.ts';
import { useUnits } from '../../units/Units.tsx';
import { AtPot } from './AtPot.tsx';
import { CoachPanel, HeatNow } from './CoachPanel.tsx';
import { LoadMap } from './LoadMap.tsx';
import { HooksLeft, MoldChange, TrySomething, WeighHead } from './MoreToSay.tsx';
import { ChargeForm, CloseForm, FeedForm } from './PourForms.tsx';
import { PourSummary } from './PourSummary.tsx';
import { SafetyList } from './SafetyList.tsx';
import { useColds } from '../../shell/colds.ts';
import { useCoach } from './useCoach.ts';
import { CAUSE_KEYS, usePourBench, type PourBench } from './usePourBench.ts';
import { NO_HOOK, whatNow, type Now, type Stretch } from './what-now.ts';

/** The shots so far as marks: blank ones open, good ones full, with a reject struck. */
function ShotMarks({ bench }: { bench: PourBench }) {
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

function PotLevel({ bench, pour }: { bench: PourBench; pour: Pour }) {
  const units = useUnits();
  const inPot = inPotKg(bench.state);
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

const TOOL = 'min-h-16 underline decoration-rule-2 underline-offset-4 text-lg';

const Toggle = ({ on, toggle, children }: Switch & { children: string }) => (
  <button
    type="button"
    className={TOOL}
    aria-pressed={on}
    onClick={(event) => {
      toggle();
      event.currentTarget.blur();
    }}
  >
    {children} {on ? 'on' : 'off'}
  </button>
);

/** The screen itself: as large as it goes, how loud it is, words where sounds are not enough. */
function BenchTools({ rhythm, fillIdle }: { rhythm: Switch; fillIdle: Switch }) {
  const full = useFullScreen();
  const speech = useSpeech();
  const [volume, setVolume] = useState(soundVolume);
  return (
    <div className="flex flex-wrap items-center gap-x-6">
      <Toggle {...fillIdle}>Fill cavities without a hook:</Toggle>
      <Toggle {...rhythm}>Loading rhythm</Toggle>
      {speech.possible && (
        <Toggle on={speech.on} toggle={speech.toggle}>
          Spoken words
        </Toggle>
      )}
      <label className="flex min-h-16 items-center gap-3 text-lg">
        Volume
        <input
          type="range"
          min={0}
          max={100}
          step={10}
          value={Math.round(volume * 100)}
          className="h-16 w-36 accent-[var(--ink)]"
          onChange={(event) => {
            setSoundVolume(Number(event.target.value) / 100);
            setVolume(Number(event.target.value) / 100);
            sound(SOUNDS.freeze);
          }}
          onPointerUp={(event) => event.currentTarget.blur()}
        />
      </label>
      {full.possible && (
        <button type="button" className={TOOL} onClick={full.toggle}>
          {full.full ? 'Leave the full screen' : 'Full screen'}
        </button>
      )}
    </div>
  );
}

type Asking = 'feed' | 'close' | 'mold' | 'hooks' | 'weigh' | 'tried';

/** Keys that have their targets under the mold, not in the bar of keys. */
const hiddenKeys = (bench: PourBench): BenchAction[] => {
  const quiet = (key: string, run: () => void): BenchAction => ({ key, label: '', weight: 'quiet', run });
  return [
    ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((position) => quiet(String(position), () => bench.toggleReject(position))),
    ...Object.entries(CAUSE_KEYS).map(([key, cause]) => quiet(key, () => bench.cause(cause))),
    quiet('D', () => bench.detail({ goes: 'second grade' })),
    quiet('R', () => bench.detail({ goes: 'parts back' })),
    quiet('H', () => bench.detail({ goes: 'hook lost' })),
    quiet('K', bench.block),
    quiet('X', () => bench.rejectAll('flash')),
  ];
};

/** The one next thing as a key: what Space and the foot switch mean now. */
function mainAction(
  bench: PourBench,
  turn: Turn | null,
  what: Now,
  fillIdle: boolean,
  ask: (what: Asking) => void,
): BenchAction {
  const { phase } = bench.state;
  const space = { key: 'Space', code: ' ' };
  if (phase === 'enough' || (what.stretch === 'wind-down' && !turn)) {
    return potIsOff(bench.entries)
      ? { ...space, label: 'Weigh back and close', weight: 'main', run: () => ask('close') }
      : { ...space, label: 'The pot is off', weight: 'main', run: () => bench.done('pot off') };
  }
  const early = what.openInS > 0;
  const disabled = early || phase === 'paused' || !turn;
  const weight = disabled ? 'quiet' : 'main';
  const hint = early ? 'when it is open' : undefined;
  const notNow = early
    ? `Not yet: it opens in ${Math.ceil(what.openInS)} s`
    : phase === 'paused'
      ? 'You are resting: P goes on'
      : undefined;
  if (what.stretch === 'melt') {
    // In solid metal nothing is poured: whose pot is sooner liquid says so.
    return { ...space, label: 'Liquid and skimmed', weight: 'quiet', run: () => bench.done('skimmed') };
  }
  if (!turn) return { ...space, label: 'Poured', weight, disabled, hint, notNow, run: () => {} };
  return turn.blanksToGo > 0
    ? { ...space, label: 'Blank poured', weight, disabled, hint, notNow, run: () => bench.blank(turn.moldId) }
    : {
        ...space,
        label: 'Poured',
        weight,
        disabled,
        hint,
        notNow,
        run: () => bench.shot(turn.moldId, fillIdle),
      };
}

function Running({ pour, molds, catalogue }: { pour: Pour; molds: StoredMold[]; catalogue: Catalogue }) {
  const [preferId, prefer] = useState<string | null>(null);
  const [lookId, look] = useState<string | null>(null);
  const bench = usePourBench(pour, preferId, lookId);
  const units = useUnits();
  const now = useNow(200);
  const { data: settings } = useSettings();
  const { data: pots } = useList('pots');
  const { state } = bench;
  const planned = nextTurn(pour.setup, state, now, preferId);
  const coached = useCoach(
    pour,
    molds,
    pots?.find((each) => each.id === pour.potId),
    bench,
    planned?.moldId ?? null,
    now,
    useColds(molds, settings?.ways),
  );
  // A mold that has gone cold in a pause wants blank shots again, as many as the coach says.
  const coldAgain = coached?.advice.find((each) => each.kind === 'blank' && each.moldId === planned?.moldId)?.shots;
  const turn = planned && turnAfterPause(planned, state, coldAgain, now);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [more, setMore] = useState(false);
  const [ticked, setTicked] = useState<string[]>([]);
  const rhythm = useSwitch('schmelz-rhythm', true);
  const fillIdle = useSwitch('schmelz-fill-idle', false);
  useWakeLock(state.phase !== 'closed');
  const name = molds.find((mold) => mold.id === turn?.moldId)?.name ?? '';
  const several = pour.setup.molds.length > 1;
  const what = whatNow(pour, state, bench.entries, turn, several ? `, ${name}` : '', now);
  const pressing = coached?.advice[0];
  const spoken = pressing && pressing.weight !== 'quiet' ? units.said(pressing.says) : null;
  useEffect(() => {
    if (spoken) say(spoken);
  }, [spoken]);
  useEffect(() => {
    if (several && name) say(`Next: ${name}`);
  }, [several, name]);
  const beat = what.rhythm?.beat ?? null;
  const beats = what.rhythm?.beats ?? 0;
  useEffect(() => {
    if (!rhythm.on || beat === null || beat === 0) return;
    sound(beat === beats - 1 ? SOUNDS.close : SOUNDS.beat);
  }, [rhythm.on, beat, beats]);
  const hidden = useMemo(() => hiddenKeys(bench), [bench]);
  useBenchKeys(hidden);
  if (state.phase === 'closed') return <PourSummary pour={pour} bench={bench} molds={molds} />;
  const open = (which: Asking) => ({
    open: asking === which,
    onOpenChange: (on: boolean) => setAsking(on ? which : null),
  });
  const setting = what.openInS > 0;
  const pressed = pressing !== undefined && pressing.weight !== 'quiet' && !setting;
  const main = mainAction(bench, turn, what, fillIdle.on, setAsking);
  // A shot of any kind ends what was preferred for it.
  const thenInTurn = (run: () => void) => () => {
    run();
    prefer(null);
    look(null);
  };
  const mainThenTurn = { ...main, run: thenInTurn(main.run) };
  const quiet = (key: string, label: string, run: () => void, disabled = false): BenchAction => ({
    key,
    label,
    weight: 'quiet',
    disabled,
    run,
  });
  const turnId = turn?.moldId ?? null;
  const { otherShotId } = bench;
  const rare: BenchAction[] = [
    quiet('M', 'Smoked', () => turnId && bench.smoked(turnId), !turnId),
    quiet('A', 'Lead added', () => setAsking('feed')),
    quiet('J', 'Skimmed', () => bench.done('skimmed')),
    quiet('C', 'Change the mold', () => setAsking('mold')),
    quiet('U', 'Hooks left', () => setAsking('hooks'), Object.keys(pour.setup.hooksOut).length === 0),
    quiet('-', 'Tried something', () => setAsking('tried'), state.shots.length === 0),
    quiet('I', 'Weigh a head', () => setAsking('weigh')),
    quiet('W', 'Weigh back, close', () => setAsking('close'), state.chargedKg === 0),
  ];
  const actions: BenchAction[] =
    state.phase === 'cold'
      ? []
      : [
          mainThenTurn,
          ...(turn && turn.blanksToGo > 0
            ? [
                quiet(
                  'G',
                  'Go on with hooks',
                  thenInTurn(() => bench.shot(turn.moldId, fillIdle.on)),
                  setting,
                ),
              ]
            : []),
          ...(turn?.otherId ? [quiet('T', 'Other mold first', () => prefer(turn.otherId))] : []),
          ...(otherShotId
            ? [{ ...quiet('.', 'Look at the other mold', () => look(otherShotId)), elsewhere: true }]
            : []),
          ...undoActions(bench),
          {
            key: 'P',
            label: state.phase === 'paused' ? 'On again' : 'Pause',
            weight: state.phase === 'paused' ? 'due' : 'quiet',
            run: bench.togglePause,
          },
          ...(turn && turn.blanksToGo === 0
            ? [
                quiet(
                  'B',
                  'Blank',
                  thenInTurn(() => bench.blank(turn.moldId)),
                  setting,
                ),
              ]
            : []),
          ...(what.says === NO_HOOK && !more ? [quiet('U', 'More hooks', () => setAsking('hooks'))] : []),
          quiet('+', more ? 'Less' : 'More', () => setMore(!more)),
          ...(more ? rare : []),
        ];
  return (
    <>
      {!more && state.phase !== 'cold' && <Keys actions={rare} />}
      <BenchFrame
        actions={actions}
        tapAnywhere={turn && state.phase !== 'cold' && what.stretch !== 'melt' ? mainThenTurn : undefined}
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
              <Stretches now={what.stretch} />
              <BenchNumber says={what.says} value={what.value} unit={what.unit} />
              <div className="flex flex-col gap-4">
                {pressing && pressed ? (
                  <p
                    className={`flex items-start gap-2.5 text-lg font-semibold ${pressing.weight === 'stop' ? 'text-stop' : 'text-watch'}`}
                  >
                    <Icon name={pressing.weight === 'stop' ? 'stop' : 'watch'} size={22} className="mt-0.5 shrink-0" />
                    <span>
                      {units.said(pressing.says)} {pressing.first?.[0]}
                    </span>
                  </p>
                ) : (
                  <p className="text-lg text-ink-2">{what.then}</p>
                )}
                <ShotMarks bench={bench} />
              </div>
              <div className="flex flex-wrap items-end gap-x-4 gap-y-3 md:max-lg:col-span-2">
                <PotLevel bench={bench} pour={pour} />
                {coached && <HeatNow coached={coached} />}
              </div>
              <Unsaved count={bench.unsaved} />
            </>
          )
        }
      >
        {state.phase === 'cold' ? (
          <>
            <LoadMap pour={pour} catalogue={catalogue} />
            <Caution>
              Wet metal in a hot pot explodes. Only dry ingots, lowered in; face shield on. Ventilate, and keep to your
              local rules.
            </Caution>
          </>
        ) : (
          <>
            <AtPot pour={pour} molds={molds} bench={bench} turn={turn} onLook={look} catalogue={catalogue} now={now} />
            {coached && (
              <CoachPanel
                coached={coached}
                saidAbove={pressed}
                onDone={bench.done}
                onSmoked={() => turnId && bench.smoked(turnId)}
                onFeed={() => setAsking('feed')}
              />
            )}
            <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
              <Caution>A head is solid in seconds and still {units.temperature(200)} hot: pliers, not fingers.</Caution>
              <BenchTools rhythm={rhythm} fillIdle={fillIdle} />
            </div>
          </>
        )}
      </BenchFrame>
      <FeedForm {...open('feed')} onFeed={bench.feed} />
      <CloseForm {...open('close')} bench={bench} />
      <MoldChange {...open('mold')} pour={pour} molds={molds} bench={bench} />
      <TrySomething {...open('tried')} bench={bench} turnId={turnId} />
      <HooksLeft {...open('hooks')} catalogue={catalogue} bench={bench} />
      <WeighHead {...open('weigh')} pour={pour} state={state} turn={turn} molds={molds} bench={bench} />
    </>
  );
}

/** Keys of things whose buttons are folded away. */
function Keys({ actions }: { actions: readonly BenchAction[] }) {
  useBenchKeys(actions);
  return null;
}

const STRETCHES: readonly Stretch[] = ['melt', 'warm-up', 'pour', 'wind-down'];

/** The four stretches of a session as a short runner, the one that is on now full. */
const Stretches = ({ now }: { now: Stretch }) => (
  <ol className="grid grid-cols-4 gap-1 text-base md:max-lg:col-span-2" aria-label="Stretches of the session">
    {STRETCHES.map((each) => (
      <li
        key={each}
        aria-current={each === now ? 'step' : undefined}
        className={each === now ? 'font-semibold' : 'text-ink-3'}
      >
        <span className={`mb-1 block h-2 ${each === now ? 'bg-good' : 'bg-rule'}`} />
        {each}
      </li>
    ))}
  </ol>
);

export function PourBenchPage() {
  const { id = '' } = useParams();
  const { data: pour, error } = usePour(id);
  const catalogue = useCatalogue();
  const molds = useMemo(
    () => (pour?.setup.molds ?? []).flatMap(({ moldId }) => catalogue?.molds.find((each) => each.id === moldId) ?? []),
    [pour?.setup, catalogue?.molds],
  );
  if (!pour || !catalogue) return <Waiting error={error} />;
  if (molds.length < pour.setup.molds.length)
    return (
      <p className="p-8">
        A mold of this pour is gone. <Link to="/pour">Back</Link>
      </p>
    );
  return <Running key={pour.id} pour={pour} molds={molds} catalogue={catalogue} />;
}
