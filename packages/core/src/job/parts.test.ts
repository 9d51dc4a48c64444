import { givenBack, partsRefusal, takenBy, type BillLine } from './bill.ts';
import { ticketPostings, type CastForTicket } from './postings.ts';
import { ticketState, type TicketSetup } from './ticket.ts';
import type { TicketEntry } from './ticket-log.ts';
import { sessionShares } from '../run/session.ts';

// What a ticket takes of its parts. Rules of the house, no source: pieces are whole, glue that was mixed is gone.

const line = (partId: string, kind: string, quantity: number, waste = 0, step = 'rig'): BillLine => {
  return { partId, name: partId, kind, quantity, waste, step };
};
const route: TicketSetup['route'] = [{ key: 'rig', station: 'finish', does: 'Rig' }];
const setup: TicketSetup = { route, source: 'pour', poured: 20, pourClosed: true };
let at = 0;
const said = (entry: object): TicketEntry =>
  ({ id: `e${(at += 1)}`, at: 1000 * at, step: 'rig', ...entry }) as TicketEntry;
const posted = (bill: BillLine[], log: TicketEntry[], cast: CastForTicket | null = null) =>
  ticketPostings({
    ...{ bill, leadKgPerHead: 0.01, cast, source: 'pour', sourceId: null, becomesId: null },
    state: ticketState(setup, log),
  });
const moved = (postings: ReturnType<typeof posted>, materialId: string, reason: string) =>
  postings.find((each) => each.materialId === materialId && each.reason === reason)?.quantity ?? 0;

test('pieces are whole however they were counted: a bag for ten, guards of which one in twenty is reckoned to break', () => {
  const bill = [line('bag', 'bag', 0.1), line('guard', 'guard', 1, 0.05), line('thread', 'thread', 0.5, 0.1)];
  const single = Array.from({ length: 11 }, () => said({ kind: 'good', count: 1 }));
  for (const log of [single, [said({ kind: 'good', count: 11 })]]) {
    expect(moved(posted(bill, log), 'bag', 'used')).toBe(-2);
    expect(moved(posted(bill, log), 'guard', 'used')).toBe(-11);
    // Off a spool: what hands leave of it goes with every head.
    expect(moved(posted(bill, log), 'thread', 'used')).toBeCloseTo(-11 * 0.55, 12);
  }
  const broke = [...single, said({ kind: 'spoiled', partId: 'guard', count: 2 })];
  expect(moved(posted(bill, broke), 'guard', 'spoiled')).toBe(-2);
  expect(moved(posted(bill, broke), 'guard', 'used')).toBe(-11);
  expect([takenBy(line('eye', 'eye', 2, 0.3), 7), givenBack(line('blade', 'blade', 0.5), 3)]).toEqual([14, 1]);
});

test('a head that comes apart while a part is still in the hand takes none of it, and gives none back', () => {
  const bill = [line('blade', 'blade', 1), line('skirt', 'banded skirt', 1)];
  const log = [
    said({ kind: 'good', count: 5 }),
    // One apart before the skirt was on; its blade went with it and comes back from the pot.
    said({ kind: 'reject', cause: 'bent', count: 1, goes: 'melt', spared: ['skirt'] }),
    // One done again, both still in the hand: no second set.
    said({ kind: 'reject', cause: 'bent', count: 1, goes: 'back to step', spared: ['skirt', 'blade'] }),
    said({ kind: 'good', count: 1 }),
    // And one melted before either was on.
    said({ kind: 'reject', cause: 'bent', count: 1, goes: 'melt', spared: ['skirt', 'blade'] }),
  ];
  const postings = posted(bill, log);
  expect(moved(postings, 'skirt', 'used')).toBe(-6);
  expect(moved(postings, 'blade', 'used')).toBe(-7);
  expect(moved(postings, 'blade', 'returned')).toBe(1);
});

test('parts that a step does not use are refused by name', () => {
  const bill = [line('guard', 'guard', 1), line('glue', 'glue', 0.06)];
  expect(partsRefusal(bill, 'rig', 'partId', ['guard'])).toBeNull();
  expect(partsRefusal(bill, 'rig', 'spared', ['glue'])).toBe('spared is "glue"; allowed: guard (guard)');
  expect(partsRefusal(bill, 'trim', 'partId', ['guard'])).toMatch(/allowed: none, as no piece is put on at trim/);
});

test('of glue that was mixed all is gone: shared by the heads that were done with it, the rest by the head', () => {
  const begin = { id: 'm', at: 0, kind: 'begin' as const, partId: 'epoxy', name: 'Epoxy', mixedMl: 1.2 };
  const heads = [
    { ticketId: 'a', step: 'rig', count: 6 },
    { ticketId: 'b', step: 'rig', count: 6 },
  ];
  const done = (id: string, ticketId: string, count: number) => {
    return { id, at: 60_000, kind: 'good' as const, ticketId, step: 'rig', count };
  };
  const shares = sessionShares([{ ...begin, heads }, done('g', 'a', 6), done('h', 'b', 2)]);
  const of = (ticketId: string) => shares.filter((each) => each.ticketId === ticketId).map(({ entry }) => entry);
  const bill = [line('epoxy', 'glue', 0.06, 0.2)];
  // 1.2 ml on eight heads: six of them a, two of them b; three more heads of a by themselves, at 0.072 ml.
  const a = posted(bill, [...of('a'), said({ kind: 'good', count: 3 })]);
  expect(moved(a, 'epoxy', 'used')).toBeCloseTo(-(0.9 + 3 * 0.072), 12);
  expect(moved(posted(bill, of('b')), 'epoxy', 'used')).toBeCloseTo(-0.3, 12);
  // Mixed, and gone stiff before a head was done: it is gone all the same.
  const stiff = sessionShares([{ ...begin, heads }]).map(({ entry }) => entry);
  expect(moved(posted(bill, stiff), 'epoxy', 'used')).toBeCloseTo(-1.2, 12);
});

test('sprues that the pour has weighed back come back no second time at the trim', () => {
  const pour = { leadMaterialId: 'lead', good: 20, secondGrade: 0, hooksLost: 0, drossKg: 0.01 };
  const weighed = [said({ kind: 'sprue', massKg: 0.02 })];
  // 68 g were weighed back at the pot, and all was accounted for.
  expect(moved(posted([], weighed, { ...pour, unexplainedKg: 0 }), 'lead', 'sprue back')).toBe(0);
  // Cut at the trim: the pour misses them, and they come back here.
  expect(moved(posted([], weighed, { ...pour, unexplainedKg: 0.025 }), 'lead', 'sprue back')).toBe(0.02);
  const shared = { ...pour, unexplainedKg: 0.01, sprueRoomKg: 0.018 };
  expect(moved(posted([], weighed, shared), 'lead', 'sprue back')).toBe(0.018);
});
