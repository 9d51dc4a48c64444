import type { Mold, Settings } from '@schmelz/contract';
import { knownShorts, usualColdC, type Handled } from '@schmelz/core';
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { fillRecordsOf, handlingOfMold } from '../api/fill-records.ts';

/**
 * Of each mold at the pot the heat below which it is too cold: by what it settles at, and by its own shorts once its
 * record has come; none until the house's ways are known.
 */
export function useColds(molds: readonly Mold[], ways: Settings['ways'] | undefined): ReadonlyMap<string, number> {
  const records = useQueries({
    queries: molds.map(({ id }) => fillRecordsOf(id)),
    combine: (all) => all.map(({ data }) => data),
  });
  return useMemo(() => {
    if (!ways) return new Map();
    const { pourC: metalC, roomC, loadS, inspectS } = ways;
    return new Map(
      molds.map((mold, i) => {
        const usualC = usualColdC(mold, { metalC, roomC, hands: { loadS, inspectS } }) ?? undefined;
        return [mold.id, knownShorts(mold.cavities, records[i] ?? [], usualC).coldBelowC];
      }),
    );
  }, [molds, records, ways]);
}

/** Of each mold at the pot what worked in it and what did not, once that has come. */
export function useHandled(molds: readonly Mold[]): ReadonlyMap<string, readonly Handled[]> {
  const known = useQueries({
    queries: molds.map(({ id }) => handlingOfMold(id)),
    combine: (all) => all.map(({ data }) => data),
  });
  return useMemo(() => new Map(molds.map(({ id }, i) => [id, known[i]?.handled ?? []])), [molds, known]);
}
