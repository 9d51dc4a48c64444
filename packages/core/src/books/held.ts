import type { StepState } from '../job/ticket.ts';
import type { TicketActual } from '../plan/actual.ts';
import { stackTotal, type CostStack } from '../plan/types.ts';

/** What is held against what came. */
export const HELD = ['minutes', 'cost', 'casts', 'hooks'] as const;
export type HeldMeasure = (typeof HELD)[number];

/** A closed ticket's plan against what it came to: both for as many good heads as there are. */
export interface PlanHeld {
  number: number;
  closedAt: number;
  good: number;
  /** Seconds, minor units, casts, pieces; a measure that the ticket does not have is left out. */
  measures: Partial<Record<HeldMeasure, { planned: number; came: number }>>;
  /** Hands by station, s, as far as they were timed. */
  stations: { station: string; planned: number; came: number }[];
}

interface ClosedTicket {
  number: number;
  closedAt: number;
  quantity: number;
  good: number;
  /** Heads that the pour gave, and all that it cast for them; 0 of heads off the shelf. */
  poured: number;
  casts: number;
  /** `coming`: heads that the plan lets come from the pot, those too that later steps spoil; left out: the quantity. */
  planned: {
    workS: number;
    casts: number;
    coming?: number;
    stack: CostStack;
    handsS?: Readonly<Record<string, number>>;
  };
  steps: readonly Pick<StepState, 'key' | 'station' | 'good' | 'rejected' | 'workS' | 'notTimed'>[];
  actual: Pick<TicketActual, 'workS' | 'cost' | 'materials'>;
}

/**
 * Holds the plan of a closed ticket against what it came to; null where no good head came of it.
 * @example heldAgainst({ ...ticket, good: 0 }) // null
 */
export function heldAgainst(ticket: ClosedTicket): PlanHeld | null {
  const { number, closedAt, quantity, good, poured, casts, planned, steps, actual } = ticket;
  const { perHead } = actual.cost;
  if (good <= 0 || !perHead) return null;
  const byHead = good / quantity;
  const handsOf = (key: string) => planned.handsS?.[key] ?? 0;
  const timed = steps.filter(({ key, notTimed, workS }) => notTimed === 0 && workS > 0 && handsOf(key) > 0);
  const { coming = quantity } = planned;
  const atPotS = planned.workS / coming - steps.reduce((sum, { key }) => sum + handsOf(key), 0);
  const cameAtPotS =
    actual.workS - steps.reduce((sum, { key, workS, notTimed }) => sum + workS + notTimed * handsOf(key), 0);
  const hooks = actual.materials.filter(({ kind }) => kind === 'hook').reduce((sum, part) => sum + part.quantity, 0);
  const stations = [
    ...(poured > 0 && atPotS > 0 && cameAtPotS > 0
      ? [{ station: 'pour', planned: atPotS * poured, came: cameAtPotS }]
      : []),
    ...timed.map(({ key, station, good: done, rejected, workS }) => {
      return { station, planned: (done + rejected) * handsOf(key), came: workS };
    }),
  ];
  return {
    ...{ number, closedAt, good, stations },
    measures: {
      ...(actual.workS > 0 ? { minutes: { planned: planned.workS * byHead, came: actual.workS } } : {}),
      cost: { planned: good * stackTotal(planned.stack), came: good * stackTotal(perHead) },
      ...(poured > 0 ? { casts: { planned: (planned.casts * poured) / coming, came: casts } } : {}),
      ...(poured > 0 && hooks > 0 ? { hooks: { planned: (good * coming) / quantity, came: hooks } } : {}),
    },
  };
}

/** How plans stood to what came, over many tickets: the middle one, and the middle half of them. */
export interface Standing {
  tickets: number;
  median: number;
  low: number;
  high: number;
}

/**
 * The middle of plan to actual, and the middle half; null of nothing.
 * @example standingOf([{ planned: 90, came: 100 }, { planned: 100, came: 100 }, { planned: 130, came: 100 }]).median
 *   // 1
 */
export function standingOf(pairs: readonly { planned: number; came: number }[]): Standing | null {
  const ratios = pairs
    .filter(({ planned, came }) => planned > 0 && came > 0)
    .map(({ planned, came }) => planned / came)
    .sort((a, b) => a - b);
  if (ratios.length === 0) return null;
  const at = (share: number) => {
    const place = share * (ratios.length - 1);
    const below = Math.floor(place);
    return ratios[below]! + (place - below) * (ratios[Math.ceil(place)]! - ratios[below]!);
  };
  return { tickets: ratios.length, median: at(0.5), low: at(0.25), high: at(0.75) };
}

/** Within so much of what came a plan is right. Rule of the house, no source. */
const RIGHT = 0.05;
/** Fewer tickets say nothing of a station. */
const ENOUGH = 5;

/**
 * What a standing says in words: right, or too little or too much was planned; null while tickets are few.
 * @example planSays({ tickets: 9, median: 0.8, low: 0.7, high: 0.9 }) // 'too little planned'
 */
export function planSays({ tickets, median }: Standing): 'right' | 'too little planned' | 'too much planned' | null {
  if (tickets < ENOUGH) return null;
  if (Math.abs(median - 1) <= RIGHT) return 'right';
  return median < 1 ? 'too little planned' : 'too much planned';
}
