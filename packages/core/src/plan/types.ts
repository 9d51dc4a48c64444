import type { HookSize } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { LabelPoint } from '../bake/cure.ts';
import type { CountFrom } from '../run/ticket.ts';
import type { OvenRack } from '../bake/rack.ts';
import type { PaintZone } from '../paint/coverage.ts';
import type { FinishWays } from '../ways/school.ts';
import type { MoldMetal } from '../mold/block.ts';
import type { WarmSchool } from '../mold/warm-plan.ts';
import type { Figure } from '../quantity/figure.ts';

export interface PlanHook {
  materialId: string;
  name: string;
  size: HookSize;
  eyeAngleDeg: number;
  massKg: number;
}
export interface PlanPowder {
  materialId: string;
  name: string;
  specificGravity: number;
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
export interface PlanBake {
  name: string;
  setC: number;
  seconds: number;
  preheated: boolean;
  /** What its minutes are counted from; the shutting of the door where nothing is said. */
  from?: CountFrom;
}
export interface PlanProduct {
  id: string;
  name: string;
  style: StyleId;
  nominalMassKg: number;
  hook: PlanHook;
  layers: PlanLayer[];
  bake: PlanBake | null;
  /** Its own ways at trim and paint, where they differ from the house's. */
  ways?: Partial<FinishWays> | null;
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
  metal?: MoldMetal;
  warmSchool?: WarmSchool;
  /** From its own readings. */
  learned?: { lossWPerK: number; capacityShare: number } | null;
  shotsSinceSmoked: number;
  cavities: PlanCavity[];
}
export interface PlanPot {
  name: string;
  capacityKg: number;
  powerW: number;
  lossWPerK: number;
}
export interface PlanOven {
  name: string;
  places: number;
  powerW: number;
  lagS: number;
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
  /** Hands-on seconds a head. */
  loadS: number;
  inspectS: number;
  /** Null: reckoned from the ways that are followed. */
  trimS: number | null;
  coatS: number | null;
  hangS: number;
  finishS: number;
  /** Schools of the house at trim and paint. */
  finish?: Partial<FinishWays>;
}
export interface StockOnHand {
  materialId: string;
  name: string;
  kind: 'lead' | 'hook' | 'powder';
  quantity: number;
  /** Moving average in minor units a kg or a piece; null when nothing was ever bought. */
  averageMinor: number | null;
}
export interface PlanInput {
  lines: PlanLine[];
  molds: PlanMold[];
  pot: PlanPot;
  oven: PlanOven;
  ways: HouseWays;
  lead: StockOnHand;
  stock: StockOnHand[];
}

export const COST_PARTS = ['lead', 'hook', 'powder', 'dross', 'energy', 'work'] as const;
export type CostPart = (typeof COST_PARTS)[number];
/** What one head costs, in minor units (fractions of them count here; totals are whole). */
export type CostStack = Record<CostPart, number>;
export const stackTotal = (stack: CostStack): number => COST_PARTS.reduce((sum, part) => sum + stack[part], 0);

export interface CavityUse {
  position: number;
  cavityId: string;
  productIds: string[];
  leadKg: number;
  sprueKg: number;
  yieldShare: number;
}
export interface MoldPlan {
  moldId: string;
  moldName: string;
  uses: CavityUse[];
  shots: Figure;
  blanks: Figure;
  openS: Figure;
}
export interface LinePlan {
  productId: string;
  productName: string;
  quantity: number;
  casts: Figure;
  yieldShare: Figure;
  leadKgPerHead: Figure;
  unitCost: Figure;
  stack: CostStack;
  /** Hands-on seconds a head, the pour's share included. */
  workS: number;
  powders: { materialId: string; name: string; kgPerHead: number }[];
  /** Share of a full cure that the bake program gives the head; null where it is not baked. */
  cure: Figure | null;
}
export interface MaterialNeed {
  materialId: string;
  name: string;
  kind: 'lead' | 'hook' | 'powder';
  need: Figure;
  have: number;
  missing: number;
}
export interface Plan {
  lines: LinePlan[];
  molds: MoldPlan[];
  charge: Figure;
  chargeParts: { label: string; kg: number }[];
  melt: Figure;
  needs: MaterialNeed[];
  minutes: { station: string; handsS: Figure; waitS: Figure | null }[];
  handsTotal: Figure;
  ovenLoads: Figure;
  unitCost: Figure;
  /** What stands in the way: nothing can be poured for these lines. */
  problems: { productId: string; text: string }[];
}
