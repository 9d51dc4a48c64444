import { rejectMinor, type CostedTicket } from './reject-cost.ts';

// On paper: 12.00 an hour is a third of a cent a second. 100 s at the pot, 12 at the trim, 30 at the paint, 6 at the
// bake, 40 for a guard. Lead 3, hook 15, powder 2, guard 8, current 1 (cents).
const ticket: CostedTicket = {
  stack: { lead: 3, dross: 0, hook: 15, powder: 2, parts: 8, energy: 1, work: 188 / 3 } as CostedTicket['stack'],
  bill: ['pour', 'paint', 'guard'].map((step) => ({ step, kind: 'guard' })),
  ...{ workS: 188, handsS: { trim: 12, paint: 30, bake: 6, guard: 40 }, labourMinorPerHour: 1200 },
  route: [
    { key: 'trim', station: 'trim' },
    { key: 'paint', station: 'paint' },
    { key: 'bake', station: 'bake' },
    { key: 'guard', station: 'finish' },
  ],
};

test.each([
  // At the pot only the hands are lost; lead and hook come back.
  ['pour', 'melt', 100 / 3],
  ['trim', 'melt', 112 / 3],
  ['trim', 'hook lost', 112 / 3 + 15],
  // Painted: its powder too, and one of the two parts that are put on.
  ['paint', 'melt', 142 / 3 + 2 + 4],
  ['bake', 'hook lost', 148 / 3 + 2 + 4 + 1 + 15],
  // Scrap: everything that is in it.
  ['finish', 'scrap', 188 / 3 + 2 + 8 + 1 + 3 + 15],
  ['finish', 'second grade', 188 / 3 + 2 + 8 + 1 + 3 + 15],
  // Done again: that station once more, and its powder.
  ['paint', 'back to step', 30 / 3 + 2],
  ['finish', 'back to step', 40 / 3],
] as const)('thrown back at %s, %s', (station, goes, minor) => {
  expect(rejectMinor(ticket, station, goes)).toBeCloseTo(minor, 9);
});

test('a bag is lost only with a head that was in one', () => {
  const bagged: CostedTicket = {
    ...ticket,
    stack: { ...ticket.stack, packaging: 6 },
    bill: [...ticket.bill, { step: 'bag', kind: 'bag' }, { step: 'bag', kind: 'label' }],
    route: [...ticket.route, { key: 'bag', station: 'shop' }],
  };
  expect(rejectMinor(bagged, 'paint', 'melt')).toBeCloseTo(142 / 3 + 2 + 4, 9);
  expect(rejectMinor(bagged, 'shop', 'scrap') - rejectMinor(bagged, 'finish', 'scrap')).toBeCloseTo(6, 9);
});

test('who reckons no hands loses only what is in a head', () => {
  expect(rejectMinor({ ...ticket, labourMinorPerHour: 0 }, 'pour', 'melt')).toBe(0);
  expect(rejectMinor({ ...ticket, labourMinorPerHour: 0 }, 'trim', 'hook lost')).toBe(15);
});

test('a plan of an older workshop, which knew fewer parts of a cost, is reckoned with those that it has', () => {
  const { parts: _parts, energy: _energy, ...known } = ticket.stack;
  const old = { ...ticket, stack: known as CostedTicket['stack'] };
  expect(rejectMinor(old, 'finish', 'scrap')).toBeCloseTo(188 / 3 + 2 + 3 + 15, 9);
});
