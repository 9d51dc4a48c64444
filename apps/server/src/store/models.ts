import type { TicketPlan } from '@schmelz/contract';
import type { PourPlanned, PourSetup, RouteStep, RunKindId, Source } from '@schmelz/core';
import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';

/** Rows as they lie in the tables; JSON columns are parsed. */
export interface MaterialRow {
  id: string;
  kind: string;
  name: string;
  note: string;
  metalId: string | null;
  composition: Record<string, unknown> | null;
  hook: Record<string, unknown> | null;
  powder: Record<string, unknown> | null;
  /** The heat it stands, C; null where nobody has said. */
  limitC: number | null;
  /** By the fields of its kind. */
  details: Record<string, number> | null;
  version: number;
}
export interface MoveRow {
  id?: number;
  at: number;
  materialId: string;
  reason: string;
  quantity: number;
  valueMinor: number;
  ticketId: string | null;
  lot: string;
}
export interface OrderRow {
  id: string;
  number: number;
  customer: string;
  dueOn: string | null;
  note: string;
  status: 'open' | 'released' | 'done';
  createdAt: number;
  version: number;
}
export interface TicketRow {
  id: string;
  number: number;
  orderId: string;
  productId: string;
  quantity: number;
  route: RouteStep[];
  source: Source;
  fromId: string | null;
  becomesId: string | null;
  planned: TicketPlan;
  createdAt: number;
  closedAt: number | null;
  version: number;
}
export interface PourRow {
  id: string;
  number: number;
  /** The mold that is poured first; all of them stand in pourMolds. */
  moldId: string;
  potId: string;
  leadId: string;
  startedAt: number;
  closedAt: number | null;
  setup: PourSetup;
  planned: PourPlanned;
  chargedKg: number;
  shots: number;
  version: number;
}
export interface PourMoldRow {
  pourId: string;
  moldId: string;
  shots: number;
  blanks: number;
  shotsSinceSmoked: number | null;
}
export interface PourTicketRow {
  pourId: string;
  ticketId: string;
  good: number;
  secondGrade: number;
  rejects: number;
  hooksLost: number;
  workS: number;
  energyKWh: number;
  drossKg: number;
  unexplainedKg: number;
}
export interface PourCavityRow {
  pourId: string;
  cavityId: string;
  good: number;
  rejects: Record<string, number>;
  casts: number;
}
export interface EntryRow {
  seq?: number;
  id: string;
  /** What the log belongs to: a pour, a ticket, a load of the oven. */
  logKind: string;
  logId: string;
  kind: string;
  at: number;
  body: Record<string, unknown>;
}
export interface RunRow {
  id: string;
  kind: RunKindId;
  number: number;
  startedAt: number;
  closedAt: number | null;
  version: number;
}
export interface RunTicketRow {
  runId: string;
  ticketId: string;
  step: string;
  heads: number;
}
/** So much of a movement came from a receipt; negative: it went back to it. */
export interface LotUseRow {
  moveId: number;
  receiptId: number;
  quantity: number;
}
export interface LotRow {
  id: string;
  materialId: string;
  label: string;
  source: string;
  on: string;
  grossKg: number;
  priceMinor: number;
  brinell: number | null;
  note: string;
  cleanKg: number | null;
  cleanedOn: string | null;
  ingots: number;
  version: number;
}
export interface RecordRow {
  id: string;
  kind: string;
  thingId: string;
  at: number;
  body: Record<string, unknown>;
  struck: boolean;
}
export interface ChannelRow {
  id?: number;
  source: string;
  name: string;
  place: string;
}
export interface TailRow {
  channelId: number;
  at: number;
  tenths: number;
}
export interface BlockRow {
  id?: number;
  channelId: number;
  fromAt: number;
  toAt: number;
  count: number;
  low: number;
  high: number;
  sum: number;
  data: Buffer;
}
export type PlainRow = Record<string, unknown> & { id: string; version: number };

type Table<Row extends object> = ModelStatic<Model<Row, Row>>;

const { STRING, INTEGER, DOUBLE, BOOLEAN } = DataTypes;
// Sequelize writes into what it is given, so every column gets an object of its own.
const id = () => ({ type: STRING, primaryKey: true });
const serial = () => ({ type: INTEGER, primaryKey: true, autoIncrement: true });
const place = () => ({ type: INTEGER, primaryKey: true });
const json = () => ({ type: DataTypes.JSON });

const TABLES = {
  settings: { id: { type: INTEGER, primaryKey: true }, body: json(), version: INTEGER },
  materials: {
    id: id(),
    kind: STRING,
    name: STRING,
    note: STRING,
    metalId: STRING,
    composition: json(),
    hook: json(),
    powder: json(),
    limitC: DOUBLE,
    details: json(),
    version: INTEGER,
  },
  molds: {
    id: id(),
    name: STRING,
    bodyKg: DOUBLE,
    metal: STRING,
    sootSchool: STRING,
    warmSchool: STRING,
    learned: json(),
    version: INTEGER,
  },
  cavities: {
    id: id(),
    moldId: STRING,
    position: INTEGER,
    style: STRING,
    nominalMassKg: DOUBLE,
    hookSize: STRING,
    eyeAngleDeg: DOUBLE,
    condition: STRING,
    bend: STRING,
    wire: STRING,
    pin: json(),
    keeper: BOOLEAN,
    openBelow: BOOLEAN,
    variants: json(),
  },
  pots: {
    id: id(),
    name: STRING,
    capacityKg: DOUBLE,
    powerW: DOUBLE,
    lossWPerK: DOUBLE,
    learned: json(),
    version: INTEGER,
  },
  parts: { id: id(), name: STRING, kind: STRING, diameterM: DOUBLE, owned: INTEGER, places: json(), version: INTEGER },
  leadLots: {
    id: id(),
    materialId: STRING,
    label: STRING,
    source: STRING,
    on: STRING,
    grossKg: DOUBLE,
    priceMinor: INTEGER,
    brinell: DOUBLE,
    note: STRING,
    cleanKg: DOUBLE,
    cleanedOn: STRING,
    ingots: INTEGER,
    version: INTEGER,
  },
  records: { id: id(), kind: STRING, thingId: STRING, at: INTEGER, body: json(), struck: BOOLEAN },
  channels: { id: serial(), source: STRING, name: STRING, place: STRING },
  readingTail: { channelId: place(), at: { type: INTEGER, primaryKey: true }, tenths: INTEGER },
  readingBlocks: {
    id: serial(),
    channelId: INTEGER,
    fromAt: INTEGER,
    toAt: INTEGER,
    count: INTEGER,
    low: INTEGER,
    high: INTEGER,
    sum: INTEGER,
    data: DataTypes.BLOB,
  },
  ovens: {
    id: id(),
    name: STRING,
    places: INTEGER,
    powerW: DOUBLE,
    lagS: DOUBLE,
    racks: json(),
    learned: json(),
    version: INTEGER,
  },
  recipes: { id: id(), name: STRING, eyeColour: STRING, version: INTEGER },
  recipeLayers: { recipeId: id(), position: place(), powderId: STRING, zone: STRING, coats: INTEGER, mix: json() },
  bakePrograms: {
    id: id(),
    name: STRING,
    setC: DOUBLE,
    seconds: INTEGER,
    preheated: BOOLEAN,
    from: { type: STRING, defaultValue: 'door' },
    version: INTEGER,
  },
  products: {
    id: id(),
    name: STRING,
    style: STRING,
    nominalMassKg: DOUBLE,
    hookId: STRING,
    recipeId: STRING,
    bakeProgramId: STRING,
    ways: json(),
    route: json(),
    parts: json(),
    fromId: STRING,
    becomesId: STRING,
    priceMinor: INTEGER,
    version: INTEGER,
  },
  orders: {
    id: id(),
    number: INTEGER,
    customer: STRING,
    dueOn: STRING,
    note: STRING,
    status: STRING,
    createdAt: INTEGER,
    version: INTEGER,
  },
  orderLines: { orderId: id(), position: place(), productId: STRING, quantity: INTEGER },
  tickets: {
    id: id(),
    number: INTEGER,
    orderId: STRING,
    productId: STRING,
    quantity: INTEGER,
    route: json(),
    source: STRING,
    fromId: STRING,
    becomesId: STRING,
    planned: json(),
    createdAt: INTEGER,
    closedAt: INTEGER,
    version: INTEGER,
  },
  pours: {
    id: id(),
    number: INTEGER,
    moldId: STRING,
    potId: STRING,
    leadId: STRING,
    startedAt: INTEGER,
    closedAt: INTEGER,
    setup: json(),
    planned: json(),
    chargedKg: DOUBLE,
    shots: INTEGER,
    version: INTEGER,
  },
  pourMolds: { pourId: id(), moldId: id(), shots: INTEGER, blanks: INTEGER, shotsSinceSmoked: INTEGER },
  pourTickets: {
    pourId: id(),
    ticketId: id(),
    good: INTEGER,
    secondGrade: INTEGER,
    rejects: INTEGER,
    hooksLost: INTEGER,
    workS: DOUBLE,
    energyKWh: DOUBLE,
    drossKg: DOUBLE,
    unexplainedKg: DOUBLE,
  },
  pourCavities: { pourId: id(), cavityId: id(), good: INTEGER, rejects: json(), casts: INTEGER },
  entries: {
    seq: serial(),
    id: { type: STRING, unique: true },
    logKind: STRING,
    logId: STRING,
    kind: STRING,
    at: INTEGER,
    body: json(),
  },
  runs: { id: id(), kind: STRING, number: INTEGER, startedAt: INTEGER, closedAt: INTEGER, version: INTEGER },
  runTickets: { runId: id(), ticketId: id(), step: id(), heads: INTEGER },
  lotUses: { moveId: place(), receiptId: place(), quantity: DOUBLE },
  stockMoves: {
    id: serial(),
    at: INTEGER,
    materialId: STRING,
    reason: STRING,
    quantity: DOUBLE,
    valueMinor: INTEGER,
    ticketId: STRING,
    lot: STRING,
  },
} satisfies Record<string, ModelAttributes>;

export type TableName = keyof typeof TABLES;

export interface Models {
  settings: Table<{ id: number; body: Record<string, unknown>; version: number }>;
  materials: Table<MaterialRow>;
  molds: Table<PlainRow>;
  cavities: Table<Record<string, unknown> & { id: string; moldId: string; position: number }>;
  pots: Table<PlainRow>;
  ovens: Table<PlainRow>;
  parts: Table<PlainRow>;
  leadLots: Table<LotRow>;
  records: Table<RecordRow>;
  channels: Table<ChannelRow>;
  readingTail: Table<TailRow>;
  readingBlocks: Table<BlockRow>;
  recipes: Table<PlainRow>;
  recipeLayers: Table<Record<string, unknown> & { recipeId: string; position: number }>;
  bakePrograms: Table<PlainRow>;
  products: Table<PlainRow>;
  orders: Table<OrderRow>;
  orderLines: Table<{ orderId: string; position: number; productId: string; quantity: number }>;
  tickets: Table<TicketRow>;
  pours: Table<PourRow>;
  pourMolds: Table<PourMoldRow>;
  pourTickets: Table<PourTicketRow>;
  pourCavities: Table<PourCavityRow>;
  entries: Table<EntryRow>;
  runs: Table<RunRow>;
  runTickets: Table<RunTicketRow>;
  lotUses: Table<LotUseRow>;
  stockMoves: Table<MoveRow>;
}

/** Sequelize models over the tables that the migrations made; nothing is ever synced from here. */
export function defineModels(sequelize: Sequelize): Models {
  const models = Object.entries(TABLES).map(([name, attributes]) => [
    name,
    sequelize.define(name, attributes as ModelAttributes, { tableName: name, timestamps: false }),
  ]);
  return Object.fromEntries(models) as Models;
}
