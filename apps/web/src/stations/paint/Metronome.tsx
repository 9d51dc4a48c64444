import { moment } from '../../units/dates.ts';
import { paintSteps, rhythmAt, schoolOf, stirDue, type Schools } from '@schmelz/core';
import { useEffect, useState } from 'react';
import { useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import { Button, Key } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import { sound, SOUNDS, useNow } from '../../shell/clock.ts';

const BEAT_MS = 200;
/** A metronome over the steps of one head: where it stands, with its beat sounded. */
export function useRhythm(heatS: number, ways: Schools) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const now = useNow(startedAt === null ? 60_000 : BEAT_MS);
  const steps = paintSteps(heatS, ways);
  const round = steps.reduce((sum, step) => sum + step.seconds, 0);
  const passedS = startedAt === null ? 0 : Math.max(0, (now - startedAt) / 1000);
  const { heads, at, withinS } = rhythmAt(steps, passedS);
  const running = startedAt !== null;
  useEffect(() => {
    if (!running) return;
    sound(steps[at]!.name === 'dip' ? SOUNDS.freeze : SOUNDS.beat);
    // Sounded where a step begins, not when its length is reckoned anew.
  }, [running, at, heads]); // eslint-disable-line react-hooks/exhaustive-deps
  return {
    steps,
    round,
    running,
    heads,
    at: running ? at : -1,
    withinS,
    toggle: () => setStartedAt((before) => (before === null ? moment() : null)),
  };
}

/** The steps of a head side by side, as wide as they are long; the one that runs fills up. */
export function RhythmStrip({ rhythm, tall = false }: { rhythm: ReturnType<typeof useRhythm>; tall?: boolean }) {
  return (
    <ol className={`flex ${tall ? 'h-24' : 'h-16'}`} aria-hidden="true">
      {rhythm.steps.map((step, i) => (
        <li
          key={step.name}
          className={`relative min-w-0 overflow-hidden border border-rule-2 ${i === rhythm.at ? 'bg-sheet' : 'bg-well'}`}
          style={{ flexGrow: Math.max(3, step.seconds), flexBasis: 0 }}
        >
          {i === rhythm.at && (
            <span
              className="absolute bottom-0 left-0 h-4 bg-straw"
              style={{ width: `${Math.min(100, (100 * rhythm.withinS) / step.seconds)}%` }}
            />
          )}
          <span
            className={`relative block px-2 pt-1 leading-tight ${tall ? 'text-lg' : ''} ${i === rhythm.at ? 'font-semibold' : 'text-ink-2'}`}
          >
            {step.name}
            <span className="block text-[0.85em]">{Math.round(step.seconds)} s</span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** Heat, dip, tap, gloss, eye, hang by the house's ways: paced by ear, with the stirring called in between. */
export function Metronome({ heatS, ways }: { heatS: number; ways: Schools }) {
  const rhythm = useRhythm(heatS, ways);
  const { running, heads, toggle } = rhythm;
  const keys: BenchAction[] = [{ key: 'Space', code: ' ', label: '', weight: 'main', run: toggle }];
  useBenchKeys(keys);
  return (
    <section className="mb-7" aria-label="Metronome">
      <Heading aside={running ? `head ${heads + 1}` : `${Math.round(rhythm.round)} s a head`}>To work to</Heading>
      <div className="max-w-[760px]">
        <RhythmStrip rhythm={rhythm} />
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-6">
        <Button
          look="main"
          className="h-16 text-lg"
          onClick={(event) => {
            toggle();
            event.currentTarget.blur();
          }}
        >
          <Key>Space</Key> {running ? 'Stop' : 'Begin'}
        </Button>
        <p className="quiet">{schoolOf('loose', ways).name}.</p>
        <p role="status" className="min-h-8 text-xl font-semibold text-watch">
          {running && rhythm.at === 0 && stirDue(heads, ways) ? 'Stir the jar first.' : ''}
        </p>
      </div>
    </section>
  );
}
