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
import { openStore, type Store } from '../store/store.ts';
import { temporaryFolder } from '../test/server.ts';
import { BAD_CAVITY } from './catalogue.ts';
import { makeThings } from './make-things.ts';
import { runYear } from './year.ts';

/** Seven months of pours in molds that the coach does not know. Shorts come of the molds' real heat. */
let store: Store;
beforeAll(async () => {
  store = await openStore(temporaryFolder());
  await runYear(store, await makeThings(store), Date.UTC(2026, 10, 25, 19), 220);
}, 120_000);
afterAll(() => store.close());

interface Judged {
  /** A head of a sound cavity was short. */
  short: boolean;
  /** The coach said before it: gone cold. */
  stopped: boolean;
}

/** What a mold's record says: cavities with a fault of their own, and at which heat the others are too cold. */
async function shortsOf(mold: Mold) {
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
async function judged(known: boolean): Promise<Judged[]> {
  const all: Judged[] = [];
  const [molds, pours] = [await listMolds(store), await listPours(store)];
  for (const mold of molds) {
    const { faulty, belowC } = await shortsOf(mold);
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

test.each([
  ['by practice, before a mold has a record', false],
  ["by each mold's own record", true],
])(
  '%s: stop is said before most shots that came short, and before fewer than one in twenty good ones',
  async (_, known) => {
    const shots = await judged(known);
    const [short, good] = [shots.filter((each) => each.short), shots.filter((each) => !each.short)];
    expect(short.length).toBeGreaterThan(100);
    expect(good.length).toBeGreaterThan(1000);
    const share = (of: readonly Judged[]) => of.filter(({ stopped }) => stopped).length / of.length;
    expect(share(good)).toBeLessThan(0.05);
    expect(share(short)).toBeGreaterThan(0.5);
  },
  60_000,
);

test('the cavity with a burr is named, and no other', async () => {
  for (const mold of await listMolds(store)) {
    const { faulty } = await shortsOf(mold);
    const named = mold.cavities.filter(({ id }) => faulty.includes(id)).map(({ position }) => position);
    expect([mold.name, named]).toEqual([mold.name, mold.name === BAD_CAVITY.mold ? [BAD_CAVITY.position] : []]);
  }
}, 60_000);
