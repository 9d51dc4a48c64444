import type { BakedHead } from '../bake/program.ts';
import type { KnownOven } from '../bake/known-oven.ts';
import type { FillCavity } from '../fill/fill-index.ts';
import { cavitySolid } from '../geometry/solid.ts';
import type { TicketSetup } from '../job/ticket.ts';
import { productAtRelease, type TicketProduct } from '../line/ticket-product.ts';
import { knownBlock } from '../mold/known-mold.ts';
import { allocate } from '../plan/allocate.ts';
import { planOrder } from '../plan/plan.ts';
import { preparePour } from '../plan/prepare-pour.ts';
import { metalRuns } from '../plan/metal-runs.ts';
import { timingOf } from '../plan/timing.ts';
import type { KnownWays, PlanOven } from '../plan/types.ts';
import type { DialPair } from '../pot/dial.ts';
import type { PourLog } from '../run/pour-log.ts';
import type { CastProblem } from '../plan/cast-model.ts';
import type { Task } from '../tonight/task.ts';
import type { TonightAsked, TonightWishes } from '../tonight/tonight.ts';
import { law } from './bake.ts';
import { cavity, product, workshop } from './workshop.ts';

/** What examples in docstrings speak of by name, beside the functions themselves. */
export const oven: KnownOven = {
  ...{ lagS: 200, offsetK: 0, swingK: 5, powerRiseK: 300, overshootK: 10, powerW: 1400, basis: 'given' },
};
export const head: BakedHead = {
  ...{ name: 'Ball', headLagS: 110, heatJK: 1.6, laws: [{ powder: 'White', law }], hook: 'Bronze', limitC: 190 },
};
export const load = { setC: 177, seconds: 1500, preheated: true };
/** An empty oven on its way to 177 C, read every half minute. */
export const ovenReadings = Array.from({ length: 120 }, (_, at) => ({
  at: 30_000 * at,
  celsius: 20 + 157 * (1 - Math.exp((-30 * at) / 200)),
}));
export const dart: FillCavity = { solid: cavitySolid('dart', 0.01), sprueHeightM: 0.008, wireM: 0.0011 };
export const smallMold = {
  ...{ id: 'mold', name: 'Five', bodyKg: 0.5, shotsSinceSmoked: 20 },
  cavities: [1, 2, 3, 4, 5].map((position) => cavity(position, 10)),
};
export const smallBlock = knownBlock(smallMold).block;
export const rack = { name: 'Bars', way: 'hanging' as const, bars: 4, barM: 0.36, clearM: 0.09 };
export const dialPairs: DialPair[] = [5, 7, 9].map((dial) => {
  return { dial, temperatureC: 232 + 20 * dial, at: 0, sdK: 3 };
});
export const planOven: PlanOven = { name: 'Oven', places: 60, powerW: 1400, lagS: 200 };
export const ways: KnownWays = workshop().ways;

/** The test workshop's order of 60 and 24, allotted and planned. */
export const order = workshop();
export const plan = planOrder(order);
export const allocations = allocate(order.lines, order.molds);
export const { kinds } = allocations[0]!;
export const runs = metalRuns(order.lines, order);
export const timing = timingOf(runs, order.lines, order);

/** The test workshop's ball as a ticket takes it on. */
export const kept: TicketProduct = productAtRelease(product(10), {});

/** Trim and paint, six heads from the pot. */
export const twoSteps: TicketSetup = {
  route: [
    { key: 'trim', station: 'trim', does: 'Trim' },
    { key: 'paint', station: 'paint', does: 'Paint' },
  ],
  ...{ source: 'pour', poured: 6, pourClosed: true },
};

/** A pour of the test workshop, charged, warmed and shot twice, a minute apart. */
export const pour = preparePour({ ...workshop(), atOnce: 1 });
export const twoShots: PourLog = [
  { id: 'c', at: 0, kind: 'charge', massKg: 2, potC: 20 },
  { id: 'b', at: 900_000, kind: 'blank', moldId: 'mold' },
  { id: 's1', at: 960_000, kind: 'shot', moldId: 'mold', positions: [1, 2, 3, 4, 5] },
  { id: 's2', at: 1_020_000, kind: 'shot', moldId: 'mold', positions: [1, 2, 3, 4, 5] },
];

/** Hooks by ten and by a hundred, and what sending them costs. */
export const sold = {
  suppliers: [{ name: 'Near', freightMinor: 400, freeAboveMinor: 5000, days: 2 }],
  offers: [
    { id: 'ten', materialId: 'hook', supplier: 'Near', pack: 10, prices: [{ fromPacks: 1, minor: 300 }] },
    { id: 'hundred', materialId: 'hook', supplier: 'Near', pack: 100, prices: [{ fromPacks: 1, minor: 2000 }] },
  ],
};

/** Twelve casts on a mold of three cavities that are alike. */
export const twelve: CastProblem = {
  blanks: [{ id: 'ball', name: 'Ball', casts: 12 }],
  molds: [{ id: 'mold', setupS: 540, shotS: 22, castS: 5 }],
  groups: [{ id: 'm1', moldId: 'mold', cavities: 3, casts: [{ blankId: 'ball', weight: 1 }] }],
  limits: [],
};
/** 60 heads wanted of the test workshop, on one evening of five hours. */
export const asked: TonightAsked = {
  wanted: [
    {
      ...{ id: 'w', name: 'Ball 10 g', customer: '', orderNumber: 1, ticketNumber: null, orderId: 'o', dueMs: null },
      ...{ product: product(10), heads: 60, toCast: 60, left: {} },
    },
  ],
  ...{ molds: order.molds, pot: order.pot, oven: order.oven, ways, hooksHere: {} },
  ...{ leadHereKg: 20, leadId: 'lead', stock: order.stock },
};
export const wishes: TonightWishes = {
  evenings: [{ fromMs: 0, toMs: 5 * 3_600_000 }],
  people: [{ name: 'One', can: null }],
  ...{ guns: 1, atOnce: 1, leftOut: [], pinned: {} },
};

/** One after the other: a pour, its paint, its bake. */
export const evening: Task[] = [
  { id: 'pour', station: 'pour', seconds: 3600, hands: true, holds: ['pot'], after: [] },
  { id: 'paint', station: 'paint', seconds: 1800, hands: true, holds: [], after: [{ task: 'pour', lagS: 0 }] },
  { id: 'bake', station: 'bake', seconds: 1500, hands: false, holds: ['oven'], after: [{ task: 'paint', lagS: 0 }] },
].map((task) => ({ ...task, name: task.id, works: ['w'], heads: 40 }));
export const alone = { people: [{ name: 'One', can: null }] };
