import { randomUUID } from 'node:crypto';
import { seeded } from '@schmelz/core';
import { Refused } from './services/errors.ts';
import { moveGoods, strikeGoods } from './services/goods.ts';
import { count, listMaterials, receive, receiveParcel } from './services/stock.ts';
import { strikeMove } from './services/strike.ts';
import { addTicketEntries } from './services/tickets.ts';
import { readTicket } from './services/ticket-figures.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';
import type { Store } from './store/store.ts';

/** SCHMELZ_EVENTS=10000 goes on for as long as ten years do, in some four minutes. */
const EVENTS = Number(process.env['SCHMELZ_EVENTS'] ?? 1000);
/** The whole is looked at so often; what an event itself must hold is looked at each time. */
const EVERY = 250;
const TOLERANCE = 1e-7;

let server: TestServer;
let store: Store;
afterAll(() => server.stop());

interface Shelf {
  quantity: number;
  valueMinor: number;
}
const shelfOf = async (): Promise<Map<string, Shelf>> => {
  const sums = await store.select<Shelf & { id: string }>(
    `SELECT a.id, COALESCE(SUM(m.quantity), 0) AS quantity, COALESCE(SUM(m.valueMinor), 0) AS valueMinor
     FROM materials a LEFT JOIN stockMoves m ON m.materialId = a.id GROUP BY a.id`,
  );
  return new Map(sums.map(({ id, quantity, valueMinor }) => [id, { quantity, valueMinor }]));
};
/** Finished heads by product and grade: pieces, and what they cost. */
const goodsOf = () =>
  store.select<{ productId: string; grade: string; pieces: number; valueMinor: number }>(
    `SELECT productId, grade, SUM(pieces) AS pieces, SUM(valueMinor) AS valueMinor FROM goodsMoves WHERE struck = 0
     GROUP BY productId, grade ORDER BY productId, grade`,
  );
const everything = async () =>
  JSON.stringify([[...(await shelfOf())].map(([id, s]) => [id, near(s.quantity), s.valueMinor]), await goodsOf()]);
/** Sums of what came and went differ in the last digits by their order. */
const near = (quantity: number) => Math.round(quantity / TOLERANCE);

/** Whole minor units, nothing below nothing, and nothing that is worth something without being there. */
async function holdsAll(): Promise<void> {
  const [broken] = await store.select<{ moves: number }>(
    `SELECT (SELECT COUNT(*) FROM stockMoves WHERE valueMinor <> CAST(valueMinor AS INTEGER) OR typeof(valueMinor) <> 'integer') +
            (SELECT COUNT(*) FROM goodsMoves WHERE typeof(valueMinor) <> 'integer' OR typeof(pieces) <> 'integer') AS moves`,
  );
  expect(broken!.moves).toBe(0);
  for (const [id, { quantity, valueMinor }] of await shelfOf()) {
    // Less than nothing is there only where a bench took what the shelf did not have: the shelf shows it so.
    if (quantity < -TOLERANCE) {
      const used = await store.select(
        'SELECT 1 FROM stockMoves WHERE materialId = :id AND ticketId IS NOT NULL LIMIT 1',
        { id },
      );
      expect([id, used.length]).toEqual([id, 1]);
    } else if (quantity <= TOLERANCE) expect([id, valueMinor]).toEqual([id, 0]);
    else expect([id, valueMinor >= 0]).toEqual([id, true]);
  }
  for (const each of await goodsOf()) {
    expect([each, each.pieces >= 0 && each.valueMinor >= 0]).toEqual([each, true]);
    if (each.pieces === 0) expect(each.valueMinor).toBe(0);
  }
  // What the tables add up themselves is what their rows add up to.
  const odd = await store.select(
    `SELECT m.materialId FROM stockMoves m LEFT JOIN stockBalances b ON b.materialId = m.materialId GROUP BY m.materialId
     HAVING ABS(SUM(m.quantity) - COALESCE(b.quantity, 1e9)) > 1e-6 OR SUM(m.valueMinor) <> b.valueMinor`,
  );
  expect(odd).toEqual([]);
  // No lot has given more than it had, and none is left with more than came.
  const lots = await store.select<{ id: number; quantity: number; used: number }>(
    `SELECT r.id, r.quantity, COALESCE(SUM(u.quantity), 0) AS used FROM stockMoves r LEFT JOIN lotUses u ON u.receiptId = r.id
     WHERE r.reason = 'received' AND NOT EXISTS (SELECT 1 FROM stockMoves s WHERE s.strikes = r.id) GROUP BY r.id`,
  );
  for (const { id, quantity, used } of lots) expect([id, used <= quantity + 1e-6]).toEqual([id, true]);
  // Of each ticket no more heads lie there than it made, and nobody has brought back more than went to them.
  const out = await store.select<{ made: number; here: number; back: number; sold: number }>(
    `SELECT SUM(CASE WHEN reason = 'made' THEN pieces ELSE 0 END) AS made, SUM(pieces) AS here,
            SUM(CASE WHEN reason = 'returned' THEN pieces ELSE 0 END) AS back,
            SUM(CASE WHEN reason IN ('sold', 'given') THEN -pieces ELSE 0 END) AS sold
     FROM goodsMoves WHERE struck = 0 AND ticketId IS NOT NULL GROUP BY ticketId, grade`,
  );
  for (const each of out) {
    expect([each, each.here >= 0 && each.here <= each.made && each.back <= each.sold]).toEqual([each, true]);
  }
  // What a ticket took is in its heads: nothing is left over, and nothing is made of nothing.
  const tickets = await store.select<{ number: number; spent: number; made: number; heads: number }>(
    `SELECT t.number, -(SELECT COALESCE(SUM(valueMinor), 0) FROM stockMoves WHERE ticketId = t.id) AS spent,
            (SELECT COALESCE(SUM(valueMinor), 0) FROM goodsMoves WHERE ticketId = t.id AND reason = 'made' AND struck = 0) AS made,
            (SELECT COALESCE(SUM(pieces), 0) FROM goodsMoves WHERE ticketId = t.id AND reason = 'made' AND struck = 0) AS heads
     FROM tickets t`,
  );
  for (const { number, spent, made, heads } of tickets) {
    if (heads > 0) expect([number, made]).toEqual([number, spent]);
    else expect([number, made]).toEqual([number, 0]);
  }
}

test('whatever happens at the shelf and the bench: stock, metal and money never disagree', async () => {
  server = await testServer();
  ({ store } = server.running);
  // What is asked is whether the books are right, not whether the disk is quick.
  await store.select('PRAGMA synchronous = OFF');
  const things = await smallWorkshop(server);
  const evening = eveningAt(server, things);
  const product = await evening.bareProduct({});
  const tickets: string[] = [];
  for (let nth = 0; nth < 12; nth++) {
    const { ticketId } = await evening.ticketOf(product.id, 30);
    await evening.pour(ticketId, things.moldId, 30);
    tickets.push(ticketId);
  }
  const random = seeded(Number(process.env['SCHMELZ_SEED']) || 1);
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const pick = <T>(all: readonly T[]): T => all[whole(0, all.length - 1)]!;
  const materials = (await listMaterials(store)).filter(({ kind }) => ['lead', 'hook', 'powder'].includes(kind));
  const pieces = new Set(materials.filter(({ kind }) => kind === 'hook').map(({ id }) => id));
  const amount = (id: string) => (pieces.has(id) ? whole(1, 300) : whole(1, 9000) / 1000);
  const on = () => `2026-${String(whole(1, 10)).padStart(2, '0')}-${String(whole(1, 28)).padStart(2, '0')}`;
  const done: Record<string, number> = {};
  const refused: Record<string, number> = {};
  const sold: string[] = [];
  let at = Date.now() - 3_600_000;

  /** Does it, or sees it refused in words with nothing changed. */
  async function tries(what: string, work: () => Promise<unknown>): Promise<boolean> {
    const before = whole(1, 20) === 1 ? await everything() : null;
    try {
      await work();
      done[what] = (done[what] ?? 0) + 1;
      return true;
    } catch (error) {
      if (!(error instanceof Error) || (!(error instanceof Refused) && error.name !== 'QuantityError')) throw error;
      refused[what] = (refused[what] ?? 0) + 1;
      if (before !== null) expect(await everything()).toBe(before);
      return false;
    }
  }

  const events: Record<string, () => Promise<unknown>> = {
    receive: async () => {
      const { id } = pick(materials);
      const [quantity, priceMinor] = [amount(id), whole(0, 20_000)];
      const before = (await shelfOf()).get(id)!;
      await receive(store, id, { quantity, priceMinor, on: on(), lot: '' });
      const after = (await shelfOf()).get(id)!;
      // What benches had used before is settled at what it came for, and so is the rest; else every cent is there.
      if (before.quantity >= -TOLERANCE || after.quantity < -TOLERANCE) {
        expect(after.valueMinor - before.valueMinor).toBe(priceMinor);
      } else expect(Math.abs(after.valueMinor - (priceMinor / quantity) * after.quantity)).toBeLessThanOrEqual(0.5001);
      expect(after.quantity - before.quantity).toBeCloseTo(quantity, 6);
    },
    parcel: async () => {
      const lines = [pick(materials), pick(materials)].map(({ id }) => ({
        ...{ id: randomUUID(), materialId: id, quantity: amount(id), priceMinor: whole(0, 9000) },
      }));
      const freightMinor = whole(0, 1500);
      const received = async () => {
        const [sum] = await store.select<{ minor: number }>(
          `SELECT COALESCE(SUM(valueMinor), 0) AS minor FROM stockMoves WHERE reason = 'received'`,
        );
        return sum!.minor;
      };
      const before = await received();
      await receiveParcel(store, { lines, freightMinor, by: 'value', on: on(), lot: 'parcel' });
      // Every cent of the freight is in the lines.
      expect((await received()) - before).toBe(lines.reduce((sum, line) => sum + line.priceMinor, 0) + freightMinor);
    },
    count: async () => {
      const { id } = pick(materials);
      const before = (await shelfOf()).get(id)!;
      const share = pick([0, 0.3, 0.9, 1, 1.2]);
      const quantity = pieces.has(id)
        ? Math.round(before.quantity * share)
        : Math.round(before.quantity * share * 1e4) / 1e4;
      await count(store, id, { quantity, note: 'seen' });
      const after = (await shelfOf()).get(id)!;
      expect(after.quantity).toBeCloseTo(quantity, 6);
      // What is taken or found is worth the average: within half a minor unit of it.
      if (before.quantity > TOLERANCE) {
        const average = before.valueMinor / before.quantity;
        expect(Math.abs(after.valueMinor - average * after.quantity)).toBeLessThanOrEqual(
          0.5 + 1e-6 + average * TOLERANCE * 2,
        );
      }
    },
    strike: async () => {
      const rows = await store.select<{ id: number; materialId: string; quantity: number; valueMinor: number }>(
        `SELECT id, materialId, quantity, valueMinor + COALESCE((SELECT valueMinor FROM stockMoves t WHERE t.settles = m.id), 0)
           AS valueMinor FROM stockMoves m WHERE reason IN ('received', 'counted') AND strikes IS NULL
           AND NOT EXISTS (SELECT 1 FROM stockMoves s WHERE s.strikes = m.id) ORDER BY id DESC LIMIT 40`,
      );
      if (rows.length === 0) return;
      const move = pick(rows);
      const before = (await shelfOf()).get(move.materialId)!;
      await strikeMove(store, move.id);
      const after = (await shelfOf()).get(move.materialId)!;
      expect(after.quantity).toBeCloseTo(before.quantity - move.quantity, 6);
      // As if it had never been, but that what is there is worth nothing less than nothing, and an empty shelf nothing.
      const without = before.valueMinor - move.valueMinor;
      if (after.quantity < -TOLERANCE) expect(after.valueMinor).toBe(without);
      else expect(after.valueMinor).toBe(after.quantity <= TOLERANCE ? 0 : Math.max(0, without));
    },
    'strike again': async () => {
      // What came in just now and is struck out at once was never there.
      const { id } = pick(materials);
      const before = await everything();
      await receive(store, id, { quantity: amount(id), priceMinor: whole(0, 5000), on: on(), lot: '' });
      const [last] = await store.select<{ id: number }>(
        `SELECT MAX(id) AS id FROM stockMoves WHERE reason = 'received'`,
      );
      await strikeMove(store, last!.id);
      expect(await everything()).toBe(before);
    },
    trim: async () => {
      const ticketId = pick(tickets);
      const base = { id: randomUUID(), at: (at += 1000), step: 'trim', count: whole(1, 3) };
      await addTicketEntries(store, ticketId, [
        random() < 0.7 ? { ...base, kind: 'good' } : { ...base, kind: 'reject', cause: 'broken', goes: 'melt' },
      ]);
    },
    undo: async () => {
      // Said and taken back at once, all is as it was; else the last of a ticket is taken back.
      const ticketId = pick(tickets);
      const { log } = await readTicket(store, ticketId);
      const gone = new Set(log.flatMap((each) => (each.kind === 'undo' ? [each.target] : [])));
      const last = log.filter((each) => each.kind !== 'undo' && !gone.has(each.id)).at(-1);
      if (last)
        await addTicketEntries(store, ticketId, [
          { id: randomUUID(), at: (at += 1000), kind: 'undo', target: last.id },
        ]);
    },
    'undo at once': async () => {
      const ticketId = pick(tickets);
      const before = await everything();
      const id = randomUUID();
      await addTicketEntries(store, ticketId, [{ id, at: (at += 1000), kind: 'good', step: 'trim', count: 1 }]);
      await addTicketEntries(store, ticketId, [{ id: randomUUID(), at: (at += 1000), kind: 'undo', target: id }]);
      expect(await everything()).toBe(before);
    },
    sell: async () => {
      const id = randomUUID();
      const line = {
        productId: product.id as string,
        grade: pick(['good', 'second'] as const),
        pieces: whole(1, 4),
        priceMinor: whole(0, 900),
      };
      await moveGoods(store, {
        id,
        what: pick(['sold', 'given', 'returned', 'counted', 'scrapped'] as const),
        on: on(),
        orderId: null,
        party: 'Stall',
        note: '',
        lines: [line],
      });
      sold.push(id);
    },
    'take back a sale': async () => {
      if (sold.length > 0) await strikeGoods(store, pick(sold));
    },
  };
  const names = Object.keys(events);
  // A bench says less than a year's shelf: the log of a ticket is some hundred taps long, not thousands.
  const OFTEN: Record<string, number> = { trim: 2, undo: 1, 'undo at once': 1, 'take back a sale': 3 };
  const drawn = names.flatMap((name) => Array<string>(OFTEN[name] ?? 5).fill(name));
  for (let nth = 1; nth <= EVENTS; nth++) {
    const what = pick(drawn);
    await tries(what, events[what]!);
    if (nth % EVERY === 0) await holdsAll();
  }
  // Nothing of it was only ever refused.
  for (const what of names) expect([what, (done[what] ?? 0) > EVENTS / 250]).toEqual([what, true]);
  console.info(`done ${JSON.stringify(done)}, refused ${JSON.stringify(refused)}`);
}, 900_000);
