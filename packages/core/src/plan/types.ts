import type { HookSize, Wire } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { BakeOutcome } from '../bake/outcome.ts';
import type { LabelPoint } from '../bake/cure-law.ts';
import type { BakeWay, OvenRecord } from '../bake/known-oven.ts';
import type { OvenRack } from '../bake/rack.ts';
import type { PotWay } from '../pot/way.ts';
import type { Basis, Figure } from '../quantity/figure.ts';
import type { Priced } from '../stock/price.ts';
import type { YieldTonight } from '../count/yield.ts';
import type { CupColour } from '../paint/colour-order.ts';
import type { PaintZone } from '../paint/coverage.ts';
import type { Evenings } from '../ways/evenings.ts';
import type { LearnedBlock } from '../mold/known-mold.ts';
import type { Pace } from '../ways/pace.ts';
import type { Schools } from '../ways/school.ts';
import type { MoldMetal } from '../mold/block.ts';
import type { WarmSchool } from '../mold/warm-plan.ts';
import type { BillLine } from '../job/bill.ts';
import { COST_PARTS, type CostPart } from '../job/part-kinds.ts';
import type { WinningBack } from '../job/cast-in.ts';
import type { RouteStep } from '../job/route.ts';
import type { Source } from '../job/ticket.ts';
import type { Bend } from '../seat/seat.ts';
import type { CavityVariant } from '../mold/variants.ts';
import type { CastMetal, MetalKind, MetalWanted } from '../metal/wanted.ts';

export interface PlanHook {
  materialId: string;
  name: string;
  size: HookSize;
  eyeAngleDeg: number;
  massKg: number;
  wire?: Wire;
  bend?: Bend;
  /** As measured; null or left out: what its size number stands for. */
  lengthM?: number | null;
  wireM?: number | null;
  /** The heat its plating stands, C; null or left out: not known. */
  limitC?: number | null;
}
/** A line of the bill with the heat that its part stands. */
export type PlanPart = BillLine & { limitC: number | null };
export interface PlanPowder {
  materialId: string;
  name: string;
  specificGravity: number;
  /** Six hexadecimal digits, and how it shines: what of it shows in another powder. */
  colour?: string;
  gloss?: CupColour['gloss'];
  /** Empty for liquid paint, which dries instead. */
  label: LabelPoint[];
  form?: 'powder' | 'liquid';
  /** Wait before the next coat, s, of liquid paint. */
  dryS?: number;
}
export interface PlanLayer {
  powder: PlanPowder;
  zone: PaintZone;
  coats: number;
  /** Shaken together with another powder: its share of the mixture. */
  mix?: { powder: PlanPowder; share: number } | null;
}
export interface PlanBake extends BakeWay {
  name: string;
}
/** A recipe as it was looked up: what it is called, and the eye that is put on last. */
export interface PlanRecipe {
  id: string;
  name: string;
  eyeColour: string | null;
}
/** A step of a product's route with all that it takes. */
export interface PlanStep extends RouteStep {
  /** What its layers are called together; left out or null: nothing is painted here. */
  recipe?: PlanRecipe | null;
  layers: PlanLayer[];
  bake: PlanBake | null;
}
export interface PlanProduct {
  id: string;
  name: string;
  style: StyleId;
  nominalMassKg: number;
  /** Null: no hook is cast in. */
  hook: PlanHook | null;
  /** What its cavity is cast as, by name; left out or null: as cut, or in the groove that was ground for its hook. */
  variant?: string | null;
  /** All that is painted on, and the last bake: of the steps together. */
  layers: PlanLayer[];
  bake: PlanBake | null;
  /** Its route; trim, paint, bake and finish as far as it is painted and baked where none is given. */
  steps?: PlanStep[];
  /** Parts that its steps use, beside lead, hook and powder. */
  parts?: PlanPart[];
  /** Its heads are poured, or taken off the shelf. */
  source?: Source;
  /** The bare heads or used jigs that it begins with; null or left out where its heads are poured. */
  from?: { materialId: string; name: string; kind: string } | null;
  /** What it asks of the pot; null or left out: the usual metal, or what its molds are kept for. */
  wantsMetal?: MetalWanted | null;
  /** What it is cast in, see withMetal; null: none of it is on record; left out: the usual. */
  metal?: CastMetal | null;
  /** Its own ways at trim and paint, where they differ from the house's. */
  ways?: Partial<Schools> | null;
  /** What one is sold at; null or left out: for own use. */
  priceMinor?: number | null;
}
export interface PlanLine {
  product: PlanProduct;
  quantity: number;
}
export interface PlanCavity {
  id: string;
  position: number;
  style: StyleId;
  nominalMassKg: number;
  hookSize: HookSize;
  eyeAngleDeg: number;
  condition: 'good' | 'blocked';
  wire?: Wire;
  bend?: Bend;
  /** Hooks that the maker has tried in it, by part, and whether it closes on them: that outranks every estimate. */
  tried?: Record<string, boolean>;
  /** What else can be cast in it. */
  variants?: CavityVariant[];
  /** Laid in before the hook, where the cavity was cut for it. */
  pin?: unknown;
  keeper?: boolean;
  openBelow?: boolean;
  /** From records: good heads out of casts. */
  good: number;
  casts: number;
}
export interface PlanMold {
  id: string;
  name: string;
  bodyKg: number;
  /** Metal over the gates of a blank shot, weighed; null or left out: as usual. */
  barKg?: number | null;
  /** The maker's own count from the pour until it is opened, s; it outranks. */
  ownOpenS?: number | null;
  metal?: MoldMetal;
  warmSchool?: WarmSchool;
  /** The only metal it sees; null or left out: any. */
  keptFor?: MetalKind | null;
  /** From its own readings. */
  learned?: LearnedBlock | null;
  shotsSinceSmoked: number;
  /** How much its evenings differ, see eveningSpread; left out: as usual. */
  eveningSpread?: number;
  cavities: PlanCavity[];
}
export interface PlanPot {
  name: string;
  capacityKg: number;
  powerW: number;
  lossWPerK: number;
  /** What crucible and element hold, J/K. */
  crucibleJPerK?: number;
  /** How sure its own readings are of them; left out: by its plate. */
  basis?: Basis;
  powerSdW?: number;
  lossSdWPerK?: number;
  crucibleSdJPerK?: number;
  /** How it is poured from; by its bottom spout where nothing is said. */
  way?: PotWay | null;
}
export interface PlanOven extends OvenRecord {
  name: string;
  places: number;
  powerW: number;
  racks?: OvenRack[] | null;
}
/** The maker's own ways and prices; every one has a default and can be changed in the setup. */
export interface HouseWays {
  pourC: number;
  roomC: number;
  heelKg: number;
  drossShare: number;
  filmM: number;
  transferEfficiency: number;
  labourMinorPerHour: number;
  energyMinorPerKWh: number;
  /** A kilogram of gas for a torch, and what the heat gun draws; left out: as usual. */
  gasMinorPerKg?: number;
  gunPowerW?: number;
  /** Hands-on seconds a head. */
  loadS: number;
  inspectS: number;
  /** Null: reckoned from the ways that are followed. */
  trimS: number | null;
  coatS: number | null;
  hangS: number;
  finishS: number;
  /** Schools of the house at trim and paint. */
  schools?: Partial<Schools>;
  /** When hooks are won back from rejects; left out: at once. */
  wonBack?: WinningBack;
}
/** The house's ways with what its own records taught. */
export interface KnownWays extends HouseWays {
  /** How the maker's hands differ from the ways; left out: as they are. */
  pace?: Pace;
  /** How evenings come out; left out: none is on record. */
  evenings?: Evenings;
  /** What the maker's own gun gives, by counts with it; left out: the usual. */
  gunWM2K?: number;
  /** Of heads that are thrown back, so many lose their hook, by closed pours; left out: as usual. */
  hookLostShare?: number;
}
export interface StockOnHand {
  materialId: string;
  name: string;
  kind: string;
  quantity: number;
  /** Minor units a kg or a piece, see unitPrice; null where nobody knows one. */
  priceMinor: number | null;
  /** Where that is from; left out: the moving average of what is on the shelf. */
  priced?: Priced;
}
/** Base-hole pins of one diameter: a tool that goes round, so few that they limit how many heads are in work. */
export interface Pins {
  diameterM: number;
  count: number;
}

/** Pins of one diameter against what is wanted with them. */
export interface PinLimit extends Pins {
  /** Heads under way with one of them in. */
  inWork: number;
  /** Heads that are wanted with one. */
  wanted: number;
}

/** A tool, what it cost, and heads until it is worn out. */
export interface ToolCost {
  priceMinor: number;
  lifeHeads: number | null;
}

export interface PlanInput {
  lines: PlanLine[];
  molds: PlanMold[];
  pot: PlanPot;
  oven: PlanOven;
  ways: KnownWays;
  lead: StockOnHand;
  stock: StockOnHand[];
  /** Tools that wear out, with the products that they serve: all where none is named. */
  tools?: readonly (ToolCost & { productIds: readonly string[] })[];
  /** What the steps after the pour leave of good heads, see yieldAfterPour; left out: all of them. */
  afterPour?: YieldTonight;
  /** Whether of each mold there are two alike, poured in turn; left out: one. */
  twoOfEach?: boolean;
  /** Base-hole pins by diameter, as far as they were counted, and those that are in heads under way. */
  pins?: readonly Pins[];
  pinsInWork?: readonly Pins[];
}

/** What one head costs, in minor units (fractions of them count here; totals are whole). */
export type CostStack = Record<CostPart, number>;
/**
 * What was kept before a part of the cost was known counts nothing for it.
 * @example stackTotal({ lead: 3, hook: 16 }) // 19
 */
export const stackTotal = (stack: Partial<CostStack>): number =>
  COST_PARTS.reduce((sum, part) => sum + (stack[part] ?? 0), 0);

/** Powder that one head takes at a step, kg. */
export interface StepPowder {
  materialId: string;
  name: string;
  kgPerHead: number;
  step: string;
}
export interface CavityUse {
  position: number;
  cavityId: string;
  productIds: string[];
  leadKg: number;
  sprueKg: number;
  yieldShare: number;
  yieldSure: number;
}
export interface MoldPlan {
  moldId: string;
  moldName: string;
  uses: CavityUse[];
  shots: Figure;
  blanks: Figure;
  openS: Figure;
  /** Until its last head or sprue is solid, s after the pour. */
  solidS: number;
  /** When a pull-out rod in it is moved, s after the pour; left out: none in it. */
  rodS?: { fromS: number; toS: number };
  /** How long after opening the bends of its hooks may be held, s; left out: they never get too hot. */
  hookHeldS?: number;
}
export interface LinePlan {
  productId: string;
  productName: string;
  quantity: number;
  /** Heads that come to the first step behind the pour: those wanted, and what later steps will spoil of them. */
  coming: number;
  /** Expected; the provision is the upper end of its range. Nothing of what comes off the shelf. */
  casts: Figure;
  /** Which molds cast it, and how many of its casts. */
  molds: { moldId: string; casts: number }[];
  yieldShare: Figure;
  leadKgPerHead: Figure;
  unitCost: Figure;
  stack: CostStack;
  /** What its cost lacks, because nobody knows a price of it; and prices that are not those of the shelf. */
  unpriced: string[];
  priced: { name: string; priced: Priced }[];
  /** Hands-on seconds a head, the pour's share included. */
  workS: number;
  powders: StepPowder[];
  /** Other parts, by the step that uses them. */
  parts: BillLine[];
  /** What its last bake will have done to the head; null where it is not baked. */
  bake: BakeOutcome | null;
}
export interface MaterialNeed {
  materialId: string;
  name: string;
  kind: string;
  need: Figure;
  have: number;
  missing: number;
}
export interface Plan {
  lines: LinePlan[];
  molds: MoldPlan[];
  charge: Figure;
  chargeParts: { label: string; kg: number }[];
  /** Heads and dross: what the shelf is short of afterwards. */
  leadUsed: Figure;
  melt: Figure;
  needs: MaterialNeed[];
  /** Step by step, those that are alike together. */
  minutes: { station: string; does: string; handsS: Figure; waitS: Figure | null }[];
  handsTotal: Figure;
  ovenLoads: Figure;
  unitCost: Figure;
  /** Base-hole pins that limit how many heads are in work at once. */
  pins: PinLimit[];
  /** What stands in the way: nothing can be poured for these lines. */
  problems: { productId: string; text: string }[];
}
