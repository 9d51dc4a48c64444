import type { BillLine } from '../job/bill.ts';
import { partKind } from '../job/part-kinds.ts';
import { disposition, type DispositionId } from '../job/dispositions.ts';
import type { CostStack } from '../plan/types.ts';

/** What was planned of a ticket, as far as a head that is thrown back has cost of it. */
export interface CostedTicket {
  /** Of one head, minor units. */
  stack: CostStack;
  bill: readonly Pick<BillLine, 'step' | 'kind'>[];
  /** Hands a head, s: all of them, and of each step by its key; what is left of them is the pot's. */
  workS: number;
  handsS: Readonly<Record<string, number>>;
  labourMinorPerHour: number;
  route: readonly { key: string; station: string }[];
}

/**
 * What one head has cost that is thrown back at a station, minor units: hands up to there, powder and current once it
 * went through them, its parts so far; and metal and hook where they do not come back. One that is done again costs
 * that station once more.
 * @example rejectMinor({ stack: { lead: 3, hook: 15, powder: 2, parts: 0, dross: 0, energy: 0, work: 30 }, bill: [],
 *   workS: 90, handsS: { trim: 12 }, labourMinorPerHour: 1200, route: [{ key: 'trim', station: 'trim' }] }, 'trim',
 *   'hook lost') // 45
 */
export function rejectMinor(ticket: CostedTicket, station: string, goes: DispositionId): number {
  const { stack, bill, workS, handsS, labourMinorPerHour, route } = ticket;
  const { lead, parts, stays } = disposition(goes);
  // What was kept before a part of the cost was known counts nothing for it.
  const of = (part: keyof CostStack) => stack[part] ?? 0;
  const handsMinor = (seconds: number) => (seconds * labourMinorPerHour) / 3600;
  const ofSteps = (steps: CostedTicket['route']) => steps.reduce((sum, { key }) => sum + (handsS[key] ?? 0), 0);
  const own = route.filter((step) => step.station === station);
  if (stays) return handsMinor(ofSteps(own)) + (station === 'paint' ? of('powder') : 0);
  const last = route.findLastIndex((step) => step.station === station);
  const until = route.slice(0, last + 1);
  const potS = Math.max(0, workS - ofSteps(route));
  const went = (through: string) => until.some((step) => step.station === through);
  /** What is on it of its parts or its bag: by the lines of the bill that were used up to there. */
  const usedUp = (part: 'parts' | 'packaging') => {
    // Before packaging was a part of its own it was among the others.
    const own = stack.packaging === undefined ? bill : bill.filter(({ kind }) => partKind(kind).costs === part);
    const on = own.filter(({ step }) => until.some(({ key }) => key === step)).length;
    const all = own.filter(({ step }) => route.some(({ key }) => key === step)).length;
    return all > 0 ? (of(part) * on) / all : 0;
  };
  return (
    handsMinor(potS + ofSteps(until)) +
    (went('paint') ? of('powder') : 0) +
    (went('bake') ? of('energy') : 0) +
    usedUp('parts') +
    usedUp('packaging') +
    (lead ? 0 : of('lead')) +
    (parts ? 0 : of('hook'))
  );
}
