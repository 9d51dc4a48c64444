import type { Oven } from '@schmelz/contract';
import {
  airIn,
  bakedHead,
  knownOven,
  loadHeat,
  platingDamage,
  programEndsAt,
  runningBake,
  runningCureFigure,
  type BakedHead,
  type Figure,
  type OvenState,
  type PlatingDamage,
  type Reading,
  type RunningBake,
  type RunningState,
} from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

export interface BakeCourse {
  /** Where the least cured powder of all heads in the load stands now. */
  state: RunningState;
  powder: string;
  /** Its share of a full cure so far. */
  soFar: Figure;
  /** When the heads come out: by the program, whose count may wait for warm metal. */
  endsAt: number;
  /** Its share of a full cure then. */
  atEnd: number;
  /** What the part that stands the least heat stands; null where no limit is on record. */
  limitC: number | null;
  /** What the whole bake does to that part. */
  damage: PlatingDamage;
  /** From the door to a little past the end: as it went, and as it will go. */
  points: RunningState['points'];
}

/** A ticket as far as its load must know it: which product hangs there. */
export type InLoad = (ticketId: string) => string | undefined;

/** A head of a load, and how many there are of it. */
export type HungHead = BakedHead & { count: number };

/** The heads of a load as the oven sees them, one of each product and step. */
export function headsInLoad({ heads }: OvenState, productOf: InLoad, catalogue: Catalogue): HungHead[] {
  const kinds = new Map<string, HungHead>();
  for (const { ticketId, step, count } of heads) {
    const product = catalogue.product(productOf(ticketId) ?? '');
    const head = product && bakedHead(catalogue.known(product), step);
    if (!head) continue;
    const key = `${product.id} ${step}`;
    kinds.set(key, { ...head, count: count + (kinds.get(key)?.count ?? 0) });
  }
  return [...kinds.values()];
}

/**
 * The course of one load, by a probe as far as it speaks and by the models of oven, head and powder: of the powder
 * that is
 * full last, on whichever head. Null where nothing cures.
 */
export function bakeCourse(
  load: OvenState,
  heads: readonly HungHead[],
  oven: Oven | undefined,
  readings: readonly Reading[],
  now: number,
): BakeCourse | null {
  if (heads.length === 0 || load.phase === 'empty') return null;
  const known = knownOven(oven);
  const { loadedAt, doors, seconds } = load;
  const common: Omit<RunningBake, 'law' | 'headLagS'> = {
    ...airIn(known, load, loadHeat(heads)),
    loadedAt,
    doors,
    readings,
    now: Math.max(now, loadedAt),
  };
  const states = heads.flatMap(({ headLagS, laws }) =>
    laws.map(({ powder, law }) => {
      const input = { ...common, headLagS, law };
      return { powder, input, state: runningBake(input) };
    }),
  );
  const least = states.reduce((a, b) => ((b.state.fullAt ?? Infinity) > (a.state.fullAt ?? Infinity) ? b : a));
  const endsAt = programEndsAt(load, least.state.warmAt, now);
  const beyond = Math.max(now, endsAt + 250 * seconds);
  const points = runningBake({ ...least.input, now: beyond }).points;
  const until = points.filter((point) => point.at <= Math.max(now, endsAt));
  const limitC = heads.reduce<number | null>(
    (low, head) => (head.limitC === null ? low : Math.min(low ?? Infinity, head.limitC)),
    null,
  );
  return {
    state: least.state,
    powder: least.powder,
    soFar: runningCureFigure(least.state, least.powder, { oven: known, headLagS: least.input.headLagS }),
    endsAt,
    atEnd: until.at(-1)?.share ?? 0,
    limitC,
    damage: platingDamage(until, limitC),
    points,
  };
}
