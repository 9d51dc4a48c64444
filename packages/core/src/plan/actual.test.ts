import { ticketActual, type TicketMove } from './actual.ts';

/** A ticket of 20 heads on paper: what was bought at which price is written beside each line. */
const move = (materialId: string, kind: string, reason: string, quantity: number, valueMinor: number): TicketMove => ({
  ...{ materialId, name: `The ${materialId}`, kind, reason, quantity, valueMinor },
});
const MOVES = [
  move('lead', 'lead', 'poured', -0.24, -60),
  move('lead', 'lead', 'sprue back', 0.04, 10),
  move('lead', 'lead', 'dross', -0.01, -3),
  move('hook', 'hook', 'poured', -21, -399),
  move('white', 'powder', 'painted', -0.0031, -17),
  move('ring', 'ring', 'finish', -20, -80),
  move('bare', 'bare head', 'made', 20, 600),
];
const step = (workS: number) => ({ workS });
const load = (share: number, loadedAt: number, unloadedAt: number | null) => ({ share, loadedAt, unloadedAt });
const ticket = (more: object = {}) =>
  ticketActual({
    state: {
      steps: [step(300), step(500)],
      // Half of a load of 30 minutes, and one of its own that went in and is not out yet.
      loads: [load(0.5, 1_000_000, 2_800_000), load(1, 5_000_000, null)],
      good: 20,
      ...more,
    } as never,
    pours: [
      { workS: 700, energyKWh: 0.2 },
      { workS: 100, energyKWh: 0.1 },
    ],
    moves: MOVES,
    rates: { labourMinorPerHour: 1800, energyMinorPerKWh: 40 },
    ovenPowerW: 1500,
  });

test('work is the shares of the pours and the clocks of the steps', () => {
  expect(ticket().workS).toBe(1600);
});

test('electricity: the pot by its shares, the oven by half of half an hour at the duty of a hot oven', () => {
  // 15 minutes of 1500 W are 0.375 kWh; an element works about 0.6 of the time (common practice, no source).
  const oven = ticket().energyKWh - 0.3;
  expect(oven / 0.375).toBeGreaterThan(0.45);
  expect(oven / 0.375).toBeLessThan(0.75);
  expect(ticket({ loads: [] }).energyKWh).toBeCloseTo(0.3, 12);
});

test('cost by part: what came back is credited where it belongs, and what was made is no saving', () => {
  const { cost, energyKWh } = ticket();
  const { lead, hook, powder, parts, dross, work, energy } = cost.parts;
  expect({ lead, hook, powder, parts, work }).toEqual({ lead: 60, hook: 399, powder: 17, parts: 80, work: 800 });
  // Sprues that went back and what was skimmed off are the losses of the pot: 3 out, 10 back.
  expect(dross).toBe(-7);
  expect(energy).toBe(Math.round(40 * energyKWh));
  expect(cost.totalMinor).toBe(60 + 399 + 17 + 80 - 7 + 800 + energy);
  expect(cost.perHead!.hook).toBeCloseTo(399 / 20, 12);
  expect(Object.values(cost.perHead!).reduce((sum, each) => sum + each, 0)).toBeCloseTo(cost.totalMinor / 20, 9);
});

test('no good head, no cost of one', () => {
  expect(ticket({ good: 0 }).cost.perHead).toBeNull();
});

test('materials are summed over their reasons, used above zero', () => {
  const { materials } = ticket();
  expect(materials.map(({ materialId }) => materialId)).toEqual(['lead', 'hook', 'white', 'ring']);
  expect(materials[0]).toEqual({
    ...{ materialId: 'lead', name: 'The lead', kind: 'lead' },
    quantity: expect.closeTo(0.21, 12),
    valueMinor: 53,
  });
  expect(materials[1]!.quantity).toBe(21);
});

test('heads that nobody timed take what the ways say, and it is said; an older ticket knows no ways', () => {
  const steps = [
    { key: 'trim', does: 'Trim', workS: 0, notTimed: 20 },
    { key: 'paint', does: 'Paint', workS: 500, notTimed: 0 },
  ];
  const of = (handsS?: (step: string) => number) =>
    ticketActual({
      state: { steps, loads: [], good: 20 } as never,
      ...{ pours: [], moves: [], rates: { labourMinorPerHour: 1800, energyMinorPerKWh: 0 }, ovenPowerW: 0 },
      ...(handsS ? { handsS } : {}),
    });
  // 20 heads of 12 s each and 500 s that were measured, at half a minor unit a second.
  const actual = of((step) => (step === 'trim' ? 12 : 99));
  expect(actual.workS).toBe(740);
  expect(actual.notTimed).toEqual([{ does: 'Trim', heads: 20, seconds: 240 }]);
  expect(actual.cost.parts.work).toBe(370);
  expect(of().workS).toBe(500);
  expect(of().notTimed).toEqual([{ does: 'Trim', heads: 20, seconds: 0 }]);
});
