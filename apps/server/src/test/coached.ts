import {
  COLD_BELOW_C,
  heatBeforeShots,
  knownShorts,
  sessionMold,
  standing,
  usualColdC,
  type PourEntry,
} from '@schmelz/core';
import type { Mold } from '@schmelz/contract';
import { listMolds } from '../services/cavities.ts';
import { fillRecords } from '../services/fill-records.ts';
import { readSettings } from '../services/settings.ts';
import { listPours } from '../services/pours.ts';
import type { Store } from '../store/store.ts';

export interface Judged {
  /** A head of a sound cavity was short. */
  short: boolean;
  /** The coach said before it: gone cold. */
  stopped: boolean;
}

/** Too cold for a mold by what it settles at, before it has a record. */
async function usualOf(store: Store, mold: Mold): Promise<number> {
  const { pourC: metalC, roomC, loadS, inspectS } = (await readSettings(store)).settings.ways;
  return usualColdC(mold, { metalC, roomC, hands: { loadS, inspectS } }) ?? COLD_BELOW_C;
}

/** What a mold's record says: cavities with a fault of their own, and at which heat the others are too cold. */
export const shortsOf = async (store: Store, mold: Mold) =>
  knownShorts(mold.cavities, await fillRecords(store, mold.id), await usualOf(store, mold));

/** Every shot, with what the coach made of the mold's heat just before it. */
export async function judged(store: Store, known: boolean): Promise<Judged[]> {
  const all: Judged[] = [];
  const [molds, pours] = [await listMolds(store), await listPours(store)];
  for (const mold of molds) {
    const { faulty, coldBelowC } = await shortsOf(store, mold);
    const usualC = await usualOf(store, mold);
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
        all.push({ short: shorts.has(shotId), stopped: moldC < (known ? coldBelowC : usualC) });
    }
  }
  return all;
}
