import {
  benchSettings,
  COLD_BELOW_C,
  coldMold,
  fillCavityOf,
  fillIndex,
  fitFairThreshold,
  heatBeforeShots,
  sessionMold,
  standing,
  type PourEntry,
} from '@schmelz/core';
import type { Mold } from '@schmelz/contract';
import { listMolds } from '../services/cavities.ts';
import { fillRecords } from '../services/fill-records.ts';
import { listPours } from '../services/pours.ts';
import type { Store } from '../store/store.ts';

export interface Judged {
  /** A head of a sound cavity was short. */
  short: boolean;
  /** The coach said before it: gone cold. */
  stopped: boolean;
}

/** What a mold's record says: cavities with a fault of their own, and at which heat the others are too cold. */
export async function shortsOf(store: Store, mold: Mold) {
  const records = await fillRecords(store, mold.id);
  const { faulty } = fitFairThreshold(
    records.map(({ cavityId, pourC: metalC, roomC, moldC, shotsSinceSmoked, casts, shorts }) => {
      const cavity = mold.cavities.find((each) => each.id === cavityId)!;
      const { index } = fillIndex(fillCavityOf(cavity), benchSettings({ metalC, moldC, roomC, shotsSinceSmoked }));
      return { cavityId, index, casts, shorts };
    }),
  );
  return { faulty, ...coldMold(records.filter(({ cavityId }) => !faulty.includes(cavityId))) };
}

/** Every shot, with what the coach made of the mold's heat just before it. */
export async function judged(store: Store, known: boolean): Promise<Judged[]> {
  const all: Judged[] = [];
  const [molds, pours] = [await listMolds(store), await listPours(store)];
  for (const mold of molds) {
    const { faulty, belowC } = await shortsOf(store, mold);
    for (const { setup, log, knownThen } of pours) {
      if (!setup.molds.some(({ moldId }) => moldId === mold.id)) continue;
      const { pourC: metalC, roomC, blocks } = knownThen;
      const heat = heatBeforeShots({ setup, log, mold: sessionMold(mold, setup, blocks), metalC, roomC });
      const own = setup.loads.filter((load) => load.moldId === mold.id && !faulty.includes(load.cavityId));
      const sound = new Set(own.map(({ position }) => position));
      const shorts = new Set(
        standing<PourEntry>(log).flatMap((entry) =>
          entry.kind === 'reject' && entry.cause === 'short' && sound.has(entry.position) ? [entry.shotId] : [],
        ),
      );
      for (const [shotId, moldC] of heat)
        all.push({ short: shorts.has(shotId), stopped: moldC < (known ? belowC : COLD_BELOW_C) });
    }
  }
  return all;
}
