import { paintSteps } from '@schmelz/core';
import { useEffect, useState } from 'react';
import { useBenchKeys, type BenchAction } from '../../bench/BenchFrame.tsx';
import { Button, Key } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Heading } from '../../design/Page.tsx';
import { sound, SOUNDS, useNow } from '../../shell/clock.ts';

/** How the powder is kept loose: dips between two stirrings. Common practice, no source. */
const KEPT_LOOSE = [
  { value: '2', label: 'Every 2', hint: 'shaken or stirred with a nail' },
  { value: '6', label: 'Every 5 to 7', hint: 'a fine, dry powder' },
  { value: 'bed', label: 'Fluid bed', hint: 'air keeps it like a liquid: nothing to stir' },
] as const;
type Loose = (typeof KEPT_LOOSE)[number]['value'];

/** Heat, dip, tap, reheat, eye, hang: paced by ear, with the stirring called in between. */
export function Metronome({ heatS }: { heatS: number }) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [loose, setLoose] = useState<Loose>('2');
  const now = useNow(200);
  const steps = paintSteps(heatS);
  const round = steps.reduce((sum, step) => sum + step.seconds, 0);
  const passed = startedAt === null ? 0 : Math.max(0, (now - startedAt) / 1000);
  const heads = Math.floor(passed / round);
  const within = passed - heads * round;
  const begins = steps.map((_, i) => steps.slice(0, i).reduce((sum, step) => sum + step.seconds, 0));
  const at = startedAt === null ? -1 : begins.findLastIndex((from) => within >= from);
  const stir = startedAt !== null && loose !== 'bed' && heads > 0 && heads % Number(loose) === 0 && at === 0;
  useEffect(() => {
    if (at < 0) return;
    sound(at === 1 ? SOUNDS.freeze : SOUNDS.beat);
  }, [at, heads]);
  const toggle = () => setStartedAt((before) => (before === null ? Date.now() : null));
  const keys: BenchAction[] = [{ key: 'Space', code: ' ', label: '', weight: 'main', run: toggle }];
  useBenchKeys(keys);
  return (
    <section className="mb-7" aria-label="Metronome">
      <Heading aside={startedAt === null ? `${round} s a head` : `head ${heads + 1}`}>To work to</Heading>
      <ol className="flex h-16 max-w-[760px]" aria-hidden="true">
        {steps.map((step, i) => (
          <li
            key={step.name}
            className={`relative overflow-hidden border border-rule-2 ${i === at ? 'bg-sheet' : 'bg-well'}`}
            style={{ flexGrow: Math.max(2.4, step.seconds) }}
          >
            {i === at && (
              <span
                className="absolute inset-y-0 left-0 bg-straw"
                style={{ width: `${Math.min(100, (100 * (within - begins[i]!)) / step.seconds)}%` }}
              />
            )}
            <span className={`relative block px-2 pt-1 leading-tight ${i === at ? 'font-semibold' : 'text-ink-2'}`}>
              {step.name}
              <span className="block text-sm">{step.seconds} s</span>
            </span>
          </li>
        ))}
      </ol>
      <div className="mt-3 flex flex-wrap items-end gap-6">
        <Button
          look="main"
          className="h-16 text-lg"
          onClick={(event) => {
            toggle();
            event.currentTarget.blur();
          }}
        >
          <Key>Space</Key> {startedAt === null ? 'Begin' : 'Stop'}
        </Button>
        <div className="w-80">
          <Ways label="The powder is kept loose" value={loose} options={KEPT_LOOSE} onChange={setLoose} />
        </div>
        <p role="status" className="min-h-8 text-xl font-semibold text-watch">
          {stir ? 'Stir the jar first.' : ''}
        </p>
      </div>
    </section>
  );
}
