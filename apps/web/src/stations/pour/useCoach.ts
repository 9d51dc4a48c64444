import type { Mold, Pot, Pour } from '@schmelz/contract';
import {
  heatThen,
  COLD_BELOW_C,
  MOLD_READY_C,
  coach,
  moldsAtPot,
  sessionHeat,
  sessionMold,
  type Advice,
  type CoachMold,
  type SessionHeat,
  fillCavityOf,
  fullShotKg,
} from '@schmelz/core';
import { useDeferredValue, useMemo } from 'react';
import { useLive } from '../../api/live.ts';
import { useSettings } from '../../api/queries.ts';
import { useHandled } from '../../shell/colds.ts';
import type { PourBench } from './usePourBench.ts';

export interface Coached {
  heat: SessionHeat;
  advice: Advice[];
  /** The mold's temperature, and whether a probe says so. */
  moldC: number | null;
  moldBasis: 'measured' | 'given';
  /** Below this it is cold: as it is warmed what it is to reach, once it casts what its shorts or its pace say. */
  coldBelowC: number;
  potC: number | null;
  potBasis: 'measured' | 'given';
}

/** Between taps the coach looks again this often. */
const LOOK_MS = 5000;

/** Heat and advice of a pour that is going on, the mold whose turn it is first; a live probe outranks the model. */
export function useCoach(
  pour: Pour,
  molds: readonly Mold[],
  pot: Pot | undefined,
  bench: PourBench,
  turnId: string | null,
  now: number,
  /** Colder than this a mold is too cold, by its own record of shorts. */
  colds: ReadonlyMap<string, number>,
): Coached | null {
  const { data: settings } = useSettings();
  const live = { mold: useLive('mold'), pot: useLive('pot') };
  const handled = useHandled(molds);
  // The count is on the screen first; what the coach makes of it may come a frame later.
  const { entries, state } = useDeferredValue(bench);
  const tick = Math.floor(now / LOOK_MS) * LOOK_MS;
  // Probes speak once a second: whole degrees are news, tenths are not.
  const [moldProbe, potProbe] = [live.mold, live.pot].map((reading) => (reading ? Math.round(reading.celsius) : null));
  // One probe sits on one mold: on the only one, or on the one that it is named after.
  const probedId =
    molds.length === 1 ? molds[0]!.id : (molds.find((mold) => mold.name === live.mold?.name)?.id ?? null);
  return useMemo(() => {
    if (!settings || !pot) return null;
    const { heelKg } = settings.ways;
    // A tap may be a moment younger than the tick.
    const at = Math.max(tick, entries.at(-1)?.at ?? 0);
    const shared = {
      setup: pour.setup,
      log: entries,
      ...heatThen(pour.knownThen),
      potWay: pour.knownThen.potWay,
      now: at,
    };
    const heat = sessionHeat({
      ...shared,
      molds: molds.map((mold) => sessionMold(mold, pour.setup, pour.knownThen.blocks)),
    });
    const shownId = turnId ?? state.shots.at(-1)?.moldId ?? molds[0]!.id;
    const probed = (moldId: string) => (moldId === probedId ? moldProbe : null);
    const moldC = (moldId: string) => probed(moldId) ?? heat.moldC[moldId] ?? null;
    const potC = potProbe ?? heat.potC;
    const atPot = moldsAtPot(pour.setup, state).sort(
      (a, b) => Number(b.moldId === shownId) - Number(a.moldId === shownId),
    );
    const coached = atPot.flatMap(({ moldId, shots, blanks, shotsSinceSmoked }): CoachMold[] => {
      const mold = molds.find((each) => each.id === moldId)!;
      const celsius = moldC(moldId);
      if (celsius === null) return [];
      const used = new Set(pour.setup.loads.filter((load) => load.moldId === moldId).map((load) => load.position));
      const here = pour.closed ? 0 : shots + blanks;
      const cavities = mold.cavities
        .filter((cavity) => used.has(cavity.position))
        .map((cavity) => ({
          position: cavity.position,
          fill: fillCavityOf(cavity),
          shotsSinceSmoked: shotsSinceSmoked ?? cavity.shotsSinceSmoked + here,
          everSmoked: cavity.everSmoked || shotsSinceSmoked !== null,
        }));
      return [
        {
          moldId,
          name: mold.name,
          moldC: celsius,
          block: sessionMold(mold, pour.setup, pour.knownThen.blocks).block,
          coldBelowC: colds.get(moldId) ?? COLD_BELOW_C,
          fullShotKg: fullShotKg(mold.cavities),
          barKg: mold.barKg ?? undefined,
          sootSchool: mold.sootSchool ?? 'fifty',
          handled: handled.get(moldId),
          cavities,
        },
      ];
    });
    const advice =
      potC === null
        ? []
        : coach({ ...shared, state, molds: coached, potC, potKg: heat.potKg, capacityKg: pot.capacityKg, heelKg });
    return {
      heat,
      advice,
      moldC: moldC(shownId),
      coldBelowC: state.molds.some((each) => each.moldId === shownId && each.shots > 0)
        ? (colds.get(shownId) ?? COLD_BELOW_C)
        : MOLD_READY_C,
      potC,
      moldBasis: probed(shownId) === null ? 'given' : 'measured',
      potBasis: potProbe === null ? 'given' : 'measured',
    } as const;
  }, [settings, pot, molds, pour, entries, state, tick, turnId, probedId, moldProbe, potProbe, colds, handled]);
}
