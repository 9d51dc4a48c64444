import {
  gunOf,
  heatingS,
  productHeated,
  schoolOf,
  stirDue,
  targetOf,
  type Schools,
  type HeatInput,
  type HouseWays,
  type PlanProduct,
} from '@schmelz/core';
import { useMemo } from 'react';
import { Key } from '../../design/Button.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { useKnownWays } from '../../shell/known-ways.ts';
import { RhythmStrip, useRhythm } from './Metronome.tsx';

/** The metronome of a product's own seconds: by the maker's gun where counts are on record. */
export function usePaintRhythm(product: PlanProduct, schools: Schools, ways: HouseWays) {
  const catalogue = useCatalogue();
  const known = useKnownWays(ways, catalogue) ?? ways;
  const heatS = useMemo(() => {
    const input: HeatInput = {
      head: productHeated(product),
      tool: schools.tool,
      roomC: known.roomC,
      targetC: targetOf(schools),
      ...gunOf(schools, known),
    };
    return Math.max(1, Math.round(heatingS(input)));
  }, [known, product, schools]);
  return useRhythm(heatS, schools);
}

/** Before the next dip: stir, by the way that is followed. */
export function StirDue({
  painted,
  rhythm,
  ways,
}: {
  painted: number;
  rhythm: ReturnType<typeof useRhythm>;
  ways: Schools;
}) {
  const dips = rhythm.running ? rhythm.heads : painted;
  if (!stirDue(dips, ways)) return null;
  return (
    <p role="note" className="bg-watch-wash px-4 py-2 text-xl font-semibold text-watch">
      Stir the jar before the next dip.
    </p>
  );
}

/** One head from the gun to its hook, as wide as its seconds. */
export function PaintPace({ rhythm, schools }: { rhythm: ReturnType<typeof useRhythm>; schools: Schools }) {
  const units = useUnits();
  const [heat] = rhythm.steps;
  return (
    <section aria-label="Pace" className="mb-5">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-x-4 text-lg">
        <span>
          <b className="fig text-[29px]">{heat!.seconds}</b> s under the {schools.tool}, to{' '}
          {units.temperature(targetOf(schools))}
        </span>
        <span className="flex items-center gap-4 text-ink-2">
          {schoolOf('loose', schools).name}
          <button
            type="button"
            className="cut flex min-h-16 items-center gap-2.5 bg-sheet px-3.5 font-semibold text-ink hover:bg-well"
            onClick={(event) => {
              rhythm.toggle();
              event.currentTarget.blur();
            }}
          >
            <Key>M</Key> {rhythm.running ? `Metronome off, head ${rhythm.heads + 1}` : 'Metronome'}
          </button>
        </span>
      </div>
      <RhythmStrip rhythm={rhythm} tall />
    </section>
  );
}
