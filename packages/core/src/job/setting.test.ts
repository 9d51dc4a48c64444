import { finishSchool } from '../ways/finish.ts';
import type { RouteStep } from './route.ts';
import { headsSet, ticketRefusal, type TicketSetup } from './ticket.ts';
import type { TicketEntry } from './ticket-log.ts';

// Nothing is bagged before its glue is set. Five-minute epoxy sets in some twenty minutes (common practice, no source).
const { wait } = finishSchool('guard', 'epoxy 5');
const MIN = 60_000;
const route: RouteStep[] = [
  { key: 'guard', station: 'finish', does: 'Guard in', task: 'guard', school: 'epoxy 5', wait: wait! },
  { key: 'finish', station: 'finish', does: 'Bag' },
];
const good = (step: string, minute: number, count: number) =>
  ({ id: `${step} ${minute}`, at: minute * MIN, kind: 'good', step, count }) as TicketEntry;
const log = [good('guard', 0, 3), good('guard', 10, 2)];
const setup: TicketSetup = { route, source: 'pour', poured: 8, pourClosed: true };
const why = (minute: number, count: number, said = log) =>
  ticketRefusal(setup, said, good('finish', minute, count) as never);

test('heads go on in the order in which they were glued, once each of them is set', () => {
  const sets = wait!.seconds / 60;
  expect(headsSet(route, log, 'finish', (sets - 1) * MIN)).toEqual({ ready: 0, nextAt: sets * MIN });
  expect(headsSet(route, log, 'finish', sets * MIN)).toEqual({ ready: 3, nextAt: (sets + 10) * MIN });
  expect(headsSet(route, log, 'finish', (sets + 10) * MIN)).toEqual({ ready: 5, nextAt: null });
  expect(headsSet(route, log, 'guard', 0).ready).toBe(Infinity);
});
test('what is sent back to its own step stays there, set as it is; what goes back to the glue does not', () => {
  const at = 60 * MIN;
  const back = (to?: string) =>
    ({
      ...{ id: `back ${to}`, at, kind: 'reject', step: 'finish', cause: 'crooked', count: 1, goes: 'back to step' },
      ...(to ? { to } : {}),
    }) as TicketEntry;
  expect(headsSet(route, [...log, back()], 'finish', at).ready).toBe(5);
  expect(headsSet(route, [...log, back('finish')], 'finish', at).ready).toBe(5);
  expect(headsSet(route, [...log, back('guard')], 'finish', at).ready).toBe(4);
});
test('bagging what is not set is refused with the minutes; what is set may go, and is not counted twice', () => {
  const sets = wait!.seconds / 60;
  expect(why(sets - 5, 1)).toMatch(/allowed: 0 to 0, the others are not set: glue sets, 5 min more for the next/);
  expect(why(sets, 3)).toBeNull();
  expect(why(sets, 4)).toMatch(/allowed: 0 to 3.*10 min more/);
  expect(why(sets + 1, 1, [...log, good('finish', sets, 3)])).toMatch(/allowed: 0 to 0/);
  expect(why(sets + 10, 2, [...log, good('finish', sets, 3)])).toBeNull();
  // A step without a task only says its wait: it is the maker's own.
  const plain = route.map(({ task: _task, school: _school, ...step }) => step);
  expect(ticketRefusal({ ...setup, route: plain }, log, good('finish', 1, 5) as never)).toBeNull();
});
