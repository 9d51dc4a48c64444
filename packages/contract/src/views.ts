import type {
  Casts,
  BakedHead,
  BillLine,
  FilledLine,
  GoodsReason,
  Grade,
  CostStack,
  DoorOpening,
  Plan,
  PourEntry,
  PourPlanned,
  PourSetup,
  RouteStep,
  RunEntry,
  RunKindId,
  Source,
  TicketActual,
  TicketEntry,
  TicketProduct,
  UndoEntry,
} from '@schmelz/core';
import type {
  CareRecord,
  DialRecord,
  HeatingRecord,
  LotInput,
  ProbePlace,
  SampleRecord,
  TrialRecord,
} from './schema/records.ts';
import type {
  BakeProgramInput,
  MaterialInput,
  MoldInput,
  OrderInput,
  OvenInput,
  PartInput,
  PotInput,
  ProductInput,
  RecipeInput,
  Settings,
} from './schema/workshop.ts';
import type { RuleInput, SupplierInput, ToolInput } from './schema/shop.ts';

/** Whether the server is up. */
export interface Health {
  status: 'ready';
  version: string;
}
/** A stretch of time, ms since 1970. */
export interface Period {
  from: number;
  to: number;
}

/** What the server sends: every stored thing with its id and the version that a write must name. */
export interface Stored {
  id: string;
  version: number;
}
export type SettingsView = Settings & {
  version: number;
  dataFolder: string;
  passwordSet: boolean;
  /** Sessions that are open; none where no password is set. */
  sessions: number;
};
export type Material = MaterialInput &
  Stored & {
    quantity: number;
    valueMinor: number;
    averageMinor: number | null;
    /** In the pot of an open pour, kg. */
    inPotKg: number;
  };
/** What was used of a part, week by week, oldest first: kg or pieces. */
export interface UsedWeekly {
  materialId: string;
  weekly: number[];
}
export interface StockMove {
  id: number;
  at: number;
  materialId: string;
  reason: string;
  quantity: number;
  valueMinor: number;
  ticketNumber: number | null;
  lot: string;
  /** It was struck out by a later movement, or is one that strikes out. */
  struck: boolean;
}
/** Finished heads of one product and grade on the shelf, by the tickets that made them, oldest first. */
export interface GoodsOnShelf {
  productId: string;
  grade: Grade;
  pieces: number;
  valueMinor: number;
  /** Those that go first. */
  lots: { ticketId: string | null; ticketNumber: number | null; at: number; pieces: number; valueMinor: number }[];
  /** How many tickets more there are heads of. */
  more: number;
  /** Good heads that orders still wait for. */
  wanted: number;
}
/** What came to the shelf of finished heads, or went. */
export interface GoodsMove {
  id: number;
  /** What was said in one go has one id; null for what a ticket made. */
  saidId: string | null;
  at: number;
  productId: string;
  grade: Grade;
  reason: GoodsReason;
  pieces: number;
  valueMinor: number;
  priceMinor: number | null;
  ticketNumber: number | null;
  orderNumber: number | null;
  party: string;
  note: string;
  struck: boolean;
}
/** How far an order is filled, and how many of each product lie on the shelf. */
export interface OrderGoods {
  lines: (FilledLine & { here: number; priceMinor: number | null })[];
  moves: GoodsMove[];
}
/** A delivery of a part: what is left of it, and where it went. */
export interface PartLot {
  /** Of the receipt. */
  id: number;
  at: number;
  lot: string;
  quantity: number;
  valueMinor: number;
  left: number;
  went: { reason: string; ticketId: string | null; ticketNumber: number | null; quantity: number }[];
}
export interface StockFlow {
  reason: string;
  quantity: number;
  valueMinor: number;
}
export type Cavity = MoldInput['cavities'][number] & {
  id: string;
  good: number;
  casts: number;
  /** Rejects by cause. */
  rejects: Record<string, number>;
  /** Shots of this cavity since it was smoked, and whether it ever was. */
  shotsSinceSmoked: number;
  everSmoked: boolean;
  /** Hooks that were tried in it, and whether it closes on them. */
  tried: Record<string, boolean>;
};
/** A dated note upon a thing; struck ones are kept and no longer count. */
export type Noted<R> = R & { id: string; struck: boolean };
export type Care = Noted<CareRecord>;
type Trial = Noted<TrialRecord>;
export type DialMark = Noted<DialRecord>;
export type Heating = Noted<HeatingRecord>;
export type Sample = Noted<SampleRecord>;
export type AnyNote = Care | Trial | DialMark | Heating | Sample;
/** Notes by their kind. */
export interface Notes {
  care: Care;
  trial: Trial;
  dial: DialMark;
  heating: Heating;
  sample: Sample;
}
/** A powder's jar: its last weighing, what went between weighings, and what has come and gone since the last. */
export interface JarView {
  materialId: string;
  last: { at: number; massKg: number } | null;
  /** kg gone by the scale, and kg of it on heads by the coverage formula. */
  intervals: { fromAt: number; toAt: number; usedKg: number; onHeadsKg: number }[];
  receivedKg: number;
  onHeadsKg: number;
}
export type Part = PartInput & Stored;
export type LeadLot = LotInput &
  Stored & {
    /** Null while it waits to be melted down. */
    cleanKg: number | null;
    cleanedOn: string | null;
    ingots: number;
    leftKg: number;
    went: { reason: string; kg: number }[];
  };
export interface Channel {
  id: number;
  name: string;
  place: ProbePlace;
  source: string;
  count: number;
  firstAt: number | null;
  lastAt: number | null;
  lastC: number | null;
}
export interface ReadingPoint {
  at: number;
  meanC: number;
  lowC: number;
  highC: number;
}
export interface ReadingsView {
  points: ReadingPoint[];
  count: number;
}
export interface LogImport {
  rows: number;
  empty: number;
  gaps: { fromAt: number; toAt: number }[];
  channels: { id: number; place: string; readings: number }[];
}
/** What one cavity gave in one pour while its mold was so warm, with what decided it. */
export interface CavityPour {
  cavityId: string;
  at: number;
  pourC: number;
  roomC: number;
  /** Mean of the block before the shots, by the model, within a few degrees. */
  moldC: number;
  shotsSinceSmoked: number;
  casts: number;
  shorts: number;
}
export type Mold = Omit<MoldInput, 'cavities'> &
  Stored & {
    cavities: Cavity[];
    shotsSinceSmoked: number;
    /** How much its evenings differ; see eveningSpread of core. */
    eveningSpread: number;
  };
export type Pot = PotInput & Stored;
export type Oven = OvenInput & Stored;
export type Recipe = RecipeInput & Stored;
export type BakeProgram = BakeProgramInput & Stored;
export type Product = ProductInput & Stored;
export type Supplier = SupplierInput & Stored;
export type Tool = ToolInput & Stored;
export type LocalRule = RuleInput & Stored;
type OrderStatus = 'open' | 'released' | 'done';
export type Order = OrderInput & Stored & { number: number; status: OrderStatus; createdAt: number };
/** An order on a list, with the heads that its closed tickets ended short of. */
export type OrderOnList = Order & {
  missing: number;
  /** Heads handed over, by product. */
  handed: Record<string, number>;
};

export interface Ticket extends Stored {
  number: number;
  orderId: string;
  customer: string;
  dueOn: string | null;
  productId: string;
  quantity: number;
  /** The product as it was looked up at the release: what it has become since is not done to these heads. */
  product: TicketProduct;
  /** The route it was released with. */
  route: RouteStep[];
  source: Source;
  /** The bare or used heads that it starts from, and those that its heads become. */
  fromId: string | null;
  becomesId: string | null;
  poured: number;
  /** Heads it is short of, and good ones to cast for it: see headsOwed of core. */
  missing: number;
  toCast: number;
  /** Heads thrown back at the pot, by cause; and those kept there as second grade. */
  pourCauses: Record<string, number>;
  pourKept: number;
  pourClosed: boolean;
  pourId: string | null;
  createdAt: number;
  log: (TicketEntry | UndoEntry)[];
  /** Runs that it shares in: loads of the oven, dip sessions, mixes of glue. */
  runs: RunView[];
  planned: TicketPlan;
  actual: TicketActual;
}
/** A ticket on a list: what it came to, without its logs. */
export interface TicketOnList {
  id: string;
  number: number;
  productId: string;
  quantity: number;
  closedAt: number | null;
  /** Heads that came out good at the end of its route. */
  good: number;
  totalMinor: number;
  /** Minor units a good head, to four places; null while there is none. */
  perHead: CostStack | null;
  /** Whether some of its minutes are by the ways, because nobody timed them; left out: all were timed. */
  notTimed?: boolean;
}
/** A load of the oven that has come out, as far as it was of one ticket. */
export interface BakeOnRecord {
  id: string;
  ticketNumber: number;
  productId: string;
  /** The head as the oven saw it then; null where nothing on it cured. */
  head: BakedHead | null;
  step: string;
  heads: number;
  setC: number;
  preheated: boolean;
  doors: DoorOpening[];
  loadedAt: number;
  unloadedAt: number;
}
/** What the plan said when the order was released. */
export interface TicketPlan {
  /** Casts that were expected. */
  casts: number;
  /** Casts that were laid out for; none in tickets of before, whose casts were these. */
  upTo?: number;
  /** Heads that were to come from the pot for it; none in tickets of before. */
  coming?: number;
  /** Which molds were to cast it; none in tickets of before, and of heads off the shelf. */
  molds?: { moldId: string; casts: number }[];
  yieldShare: number;
  stack: CostStack;
  /** What its cost lacked, because nobody knew a price of it; left out: nothing. */
  unpriced?: string[];
  workS: number;
  leadKgPerHead: number;
  /** What one head takes and where, hook, powders and other parts, as it was then. */
  bill: BillLine[];
  /** Share of the powder that was reckoned to stay on. */
  transferEfficiency?: number;
  /** Rates of the day of release: what is closed later is reckoned with them. */
  labourMinorPerHour: number;
  energyMinorPerKWh: number;
  /** What a head's powder takes of a gun or a flame, minor units; none in tickets of before. */
  paintHeatMinor?: number;
  /** Seconds of hands a head by step, for heads that nobody timed. */
  handsS?: Record<string, number>;
  /** How the maker's hands differed from the ways in that, by step; left out: they did not. */
  pace?: Record<string, number>;
}
/** Something that was done for several tickets at once, with its log. */
export interface RunView extends Stored {
  kind: RunKindId;
  number: number;
  log: (RunEntry | UndoEntry)[];
}
export interface Pour extends Stored {
  number: number;
  potId: string;
  startedAt: number;
  closed: boolean;
  setup: PourSetup;
  plannedMeltS: number;
  plannedChargeKg: number;
  /** Melting, blank shots and shots, by the plan. */
  plannedS: number;
  /** What was known when it began: it is coached and shown again by that, whatever is set or learned since. */
  knownThen: Pick<
    PourPlanned,
    'pourC' | 'alloy' | 'potWay' | 'roomC' | 'potPowerW' | 'potLossWPerK' | 'potCrucibleJPerK' | 'blocks'
  >;
  log: (PourEntry | UndoEntry)[];
}
/** What a pour of some tickets would take, before anything is begun: the same that it goes by once it is. */
export interface PourAhead {
  casts: Casts;
  /** Of each ticket: good heads to cast, as far as pins are free, and casts for them. */
  tickets: { id: string; toCast: number; casts: Casts }[];
  /** Tickets that are not cast in it, and why; they wait for a pour of their own. */
  leftOut: { id: string; number: number; name: string; why: string }[];
  molds: { moldId: string; blanks: number; shots: number }[];
  /** What is cast in and the metal, against what is on the shelf. */
  needs: { materialId: string; name: string; kind: string; need: number; have: number; missing: number }[];
  /** Hooks that are bent first, how, and how long that takes. */
  bent: { materialId: string; name: string; says: string; seconds: number }[];
  /** Melting, blank shots and shots; and what is charged. */
  plannedS: number;
  chargeKg: number;
}
/** A pour on a list, without its log. */
export interface PourOnList {
  id: string;
  number: number;
  startedAt: number;
  closed: boolean;
  moldIds: string[];
}
export interface PlanView {
  plan: Plan;
}
export interface LineView {
  tickets: Ticket[];
  pours: Pour[];
  /** Those that still want looking after. */
  runs: RunView[];
}
/** A file of purchases: as it would be taken, or as it was. */
export interface ImportResult {
  /** Of the import that was made; null while it is only looked at. */
  id: string | null;
  rows: number;
  purchases: {
    line: number;
    material: string;
    kind: string;
    quantity: number;
    priceMinor: number;
    on: string;
    lot: string;
  }[];
  /** When the same contents were taken before, ms since 1970; null where they were not. */
  takenAt: number | null;
}

/** A file that was taken in. */
export interface ImportOnRecord {
  id: string;
  kind: 'receipts' | 'log' | 'evenings';
  name: string;
  at: number;
  entries: number;
  struck: boolean;
}

/** Things of the workshop by the path that they are under: as they are written, */
export interface ResourceInputs {
  materials: MaterialInput;
  molds: MoldInput;
  pots: PotInput;
  ovens: OvenInput;
  parts: PartInput;
  recipes: RecipeInput;
  'bake-programs': BakeProgramInput;
  products: ProductInput;
  orders: OrderInput;
  suppliers: SupplierInput;
  tools: ToolInput;
  rules: RuleInput;
}
/** read one by one, */
export interface ResourceReads {
  materials: MaterialInput & Stored;
  molds: Omit<MoldInput, 'cavities'> & Stored & { cavities: (MoldInput['cavities'][number] & { id: string })[] };
  pots: Pot;
  ovens: Oven;
  parts: Part;
  recipes: Recipe;
  'bake-programs': BakeProgram;
  products: Product;
  orders: Order;
  suppliers: Supplier;
  tools: Tool;
  rules: LocalRule;
}
/** and listed, with what is known of them beside what was written. */
export type ResourceLists = Omit<ResourceReads, 'materials' | 'molds' | 'orders'> & {
  materials: Material;
  molds: Mold;
  orders: OrderOnList;
};
