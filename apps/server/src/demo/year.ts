import { randomUUID } from 'node:crypto';
import { DEFAULT_WAYS, moldsCasting, seeded, type OvenEntry, type TicketEntry } from '@schmelz/core';
import { nextNumber, releaseOrder } from '../services/orders.ts';
import { addPourEntries, startPour } from '../services/pours.ts';
import { createResource } from '../services/resources.ts';
import { listPartLots } from '../services/part-lots.ts';
import { balances, count, receive } from '../services/stock.ts';
import { addRunEntries } from '../services/runs.ts';
import { readTicket } from '../services/ticket-figures.ts';
import { addTicketEntries } from '../services/tickets.ts';
import { readWorkshop, type Workshop } from '../services/workshop.ts';
import type { TicketRow } from '../store/models.ts';
import type { Store } from '../store/store.ts';
import { CUSTOMERS, PEOPLE, POWDERS, TRUE_STAYS_ON } from './catalogue.ts';
import { pourEvening, ticketDays, type Day } from './evening.ts';
import { makeGuardJig } from './finish.ts';
import { handOver } from './goods.ts';
import { fillDrawer, makeHeat, recordOven, recordProbes } from './heat.ts';
import type { Order } from '@schmelz/contract';
import type { Things } from './make-things.ts';

const HOUR_MS = 3600 * 1000;
const DAY_MS = 24 * HOUR_MS;
const DAYS = 365;
/** Orders a week by month, January first: quiet in winter, most before the spring and the autumn. */
const SEASON = [0.5, 0.9, 1.5, 1.9, 1.4, 0.9, 0.8, 1.1, 1.6, 1.7, 1.0, 0.6];
/** The month, counted back from the end, in which the oven's timer was set wrong. */
const UNDER_BAKED_DAYS = [110, 80] as const;

const isoDay = (at: number) => new Date(at).toISOString().slice(0, 10);

/** The second of the two takes his time. */
const SLOW: Readonly<Record<string, number>> = { [PEOPLE[0]]: 0.96, [PEOPLE[1]]: 1.06 };
/** What an evening makes of both of them: up to a fifth quicker or slower, mostly in the middle. */
const mood = (random: () => number) => 1 + 0.2 * ((random() + random() + random()) / 3 - 0.5) * 2;

/** One of the two pours, and what comes after is done by either; who is slow tonight is slow at everything. */
function whoseEvening(random: () => number, moods: () => number): Pick<Day, 'who' | 'slow'> {
  const [one, other] = PEOPLE;
  const who = { pours: random() < 0.6 ? one : other, finishes: random() < 0.5 ? one : other };
  const tonight = mood(moods);
  return { who, slow: { pours: tonight * SLOW[who.pours]!, finishes: tonight * SLOW[who.finishes]! } };
}

/** Runs the year: purchases when the shelf runs low, orders, pours, tickets, weighings, all through the services. */
export async function runYear(store: Store, things: Things, today: number, days = DAYS): Promise<void> {
  const random = seeded(9);
  const whose = seeded(14);
  const moods = seeded(16);
  const start = today - days * DAY_MS;
  await openingPurchases(store, things, start);
  await makeHeat(store, things, today, days);
  let weighed = start;
  for (let at = start + 6 * DAY_MS; at < today - 5 * DAY_MS;) {
    const season = SEASON[new Date(at).getUTCMonth()]!;
    const daysLeft = (today - at) / DAY_MS;
    const day: Day = {
      random,
      underBaked: daysLeft < UNDER_BAKED_DAYS[0] && daysLeft > UNDER_BAKED_DAYS[1],
      notAfter: today,
      drossShare: 0.012 + 0.012 * Math.max(0, 1 - daysLeft / 200),
      ...whoseEvening(whose, moods),
    };
    // Of late nobody has been to the shop: something is to be bought.
    if (daysLeft > NOT_BOUGHT_DAYS) await restock(store, things, at, random, daysLeft < WRONG_EYES_FROM_DAYS);
    await orderOf(store, things, at, { ...day, wrongEyes: await wrongEyesNow(store, things) }, {});
    if (at - weighed > 30 * DAY_MS) {
      weighed = await weigh(store, things, at, weighed, random);
    }
    at += ((7 * DAY_MS) / season) * (0.6 + random() * 0.8);
  }
  await fillDrawer(store);
  await tonight(store, things, today, random);
  await recordProbes(store, things);
  await recordOven(store, today);
}

/** What stands on the line when the demo is opened. */
async function tonight(store: Store, things: Things, today: number, random: () => number): Promise<void> {
  const day: Day = {
    random,
    underBaked: false,
    notAfter: today,
    drossShare: 0.024,
    ...whoseEvening(seeded(15), seeded(17)),
  };
  const waiting: [number, string | undefined][] = [
    [8, 'finish'],
    [5, 'bake'],
    [6, 'paint'],
    [4, 'trim'],
  ];
  for (const [index, [productAt, until]] of waiting.entries()) {
    const at = today - (4 - index) * DAY_MS;
    await orderOf(store, things, at, day, { lines: [[productAt, 36 + 12 * index]], until, customer: index % 3 });
  }
  await orderOf(store, things, today - DAY_MS, day, {
    lines: [
      [0, 60],
      [1, 24],
    ],
    customer: 0,
    stopAt: 'released',
  });
  await orderOf(store, things, today - DAY_MS / 2, day, { lines: [[8, 18]], customer: 2, stopAt: 'released' });
  await orderOf(store, things, today - 3600_000, day, {
    lines: [
      [2, 48],
      [9, 30],
    ],
    customer: 2,
    stopAt: 'open',
  });
  // Heads that wait for their guards.
  const guarded = things.productIds.push(await makeGuardJig(store, things, isoDay(today - 30 * DAY_MS))) - 1;
  await orderOf(store, things, today - 4 * DAY_MS, day, { lines: [[guarded, 24]], until: 'finish', customer: 1 });
}

interface OrderShape {
  lines?: [number, number][];
  customer?: number;
  until?: string;
  stopAt?: 'open' | 'released';
}

async function orderOf(store: Store, things: Things, at: number, day: Day, shape: OrderShape): Promise<void> {
  const { random } = day;
  const lines = shape.lines ?? randomLines(things, random);
  const order = await createResource(
    store,
    'orders',
    {
      customer: CUSTOMERS[shape.customer ?? Math.floor(random() * CUSTOMERS.length)]!,
      dueOn: isoDay(at + (6 + Math.floor(random() * 8)) * DAY_MS),
      note: '',
      lines: lines.map(([productAt, quantity]) => ({ productId: things.productIds[productAt]!, quantity })),
    },
    async (transaction) => ({
      number: await nextNumber(store, 'orders', 1, transaction),
      status: 'open',
      createdAt: at,
    }),
  );
  if (shape.stopAt === 'open') return;
  const tickets = await releaseOrder(store, order['id'] as string, at);
  if (shape.stopAt === 'released') return;
  let closedAt = 0;
  const workshop = await readWorkshop(store);
  let evening = at + DAY_MS + 18 * 3600_000 - (at % DAY_MS);
  const groups = [...byMold(tickets, workshop)];
  // Two molds are poured in turn, as far as they go round.
  for (let first = 0; first < groups.length; first += 2) {
    const pair = groups.slice(first, first + 2);
    await pourTickets(
      store,
      things,
      pair.map(([moldId]) => moldId),
      pair.flatMap(([, group]) => group),
      Math.min(evening, day.notAfter - 4 * HOUR_MS),
      day,
    );
    evening += 5400_000;
  }
  for (const { id } of tickets) {
    const ticket = await readTicket(store, id);
    const program = workshop.products.get(ticket.productId)!.bake;
    const run = program && { setC: program.setC, seconds: program.seconds, preheated: program.preheated };
    const parts = ticketDays(
      ticket,
      run,
      workshop.ovens[0]!.places,
      Math.min(evening + DAY_MS / 2, day.notAfter - 2 * HOUR_MS),
      day,
      shape.until,
    );
    for (const { of, entries } of parts) {
      if (entries.length === 0) continue;
      if (of === 'ticket') await addTicketEntries(store, id, entries as TicketEntry[]);
      else await addRunEntries(store, 'oven', randomUUID(), entries as OvenEntry[]);
      closedAt = Math.max(closedAt, entries.at(-1)!.at);
    }
  }
  if (!shape.until) await handOver(store, order as unknown as Order, closedAt, day.notAfter);
}

function randomLines(things: Things, random: () => number): [number, number][] {
  const first = Math.floor(random() * things.productIds.length);
  const quantity = () => 12 * (2 + Math.floor(random() * 6));
  if (random() < 0.45) return [[first, quantity()]];
  return [
    [first, quantity()],
    [(first + 1) % things.productIds.length, quantity()],
  ];
}

function byMold(tickets: TicketRow[], workshop: Workshop): Map<string, TicketRow[]> {
  const groups = new Map<string, TicketRow[]>();
  for (const ticket of tickets) {
    const product = workshop.products.get(ticket.productId)!;
    const [best] = moldsCasting(product, workshop.molds);
    if (!best) throw new Error(`no mold of the demo casts ${product.name}`);
    const { mold } = best;
    groups.set(mold.id, [...(groups.get(mold.id) ?? []), ticket]);
  }
  return groups;
}

async function pourTickets(
  store: Store,
  things: Things,
  moldIds: string[],
  tickets: TicketRow[],
  at: number,
  day: Day,
) {
  const ticketIds = tickets.map((ticket) => ticket.id);
  const pour = await startPour(store, { moldIds, atOnce: moldIds.length, potId: things.potId, ticketIds }, at);
  await addPourEntries(store, pour.id, pourEvening(pour, things.trueMolds, at, day));
}

async function openingPurchases(store: Store, things: Things, at: number): Promise<void> {
  const on = isoDay(at);
  await receive(store, things.leadId, { quantity: 40, priceMinor: 8400, on, lot: 'keel, first barrow' });
  for (const id of things.hookIds.values()) await receive(store, id, { quantity: 300, priceMinor: 4650, on, lot: '' });
  for (const { name } of POWDERS) {
    await receive(store, things.powderIds.get(name)!, { quantity: 0.225, priceMinor: 1390, on, lot: 'jar 1' });
  }
  const wrong = { quantity: 100, priceMinor: 1700, on: isoDay(at + 40 * DAY_MS), lot: 'eyes of 45°, 60° were ordered' };
  await receive(store, things.wrongHookId, wrong);
}

/** What the box of hooks with the wrong eyes is called: nothing tells it from others. */
export const WRONG_EYES = 'box of a thousand, shared';
/** From so many days before the end on a box with wrong eyes may come in. */
const WRONG_EYES_FROM_DAYS = 230;
const NOT_BOUGHT_DAYS = 14;

/** Hooks of which the oldest box with any left is the one with the wrong eyes. */
async function wrongEyesNow(store: Store, things: Things): Promise<ReadonlySet<string>> {
  const wrong = new Set<string>();
  for (const id of things.hookIds.values()) {
    const oldest = (await listPartLots(store, id)).filter(({ left }) => left > 0.5).at(-1);
    if (oldest?.lot === WRONG_EYES) wrong.add(id);
  }
  return wrong;
}

/** Buys what runs low; prices drift a little over the year. Once a box of hooks has eyes that nobody ordered. */
async function restock(
  store: Store,
  things: Things,
  at: number,
  random: () => number,
  wrongEyes = false,
): Promise<void> {
  const shelf = await balances(store);
  const have = (id: string) => shelf.get(id)?.quantity ?? 0;
  const on = isoDay(at);
  const price = (minor: number) => Math.round(minor * (0.92 + random() * 0.2));
  if (have(things.leadId) < 18) {
    await receive(store, things.leadId, { quantity: 25, priceMinor: price(6200), on, lot: `ingots ${on}` });
  }
  for (const id of things.hookIds.values()) {
    if (have(id) >= 140) continue;
    const known = wrongEyes ? await store.models.stockMoves.count({ where: { lot: WRONG_EYES } }) : 1;
    const lot = known === 0 ? WRONG_EYES : '';
    await receive(store, id, { quantity: 250, priceMinor: price(3900), on, lot });
  }
  for (const id of things.powderIds.values()) {
    if (have(id) < 0.04) await receive(store, id, { quantity: 0.225, priceMinor: price(1450), on, lot: `jar ${on}` });
  }
}

/**
 * Once a month everything soft is weighed, when the bench is quiet: lead to 10 g, jars to the gram. Says when it was.
 */
async function weigh(store: Store, things: Things, from: number, since: number, random: () => number): Promise<number> {
  const [latest] = await store.select<{ at: number }>('SELECT MAX(at) AS at FROM stockMoves');
  const at = Math.max(from, (latest?.at ?? 0) + 60_000);
  const shelf = await balances(store);
  const lead = shelf.get(things.leadId)!.quantity;
  const note = 'monthly weighing';
  await count(store, things.leadId, { quantity: Math.round((lead - 0.03 * random()) * 100) / 100, note }, at);
  const reckoned = await store.select<{ materialId: string; kg: number }>(
    `SELECT materialId, -SUM(quantity) AS kg FROM stockMoves WHERE reason = 'powder' AND at > :since GROUP BY materialId`,
    { since },
  );
  const { transferEfficiency } = DEFAULT_WAYS;
  for (const id of things.powderIds.values()) {
    const kg = shelf.get(id)?.quantity ?? 0;
    // More was shaken off than plans say.
    const moreKg =
      (reckoned.find((each) => each.materialId === id)?.kg ?? 0) * (transferEfficiency / TRUE_STAYS_ON - 1);
    const seen = Math.max(0, Math.round((kg - moreKg - 0.0008 * (random() - 0.5)) * 1000) / 1000);
    await count(store, id, { quantity: seen, note }, at);
  }
  return at;
}
