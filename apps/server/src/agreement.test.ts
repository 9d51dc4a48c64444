import type { Pour, PourAhead, Ticket } from '@schmelz/contract';
import {
  castsOfTonight,
  needsTonight,
  pourCasts,
  solveWith,
  wholeCasts,
  type Plan,
  type SolveLp,
  type TonightAsked,
  type TonightWishes,
} from '@schmelz/core';
import loadHighs from 'highs';
import { seeded } from '@schmelz/core';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// One order, asked of everybody: its plan, the released ticket, the desk, the pot, Tonight and what is bought say the
// same of casts, what is laid out, hooks, metal and minutes, and the same as sums of this test's own.

const SEED = Number(process.env['SCHMELZ_SEED'] ?? 20261202);
/** Workshops, and orders in each: 30 here, 300 by `SCHMELZ_ORDERS=10`. */
const WORKSHOPS = 3;
const ORDERS = Number(process.env['SCHMELZ_ORDERS'] ?? 1) * 10;

let solve: SolveLp;
beforeAll(async () => {
  solve = solveWith(await loadHighs(), { gap: 0, limitS: 60 });
});

const GRAMS = [7, 10, 14] as const;

/** What nobody has kept records of: 94 in 100 are good at the pot, 97 in 100 come through what follows. */
const POT = { mean: 0.94, sure: 1 / (1 / 41 + (40 / 41) * 0.03) - 1 };
const expectedOf = (toCast: number) => (toCast * (POT.sure - 1)) / (POT.mean * POT.sure - 1);
const toCastOf = (heads: number) => (heads === 1 ? 1 : Math.ceil(heads / 0.97 - 1e-9));

async function workshop(server: TestServer, whole: (low: number, high: number) => number) {
  const things = await smallWorkshop(server);
  const make = async (path: string, body: unknown) => {
    const made = await server.call('POST', `/api/${path}`, body);
    if (made.status !== 201) throw new Error(`${path}: ${JSON.stringify(made.body)}`);
    return made.body.id as string;
  };
  const hookIds: Record<number, string> = { 10: things.hookIds[0]!, 14: things.hookIds[1]! };
  hookIds[7] = await make('materials', {
    ...{ kind: 'hook', name: 'Hook 1/0', note: '', metalId: null, powder: null },
    hook: { size: '1/0', wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' },
  });
  await server.call('POST', `/api/materials/${hookIds[7]}/receipts`, {
    ...{ quantity: whole(5, 90), priceMinor: 900, on: '2026-01-05', lot: '' },
  });
  // Each head is cast by one mold of its own, so that nobody has anything to choose.
  await make('molds', {
    ...{ name: 'Small', bodyKg: 0.4 },
    cavities: Array.from({ length: whole(1, 5) }, (_, at) => ({
      ...{ position: at + 1, style: 'ball', nominalMassKg: 0.007, hookSize: '1/0', eyeAngleDeg: 60, condition: 'good' },
    })),
  });
  const swivel = await make('materials', {
    ...{ kind: 'swivel', name: 'Swivel', note: '', metalId: null, hook: null, powder: null },
  });
  await server.call('POST', `/api/materials/${swivel}/receipts`, {
    ...{ quantity: whole(5, 90), priceMinor: 500, on: '2026-01-05', lot: '' },
  });
  const products = await Promise.all(
    GRAMS.map((grams) =>
      make('products', {
        ...{ name: `Ball ${grams}`, style: 'ball', nominalMassKg: grams / 1000, hookId: hookIds[grams] },
        ...{ recipeId: things.recipeId, bakeProgramId: things.bakeProgramId, priceMinor: 150 },
        ...(grams === 14 ? { parts: [{ partId: swivel, quantity: 1, waste: 0, step: 'pour' }] } : {}),
      }),
    ),
  );
  return { ...things, hookIds, swivel, products };
}

const of = <T extends { materialId: string }>(all: readonly T[], id: string) =>
  all.find((each) => each.materialId === id)!;

test.each(Array.from({ length: WORKSHOPS }, (_, nth) => nth))(
  `workshop %d: ${ORDERS} orders, each asked of everybody (seed ${SEED})`,
  async (nth) => {
    const server = await testServer();
    const random = seeded(SEED + nth);
    const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
    const ask = async <T>(method: string, path: string, body?: unknown) => {
      const answer = await server.call(method, `/api${path}`, body);
      if (answer.status >= 300) throw new Error(`${method} ${path}: ${JSON.stringify(answer.body)}`);
      return answer.body as T;
    };
    const { products, hookIds, swivel, leadId, potId } = await workshop(server, whole);
    const molds = await ask<{ id: string; name: string }[]>('GET', '/molds');
    const moldOf = (at: number) => molds.find(({ name }) => name === (at === 0 ? 'Small' : 'Five'))!.id;

    for (let round = 0; round < ORDERS; round++) {
      const [at, heads] = [whole(0, 2), whole(1, 90)];
      const grams = GRAMS[at]!;
      const order = await ask<{ id: string }>('POST', '/orders', {
        ...{ customer: '', dueOn: null, note: '', lines: [{ productId: products[at], quantity: heads }] },
      });
      const hook = hookIds[grams]!;
      const tonight = async () => {
        const asked = await ask<TonightAsked>('GET', '/tonight');
        const leftOut = asked.wanted.filter(({ orderId }) => orderId !== order.id).map(({ id }) => id);
        const wishes: TonightWishes = { evenings: [], people: [], guns: 1, atOnce: 1, leftOut, pinned: {} };
        const plenty = { ...asked, hooksHere: {}, leadHereKg: 1e4 };
        const casts = castsOfTonight(plenty, wishes, solve);
        return { blank: casts.blanks[0]!, molds: casts.molds, needs: needsTonight(plenty, wishes, casts) };
      };

      const { plan } = await ask<{ plan: Plan }>('GET', `/orders/${order.id}/plan`);
      const before = await tonight();
      const [ticket] = (await ask<Ticket[]>('POST', `/orders/${order.id}/release`, {})) as [Ticket];
      const onLine = await ask<Ticket>('GET', `/tickets/${ticket.id}`);
      const after = await tonight();
      const asked = { moldIds: [moldOf(at)], atOnce: 1, potId, ticketIds: [ticket.id] };
      const desk = await ask<PourAhead>('POST', '/pours/prepare', asked);
      const { setup, plannedS, plannedChargeKg } = await ask<Pour>('POST', '/pours', asked);

      const [line] = plan.lines;
      const toCast = toCastOf(heads);
      const casts = wholeCasts(expectedOf(toCast));
      const said = `${heads} of ${grams} g`;

      // Good heads that the pot owes.
      expect([
        said,
        line!.coming,
        before.blank.heads,
        onLine.toCast,
        after.blank.heads,
        desk.tickets[0]!.toCast,
      ]).toEqual([said, ...Array<number>(5).fill(toCast)]);
      expect(Object.values(setup.needs)).toEqual([toCast]);
      // Casts that are expected.
      const expected = [before.blank.casts, after.blank.casts, desk.casts, desk.tickets[0]!.casts, pourCasts(setup)];
      expect([line!.casts.value, ticket.planned.casts, ...expected.map((each) => wholeCasts(each.expected))]).toEqual(
        Array<number>(7).fill(casts),
      );
      // Casts that are laid out for.
      const upTo = line!.casts.high;
      expect([ticket.planned.upTo, ...expected.map(({ provision }) => provision)]).toEqual(
        Array<number>(6).fill(upTo!),
      );
      expect(setup.hooksOut[hook]).toBeLessThanOrEqual(upTo!);
      // Shots.
      const shots = plan.molds[0]!.shots.value;
      expect([
        before.molds[0]!.shots,
        after.molds[0]!.shots,
        desk.molds[0]!.shots,
        setup.molds[0]!.plannedShots,
      ]).toEqual(Array<number>(4).fill(shots));
      // Hooks and what else is cast in: good heads, one in twenty of the rejects without it, and one load; at most
      // the casts.
      const load = plan.molds[0]!.uses.length;
      const pieces = Math.min(upTo!, Math.ceil(toCast + 0.05 * (upTo! - toCast) + load - 1e-9));
      for (const id of grams === 14 ? [hook, swivel] : [hook]) {
        expect([
          of(plan.needs, id).need.value,
          ...[before, after].map(({ needs }) => of(needs, id).need),
          of(desk.needs, id).need,
        ]).toEqual(Array<number>(4).fill(pieces));
        const here = of(plan.needs, id).have;
        expect([of(plan.needs, id).missing, of(before.needs, id).missing, of(desk.needs, id).missing]).toEqual(
          Array<number>(3).fill(Math.max(0, pieces - here)),
        );
        expect(setup.hooksOut[id]).toBe(Math.min(upTo!, here));
      }
      // Metal, kg: what must be there, and what is charged at once.
      const leadKg = of(plan.needs, leadId).need.value;
      for (const { needs } of [before, after, desk]) {
        expect(Math.abs(of(needs, leadId).need / leadKg - 1)).toBeLessThan(0.01);
      }
      expect(plannedChargeKg).toBeCloseTo(Math.min(9, plan.charge.value), 9);
      expect(desk.chargeKg).toBeCloseTo(plannedChargeKg, 12);
      // Minutes at the pot: melting, then 25 s a blank shot and the shots.
      expect(desk.plannedS).toBeCloseTo(plannedS, 9);
      const potS = plan.minutes.find(({ station }) => station === 'pour')!.handsS.value;
      expect(Math.abs(plannedS - plan.melt.value - potS)).toBeLessThan(1);
      // Money stays with the ticket as it was planned.
      expect(ticket.planned.stack).toEqual(line!.stack);
    }
    await server.stop();
  },
  600_000,
);
