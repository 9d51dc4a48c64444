import { fitGun, type HeatTool } from '../paint/head-heat.ts';
import { productHeated } from '../plan/product.ts';
import type { HouseWays, KnownWays, PlanProduct } from '../plan/types.ts';

/** Seconds under a tool that came out right, as they were written down. */
export interface HeatingRecord {
  /** The product. */
  thingId: string;
  tool: HeatTool;
  seconds: number;
  struck: boolean;
}

/**
 * The maker's own gun, from the counts with it that stand on record; the usual one where there are none.
 * @example knownGun([], () => undefined, 20).counts // 0
 */
export const knownGun = (
  records: readonly HeatingRecord[],
  product: (id: string) => PlanProduct | undefined,
  roomC: number,
): ReturnType<typeof fitGun> =>
  fitGun(
    records
      .filter((each) => !each.struck && each.tool === 'heat gun')
      .flatMap(({ thingId, seconds }) => {
        const known = product(thingId);
        return known ? [{ head: productHeated(known), seconds }] : [];
      }),
    roomC,
  );

/**
 * The house's ways with what its records taught, as every plan and page reckons with them.
 * @example knownWays(ways, [], () => undefined).roomC // 20
 */
export function knownWays(
  ways: HouseWays,
  records: readonly HeatingRecord[],
  product: (id: string) => PlanProduct | undefined,
): KnownWays {
  const { counts, wM2K } = knownGun(records, product, ways.roomC);
  return counts > 0 ? { ...ways, gunWM2K: wM2K } : ways;
}
