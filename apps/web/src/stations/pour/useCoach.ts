import type { Mold, Pot, Pour } from '@schmelz/contract';
import { coach, sessionHeat, type Advice, type SessionHeat } from '@schmelz/core';
import { useMemo } from 'react';
import { useLive } from '../../api/live.ts';
import { useSettings } from '../../api/queries.ts';
import { effectivePot } from '../lead/rooms.tsx';
import { blockOf, fillCavityOf, fullShotKg } from '../molds/rooms.tsx';
import type { PourBench } from './usePourBench.ts';

export interface Coached {
  heat: SessionHeat;
  advice: Advice[];
  /** The mold's temperature, and whether a probe says so. */
  moldC: number | null;
  moldBasis: 'measured' | 'given';
  potC: number | null;
  potBasis: 'measured' | 'given';
}

/** Between taps the coach looks again this often. */
const LOOK_MS = 5000;

/** Heat and advice of a pour that is going on; a live probe outranks the model. */
export function useCoach(pour: Pour, mold: Mold, pot: Pot | undefined, bench: PourBench, now: number): Coached | null {
  const { data: settings } = useSettings();
  const probe = { mold: useLive('mold')?.celsius, pot: useLive('pot')?.celsius };
  const { entries, state } = bench;
  const tick = Math.floor(now / LOOK_MS) * LOOK_MS;
  // Probes speak once a second: whole degrees are news, tenths are not.
  const [moldProbe, potProbe] = [probe.mold, probe.pot].map((celsius) => (celsius === undefined ? null : Math.round(celsius))); // prettier-ignore
  return useMemo(() => {
    if (!settings || !pot) return null;
    const { pourC: metalC, roomC, heelKg } = settings.ways;
    const { block } = blockOf(mold);
    const body = effectivePot(pot);
    const fullKg = fullShotKg(mold);
    // A tap may be a moment younger than the tick.
    const at = Math.max(tick, entries.at(-1)?.at ?? 0);
    const shared = { setup: pour.setup, log: entries, block, fullShotKg: fullKg, pot: body, metalC, roomC, now: at };
    const heat = sessionHeat({ ...shared, warmed: mold.warmSchool ?? 'blank shots', openS: pour.openS });
    const moldC = moldProbe ?? heat.moldC;
    const potC = potProbe ?? heat.potC;
    const used = new Set(pour.setup.loads.map((load) => load.position));
    const shotsHere = state.shots.length + state.blanks;
    const cavities = mold.cavities
      .filter((cavity) => used.has(cavity.position))
      .map((cavity) => ({
        position: cavity.position,
        fill: fillCavityOf(cavity),
        shotsSinceSmoked: state.shotsSinceSmoked ?? cavity.shotsSinceSmoked + (pour.closed ? 0 : shotsHere),
        everSmoked: cavity.everSmoked || state.shotsSinceSmoked !== null,
      }));
    const advice =
      moldC === null || potC === null
        ? []
        : coach({ ...shared, state, moldC, potC, potKg: heat.potKg, capacityKg: pot.capacityKg, heelKg, sootSchool: mold.sootSchool ?? 'fifty', cavities }); // prettier-ignore
    return {
      heat,
      advice,
      moldC,
      potC,
      moldBasis: moldProbe === null ? 'given' : 'measured',
      potBasis: potProbe === null ? 'given' : 'measured',
    } as const;
  }, [settings, pot, mold, pour, entries, state, tick, moldProbe, potProbe]);
}
