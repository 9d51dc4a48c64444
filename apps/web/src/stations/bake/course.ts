import type { Oven, Ticket } from '@schmelz/contract';
import {
  platingDamage,
  programEndsAt,
  runningBake,
  type PlatingDamage,
  type OvenLoad,
  type Reading,
  type RunningBake,
  type RunningState,
} from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';
import { bakedHead } from './baked.ts';
import { realOven } from './oven.ts';

export interface BakeCourse {
  /** Where the least cured powder stands now. */
  state: RunningState;
  powder: string;
  /** When the heads come out: by the program, whose count may wait for warm metal. */
  endsAt: number;
  /** Its share of a full cure then. */
  atEnd: number;
  limitC: number | null;
  /** What the whole bake does to the hooks. */
  damage: PlatingDamage;
  /** From the door to a little past the end: as it went, and as it will go. */
  points: RunningState['points'];
}

/**
 * The course of one load, by a probe as far as it speaks and by the models of oven, head and powder; null where
 * nothing cures.
 */
export function bakeCourse(
  ticket: Ticket,
  load: OvenLoad,
  catalogue: Catalogue,
  oven: Oven | undefined,
  readings: readonly Reading[],
  now: number,
): BakeCourse | null {
  const product = catalogue.product(ticket.productId);
  const head = product && bakedHead(product, catalogue, load.step);
  if (!head) return null;
  const { lagS, offsetK } = realOven(oven);
  const { loadedAt, preheated, doors, seconds } = load;
  const common: Omit<RunningBake, 'law'> = {
    headLagS: head.headLagS,
    airC: load.setC + offsetK,
    ovenLagS: lagS,
    loadedAt,
    preheated,
    doors,
    readings,
    now: Math.max(now, loadedAt),
  };
  const states = head.laws.map(({ powder, law }) => ({ powder, law, state: runningBake({ ...common, law }) }));
  const least = states.reduce((a, b) => ((b.state.fullAt ?? Infinity) > (a.state.fullAt ?? Infinity) ? b : a));
  const endsAt = programEndsAt(load, least.state.warmAt, now);
  const beyond = Math.max(now, endsAt + 250 * seconds);
  const points = runningBake({ ...common, law: least.law, now: beyond }).points;
  const until = points.filter((point) => point.at <= Math.max(now, endsAt));
  return {
    state: least.state,
    powder: least.powder,
    endsAt,
    atEnd: until.at(-1)?.share ?? 0,
    limitC: head.limitC,
    damage: platingDamage(until, head.limitC),
    points,
  };
}
