import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';
import type {
  CavityRow,
  LayerRow,
  MaterialRow,
  SettingsRow,
  ThingRow,
  GoodsRow,
  MoveRow,
  OrderRow,
  TicketFiguresRow,
  TicketRow,
  PourRow,
  PourMoldRow,
  PourTicketRow,
  PourCavityRow,
  EntryRow,
  RunRow,
  RunTicketRow,
  SessionRow,
  ImportRow,
  PaperPourRow,
  LotUseRow,
  LotRow,
  RecordRow,
  ChannelRow,
  TailRow,
  BlockRow,
} from './rows.ts';

export type * from './rows.ts';

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
    archived: BOOLEAN,
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
    archived: BOOLEAN,
    name: STRING,
    bodyKg: DOUBLE,
    barKg: DOUBLE,
    ownOpenS: DOUBLE,
    metal: STRING,
    sootSchool: STRING,
    warmSchool: STRING,
    keptFor: STRING,
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
    way: STRING,
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
    struck: BOOLEAN,
    version: INTEGER,
  },
  records: { id: id(), kind: STRING, thingId: STRING, at: INTEGER, body: json(), struck: BOOLEAN },
  channels: { id: serial(), source: STRING, name: STRING, place: STRING, struck: BOOLEAN },
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
    archived: BOOLEAN,
    name: STRING,
    style: STRING,
    nominalMassKg: DOUBLE,
    hookId: STRING,
    variant: STRING,
    metal: STRING,
    recipeId: STRING,
    bakeProgramId: STRING,
    ways: json(),
    route: json(),
    parts: json(),
    fromId: STRING,
    becomesId: STRING,
    keepHeads: INTEGER,
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
    product: json(),
    route: json(),
    source: STRING,
    fromId: STRING,
    becomesId: STRING,
    planned: json(),
    createdAt: INTEGER,
    closedAt: INTEGER,
    good: INTEGER,
    ovenPowerW: DOUBLE,
    version: INTEGER,
  },
  ticketFigures: { ticketId: id(), body: json() },
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
    hands: json(),
    heldUp: json(),
    version: INTEGER,
  },
  pourMolds: { pourId: id(), moldId: id(), shots: INTEGER, blanks: INTEGER, shotsSinceSmoked: INTEGER },
  pourTickets: {
    pourId: id(),
    ticketId: id(),
    good: INTEGER,
    secondGrade: INTEGER,
    rejects: INTEGER,
    causes: json(),
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
    exactMinor: DOUBLE,
    ticketId: STRING,
    lot: STRING,
    saidId: STRING,
    importId: STRING,
    strikes: INTEGER,
    settles: INTEGER,
  },
  goodsMoves: {
    id: serial(),
    at: INTEGER,
    productId: STRING,
    grade: STRING,
    reason: STRING,
    pieces: INTEGER,
    valueMinor: INTEGER,
    priceMinor: INTEGER,
    ticketId: STRING,
    orderId: STRING,
    party: STRING,
    note: STRING,
    saidId: STRING,
    struck: BOOLEAN,
  },
  suppliers: {
    id: id(),
    name: STRING,
    freightMinor: INTEGER,
    freeAboveMinor: INTEGER,
    days: INTEGER,
    note: STRING,
    offers: json(),
    version: INTEGER,
  },
  tools: {
    id: id(),
    name: STRING,
    priceMinor: INTEGER,
    boughtOn: STRING,
    lifeHeads: INTEGER,
    productIds: json(),
    note: STRING,
    version: INTEGER,
  },
  rules: {
    id: id(),
    where: STRING,
    fromKg: DOUBLE,
    belowKg: DOUBLE,
    noLead: BOOLEAN,
    note: STRING,
    version: INTEGER,
  },
  sessions: { id: id(), since: INTEGER, until: INTEGER },
  paperPours: {
    id: id(),
    at: INTEGER,
    name: STRING,
    moldId: STRING,
    productId: STRING,
    casts: INTEGER,
    good: INTEGER,
    seconds: INTEGER,
    note: STRING,
    importId: STRING,
  },
  imports: { id: id(), kind: STRING, name: STRING, at: INTEGER, digest: STRING, entries: INTEGER, struck: BOOLEAN },
} satisfies Record<string, ModelAttributes>;

export interface Models {
  settings: Table<SettingsRow>;
  materials: Table<MaterialRow>;
  molds: Table<ThingRow<'molds'>>;
  cavities: Table<CavityRow>;
  pots: Table<ThingRow<'pots'>>;
  ovens: Table<ThingRow<'ovens'>>;
  parts: Table<ThingRow<'parts'>>;
  suppliers: Table<ThingRow<'suppliers'>>;
  tools: Table<ThingRow<'tools'>>;
  rules: Table<ThingRow<'rules'>>;
  leadLots: Table<LotRow>;
  records: Table<RecordRow>;
  channels: Table<ChannelRow>;
  readingTail: Table<TailRow>;
  readingBlocks: Table<BlockRow>;
  recipes: Table<ThingRow<'recipes'>>;
  recipeLayers: Table<LayerRow>;
  bakePrograms: Table<ThingRow<'bake-programs'>>;
  products: Table<ThingRow<'products'>>;
  orders: Table<OrderRow>;
  orderLines: Table<{ orderId: string; position: number; productId: string; quantity: number }>;
  tickets: Table<TicketRow>;
  ticketFigures: Table<TicketFiguresRow>;
  pours: Table<PourRow>;
  pourMolds: Table<PourMoldRow>;
  pourTickets: Table<PourTicketRow>;
  pourCavities: Table<PourCavityRow>;
  entries: Table<EntryRow>;
  runs: Table<RunRow>;
  runTickets: Table<RunTicketRow>;
  lotUses: Table<LotUseRow>;
  stockMoves: Table<MoveRow>;
  goodsMoves: Table<GoodsRow>;
  sessions: Table<SessionRow>;
  imports: Table<ImportRow>;
  paperPours: Table<PaperPourRow>;
}

/** Sequelize models over the tables that the migrations made; nothing is ever synced from here. */
export function defineModels(sequelize: Sequelize): Models {
  const models = Object.entries(TABLES).map(([name, attributes]) => [
    name,
    sequelize.define(name, attributes as ModelAttributes, { tableName: name, timestamps: false }),
  ]);
  return Object.fromEntries(models) as Models;
}
