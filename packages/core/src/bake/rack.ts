import { hookShape, typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import { cavitySolid, sideOutline } from '../geometry/solid.ts';
import type { StyleId } from '../geometry/styles.ts';
import { packLoads, pitchOf, type Rack, type RackGroup, type RackLoad } from './packing.ts';

/** Hanging by the bend from a wire, or standing in a clamp, nose up, so that a drip runs down the shank. */
export const RACK_WAYS = ['hanging', 'upright'] as const;
type RackWay = (typeof RACK_WAYS)[number];
/** A rack as the maker built it and calls it. */
export interface OvenRack extends Rack {
  name: string;
  way: RackWay;
}

interface RackHead {
  style: StyleId;
  massKg: number;
  /** Null: it hangs by itself, from a wire through its hole. */
  hookSize: HookSize | null;
  wire?: Wire;
}

/**
 * What a head needs on a rack: its width and a gap along the bar, its length with its hook below it (or above).
 * @example roomOf({ style: 'ball', massKg: 0.0142, hookSize: '3/0', wire: 'standard' }) // { pitchM: 0.01921,
 *   hangsM: 0.04461 }
 */
export function roomOf({ style, massKg, hookSize, wire }: RackHead): { pitchM: number; hangsM: number } {
  const outline = sideOutline(cavitySolid(style, massKg));
  const width = Math.max(...outline.map(([, y]) => y)) - Math.min(...outline.map(([, y]) => y));
  const nose = Math.min(...outline.map(([x]) => x));
  const tail = Math.max(...outline.map(([x]) => x));
  const outerM = hookSize ? hookShape(typicalHook(hookSize, wire), 90, 0).outerM : tail;
  return { pitchM: pitchOf(width), hangsM: outerM - nose };
}

/** Whether all of these can hang on a rack at all. */
const takes = (rack: Rack, groups: readonly RackGroup[]) =>
  groups.every((group) => group.hangsM <= rack.clearM && group.pitchM <= rack.barM);

export interface OvenPlan {
  loads: (RackLoad & { rack: OvenRack })[];
  /** Groups that no rack takes: too long or too wide. */
  unplaced: string[];
}

/**
 * Loads by program, each on the rack that needs the fewest; of equals the first.
 * @example ovenLoads([rack], [{ id: 'white', program: '177 C', heads: 60, pitchM: 0.03,
 *   hangsM: 0.05 }]).loads.length // 2
 */
export function ovenLoads(racks: readonly OvenRack[], groups: readonly RackGroup[]): OvenPlan {
  const unplaced = groups.filter((group) => !racks.some((rack) => takes(rack, [group])));
  const placed = groups.filter((group) => !unplaced.includes(group));
  const loads = [...new Set(placed.map((group) => group.program))].flatMap((program) => {
    const own = placed.filter((group) => group.program === program);
    const together = racks.filter((rack) => takes(rack, own));
    // Where no rack takes all of one program, each group goes to a rack of its own.
    const groups = together.length
      ? [{ racks: together, groups: own }]
      : own.map((group) => ({ racks: racks.filter((rack) => takes(rack, [group])), groups: [group] }));
    return groups.flatMap((each) => {
      const tried = each.racks.map((rack) => packLoads(rack, each.groups).map((load) => ({ ...load, rack })));
      return tried.reduce((a, b) => (b.length < a.length ? b : a));
    });
  });
  return { loads, unplaced: unplaced.map((group) => group.id) };
}
