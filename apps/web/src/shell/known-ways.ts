import type { Heating } from '@schmelz/contract';
import { knownGun, knownWays, type fitGun, type HouseWays, type KnownWays } from '@schmelz/core';
import { useMemo } from 'react';
import { useAllRecords } from '../api/queries.ts';
import type { Catalogue } from './catalogue.ts';

const knownIn = (catalogue: Catalogue) => (id: string) => {
  const product = catalogue.product(id);
  return product && catalogue.known(product);
};

/** The maker's own gun, from the counts with it that stand on record. */
export const ownGun = (records: readonly Heating[], catalogue: Catalogue, roomC: number): ReturnType<typeof fitGun> =>
  knownGun(records, knownIn(catalogue), roomC);

/** The house's ways with what its records taught; null until all of it is here. */
export function useKnownWays(ways: HouseWays | undefined, catalogue: Catalogue | null): KnownWays | null {
  const { data: records } = useAllRecords('heating');
  return useMemo(
    () => (ways && records && catalogue ? knownWays(ways, records, knownIn(catalogue)) : null),
    [ways, records, catalogue],
  );
}
