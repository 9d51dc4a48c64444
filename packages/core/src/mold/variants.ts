import { castMassKg } from '../cast/cast-mass.ts';
import type { HookSize } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';

export interface PinCut {
  diameterM: number;
  /** Inside the metal. */
  lengthM: number;
}
export const PIN_WAYS = ['as cut', 'cut short', 'left out'] as const;
export const INSERTS = ['none', 'pull-out rod', 'swivel eyelet', 'spinner wire'] as const;

/** One of the things that can be cast in a cavity: as cut, or with something changed, added or left out. */
export interface CavityVariant {
  name: string;
  /** `cut short`: the slot is plugged and no hole is cast. */
  pin: (typeof PIN_WAYS)[number];
  /** Groove ground out for this hook; null: as cut. */
  grooveFor: HookSize | null;
  /** Neighbours that must stay empty because of it. */
  blocks: number[];
  keeper: boolean;
  wireGuards: number;
  insert: (typeof INSERTS)[number];
}

export const AS_CUT: CavityVariant = {
  name: 'As cut',
  pin: 'as cut',
  grooveFor: null,
  blocks: [],
  keeper: false,
  wireGuards: 0,
  insert: 'none',
};

export interface VariantCavity {
  position: number;
  style: string;
  nominalMassKg: number;
  pin: PinCut | null;
}

export interface CastAs {
  massKg: number;
  /** What takes metal out against the stamp, kg each. */
  takes: { what: string; kg: number }[];
  /** Parts that go in, beside the hook. */
  parts: string[];
  /** Short words on what to mind. */
  mind: string[];
}

/** Sizes of what is laid in, inside the metal. Common practice, no source. */
const KEEPER = { diameterM: 0.0009, lengthM: 0.012 };
const WIRE_GUARD = { diameterM: 0.0005, lengthM: 0.01 };
const ROD_DIAMETER_M = 0.0016;
const SWIVEL_M3 = 12e-9;
const SPINNER_WIRE_DIAMETER_M = 0.0009;
const rodM3 = (diameterM: number, lengthM: number) => (Math.PI / 4) * diameterM ** 2 * lengthM;

/**
 * What a cavity casts as this variant: its mass, what takes metal out, which parts it needs and what to mind.
 * @example castAs({ position: 1, style: 'ball', nominalMassKg: 0.01, pin: null }, AS_CUT).massKg // 0.01
 * @throws QuantityError where inserts leave no metal, or more than two wire guards are asked for
 */
export function castAs(cavity: VariantCavity, variant: CavityVariant, alloy: Alloy = SOFT_LEAD): CastAs {
  const { flowLengthM } = cavitySolid(cavity.style, cavity.nominalMassKg);
  inRange('wireGuards', variant.wireGuards, '', 0, 2);
  const volumes: { what: string; m3: number }[] = [];
  const parts: string[] = [];
  const mind: string[] = [];
  if (cavity.pin && variant.pin === 'as cut') {
    volumes.push({ what: 'pin hole', m3: rodM3(cavity.pin.diameterM, cavity.pin.lengthM) });
    parts.push('base-hole pin');
    mind.push('Pin before hook: a cavity without its pin leaks.');
  }
  if (cavity.pin && variant.pin === 'cut short') {
    parts.push('shortened pin');
    mind.push('No guard hole is cast; trim the stub.');
  }
  if (cavity.pin && variant.pin === 'left out') mind.push('The slot is open: metal may run out of it.');
  if (variant.keeper) {
    volumes.push({ what: 'wire keeper', m3: rodM3(KEEPER.diameterM, KEEPER.lengthM) });
    parts.push('wire keeper');
    mind.push('Keeper in first, then the hook.');
  }
  if (variant.wireGuards > 0) {
    volumes.push({ what: 'wire guard', m3: variant.wireGuards * rodM3(WIRE_GUARD.diameterM, WIRE_GUARD.lengthM) });
    for (let i = 0; i < variant.wireGuards; i++) parts.push('wire guard');
  }
  if (variant.insert === 'pull-out rod') {
    volumes.push({ what: 'rod', m3: rodM3(ROD_DIAMETER_M, flowLengthM) });
    parts.push('pull-out rod');
    mind.push('Twist the rod within a second or two of the pour, or it is stuck.');
  }
  if (variant.insert === 'swivel eyelet') {
    volumes.push({ what: 'swivel eyelet', m3: SWIVEL_M3 });
    parts.push('swivel eyelet');
  }
  if (variant.insert === 'spinner wire') {
    volumes.push({ what: 'wire form', m3: rodM3(SPINNER_WIRE_DIAMETER_M, flowLengthM) });
    parts.push('wire form');
  }
  if (variant.grooveFor) mind.push(`Ground out for ${variant.grooveFor}.`);
  if (variant.blocks.length) mind.push(`Cavity ${variant.blocks.join(', ')} stays empty.`);
  const taken = volumes.reduce((sum, { m3 }) => sum + m3, 0);
  const whole = castMassKg({ nominalMassKg: cavity.nominalMassKg, alloy });
  const massKg = castMassKg({ nominalMassKg: cavity.nominalMassKg, alloy, extraInsertVolumeM3: taken });
  const share = taken > 0 ? (whole - massKg) / taken : 0;
  return { massKg, takes: volumes.map(({ what, m3 }) => ({ what, kg: m3 * share })), parts, mind };
}

/**
 * Positions that can hold a hook when these are cast as these variants; a ground groove keeps its neighbours empty.
 * @example usablePositions([{ position: 1, variant: AS_CUT }, { position: 2, variant: AS_CUT }]) // [1, 2]
 */
export function usablePositions(cavities: readonly { position: number; variant: CavityVariant }[]): number[] {
  const blocked = new Set<number>();
  const used: number[] = [];
  for (const { position, variant } of cavities) {
    if (blocked.has(position)) continue;
    used.push(position);
    variant.blocks.forEach((each) => blocked.add(each));
  }
  return used.filter((position) => !blocked.has(position));
}
