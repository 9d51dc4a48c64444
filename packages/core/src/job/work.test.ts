import { stepWork } from './work.ts';
import type { TicketEntry } from './ticket-log.ts';

const said = (seconds: number, kind: string, more = {}) =>
  ({ id: `${seconds} ${kind}`, at: 1000 * seconds, kind, step: 'trim', ...more }) as TicketEntry;
const good = (seconds: number, count = 1) => said(seconds, 'good', { count });

test('the first head takes what the others took', () => {
  // Ten heads, one every 12 s: nine gaps are 108 s, the tenth head is the first.
  expect(stepWork(Array.from({ length: 10 }, (_, i) => good(12 * i)))).toMatchObject({ workS: 120, notTimed: 0 });
  // Begun by a word of its own, nothing is added.
  expect(stepWork([said(0, 'start'), good(12), good(24)])).toMatchObject({ workS: 24, notTimed: 0 });
  const reject = said(20, 'reject', { count: 1, cause: 'bent', goes: 'melt' });
  expect(stepWork([good(0), good(10), reject]).workS).toBeCloseTo(30, 9);
});

test('one key for all of them is no time at all: it says so, and is not reckoned as none', () => {
  expect(stepWork([good(500, 60)])).toMatchObject({ workS: 0, notTimed: 60 });
  // Fifty at once and ten one by one: what ten took says little of fifty.
  const few = stepWork([good(0, 50), ...Array.from({ length: 10 }, (_, i) => good(12 * (i + 1)))]);
  expect(few).toMatchObject({ workS: 120, notTimed: 50 });
  expect(stepWork([])).toEqual({ workS: 0, notTimed: 0, notTimedS: 0 });
});

test('heads that cool are nobody’s work', () => {
  const load = said(0, 'load', { count: 5 });
  const out = (coolS?: number) => said(1500, 'unload', { coolS });
  expect(stepWork([load, out(), good(1700, 5)]).workS).toBe(200);
  expect(stepWork([load, out(180), good(1700, 5)]).workS).toBe(20);
  // Taken down before they were cold: there is no time below nothing.
  expect(stepWork([load, out(600), good(1700, 5)]).workS).toBe(0);
});
