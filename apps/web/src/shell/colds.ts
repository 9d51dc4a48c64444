import type { Mold } from '@schmelz/contract';
import { knownShorts } from '@schmelz/core';
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { fillRecordsOf } from '../api/fill-records.ts';

/** Of each mold at the pot the heat below which it is too cold, by its own shorts; none until its record has come. */
export function useColds(molds: readonly Mold[]): ReadonlyMap<string, number> {
  const records = useQueries({
    queries: molds.map(({ id }) => fillRecordsOf(id)),
    combine: (all) => all.map(({ data }) => data),
  });
  return useMemo(() => {
    const known = molds.flatMap(({ id, cavities }, i) =>
      records[i] ? [[id, knownShorts(cavities, records[i]).coldBelowC] as const] : [],
    );
    return new Map(known);
  }, [molds, records]);
}
