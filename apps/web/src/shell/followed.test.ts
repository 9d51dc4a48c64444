import type { TonightAsked, TonightPlan } from '@schmelz/core';
import { changedSince, follow, followed, orderFollowed } from './followed.ts';

const wanted = (id: string, productId: string, heads: number, left: Record<string, number> = {}) => ({
  ...{ id, orderId: `o-${id}`, name: `Head ${productId}`, heads, left, product: { id: productId } },
});
const asked = (all: unknown[]) => ({ wanted: all }) as unknown as TonightAsked;
const task = (id: string, step: string | undefined, works: string[]) => ({ id, step, works });
const plan = {
  startMs: 0,
  tasks: [task('trim', 'trim', ['b']), task('pour', 'pour', ['a', 'b']), task('wait', undefined, ['a'])],
  schedule: {
    endS: 600,
    placed: [
      { startS: 300, endS: 600 },
      { startS: 0, endS: 300 },
      { startS: 0, endS: 0 },
    ],
  },
} as unknown as TonightPlan;
beforeEach(() => localStorage.clear());

test('the order of a plan is kept by what is done when, and found by the tickets that the orders became', () => {
  follow(asked([wanted('a', 'p', 6), wanted('b', 'q', 3)]), plan);
  const kept = followed()!;
  expect(kept.endMs).toBe(600_000);
  expect(kept.order.map(({ orderId, step }) => `${orderId} ${step}`)).toEqual(['o-a pour', 'o-b pour', 'o-b trim']);
  const tickets = [
    { id: 't1', orderId: 'o-b', productId: 'q' },
    { id: 't2', orderId: 'o-x', productId: 'q' },
  ];
  expect(orderFollowed(kept, tickets)).toEqual([
    { ticketId: 't1', step: 'pour' },
    { ticketId: 't1', step: 'trim' },
  ]);
  expect(orderFollowed(null, tickets)).toEqual([]);
});

test('what is still to cast and what is new is said; what goes as planned is not', () => {
  follow(asked([wanted('a', 'p', 6), wanted('b', 'q', 3)]), plan);
  const now = asked([wanted('a', 'p', 0, { trim: 6 }), wanted('b', 'q', 2, { trim: 1 }), wanted('c', 'r', 5)]);
  expect(changedSince(followed()!, now)).toEqual(['Head q: 2 still to cast', 'Head r is new']);
});

test('the next day nothing is followed', () => {
  follow(asked([]), plan);
  const kept = JSON.parse(localStorage.getItem('schmelz.followed')!) as { madeMs: number };
  localStorage.setItem('schmelz.followed', JSON.stringify({ ...kept, madeMs: kept.madeMs - 20 * 3600_000 }));
  expect(followed()).toBeNull();
  localStorage.clear();
  expect(followed()).toBeNull();
});
