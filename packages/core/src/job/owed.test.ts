import { chance } from '@schmelz/worlds';
import { planOrder } from '../plan/plan.ts';
import { workshop } from '../test/workshop.ts';
import { headsOwed, headsToCast, yieldAfterPour } from './owed.ts';
import { usualRoute } from './route.ts';
import { ticketState, type TicketSetup } from './ticket.ts';
import type { TicketEntry } from './ticket-log.ts';

let n = 0;
const said = (entry: Record<string, unknown>) => ({ id: `e${n++}`, at: n, ...entry }) as TicketEntry;
const good = (step: string, count: number) => said({ kind: 'good', step, count });
const bad = (step: string, count: number) => said({ kind: 'reject', step, count, cause: 'runs', goes: 'melt' });
const route = usualRoute({ painted: true, baked: false });
const owed = (poured: number, log: TicketEntry[], after = { mean: 1 }, quantity = 24) => {
  const setup: TicketSetup = { route, source: 'pour', poured, pourClosed: poured > 0 };
  return headsOwed({ quantity, ...setup }, ticketState(setup, log), after);
};

describe('what a ticket owes its order', () => {
  test('before its pour all of it, and some that the steps after it will spoil', () => {
    expect(owed(0, [])).toEqual({ missing: 24, toCast: 24 });
    const { toCast } = owed(0, [], yieldAfterPour([]));
    // 97 of a hundred come through: 24 of 25 in the mean. One head is cast once: 97 times in a hundred it is enough.
    expect(toCast).toBe(25);
    expect(owed(0, [], yieldAfterPour([]), 1).toCast).toBe(1);
  });
  // Found from outside: 21 of 24 cast, "0 heads to pour"; 88 ordered, 83 finished, "done".
  test('21 of 24 cast: 3 are still to pour, whatever was trimmed meanwhile', () => {
    expect(owed(21, [])).toEqual({ missing: 3, toCast: 3 });
    expect(owed(21, [good('trim', 10)])).toEqual({ missing: 3, toCast: 3 });
    expect(owed(21, [good('trim', 20), bad('trim', 1), good('paint', 20)])).toEqual({ missing: 4, toCast: 4 });
  });
  test('88 ordered, 83 finished: 5 missing; enough on the way is nothing to cast', () => {
    const log = [good('trim', 88), good('paint', 86), bad('paint', 2), good('finish', 83), bad('finish', 3)];
    expect(owed(88, log, { mean: 1 }, 88)).toEqual({ missing: 5, toCast: 5 });
    expect(owed(90, [good('trim', 90)], yieldAfterPour([]), 88)).toEqual({ missing: 0, toCast: 0 });
    // Closed, nothing is on the way any more.
    const closed = [...log, said({ kind: 'close' })];
    expect(owed(88, closed, { mean: 1 }, 88).missing).toBe(5);
  });
  test('a head that is sent back to a step is still on its way', () => {
    const back = said({ kind: 'reject', step: 'paint', count: 2, cause: 'runs', goes: 'back to step' });
    expect(owed(24, [good('trim', 24), good('paint', 20), back])).toEqual({ missing: 0, toCast: 0 });
  });
  test('heads that lie on the shelf are missing, and not cast', () => {
    const setup: TicketSetup = { route, source: 'shelf', poured: 0, pourClosed: false };
    expect(headsOwed({ quantity: 10, ...setup }, ticketState(setup, []), { mean: 1 })).toEqual({
      missing: 10,
      toCast: 0,
    });
  });
  test('what comes through is learned from closed tickets; stripped heads that came twice do not count twice', () => {
    const usual = yieldAfterPour([]);
    expect(usual.mean).toBeCloseTo(0.97, 9);
    const poor = Array.from({ length: 20 }, () => ({ casts: 30, good: 24 }));
    expect(yieldAfterPour(poor).mean).toBeLessThan(0.83);
    expect(yieldAfterPour(poor).mean).toBeGreaterThan(0.8);
    expect(yieldAfterPour([{ casts: 10, good: 12 }]).mean).toBeLessThanOrEqual(1);
    expect(yieldAfterPour([{ casts: 0, good: 0 }])).toEqual(usual);
  });
});

describe('casts to plan cover what is spoiled after the pour', () => {
  test('an order of the plan wants more casts where the steps after the pour spoil some', () => {
    const input = workshop();
    const casts = (mean: number) => planOrder({ ...input, afterPour: { mean, sure: 400 } }).lines[0]!.casts.value;
    expect(casts(0.9)).toBeGreaterThan(1.08 * casts(1));
    expect(casts(1)).toBe(planOrder(input).lines[0]!.casts.value);
  });
  test('what later steps spoil is allowed for once, on average: no order is left short or long by it', () => {
    const { uniform, normal } = chance(11);
    const after = yieldAfterPour(Array.from({ length: 200 }, () => ({ casts: 60, good: 57 })));
    let through = 0;
    for (let order = 0; order < 4000; order++) {
      // Paint and bake of one evening spoil more, of another less: 19 in 20 on average, as the tickets said.
      const share = Math.min(1, 0.95 + normal(0.02));
      through += Array.from({ length: headsToCast(60, after) }, () => uniform() < share).filter(Boolean).length;
    }
    expect(through / 4000).toBeGreaterThan(60);
    expect(through / 4000).toBeLessThan(61);
  });
});
