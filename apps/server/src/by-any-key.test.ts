import { randomUUID } from 'node:crypto';
import { seeded } from '@schmelz/core';
import { addTicketEntries } from './services/tickets.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/*
 * What a ticket costs does not depend on the keys that it was counted with. The sums here are the test's own: what was
 * bought, at what it cost, times what so many heads take; nothing of it is asked of the services that book it.
 * SCHMELZ_HISTORIES=2000 for an evening by hand.
 */
const HISTORIES = Number(process.env['SCHMELZ_HISTORIES'] ?? 12);

let server: TestServer;
let post: ReturnType<typeof eveningAt>['post'];
let get: ReturnType<typeof eveningAt>['get'];
let productId: string;
/** Bought once each: how much, and for how many cents. */
const BOUGHT = {
  bare: { kind: 'bare head', quantity: 60_000, minor: 438_001 },
  guard: { kind: 'guard', quantity: 80_000, minor: 197_531 },
  label: { kind: 'label', quantity: 100_000, minor: 30_000 },
  thread: { kind: 'thread', quantity: 90_000, minor: 7001 },
} as const;
type Part = keyof typeof BOUGHT;
const PARTS = Object.keys(BOUGHT) as Part[];
const ids = {} as Record<Part, string>;
const costs = (part: Part, quantity: number) => (quantity * BOUGHT[part].minor) / BOUGHT[part].quantity;

beforeAll(async () => {
  server = await testServer();
  await server.running.store.select('PRAGMA synchronous = OFF');
  const things = await smallWorkshop(server);
  ({ post, get } = eveningAt(server, things));
  for (const part of PARTS) {
    const { kind, quantity, minor } = BOUGHT[part];
    const made = await post('/materials', { kind, name: part, note: '', metalId: null, hook: null, powder: null });
    ids[part] = made.body.id;
    const receipt = { id: randomUUID(), quantity, priceMinor: minor, on: '2026-03-01', lot: 'all of it' };
    const answer = await post(`/materials/${ids[part]}/receipts`, receipt);
    if (answer.status >= 300) throw new Error(JSON.stringify(answer.body));
  }
  const line = (part: Part, step: string, quantity: number, waste = 0) => ({
    ...{ partId: ids[part], quantity, waste, step },
  });
  const { id: _id, version: _version, ...ten } = await get(`/products/${things.productIds[0]}`);
  const made = await post('/products', {
    ...ten,
    ...{ name: 'Rigged', hookId: null, recipeId: null, bakeProgramId: null, fromId: ids.bare },
    route: [
      { key: 'rig', station: 'finish', does: 'Rig' },
      { key: 'bag', station: 'finish', does: 'Bag' },
    ],
    parts: [line('guard', 'rig', 1, 0.05), line('thread', 'rig', 0.37, 0.1), line('label', 'bag', 0.5)],
  });
  if (made.status !== 201) throw new Error(JSON.stringify(made.body));
  productId = made.body.id;
});
afterAll(() => server.stop());

/** A ticket's evening in short: what came of it in the end, however it was said. */
interface Evening {
  taken: number;
  rigged: number;
  /** Scrapped at the rigging, and of those the ones whose guard was still in the hand. */
  apart: number;
  inHand: number;
  broke: number;
  bagged: number;
}

/** The same evening as many entries: in any order that heads allow, by single taps and all at once, with slips. */
function entriesOf(evening: Evening, random: () => number): { said: object; slip: boolean }[] {
  const parts = (heads: number) => {
    const all: number[] = [];
    for (let left = heads; left > 0;) {
      const part = random() < 0.5 ? 1 : 1 + Math.floor(random() * left);
      all.push(part);
      left -= part;
    }
    return all;
  };
  const queue = (kind: string, heads: number, more: object) =>
    parts(heads).map((count) => ({ kind, count, ...more }) as { kind: string; count: number; step?: string });
  const scrap = (heads: number, spared: string[]) =>
    queue('reject', heads, { step: 'rig', cause: 'other', goes: 'scrap', ...(spared.length > 0 ? { spared } : {}) });
  const waiting = {
    take: queue('take', evening.taken, {}),
    rig: [
      ...queue('good', evening.rigged, { step: 'rig' }),
      ...scrap(evening.apart - evening.inHand, []),
      ...scrap(evening.inHand, [ids.guard]),
    ].sort(() => random() - 0.5),
    bag: queue('good', evening.bagged, { step: 'bag' }),
    broke: queue('spoiled', evening.broke, { step: 'rig', partId: ids.guard }),
  };
  const out: { said: object; slip: boolean }[] = [];
  let [here, toBag] = [0, 0];
  for (;;) {
    const can = (Object.keys(waiting) as (keyof typeof waiting)[]).filter((queueOf) => {
      const [first] = waiting[queueOf];
      if (!first) return false;
      if (queueOf === 'rig') return first.count <= here;
      return queueOf === 'bag' ? first.count <= toBag : true;
    });
    if (can.length === 0) return out;
    const queueOf = can[Math.floor(random() * can.length)]!;
    const said = waiting[queueOf].shift()!;
    // Said too early, taken back, and said again.
    if (random() < 0.3) out.push({ said, slip: true });
    out.push({ said, slip: false });
    if (queueOf === 'take') here += said.count;
    if (queueOf === 'rig') here -= said.count;
    if (queueOf === 'rig' && said.kind === 'good') toBag += said.count;
    if (queueOf === 'bag') toBag -= said.count;
  }
}

/** By part and reason: what is gone from the shelf. Rules of the house: pieces whole, thread with its waste. */
const goneIn = ({ taken, rigged, apart, inHand, broke, bagged }: Evening): [Part, string, number][] => [
  ['bare', 'off the shelf', taken],
  ['guard', 'used', rigged + apart - inHand],
  ['guard', 'spoiled', broke],
  ['thread', 'used', 0.37 * 1.1 * (rigged + apart)],
  ['label', 'used', Math.ceil(bagged / 2)],
];

test(
  'any order of taps, all of them, slips, devices and sittings costs the same to the cent',
  async () => {
    const { store } = server.running;
    const seed = Number(process.env['SCHMELZ_SEED']) || 1;
    const random = seeded(seed);
    const gone = Object.fromEntries(PARTS.map((part) => [part, 0])) as Record<Part, number>;
    const spent = { ...gone };
    let at = Date.now() - 40 * 24 * 3_600_000;
    for (let history = 0; history < HISTORIES; history += 2) {
      // Two tickets at a time, their taps mixed.
      const tickets = await Promise.all(
        [0, 1].map(async () => {
          const taken = 2 + Math.floor(random() * 14);
          const apart = Math.floor(random() * 3) % taken;
          const rigged = taken - apart;
          const inHand = Math.floor(random() * (apart + 1));
          const evening: Evening = { taken, rigged, apart, inHand, broke: Math.floor(random() * 3), bagged: rigged };
          const order = { customer: '', dueOn: null, note: '', lines: [{ productId, quantity: taken }] };
          const { id } = (await post('/orders', order)).body;
          const [ticket] = (await post(`/orders/${id}/release`, {})).body;
          return { id: ticket.id as string, evening, left: entriesOf(evening, random) };
        }),
      );
      while (tickets.some(({ left }) => left.length > 0)) {
        const open = tickets.filter(({ left }) => left.length > 0);
        const ticket = open[Math.floor(random() * open.length)]!;
        const { said, slip } = ticket.left.shift()!;
        // A night lies between two sittings now and then.
        at += random() < 0.05 ? 9 * 3_600_000 : 1000 + Math.floor(random() * 60_000);
        const entry = { id: randomUUID(), at, ...said } as never;
        // Another device's clock is an hour off; and what was not answered is sent again.
        const deviceNow = random() < 0.2 ? Date.now() + 3_600_000 : null;
        await addTicketEntries(store, ticket.id, [entry], deviceNow);
        if (random() < 0.2) await addTicketEntries(store, ticket.id, [entry], deviceNow);
        if (!slip) continue;
        const { id: target } = entry as { id: string };
        await addTicketEntries(store, ticket.id, [{ id: randomUUID(), at: at + 500, kind: 'undo', target }]);
      }
      for (const { id, evening } of tickets) {
        const { actual } = await get(`/tickets/${id}`);
        const own = Object.fromEntries(PARTS.map((part) => [part, 0])) as Record<Part, number>;
        for (const [part, , quantity] of goneIn(evening)) gone[part] += quantity;
        for (const [part, , quantity] of goneIn(evening)) own[part] += Math.round(costs(part, quantity) + 1e-9);
        for (const part of PARTS) {
          const booked = actual.materials.find((each: { materialId: string }) => each.materialId === ids[part]);
          expect({ seed, history, part, minor: booked?.valueMinor ?? 0 }).toEqual({
            seed,
            history,
            part,
            minor: own[part],
          });
          spent[part] += own[part];
        }
      }
    }
    // The whole book, from what the workshop gives away of itself: added up here, line by line.
    const { stockMoves } = await get('/export');
    const materials = await get('/materials');
    for (const part of PARTS) {
      const moves = stockMoves.filter((each: { materialId: string }) => each.materialId === ids[part]);
      const sum = (of: 'quantity' | 'valueMinor') =>
        moves.reduce((all: number, move: Record<typeof of, number>) => all + move[of], 0);
      const { quantity, minor } = BOUGHT[part];
      expect(sum('quantity')).toBeCloseTo(quantity - gone[part], 6);
      expect({ part, minor: sum('valueMinor') }).toEqual({ part, minor: minor - spent[part] });
      const shelf = materials.find(({ id }: { id: string }) => id === ids[part]);
      expect([part, shelf.valueMinor]).toEqual([part, minor - spent[part]]);
      expect(shelf.quantity).toBeCloseTo(quantity - gone[part], 6);
      if (BOUGHT[part].kind !== 'thread')
        expect(Math.abs(shelf.quantity - Math.round(shelf.quantity))).toBeLessThan(1e-6);
    }
  },
  60_000 + 10_000 * HISTORIES,
);
