import type {
  BakeOnRecord,
  LotSource,
  MaterialInput,
  ResourceInputs,
  ResourcePath,
  Settings,
  Stored,
  TicketOnList,
  TicketPlan,
} from '@schmelz/contract';
import type {
  DispositionId,
  GoodsReason,
  Grade,
  Hands,
  HandsByWho,
  HeldUp,
  PaceRecord,
  PlanHeld,
  PourPlanned,
  PourSetup,
  RouteStep,
  RunKindId,
  Source,
  TicketProduct,
} from '@schmelz/core';

/** Rows as they lie in the tables; JSON columns are parsed. */
export interface SettingsRow {
  id: number;
  body: Settings;
  version: number;
}
export type MaterialRow = MaterialInput & Stored;
/** What is listed, made and changed as it was written; lists inside it lie in tables of their own. */
export type ThingRow<P extends ResourcePath> = Omit<ResourceInputs[P], 'cavities' | 'layers' | 'lines'> & Stored;
export type CavityRow = ResourceInputs['molds']['cavities'][number] & { id: string; moldId: string };
export type LayerRow = ResourceInputs['recipes']['layers'][number] & { recipeId: string; position: number };
export interface MoveRow {
  id?: number;
  at: number;
  materialId: string;
  reason: string;
  quantity: number;
  valueMinor: number;
  /** The same before it was rounded; null or left out: as it is. */
  exactMinor?: number | null;
  ticketId: string | null;
  lot: string;
  /** The id that the device gave a purchase or a count. */
  saidId?: string | null;
  importId?: string | null;
  /** The movement that this one takes back. */
  strikes?: number | null;
  /** The purchase that this settles the shelf after. */
  settles?: number | null;
}
/** Finished heads that came to their shelf (more than 0) or went (fewer). */
export interface GoodsRow {
  id?: number;
  at: number;
  productId: string;
  grade: Grade;
  reason: GoodsReason;
  pieces: number;
  /** What they cost. */
  valueMinor: number;
  /** What was asked for them; less than 0: paid back. */
  priceMinor: number | null;
  ticketId: string | null;
  orderId: string | null;
  party: string;
  note: string;
  saidId: string | null;
  struck: boolean;
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
  /** As it was looked up at the release. */
  product: TicketProduct;
  route: RouteStep[];
  source: Source;
  fromId: string | null;
  becomesId: string | null;
  planned: TicketPlan;
  createdAt: number;
  closedAt: number | null;
  /** Good heads at its end; null while it is open, and in tickets of before. */
  good: number | null;
  /** Of the oven on the day it was closed, W; null while it is open. */
  ovenPowerW: number | null;
  version: number;
}
/** Heads thrown back at a station for one cause. */
export interface Thrown {
  station: string;
  cause: string;
  /** What became of them; left out at the pot, and in what was kept before it was asked. */
  goes?: DispositionId;
  heads: number;
}
/**
 * What a closed ticket came to, and heads that came to each station (to the pour: all that were cast); gone as soon as
 * a row that it comes from changes.
 */
/** Heads of a ticket that went through somebody's hands at a station. */
export interface HandsAt extends Hands {
  station: string;
  who: string;
}
export interface TicketFiguresRow {
  ticketId: string;
  body: {
    /** Another one each time that it is folded; figures of before marks were written have none. */
    mark?: string;
    onList: TicketOnList;
    bakes: BakeOnRecord[];
    thrown: Thrown[];
    came: Record<string, number>;
    /** Whose hands its heads went through, where that was said. */
    hands?: HandsAt[];
    /** What the hands took at its steps, where all of it was timed. */
    pace?: PaceRecord[];
    /** Its plan against what it came to; null: no good head came of it. */
    held?: PlanHeld | null;
  };
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
  /** Casts by who poured them; null: nobody's name is on them. */
  hands: HandsByWho | null;
  /** What kept hands from it; null: a pour of before. */
  heldUp: HeldUp | null;
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
  causes: Record<string, number> | null;
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
/** A session that is open; its id is keyed with the password. */
export interface SessionRow {
  id: string;
  since: number;
  until: number;
}
/** A file that was taken in whole: purchases, or a logger's readings. */
export interface ImportRow {
  id: string;
  kind: 'receipts' | 'log' | 'evenings';
  name: string;
  at: number;
  digest: string;
  entries: number;
  struck: boolean;
}
/** What was cast on a day that was kept on paper. */
export interface PaperPourRow {
  id: string;
  at: number;
  /** What the paper calls it. */
  name: string;
  moldId: string | null;
  productId: string | null;
  /** All that was cast, bad ones among them; null: only the good ones were written down. */
  casts: number | null;
  good: number;
  seconds: number | null;
  note: string;
  importId: string;
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
  source: LotSource;
  on: string;
  grossKg: number;
  priceMinor: number;
  brinell: number | null;
  note: string;
  cleanKg: number | null;
  cleanedOn: string | null;
  ingots: number;
  struck?: boolean;
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
  struck?: boolean;
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
