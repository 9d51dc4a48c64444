import type { Cavity, Mold as StoredMold } from '@schmelz/contract';
import {
  FILL_DEFAULTS,
  fillFigure,
  fillIndex,
  fillMarks,
  fillVerdict,
  knowsItsShorts,
  fillLevers,
  leverFigure,
  shortsByIndex,
  shortShareOf,
  sootLeft,
  thresholdFigure,
  timesFigure,
  type FillSettings,
  type FillVerdict,
  type FillThreshold,
  fillCavityOf,
  workingBlock,
  metalAtMoldC,
  settledMold,
  type PotWay,
} from '@schmelz/core';
import { useEffect, useMemo, useState } from 'react';
import { useLive } from '../../api/live.ts';
import { useFillRecords } from '../../api/fill-records.ts';
import { useList, useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Trying, Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon, type IconName } from '../../design/Icon.tsx';
import { FitProgress } from '../../design/Learned.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useFit } from '../../workers/useFit.ts';
import { useMetal } from '../../shell/useMetal.tsx';
import { CavityColumns, CavityPick } from './CavityColumns.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
import { useMold } from './MoldPage.tsx';
import { MoldRooms } from './rooms.tsx';

const VERDICT: Record<FillVerdict, { icon: IconName; tone: string }> = {
  'short expected': { icon: 'short', tone: 'text-stop' },
  marginal: { icon: 'watch', tone: 'text-watch' },
  fills: { icon: 'good', tone: 'text-good' },
};
const MOST_BAR = 4;

/** Threshold of the fill index from this mold's own shorts, fitted in a worker when the page opens. */
function useThreshold(mold: StoredMold | undefined) {
  const { data: records } = useFillRecords(mold?.id);
  const fit = useFit('threshold');
  const input = useMemo(() => {
    if (!mold || !records?.length) return null;
    return shortsByIndex(mold.cavities, records);
  }, [mold, records]);
  const { run } = fit;
  const again = () => input && void run(input);
  useEffect(() => {
    if (input) void run(input);
  }, [input, run]);
  const threshold = useMemo((): FillThreshold | null => {
    if (fit.state.status !== 'done') return null;
    const { result } = fit.state;
    return { ...result, shortShare: shortShareOf(result) };
  }, [fit.state]);
  const faultyIds = fit.state.status === 'done' ? fit.state.result.faulty : [];
  return { threshold, faultyIds, fit, again };
}

/** An index as a bar from nothing to four, with the marks of short and marginal. */
function IndexBar({ index, verdict, marks }: { index: number; verdict: FillVerdict; marks: readonly number[] }) {
  return (
    <span className="relative mt-1 block h-16 w-full max-w-9 border border-rule-2 bg-well" aria-hidden="true">
      <span
        className={`absolute bottom-0 left-0 w-full ${verdict === 'fills' ? 'bg-good' : verdict === 'marginal' ? 'bg-watch' : 'bg-stop'}`}
        style={{ height: `${(100 * Math.min(MOST_BAR, index)) / MOST_BAR}%` }}
      />
      {marks.map((at) => (
        <span
          key={at}
          className="absolute left-0 w-full border-t border-dashed border-ink"
          style={{ bottom: `${(100 * at) / MOST_BAR}%` }}
        />
      ))}
    </span>
  );
}

/** What to change first, the largest gain on top, for one cavity. */
function Levers({ cavity, settings, way }: { cavity: Cavity; settings: FillSettings; way: PotWay | null }) {
  const units = useUnits();
  const levers = fillLevers(fillCavityOf(cavity), settings, way);
  const now = fillIndex(fillCavityOf(cavity), settings).index;
  const most = Math.max(1.01, ...levers.map((lever) => lever.gain));
  if (levers.length === 0)
    return <p>Everything is set as far as it goes. Look at the cavity itself: a burr, a vent closed.</p>;
  return (
    <ol>
      {levers.map((lever, index) => (
        <li
          key={lever.id}
          className="grid grid-cols-[22px_minmax(0,1fr)_110px_92px] items-center gap-3 border-b border-rule py-2"
        >
          <b className="fig text-[19px]">{index + 1}</b>
          <span>
            {lever.says}
            {lever.byK !== null && `: ${units.write(lever.byK, 'K')} more`}
            {lever.caution && <span className="quiet block">{lever.caution}</span>}
          </span>
          <span className="h-2.5">
            <span className="block h-full bg-lead" style={{ width: `${(100 * (lever.gain - 1)) / (most - 1)}%` }} />
          </span>
          <span className="text-right">
            <Fig
              figure={leverFigure(lever, fillCavityOf(cavity), settings)}
              title={lever.says}
              className="fig text-[19px]"
            >
              {lever.index.toFixed(2)}
            </Fig>{' '}
            <Fig figure={timesFigure(lever.gain, now, lever.index)} title="Gain" className="quiet">
              {`×${lever.gain.toFixed(2)}`}
            </Fig>
          </span>
        </li>
      ))}
    </ol>
  );
}

export function FillPage() {
  const { mold, error } = useMold();
  const { data: settings } = useSettings();
  const { data: materials } = useList('materials');
  const { data: pots } = useList('pots');
  const { alloy, choice } = useMetal(materials);
  const units = useUnits();
  const live = { pot: useLive('pot'), mold: useLive('mold') };
  const [tried, setTried] = useState<Partial<FillSettings>>({ hookWarm: false });
  const [position, setPosition] = useState<number | null>(null);
  const { threshold, faultyIds, fit, again } = useThreshold(mold);
  if (!mold || !settings || !materials || !pots) return <Waiting error={error} />;
  const way = pots[0]?.way ?? null;
  const metalC = Math.max(tried.metalC ?? metalAtMoldC(settings.ways.pourC, way), Math.ceil(alloy.liquidusC) + 1);
  const cast = mold.cavities.filter((cavity) => cavity.condition === 'good');
  // As warm as it settles at the maker's own pace, until it is tried otherwise.
  const settledC =
    cast.length === 0
      ? FILL_DEFAULTS.moldC
      : Math.round(
          settledMold({
            ...{
              block: workingBlock(mold).block,
              cavities: cast,
              shotsSinceSmoked: mold.shotsSinceSmoked,
              ownOpenS: mold.ownOpenS,
            },
            ...{ metalC, roomC: settings.ways.roomC, hands: settings.ways, alloy },
          }).moldC,
        );
  const at = (cavity: Cavity): FillSettings => ({
    ...FILL_DEFAULTS,
    moldC: settledC,
    roomC: settings.ways.roomC,
    ...tried,
    metalC,
    alloy,
    shotsSinceSmoked: tried.shotsSinceSmoked ?? cavity.shotsSinceSmoked,
  });
  const open = mold.cavities.filter((cavity) => cavity.condition === 'good');
  const figures = new Map(open.map((cavity) => [cavity.id, fillFigure(fillCavityOf(cavity), at(cavity), threshold)]));
  const indexes = new Map(open.map((cavity) => [cavity.id, fillIndex(fillCavityOf(cavity), at(cavity))]));
  const worst = [...open].sort((a, b) => indexes.get(a.id)!.index - indexes.get(b.id)!.index)[0];
  const chosen = open.find((cavity) => cavity.position === position) ?? worst;
  const faulty = mold.cavities.filter((cavity) => faultyIds.includes(cavity.id));
  const marks = fillMarks(threshold);
  const known = knowsItsShorts(threshold);
  const turn = (change: Partial<FillSettings>) => setTried({ ...tried, ...change });
  const now = { ...FILL_DEFAULTS, moldC: settledC, ...tried, metalC };
  if (!chosen || !worst) return <Waiting error={new Error('Every cavity of this mold is blocked.')} />;
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={mold.name} value={<Fig figure={figures.get(worst.id)!} title="Fill index" />}>
            is the index of the worst cavity, number {worst.position}
          </TheNumber>
          {choice}
          <Trying
            label="Metal at"
            value={metalC}
            min={Math.ceil(alloy.liquidusC) + 1}
            max={450}
            step={1}
            written={units.temperature(metalC)}
            onChange={(next) => turn({ metalC: next })}
          />
          <Trying
            label="Mold at"
            value={now.moldC}
            min={20}
            max={Math.min(200, Math.floor(alloy.solidusC) - 10)}
            step={1}
            written={units.temperature(now.moldC)}
            onChange={(moldC) => turn({ moldC })}
          />
          {(live.pot ?? live.mold) && (
            <button
              type="button"
              className="self-start underline decoration-rule-2 underline-offset-4"
              onClick={() =>
                turn({
                  ...(live.pot && live.pot.celsius > 330 ? { metalC: Math.round(live.pot.celsius) } : {}),
                  ...(live.mold ? { moldC: Math.round(live.mold.celsius) } : {}),
                })
              }
            >
              As the probes say now
            </button>
          )}
          <Trying
            label="Shots since smoked"
            value={tried.shotsSinceSmoked ?? chosen.shotsSinceSmoked}
            min={0}
            max={200}
            step={1}
            written={
              tried.shotsSinceSmoked === undefined
                ? `${chosen.shotsSinceSmoked}, as logged`
                : String(tried.shotsSinceSmoked)
            }
            onChange={(shotsSinceSmoked) => turn({ shotsSinceSmoked })}
          />
          <Ways
            label="Hooks"
            value={now.hookWarm ? 'warm' : 'cold'}
            options={[
              { value: 'cold', label: 'cold' },
              { value: 'warm', label: 'warmed in the mold' },
            ]}
            onChange={(next) => turn({ hookWarm: next === 'warm' })}
          />
          <Ways
            label="Poured"
            value={now.pouring}
            options={[
              { value: 'gravity', label: 'into the gate' },
              { value: 'inject', label: 'gate to spout' },
            ]}
            onChange={(pouring) => turn({ pouring })}
          />
          <Ways
            label="Stream"
            value={now.stream}
            options={[
              { value: 'quick', label: 'quick' },
              { value: 'slow', label: 'slow' },
              { value: 'thin', label: 'thin' },
            ]}
            onChange={(stream) => turn({ stream })}
          />
          <Trying
            label="Tipped"
            value={now.tiltDeg}
            min={0}
            max={45}
            step={5}
            written={`${now.tiltDeg}°`}
            onChange={(tiltDeg) => turn({ tiltDeg })}
          />
          <Trying
            label="Dirt in the metal"
            value={now.dirt}
            min={0}
            max={1}
            step={0.1}
            written={now.dirt === 0 ? 'clean' : `${Math.round(100 * now.dirt)} %`}
            onChange={(dirt) => turn({ dirt })}
          />
        </>
      }
    >
      <MoldRooms id={mold.id} />
      <Heading
        aside={`${known ? "by this mold's own shorts, " : ''}below ${marks[0].toFixed(known ? 2 : 0)} a short is expected, to ${marks[1].toFixed(known ? 2 : 1)} it is marginal`}
      >
        Each cavity at these settings
      </Heading>
      <div className="mb-6 max-w-[720px]">
        <Mold
          className="w-full"
          cavities={drawnCavities(mold, units.massUnit, () => 'filled', 0.35)}
          sootWear={1 - sootLeft(mold.shotsSinceSmoked)}
          label={`${mold.name}, being filled`}
        />
        <CavityColumns mold={mold} label="Fill index by cavity" className="h-36">
          {(cavity) => {
            const fill = indexes.get(cavity.id);
            if (!fill) return <span className="text-sm text-ink-3">{cavity.position} blocked</span>;
            const verdict = fillVerdict(fill.index, marks);
            return (
              <CavityPick
                cavity={cavity}
                chosen={cavity.id === chosen.id}
                onChoose={() => setPosition(cavity.position)}
                figure={figures.get(cavity.id)!}
                written={fill.index.toFixed(2)}
              >
                {faultyIds.includes(cavity.id) ? (
                  <span className="flex items-center gap-1 text-watch">
                    <Icon name="watch" size={12} /> faulty
                  </span>
                ) : (
                  <span className={`flex items-center gap-1 ${VERDICT[verdict].tone}`}>
                    <Icon name={VERDICT[verdict].icon} size={12} /> {verdict === 'short expected' ? 'short' : verdict}
                  </span>
                )}
                <IndexBar index={fill.index} verdict={verdict} marks={marks} />
              </CavityPick>
            );
          }}
        </CavityColumns>
      </div>
      <section className="mb-7 max-w-[760px]">
        <Heading
          aside={
            <>
              now <Fig figure={figures.get(chosen.id)!} title={`Cavity ${chosen.position}`} />
            </>
          }
        >
          What to change first for cavity {chosen.position}
        </Heading>
        <Levers cavity={chosen} settings={at(chosen)} way={way} />
        <div className="mt-3">
          <Caution>
            One thing at a time, then look at the barb, the shank and the nose. Hotter metal last: it costs dross and
            fume.
          </Caution>
        </div>
      </section>
      <section className="max-w-[760px]">
        <Heading>What your own shorts say</Heading>
        <FitProgress state={fit.state} onStop={fit.stop} />
        {threshold ? (
          <>
            <p className="voice text-lg">
              Every second cast is short at an index of <Fig figure={thresholdFigure(threshold)} title="Threshold" />,{' '}
              {threshold.low.toFixed(2)} to {threshold.high.toFixed(2)}.
            </p>
            <p className="mt-1">
              From {threshold.shorts} shorts in {threshold.casts} casts of this mold, leaning on a prior.
              {chosen.casts >= 20 &&
                ` Cavity ${chosen.position} was short ${Math.round((100 * (chosen.rejects['short'] ?? 0)) / chosen.casts)} % of the time; at these settings the model expects ${Math.round(100 * threshold.shortShare(indexes.get(chosen.id)!.index))} %.`}
            </p>
            {faulty.map((cavity) => (
              <p key={cavity.id} className="mt-2 flex items-start gap-2 font-medium text-watch">
                <Icon name="watch" className="mt-1 shrink-0" />
                Cavity {cavity.position} is short far more often than its flow explains, and is left out of this: look
                into it for a burr, a closed vent, or a gate that is worn.
              </p>
            ))}
          </>
        ) : fit.state.status === 'idle' ? (
          <p className="quiet">
            No casts of this mold are on record.{' '}
            <Button look="quiet" onClick={again}>
              Fit
            </Button>
          </p>
        ) : null}
      </section>
    </Page>
  );
}
