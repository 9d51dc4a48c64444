import { runningCureFigure } from '../bake/figures.ts';
import { platingDamage, type PlatingDamage } from '../bake/from-log.ts';
import { airIn, knownOven, loadHeat, type KnownOven, type OvenRecord } from '../bake/known-oven.ts';
import type { BakedHead } from '../bake/program.ts';
import { programEndsAt, runningBake, type RunningBake, type RunningState } from '../bake/running.ts';
import { bakedHead } from '../plan/product.ts';
import type { PlanProduct } from '../plan/types.ts';
import type { Figure } from '../quantity/figure.ts';
import type { Reading } from '../readings/block-codec.ts';
import type { HeadsInRun } from '../run/heads-in-run.ts';
import type { OvenState } from '../run/oven.ts';

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

/** A head of a load, and how many there are of it. */
export type HungHead = BakedHead & { count: number };

/**
 * The heads of a load as the oven sees them, one of each product and step; what does not cure is left out.
 * @param productOf the product of a ticket, by its id; undefined for one that is not known
 * @example headsInLoad([{ ticketId: 'a', step: 'bake', count: 12 }], () => undefined) // []
 */
export function headsInLoad(
  heads: readonly HeadsInRun[],
  productOf: (ticketId: string) => PlanProduct | undefined,
): HungHead[] {
  const kinds = new Map<string, HungHead>();
  for (const { ticketId, step, count } of heads) {
    const product = productOf(ticketId);
    const head = product && bakedHead(product, step);
    if (!head) continue;
    const key = JSON.stringify([head, step]);
    kinds.set(key, { ...head, count: count + (kinds.get(key)?.count ?? 0) });
  }
  return [...kinds.values()];
}

/** The powder of a load that is full last, on whichever head, and all that its bake is reckoned from but the moment. */
interface LastFull {
  powder: string;
  input: Omit<RunningBake, 'now'>;
  oven: KnownOven;
  limitC: number | null;
}

/** Which powder of a load is full last, by what is known at a moment. Null where nothing cures. */
export function lastFull(
  load: OvenState,
  heads: readonly HungHead[],
  oven: OvenRecord | undefined,
  readings: readonly Reading[],
  now: number,
): LastFull | null {
  if (heads.length === 0 || load.phase === 'empty') return null;
  const known = knownOven(oven);
  const { loadedAt, doors } = load;
  const common = { ...airIn(known, load, loadHeat(heads)), loadedAt, doors, readings };
  const states = heads.flatMap(({ headLagS, laws }) =>
    laws.map(({ powder, law }) => {
      const input = { ...common, headLagS, law };
      return { powder, input, fullAt: runningBake({ ...input, now: Math.max(now, loadedAt) }).fullAt ?? Infinity };
    }),
  );
  const { powder, input } = states.reduce((a, b) => (b.fullAt > a.fullAt ? b : a));
  const limitC = heads.reduce<number | null>(
    (low, head) => (head.limitC === null ? low : Math.min(low ?? Infinity, head.limitC)),
    null,
  );
  return { powder, input, oven: known, limitC };
}

/** The whole of a bake, from its door to a little past its end: the same for as long as nothing is said or read. */
type BakeCurve = Pick<BakeCourse, 'atEnd' | 'damage' | 'points'>;

export function bakeCurve(load: OvenState, { input, limitC }: LastFull, now: number): BakeCurve {
  const { warmAt } = runningBake({ ...input, now: Math.max(now, load.loadedAt) });
  const endsAt = programEndsAt(load, warmAt, now);
  const { points } = runningBake({ ...input, now: Math.max(now, endsAt + 250 * load.seconds) });
  const until = points.filter((point) => point.at <= Math.max(now, endsAt));
  return { atEnd: until.at(-1)?.share ?? 0, damage: platingDamage(until, limitC), points };
}

/** Where a bake stands at a moment, of a curve that was drawn before. */
export function bakeNow(load: OvenState, of: LastFull, curve: BakeCurve, now: number): BakeCourse {
  const { powder, input, oven, limitC } = of;
  const state = runningBake({ ...input, now: Math.max(now, load.loadedAt) });
  const soFar = runningCureFigure(state, powder, { oven, headLagS: input.headLagS });
  return { state, powder, soFar, endsAt: programEndsAt(load, state.warmAt, now), limitC, ...curve };
}

/**
 * Whether the rest of a bake goes as it was drawn: shut, by its model, with a count that has an end. A door that stands
 * open, a count that waits for warm metal and a bake that is over go on with the clock.
 */
export const goesAsDrawn = ({ doors, from, warmAt, endsAt }: OvenState, now: number): boolean =>
  doors.at(-1)?.toAt !== null && (from === 'door' || warmAt !== null) && now < endsAt;

/**
 * The course of one load, by a probe as far as it speaks and by the models of oven, head and powder: of the powder that
 * is full last, on whichever head. Null where nothing cures.
 */
export function bakeCourse(
  load: OvenState,
  heads: readonly HungHead[],
  oven: OvenRecord | undefined,
  readings: readonly Reading[],
  now: number,
): BakeCourse | null {
  const of = lastFull(load, heads, oven, readings, now);
  return of && bakeNow(load, of, bakeCurve(load, of, now), now);
}
