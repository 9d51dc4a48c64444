import type { CavityPour, Mold } from '@schmelz/contract';
import {
  benchSettings,
  coldMold,
  fillCavityOf,
  fillIndex,
  fitFairThreshold,
  type CavityFillRecord,
} from '@schmelz/core';
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { fillRecordsOf } from '../../api/queries.ts';

/** Casts and shorts by the fill index as the bench read it: with the heat that the mold had, and cold hooks. */
export const indexed = (mold: Pick<Mold, 'cavities'>, records: readonly CavityPour[]): CavityFillRecord[] =>
  records.flatMap(({ cavityId, pourC: metalC, roomC, moldC, shotsSinceSmoked, casts, shorts }) => {
    const cavity = mold.cavities.find((each) => each.id === cavityId);
    if (!cavity) return [];
    const { index } = fillIndex(fillCavityOf(cavity), benchSettings({ metalC, moldC, roomC, shotsSinceSmoked }));
    return [{ cavityId, index, casts, shorts }];
  });

/** Of each mold at the pot the heat below which it is too cold, by its own shorts; none until its record has come. */
export function useColds(molds: readonly Mold[]): ReadonlyMap<string, number> {
  const records = useQueries({
    queries: molds.map(({ id }) => fillRecordsOf(id)),
    combine: (all) => all.map(({ data }) => data),
  });
  return useMemo(
    () =>
      new Map(
        molds.flatMap((mold, i) => {
          const own = records[i];
          if (!own) return [];
          const { faulty } = fitFairThreshold(indexed(mold, own));
          return [[mold.id, coldMold(own.filter(({ cavityId }) => !faulty.includes(cavityId))).belowC] as const];
        }),
      ),
    [molds, records],
  );
}
