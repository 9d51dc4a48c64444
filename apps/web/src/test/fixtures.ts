import type {
  RunView,
  Care,
  CavityPour,
  Channel,
  DialMark,
  LeadLot,
  LineView,
  Material,
  Mold,
  Order,
  Part,
  Pour,
  Product,
  Recipe,
  SettingsView,
  Ticket,
} from '@schmelz/contract';
import { DEFAULT_SETTINGS, fillTable } from '@schmelz/contract';
import {
  COST_PARTS,
  knownProduct,
  productAtRelease,
  usualRoute,
  type CostStack,
  type Shelf,
  type TicketProduct,
} from '@schmelz/core';

/** A small invented workshop as the server would send it. */
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
export const ids = {
  lead: uuid(1),
  hook: uuid(2),
  white: uuid(3),
  orange: uuid(4),
  recipe: uuid(5),
  program: uuid(6),
  product: uuid(7),
  bare: uuid(8),
  mold: uuid(9),
  pot: uuid(10),
  oven: uuid(11),
  order: uuid(12),
  ticket: uuid(13),
  pour: uuid(14),
};

export const settings: SettingsView = {
  ...DEFAULT_SETTINGS,
  workshopName: 'Test shed',
  version: 1,
  dataFolder: '/data/test',
  passwordSet: false,
  sessions: 0,
};
const stocked = { version: 1, note: '', metalId: null, hook: null, powder: null, inPotKg: 0 };
export const materials = [
  {
    ...stocked,
    id: ids.lead,
    kind: 'lead',
    name: 'Keel lead',
    metalId: 'soft-lead',
    quantity: 12.5,
    valueMinor: 3125,
    averageMinor: 250,
  },
  {
    ...stocked,
    id: ids.hook,
    kind: 'hook',
    name: 'Hook 2/0',
    quantity: 40,
    valueMinor: 640,
    averageMinor: 16,
    hook: { size: '2/0', wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' },
    limitC: 175,
  },
  {
    ...stocked,
    id: ids.white,
    kind: 'powder',
    name: 'Gull white',
    quantity: 0.2,
    valueMinor: 1200,
    averageMinor: 6000,
    powder: {
      colour: '#ece7d8',
      gloss: 'gloss',
      specificGravity: 1.6,
      label: [
        { metalC: 177, seconds: 1200 },
        { metalC: 200, seconds: 600 },
      ],
    },
  },
  {
    ...stocked,
    id: ids.orange,
    kind: 'powder',
    name: 'Roe orange',
    quantity: 0.03,
    valueMinor: 180,
    averageMinor: 6000,
    powder: { colour: '#dd5f33', gloss: 'gloss', specificGravity: 1.5, label: [{ metalC: 177, seconds: 1200 }] },
  },
] as Material[];
export const recipes: Recipe[] = [
  {
    id: ids.recipe,
    version: 1,
    name: 'Roe on gull',
    eyeColour: null,
    layers: [
      { powderId: ids.white, zone: 'whole', coats: 1 },
      { powderId: ids.orange, zone: 'back', coats: 1 },
    ],
  },
];
export const programs = [
  { id: ids.program, version: 1, name: '177 °C for 28 min', setC: 177, seconds: 1680, preheated: true },
];
export const products: Product[] = [
  {
    id: ids.product,
    version: 1,
    name: 'Pebble 10 g, roe on gull',
    style: 'ball',
    nominalMassKg: 0.01,
    hookId: ids.hook,
    recipeId: ids.recipe,
    bakeProgramId: ids.program,
    priceMinor: 195,
  },
  {
    id: ids.bare,
    version: 1,
    name: 'Pebble 10 g, bare',
    style: 'ball',
    nominalMassKg: 0.01,
    hookId: ids.hook,
    recipeId: null,
    bakeProgramId: null,
    priceMinor: null,
  },
];
const cavity = (position: number, good: number, casts: number): Mold['cavities'][number] => ({
  id: uuid(100 + position),
  position,
  style: 'ball',
  nominalMassKg: 0.01,
  hookSize: '2/0',
  eyeAngleDeg: 60,
  condition: 'good',
  good,
  casts,
  rejects: casts > good ? { short: casts - good } : {},
  shotsSinceSmoked: 12,
  everSmoked: true,
  tried: {},
});
export const molds: Mold[] = [
  {
    id: ids.mold,
    version: 1,
    name: 'Three',
    bodyKg: 0.5,
    shotsSinceSmoked: 12,
    eveningSpread: 0.03,
    cavities: [cavity(1, 95, 100), cavity(2, 70, 100), cavity(3, 0, 0)],
  },
];
export const pots = [{ id: ids.pot, version: 1, name: 'Pot', capacityKg: 9, powerW: 700, lossWPerK: 0.55 }];
export const ovens = [{ id: ids.oven, version: 1, name: 'Oven', places: 60, powerW: 1400, lagS: 180 }];
export const order: Order = {
  id: ids.order,
  version: 1,
  number: 7,
  status: 'open',
  customer: 'Stall',
  dueOn: '2026-03-14',
  note: '',
  createdAt: 0,
  lines: [{ productId: ids.product, quantity: 12 }],
};

export const recordShelf: Shelf = {
  part: (id) => materials.find((each) => each.id === id),
  recipe: (id) => recipes.find((each) => each.id === id),
  program: (id) => programs.find((each) => each.id === id),
};
/** A product of this workshop as a ticket took it on, on a route. */
export const keptProduct = (productId: string, route: Ticket['route'], shelf = recordShelf): TicketProduct =>
  productAtRelease(knownProduct({ ...products.find(({ id }) => id === productId)!, route }, shelf), {});

const stack = Object.fromEntries(COST_PARTS.map((part, i) => [part, i + 1])) as CostStack;
const usual = usualRoute({ painted: true, baked: true });
export const ticket = (more: Partial<Ticket> = {}): Ticket => ({
  product: keptProduct(more.productId ?? ids.product, more.route ?? usual),
  id: ids.ticket,
  version: 1,
  number: 101,
  orderId: ids.order,
  customer: 'Stall',
  dueOn: '2026-03-14',
  productId: ids.product,
  quantity: 12,
  route: usual,
  source: 'pour',
  fromId: null,
  becomesId: null,
  poured: 12,
  missing: 0,
  toCast: 0,
  pourCauses: { short: 1 },
  pourKept: 0,
  pourClosed: true,
  pourId: ids.pour,
  createdAt: 0,
  log: [],
  runs: [],
  planned: {
    casts: 14,
    yieldShare: 0.94,
    stack,
    workS: 1200,
    leadKgPerHead: 0.01,
    bill: [
      { partId: ids.hook, name: 'Jig hook 2/0', kind: 'hook', quantity: 1, waste: 0, step: 'pour' },
      { partId: ids.white, name: 'Gull white', kind: 'powder', quantity: 1e-4, waste: 0, step: 'paint' },
    ],
    labourMinorPerHour: 1200,
    energyMinorPerKWh: 32,
  },
  actual: {
    materials: [{ materialId: ids.lead, name: 'Keel lead', kind: 'lead', quantity: 0.12, valueMinor: 30 }],
    workS: 1500,
    energyKWh: 0.4,
    cost: {
      parts: { lead: 30, hook: 192, powder: 8, parts: 0, packaging: 0, dross: 1, energy: 13, work: 500, wear: 0 },
      totalMinor: 744,
      perHead: null,
    },
  },
  ...more,
});
export const pour = (more: Partial<Pour> = {}): Pour => ({
  id: ids.pour,
  version: 1,
  number: 3,
  potId: ids.pot,
  startedAt: Date.UTC(2026, 2, 6, 18),
  closed: false,
  setup: {
    molds: [{ moldId: ids.mold, plannedBlanks: 2, plannedShots: 7, openS: 4, inspectS: 3, loadS: 8 }],
    atOnce: 1,
    loads: [1, 2].map((position) => ({
      moldId: ids.mold,
      inserts: [],
      hookKg: 0.001,
      position,
      cavityId: uuid(100 + position),
      ticketIds: [ids.ticket],
      hookMaterialId: ids.hook,
      leadKg: 0.01,
      sprueKg: 0.003,
      yieldShare: 0.94,
    })),
    needs: { [ids.ticket]: 12 },
    hooksOut: { [ids.hook]: 14 },
  },
  plannedMeltS: 300,
  knownThen: { pourC: 371, roomC: 20, potPowerW: 700, potLossWPerK: 0.55 },
  plannedChargeKg: 1.2,
  plannedS: 1500,
  log: [],
  ...more,
});

export const parts: Part[] = [
  {
    id: uuid(201),
    version: 1,
    name: 'Pins 1/8',
    kind: 'base-hole pin',
    diameterM: 0.003175,
    owned: 12,
    places: [{ where: 'in heads', count: 5 }],
  },
];
const lot = (more: Partial<LeadLot>): LeadLot => ({
  id: uuid(301),
  version: 1,
  materialId: ids.lead,
  label: 'Keel ends',
  source: 'scrap',
  on: '2026-02-01',
  grossKg: 10,
  priceMinor: 1000,
  brinell: 5,
  note: '',
  cleanKg: 8.5,
  cleanedOn: '2026-02-02',
  ingots: 18,
  leftKg: 3.5,
  went: [
    { reason: 'heads', kg: 5.1 },
    { reason: 'returned', kg: -0.1 },
  ],
  ...more,
});
export const lots: LeadLot[] = [
  lot({}),
  lot({
    id: uuid(302),
    label: 'Tyre bucket',
    source: 'tyre weights',
    cleanKg: null,
    cleanedOn: null,
    leftKg: 0,
    went: [],
  }),
];
const day = 86_400_000;
export const channels: Channel[] = [
  { id: 1, name: 'pot', place: 'pot', source: 'evening log', count: 900, firstAt: 0, lastAt: 3_600_000, lastC: 371 },
];
export const dialMarks: DialMark[] = [5, 7, 9].map((dial, i) => ({
  id: uuid(400 + i),
  struck: false,
  kind: 'dial',
  thingId: ids.pot,
  at: 30 * day,
  dial,
  temperatureC: 232 + 20 * dial,
  how: 'probe',
}));
export const care: Care[] = [
  { id: uuid(501), struck: false, kind: 'care', thingId: ids.mold, at: day, what: 'smoked', positions: [], note: '' },
];
export const fillRecords: CavityPour[] = molds[0]!.cavities.slice(0, 2).map(({ id, casts }, i) => ({
  cavityId: id,
  at: 0,
  pourC: 371,
  roomC: 20,
  moldC: 54,
  shotsSinceSmoked: 10,
  casts,
  shorts: i ? 30 : 2,
}));

/** Answers of a workshop without surprises, by `METHOD path`. */
export const answers = (more: Record<string, unknown> = {}): Record<string, unknown> => ({
  'GET /records/heating': [],
  'GET /settings': settings,
  'GET /materials': materials,
  'GET /molds': molds,
  'GET /pots': pots,
  'GET /ovens': ovens,
  'GET /parts': parts,
  'GET /lead-lots': lots,
  'GET /channels': channels,
  [`GET /records/dial?thing=${ids.pot}`]: dialMarks,
  [`GET /records/care?thing=${ids.mold}`]: care,
  [`GET /records/trial?thing=${ids.mold}`]: [],
  [`GET /molds/${ids.mold}/fill-records`]: fillTable(fillRecords),
  [`GET /molds/${ids.mold}/handling`]: { handled: [], blanks: null },
  [`GET /pours/whole?mold=${ids.mold}`]: [],
  'GET /suppliers': [],
  'GET /tools': [],
  'GET /rules': [],
  'GET /stock/use': [],
  'GET /recipes': recipes,
  'GET /bake-programs': programs,
  'GET /products': products,
  'GET /orders': [{ ...order, missing: 0, handed: {} }],
  [`GET /orders/${ids.order}`]: order,
  'GET /line': { tickets: [ticket()], pours: [], runs: [] } satisfies LineView,
  'GET /tickets': [],
  'GET /bakes': [],
  [`GET /tickets/${ids.ticket}`]: ticket(),
  // A list of them, or where a mold or a moment is asked for, whole ones: as each has what both need.
  'GET /pours': [{ ...pour(), moldIds: pour().setup.molds.map(({ moldId }) => moldId) }],
  [`GET /pours/${ids.pour}`]: pour(),
  ...more,
});

/** A load of the oven with heads of one ticket; entries after the first as they are given. */
export const ovenRun = (
  heads: { ticketId: string; count: number; step?: string },
  load: { id: string; at: number } & Record<string, unknown>,
  ...more: RunView['log']
): RunView => {
  const { ticketId, count, step = 'bake' } = heads;
  const usual = { kind: 'load', ovenId: null, setC: 177, seconds: 1680, preheated: true };
  const entry = { ...usual, heads: [{ ticketId, step, count }], ...load } as RunView['log'][number];
  return { id: `run of ${load.id}`, version: 1, kind: 'oven', number: 1, log: [entry, ...more] };
};
