import { countInRange, inRange, QuantityError } from '../quantity/check.ts';
import { quantityText } from '../quantity/said.ts';

/** A rack as the maker built it: bars across the oven, heads side by side on each. */
export interface Rack {
  bars: number;
  barM: number;
  /** Clear air under a bar: how long a head with its hook may hang. */
  clearM: number;
}
/** Heads of one kind that want one program. */
export interface RackGroup {
  id: string;
  program: string;
  heads: number;
  /** Room that one takes along a bar, its gap included. */
  pitchM: number;
  hangsM: number;
}
export interface RackLoad {
  program: string;
  /** Heads by bar, from the top. */
  bars: { groupId: string; heads: number }[][];
}

/** Heads hang at least this far apart, so that none touches its neighbour. Common practice, no source. */
const GAP_M = 0.006;

/**
 * Room along a bar for a head: its width, and a gap.
 * @example pitchOf(0.0134) // 0.0194
 */
export const pitchOf = (widthM: number): number => inRange('widthM', widthM, 'm', 0.001, 0.2) + GAP_M;

/**
 * How many of one kind a rack takes. A large toaster oven with added wires took 88 heads of 1/2 oz (common practice).
 * @example rackPlaces(rack, 0.03) // 48
 */
export const rackPlaces = (rack: Rack, pitchM: number): number => rack.bars * Math.floor(rack.barM / pitchM + 1e-9);

interface Bar {
  leftM: number;
  heads: { groupId: string; heads: number }[];
}

/** More loads than that are no evening's work, nor a year's. */
const MOST_LOADS = 500;

/**
 * One program's heads on as few loads as first fit, widest first, finds: a bar is filled up before the next is begun.
 */
function packProgram(rack: Rack, groups: readonly RackGroup[]): Bar[][] {
  const loads: Bar[][] = [];
  for (const group of [...groups].sort((a, b) => b.pitchM - a.pitchM)) {
    let left = group.heads;
    const hang = (bar: Bar) => {
      const fits = Math.min(left, Math.floor(bar.leftM / group.pitchM + 1e-9));
      if (fits === 0) return;
      bar.leftM -= fits * group.pitchM;
      bar.heads.push({ groupId: group.id, heads: fits });
      left -= fits;
    };
    const perLoad = rackPlaces(rack, group.pitchM);
    if (loads.length + left / perLoad > MOST_LOADS) {
      const allowed = `at most ${MOST_LOADS} loads of a program, ${perLoad} of these heads a load`;
      throw new QuantityError(`heads of ${group.id}`, group.heads, '', allowed);
    }
    loads.flat().forEach(hang);
    while (left > 0) {
      const load = Array.from({ length: rack.bars }, (): Bar => ({ leftM: rack.barM, heads: [] }));
      loads.push(load);
      load.forEach(hang);
    }
  }
  return loads;
}

/**
 * Oven loads by program and rack. First fit, widest first; checked against brute force on small cases.
 * @throws QuantityError for a head that hangs too low or is wider than a bar
 * @example packLoads(rack, [{ id: 'white', program: '177 C', heads: 60, pitchM: 0.03, hangsM: 0.05 }]).length // 2
 */
export function packLoads(rack: Rack, groups: readonly RackGroup[]): RackLoad[] {
  countInRange('bars', rack.bars, 1, 40);
  inRange('barM', rack.barM, 'm', 0.02, 2);
  for (const group of groups) {
    countInRange('heads', group.heads, 0, 100_000);
    if (group.hangsM > rack.clearM)
      throw new QuantityError(
        `hanging length of ${group.id}`,
        Math.round(group.hangsM * 1000),
        'mm',
        `up to the ${quantityText(Math.round(rack.clearM * 1000), 'mm')} of air under a bar`,
      );
    if (group.pitchM > rack.barM)
      throw new QuantityError(
        `width of ${group.id}`,
        Math.round(group.pitchM * 1000),
        'mm',
        `up to the ${quantityText(Math.round(rack.barM * 1000), 'mm')} of a bar`,
      );
  }
  const programs = [...new Set(groups.map((group) => group.program))];
  return programs.flatMap((program) =>
    packProgram(
      rack,
      groups.filter((group) => group.program === program),
    ).map((load) => ({ program, bars: load.map((bar) => bar.heads) })),
  );
}
