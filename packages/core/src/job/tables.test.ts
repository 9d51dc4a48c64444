import { bakedHead } from '../plan/product.ts';
import { planOrder } from '../plan/plan.ts';
import { product, workshop } from '../test/workshop.ts';
import { knownBill, knownProduct } from '../workshop/product.ts';
import type { Shelf } from '../workshop/records.ts';
import { nextThing } from '../line/next.ts';
import { PART_KINDS, partKind, type PartKind } from './part-kinds.ts';
import { ticketPostings } from './postings.ts';
import type { RouteStep } from './route.ts';
import { STATIONS, stationOf, stepStations, type Station } from './stations.ts';
import { ticketState } from './ticket.ts';
import type { TicketEntry } from './ticket-log.ts';

/** What docs/adding-to-the-tables.md promises: a kind, a station and a step are a row each, and no other file. */
const tying: Station = {
  id: 'tie',
  name: 'Tie',
  verb: 'to tie',
  doing: 'tying',
  counts: true,
  causes: [{ id: 'thread slipped', goes: 'back to step' }],
  cautions: ['Head cement: air the room.'],
  before: 'baked',
  after: 'baked',
  says: { left: 'Left to tie', good: 'Tied', all: 'All the rest are tied', begin: 'Start tying' },
};
const sequin: PartKind = {
  id: 'sequin',
  name: 'sequin',
  many: 'sequins',
  unit: 'pieces',
  comesBack: false,
  costs: 'parts',
  lowAt: 100,
  fields: [{ name: 'diameterM', label: 'Diameter', unit: 'm', low: 0.001, high: 0.02 }],
  sign: 'dot',
};
const sequins: RouteStep = {
  key: 'tie',
  station: 'tie',
  does: 'Tie the sequins in',
  wait: { name: 'dry', seconds: 900 },
};
const route: RouteStep[] = [
  ...['trim', 'paint', 'bake'].map((station): RouteStep => ({ key: station, station, does: station })),
  sequins,
  { key: 'finish', station: 'finish', does: 'Finish' },
];

beforeAll(() => {
  (STATIONS as Station[]).splice(-1, 0, tying);
  (PART_KINDS as unknown as PartKind[]).push(sequin);
});

describe('one row more in each table', () => {
  const bead = { id: 'gold', name: 'Gold sequins', kind: 'sequin' };
  const shelf: Shelf = {
    part: (id) => (id === bead.id ? bead : undefined),
    recipe: () => undefined,
    program: () => undefined,
  };
  const parts = [{ partId: bead.id, quantity: 3, waste: 0.1, step: 'tie' }];
  const record = {
    ...{ id: 'p', name: 'Sequin ball', style: 'ball' as const, nominalMassKg: 0.01, hookId: null },
    ...{ recipeId: null, bakeProgramId: null, route, parts },
  };

  test('the bill, the plan and its minutes, the state, the stock and the next thing know them', () => {
    expect(stepStations().map(({ id }) => id)).toEqual(['trim', 'paint', 'bake', 'tie', 'finish']);
    expect(stationOf('tie').causes[0]!.goes).toBe('back to step');
    expect(partKind('sequin').costs).toBe('parts');
    const known = knownProduct(record, shelf);
    const bill = knownBill(known, workshop().ways);
    expect(bill).toMatchObject([{ partId: 'gold', kind: 'sequin', quantity: 3, step: 'tie' }]);
    expect(bakedHead(known)).toBeNull();

    const plain = product(10);
    const tied = { ...plain, steps: undefined, parts: known.parts! };
    const withStep = { ...tied, steps: known.steps!.map((step) => ({ ...step, layers: [], bake: null })) };
    const gold = { materialId: 'gold', name: 'Gold sequins', kind: 'sequin', quantity: 500, priceMinor: 2 };
    const input = { ...workshop(), stock: [...workshop().stock, gold] };
    const plan = planOrder({ ...input, lines: [{ product: withStep, quantity: 12 }] });
    expect(JSON.stringify(plan.needs)).toMatch(/Gold sequins/);
    expect(plan.lines[0]!.stack.parts).toBeCloseTo(3 * 1.1 * 2, 6);
    expect(JSON.stringify(plan)).toMatch(/Tie the sequins in/);

    const setup = { route, source: 'pour' as const, poured: 12, pourClosed: true };
    const at = (step: string, count: number, time: number): TicketEntry => ({
      id: `${step} ${time}`,
      at: time,
      kind: 'good',
      step,
      count,
    });
    const log = ['trim', 'paint'].map((step, i) => at(step, 12, 1000 * (i + 1)));
    const load = {
      id: 'l',
      at: 3000,
      kind: 'load' as const,
      step: 'bake',
      count: 12,
      setC: 177,
      seconds: 60,
      preheated: true,
    };
    const out = { id: 'u', at: 70_000, kind: 'unload' as const };
    const all = [...log, load, out, at('bake', 12, 71_000), at('tie', 4, 72_000)] as TicketEntry[];
    const state = ticketState(setup, all);
    expect(state.steps.map(({ key, left }) => [key, left])).toEqual([
      ['trim', 0],
      ['paint', 0],
      ['bake', 0],
      ['tie', 8],
      ['finish', 4],
    ]);
    const use = { bill, leadKgPerHead: 0.01, cast: null, source: 'pour' as const, sourceId: null, becomesId: null };
    expect(ticketPostings({ ...use, state })).toContainEqual({
      materialId: 'gold',
      reason: 'used',
      // Whole pieces: what breaks is counted when it breaks.
      quantity: -4 * 3,
    });
    const ticket = { id: 't', number: 1, dueOn: null, quantity: 12, poured: 12, toCast: 0, state };
    expect(nextThing([ticket], null, [], 72_001)).toMatchObject({
      what: 'step',
      station: 'tie',
      step: 'tie',
      count: 8,
    });
  });
});
