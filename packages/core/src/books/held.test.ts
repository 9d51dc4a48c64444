import { heldAgainst, planSays, standingOf } from './held.ts';

// A ticket of ten heads on paper, two of which were lost: what was planned for ten is held for the eight that came.
const stack = { lead: 5, hook: 20, powder: 3, parts: 0, packaging: 0, dross: 1, energy: 1, work: 20, wear: 0 };
const step = (key: string, station: string, good: number, rejected: number, workS: number, notTimed = 0) => {
  return { key, station, good, rejected, workS, notTimed };
};
const ticket = {
  ...{ number: 7, closedAt: 1, quantity: 10, good: 8, poured: 9, casts: 12 },
  planned: { workS: 600, casts: 11, stack, handsS: { trim: 12, paint: 18, finish: 10 } },
  steps: [step('trim', 'trim', 9, 0, 120), step('paint', 'paint', 8, 1, 200), step('finish', 'finish', 8, 0, 0, 8)],
  actual: {
    // At the pot 180 s, timed 320 s, and eight heads at the finish by the ways: 80 s.
    workS: 580,
    materials: [{ materialId: 'h', name: 'Hook', kind: 'hook', quantity: 10, valueMinor: 200 }],
    cost: { totalMinor: 480, parts: stack, perHead: { ...stack, work: 30 } },
  },
};

test('plan and what came are held against each other for the same good heads', () => {
  const held = heldAgainst(ticket)!;
  expect(held.measures.minutes).toEqual({ planned: 480, came: 580 });
  expect(held.measures.cost).toEqual({ planned: 8 * 50, came: 8 * 60 });
  // Eleven casts for ten heads: 9.9 for the nine that the pour gave.
  expect(held.measures.casts!.planned).toBeCloseTo(9.9, 9);
  expect(held.measures.casts!.came).toBe(12);
  expect(held.measures.hooks).toEqual({ planned: 8, came: 10 });
  // Sixty seconds a head, forty of them behind the pour; what nobody timed is held against nothing.
  expect(held.stations).toEqual([
    { station: 'pour', planned: 180, came: 180 },
    { station: 'trim', planned: 108, came: 120 },
    { station: 'paint', planned: 162, came: 200 },
  ]);
  expect(heldAgainst({ ...ticket, good: 0 })).toBeNull();
  const shelf = heldAgainst({ ...ticket, poured: 0, casts: 0 })!;
  expect(Object.keys(shelf.measures)).toEqual(['minutes', 'cost']);
  expect(shelf.stations.map(({ station }) => station)).toEqual(['trim', 'paint']);
});

test('a plan that lets more heads come than are wanted is held for those', () => {
  // Twelve come for ten: eleven casts for twelve heads, and 600 s are 50 a head that comes, forty of them later.
  const held = heldAgainst({ ...ticket, planned: { ...ticket.planned, coming: 12 } })!;
  expect(held.stations[0]).toEqual({ station: 'pour', planned: 90, came: 180 });
  expect(held.measures.casts!.planned).toBeCloseTo((11 * 9) / 12, 9);
  expect(held.measures.hooks!.planned).toBeCloseTo(9.6, 9);
  expect(held.measures.minutes).toEqual({ planned: 480, came: 580 });
});

test('the middle of many, and what it says', () => {
  const pairs = [0.7, 0.8, 0.9, 1, 1.5].map((ratio) => ({ planned: 100 * ratio, came: 100 }));
  expect(standingOf(pairs)).toEqual({ tickets: 5, median: 0.9, low: 0.8, high: 1 });
  expect(standingOf([...pairs, { planned: 0, came: 5 }, { planned: 5, came: 0 }])!.tickets).toBe(5);
  expect(standingOf([])).toBeNull();
  const says = (median: number, tickets = 9) => planSays({ tickets, median, low: 0, high: 2 });
  expect([says(0.94), says(0.96), says(1.04), says(1.06), says(0.5, 4)]).toEqual([
    'too little planned',
    'right',
    'right',
    'too much planned',
    null,
  ]);
});
