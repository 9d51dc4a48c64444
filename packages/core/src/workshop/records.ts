import type { MetalWanted } from '../metal/wanted.ts';
import type { CountFrom } from '../bake/count-from.ts';
import type { LabelPoint } from '../bake/cure-law.ts';
import type { HookSize, Wire } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { RouteStep } from '../job/route.ts';
import type { CupColour } from '../paint/colour-order.ts';
import type { PaintZone } from '../paint/coverage.ts';
import type { Bend } from '../seat/seat.ts';
import type { Schools } from '../ways/school.ts';

/** What is on record, as far as the models ask for it: whoever keeps the records hands them in like this. */
export interface PartRecord {
  id: string;
  name: string;
  kind: string;
  limitC?: number | null;
  hook?: {
    size: HookSize;
    wire: Wire;
    eyeAngleDeg: number;
    bend?: Bend;
    lengthM?: number | null;
    wireM?: number | null;
    /** By the scale; null or left out: what its size number stands for. */
    massKg?: number | null;
  } | null;
  powder?: {
    specificGravity: number;
    colour?: string;
    gloss?: CupColour['gloss'];
    label: LabelPoint[];
    form?: 'powder' | 'liquid';
    dryS?: number | null;
  } | null;
}

export interface RecipeRecord {
  id: string;
  name?: string;
  eyeColour?: string | null;
  layers: readonly {
    powderId: string;
    zone: PaintZone;
    coats: number;
    mix?: { powderId: string; share: number } | null;
  }[];
}

export interface ProgramRecord {
  id: string;
  name: string;
  setC: number;
  seconds: number;
  preheated: boolean;
  from?: CountFrom;
}

export interface ProductRecord {
  id: string;
  name: string;
  style: StyleId;
  nominalMassKg: number;
  hookId: string | null;
  /** What its cavity is cast as, by name. */
  variant?: string | null;
  /** What it asks of the pot. */
  metal?: MetalWanted | null;
  recipeId: string | null;
  bakeProgramId: string | null;
  ways?: Partial<Schools> | null;
  route?: readonly RouteStep[] | null;
  parts?: readonly { partId: string; quantity: number; waste: number; step: string }[];
  fromId?: string | null;
  priceMinor?: number | null;
}

/** Where records are looked up by their id. */
export interface Shelf {
  part(id: string): PartRecord | undefined;
  recipe(id: string): RecipeRecord | undefined;
  program(id: string): ProgramRecord | undefined;
}
