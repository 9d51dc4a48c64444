import type { Heating } from '@schmelz/contract';
import { fitGun } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';
import { heatedHead } from './rooms.tsx';

/** The maker's own gun, from the counts with it that stand on record. */
export function ownGun(records: readonly Heating[], catalogue: Catalogue, roomC: number): ReturnType<typeof fitGun> {
  const counts = records
    .filter((each) => !each.struck && each.tool === 'heat gun')
    .flatMap(({ thingId, seconds }) => {
      const product = catalogue.product(thingId);
      return product ? [{ head: heatedHead(product, catalogue), seconds }] : [];
    });
  return fitGun(counts, roomC);
}
