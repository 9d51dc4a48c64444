import { fillTable, type CareRecord, type CavityPour, type FillTable } from '@schmelz/contract';
import { castsByHeat, handlingOf, heatThen, sessionMold, SOFT_LEAD, type HouseHandling } from '@schmelz/core';
import type { Store } from '../store/store.ts';
import { followSoot, poursSign, shotsOfCavities, smokingsOf } from './cavities.ts';
import { listPours } from './pours.ts';
import { listRecords } from './records.ts';
import { readResource } from './resources.ts';

/** A mold wears and its maker learns: so many pours back are looked at. */
const LAST_POURS = 60;

/**
 * Casts and shorts of a mold's cavities, pour by pour, with the heat and the soot they were cast at; the latest pours.
 */
export async function fillRecords(store: Store, moldId: string): Promise<CavityPour[]> {
  const [mold, shots, care, pours] = await Promise.all([
    readResource(store, 'molds', moldId),
    shotsOfCavities(store),
    listRecords<CareRecord>(store, 'care', moldId),
    listPours(store, { moldId, last: LAST_POURS }),
  ]);
  /** Shots since a cavity was smoked, in the middle of each pour. */
  const soot = new Map<string, number>();
  const cast = shots.filter((each) => each.moldId === moldId && each.casts > 0);
  for (const cavity of mold.cavities) {
    const own = cast.filter(({ cavityId }) => cavityId === cavity.id);
    const smokings = smokingsOf(cavity, care, cast);
    followSoot(own, smokings, ({ pourId }, since) => soot.set(`${pourId} ${cavity.id}`, since));
  }
  return pours.reverse().flatMap((pour) => {
    const { blocks } = pour.knownThen;
    const { metalC, roomC, alloy } = heatThen(pour.knownThen);
    // What came short in a metal that melts at other heats says nothing of lead.
    if (metalC < SOFT_LEAD.liquidusC) return [];
    const casts = castsByHeat({
      ...{ setup: pour.setup, log: pour.log, mold: sessionMold(mold, pour.setup, blocks) },
      ...{ metalC, roomC, alloy },
    });
    return casts.flatMap(({ position, ...of }): CavityPour[] => {
      const cavityId = pour.setup.loads.find((load) => load.moldId === moldId && load.position === position)?.cavityId;
      const shotsSinceSmoked = soot.get(`${pour.id} ${cavityId}`);
      if (cavityId === undefined || shotsSinceSmoked === undefined) return [];
      return [{ cavityId, at: pour.startedAt, pourC: metalC, roomC, shotsSinceSmoked, ...of }];
    });
  });
}

/** The records as a table, kept while the mold's pours and its care are the same. */
export async function fillTableOf(store: Store, moldId: string): Promise<FillTable> {
  const [care] = await store.select<{ notes: number; struck: number }>(
    "SELECT COUNT(*) AS notes, SUM(struck) AS struck FROM records WHERE kind = 'care' AND thingId = :moldId",
    { moldId },
  );
  const sign = `${await poursSign(store, moldId)} ${care!.notes} ${care!.struck}`;
  return store.keptWhile(`fill records of ${moldId}`, sign, async () => fillTable(await fillRecords(store, moldId)));
}

/** What was tried in a mold over its latest pours, kept while these are the same. */
export async function handlingOfMold(store: Store, moldId: string): Promise<HouseHandling> {
  await readResource(store, 'molds', moldId);
  return store.keptWhile(`handling of ${moldId}`, await poursSign(store, moldId), async () =>
    handlingOf(moldId, await listPours(store, { moldId, last: LAST_POURS })),
  );
}
