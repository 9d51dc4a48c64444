import { hookShape, typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import { cavitySolid, sideOutline } from '../geometry/solid.ts';
import type { StyleId } from '../geometry/styles.ts';
import { packLoads, pitchOf, type Rack, type RackBatch, type RackLoad } from './packing.ts';

/** Hanging by the bend from a wire, or standing in a clamp, nose up, so that a drip runs down the shank. */
export const RACK_WAYS = ['hanging', 'upright'] as const;
export type RackWay = (typeof RACK_WAYS)[number];
/** A rack as the maker built it and calls it. */
export interface OvenRack extends Rack {
  name: string;
  way: RackWay;
}

export interface RackHead {
  style: StyleId;
  massKg: number;
  hookSize: HookSize;
  wire?: Wire;
}

/** What a head needs on a rack: its width and a gap along the bar, its length with its hook below it (or above). */
export function roomOf({ style, massKg, hookSize, wire }: RackHead): { pitchM: number; hangsM: number } {
  const outline = sideOutline(cavitySolid(style, massKg));
  const width = Math.max(...outline.map(([, y]) => y)) - Math.min(...outline.map(([, y]) => y));
  const nose = Math.min(...outline.map(([x]) => x));
  return { pitchM: pitchOf(width), hangsM: hookShape(typicalHook(hookSize, wire), 90, 0).outerM - nose };
}

/** Whether all of these can hang on a rack at all. */
const takes = (rack: Rack, batches: readonly RackBatch[]) =>
  batches.every((batch) => batch.hangsM <= rack.clearM && batch.pitchM <= rack.barM);

export interface OvenPlan {
  loads: (RackLoad & { rack: OvenRack })[];
  /** Batches that no rack takes: too long or too wide. */
  homeless: string[];
}

/** Loads by program, each on the rack that needs the fewest; of equals the first. */
export function ovenLoads(racks: readonly OvenRack[], batches: readonly RackBatch[]): OvenPlan {
  const homeless = batches.filter((batch) => !racks.some((rack) => takes(rack, [batch])));
  const placed = batches.filter((batch) => !homeless.includes(batch));
  const loads = [...new Set(placed.map((batch) => batch.program))].flatMap((program) => {
    const own = placed.filter((batch) => batch.program === program);
    const together = racks.filter((rack) => takes(rack, own));
    // Where no rack takes all of one program, each batch goes to a rack of its own.
    const groups = together.length
      ? [{ racks: together, batches: own }]
      : own.map((batch) => ({ racks: racks.filter((rack) => takes(rack, [batch])), batches: [batch] }));
    return groups.flatMap((group) => {
      const tried = group.racks.map((rack) => packLoads(rack, group.batches).map((load) => ({ ...load, rack })));
      return tried.reduce((a, b) => (b.length < a.length ? b : a));
    });
  });
  return { loads, homeless: homeless.map((batch) => batch.id) };
}
