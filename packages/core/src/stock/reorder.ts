import { inRange } from '../quantity/check.ts';

/** What a part was used in each of the last weeks, and how long it takes until more is here. */
interface UseOfPart {
  /** Used a week, oldest first; a week without use is a zero. */
  weekly: readonly number[];
  /** From ordering to having it, days. */
  days: number;
  /** How sure it is to be that it lasts until then; left out: nineteen times in twenty. */
  service?: number;
}
export interface ReorderPoint {
  /** Order when no more than this is left. */
  at: number;
  /** Of it, what a usual wait takes, and what is there for a busy one. */
  usual: number;
  spare: number;
  /** Used a day on average. */
  aDay: number;
}

const WEEK_DAYS = 7;

/** How many standard deviations up it is that sure: the standard normal's table. */
const Z: readonly (readonly [service: number, z: number])[] = [
  [0.5, 0],
  [0.8, 0.8416],
  [0.9, 1.2816],
  [0.95, 1.6449],
  [0.98, 2.0537],
  [0.99, 2.3263],
];

/** z of the nearest service that is at least as sure. */
const zOf = (service: number) => (Z.find(([at]) => at >= service - 1e-9) ?? Z.at(-1)!)[1];

/**
 * When to order again: what is used until more is here, and a spare for a busy wait. Weeks are taken as unlike each
 * other by chance only, so that the spread of a wait grows with its square root. Source: reorder point = mean demand
 * over the lead time + z sigma sqrt(lead time), the textbook form (Silver, Pyke and Peterson, Inventory Management;
 * from memory).
 * @param use `days` 0 to 365, `service` 0.5 to 0.99
 * @returns null where it was never used: then nothing can be said
 * @throws QuantityError for days, service or a week's use out of range
 * @example reorderPoint({ weekly: [70, 70, 70, 70], days: 7 }).at // 70
 */
export function reorderPoint({ weekly, days, service = 0.95 }: UseOfPart): ReorderPoint | null {
  inRange('days', days, 'days', 0, 365);
  inRange('service', service, '', 0.5, 0.99);
  weekly.forEach((used) => inRange('used in a week', used, '', 0, 1e7));
  const all = weekly.reduce((sum, used) => sum + used, 0);
  if (weekly.length < 2 || all <= 0) return null;
  const mean = all / weekly.length;
  const variance = weekly.reduce((sum, used) => sum + (used - mean) ** 2, 0) / (weekly.length - 1);
  const weeks = days / WEEK_DAYS;
  const usual = mean * weeks;
  const spare = zOf(service) * Math.sqrt(variance * weeks);
  return { at: usual + spare, usual, spare, aDay: mean / WEEK_DAYS };
}
