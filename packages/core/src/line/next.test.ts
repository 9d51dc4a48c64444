import { ticketState } from '../job/ticket.ts';
import { nextThing } from './next.ts';
import type { TicketOnLine } from './waiting.ts';

const route = [
  { key: 'trim', station: 'trim', does: 'Trim' },
  { key: 'paint', station: 'paint', does: 'Paint' },
];
const ticket = (id: string, number: number, trimmed: number, toCast = 0): TicketOnLine => ({
  ...{ id, number, dueOn: null, quantity: 6, poured: 6, toCast },
  state: ticketState(
    { route, source: 'pour', poured: 6, pourClosed: true },
    trimmed ? [{ id: `${id} trimmed`, at: 1, kind: 'good', step: 'trim', count: trimmed }] : [],
  ),
});

test('without a plan the step nearest to done is next; with one, what it says, as far as it can be done', () => {
  const tickets = [ticket('a', 101, 0), ticket('b', 102, 4)];
  const next = (order: { ticketId: string; step: string }[]) => nextThing(tickets, null, [], 10, order);
  expect(next([])).toMatchObject({ ticketId: 'b', step: 'paint', count: 4 });
  expect(next([{ ticketId: 'a', step: 'trim' }])).toMatchObject({
    what: 'step',
    ticketId: 'a',
    step: 'trim',
    count: 6,
  });
  // What has no heads yet, and what is of another house, is passed over.
  const later = [
    { ticketId: 'a', step: 'paint' },
    { ticketId: 'gone', step: 'trim' },
    { ticketId: 'b', step: 'trim' },
  ];
  expect(next(later)).toMatchObject({ ticketId: 'b', step: 'trim', count: 2 });
  expect(next([{ ticketId: 'gone', step: 'trim' }])).toMatchObject({ ticketId: 'b', step: 'paint' });
});

test('a pour of the plan is next where heads are owed; a load that is over and an open pour go before any plan', () => {
  const tickets = [ticket('a', 101, 0, 5), ticket('b', 102, 4)];
  const order = [{ ticketId: 'a', step: 'pour' }];
  expect(nextThing(tickets, null, [], 10, order)).toMatchObject({ what: 'pour', ticketId: 'a', count: 5 });
  expect(nextThing(tickets, 'p', [], 10, order)).toMatchObject({ what: 'pour on', pourId: 'p' });
  expect(nextThing(tickets, null, [{ runId: 'r', count: 9 }], 10, order)).toMatchObject({ what: 'take out' });
  expect(nextThing([ticket('b', 102, 4)], null, [], 10, [{ ticketId: 'b', step: 'pour' }])?.what).toBe('step');
});
