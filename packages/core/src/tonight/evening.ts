import { ovenLoads as packLoads, roomOf, type OvenRack } from '../bake/rack.ts';
import { QuantityError } from '../quantity/check.ts';
import { POUR_STEP } from '../job/bill.ts';
import type { HookSize } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { Task } from './schedule.ts';

/** A step that heads of a work still go through. */
export interface WorkStep {
  key: string;
  station: string;
  does: string;
  secondsPerHead: number;
  /** What has to pass after it by itself, s. */
  waitS: number;
  /** What it is baked by: loads of one program go together. */
  bake: { program: string; seconds: number } | null;
  /** Its colours, by name: sessions of one are kept together. */
  colour: string | null;
  /** Heads that wait here now. */
  left: number;
}

/** Heads of one product that are wanted, however far they are: a ticket, or a line of an order. */
export interface Work {
  id: string;
  name: string;
  /** Good heads that the pour has still to give. */
  toCast: number;
  /** Its blank in the cast plan; null where nothing is cast. */
  blankId: string | null;
  steps: readonly WorkStep[];
  /** How it lies on a rack. */
  head: { style: StyleId; massKg: number; hookSize: HookSize | null };
}

/** Something that is poured in one go, on one mold or two in turn. */
export interface PourOfEvening {
  id: string;
  name: string;
  moldIds: readonly string[];
  blankIds: readonly string[];
  /** Getting ready, warming and all shots. */
  seconds: number;
  /** Melting before it, from what is in the pot by then. */
  meltS: number;
}

export interface EveningInput {
  works: readonly Work[];
  pours: readonly PourOfEvening[];
  oven: { places: number; racks?: readonly OvenRack[] | null };
  /** Heads that go through the line together: more are split, so that the oven works while others are painted. */
  lotSize?: number;
  /** People who can share one step of a lot; left out: one. */
  people?: number;
}

/** Part of a work that goes along the line together. */
interface Lot {
  work: Work;
  nth: number;
  of: number;
  heads: number;
}

const nameOf = ({ work, nth, of }: Lot) => (of > 1 ? `${work.name}, ${nth + 1} of ${of}` : work.name);

/** Even lots of a work, none larger than the oven takes. */
function lotsOf(work: Work, most: number): Lot[] {
  const heads = work.toCast + work.steps.reduce((sum, { left }) => sum + left, 0);
  const of = Math.max(1, Math.ceil(heads / most));
  return Array.from({ length: of }, (_, nth) => {
    const upTo = (at: number) => Math.round((heads * at) / of);
    return { work, nth, of, heads: upTo(nth + 1) - upTo(nth) };
  }).filter((lot) => lot.heads > 0);
}

/** Share of a lot's heads that a step still sees: those that wait behind it do not come back. */
function headsAt(lot: Lot, at: number): number {
  const { work, heads } = lot;
  const all = work.toCast + work.steps.reduce((sum, { left }) => sum + left, 0);
  const come = work.toCast + work.steps.slice(0, at + 1).reduce((sum, { left }) => sum + left, 0);
  return all > 0 ? (heads * come) / all : 0;
}

interface LoadPart {
  lot: Lot;
  step: WorkStep;
  heads: number;
  before: { task: string; lagS: number }[];
}

/** So much of one step is worth being shared by two, s. Common practice, no source. */
const WORTH_SHARING_S = 300;

/** Hanging up and taking down, of the seconds a head that a bake takes of the hands. */
const HANG_SHARE = 0.5;

/** Lots of one program, filled into loads in the order in which they come. */
function loadsOf(parts: readonly LoadPart[], { places, racks }: EveningInput['oven']): LoadPart[][] {
  const room = (some: readonly LoadPart[]) => {
    const heads = some.reduce((sum, part) => sum + part.heads, 0);
    if (!racks?.length) return heads <= places;
    const groups = some.map(({ lot, heads: count }, at) => {
      return { id: String(at), program: 'one', heads: Math.ceil(count), ...roomOf(lot.work.head) };
    });
    const packed = packLoads(racks, groups);
    return packed.unplaced.length === 0 ? packed.loads.length <= 1 : heads <= places;
  };
  const loads: LoadPart[][] = [];
  for (const part of parts) {
    const last = loads.at(-1);
    if (last && room([...last, part])) last.push(part);
    else loads.push([part]);
  }
  return loads;
}

/**
 * Everything that is to be done as tasks with what must come before each: melting and pours, then every lot step by
 * step, bakes of one program together in loads.
 * @param order works by urgency, by id: loads are filled in it; those that are left out come last
 * @throws QuantityError where a work waits for a pour that is not there
 * @example eveningTasks({ works: [], pours: [], oven: planOven }) // []
 */
export function eveningTasks(input: EveningInput, order: readonly string[] = []): Task[] {
  const { pours, oven } = input;
  const rank = new Map(order.map((id, at) => [id, at]));
  const works = [...input.works].sort((a, b) => (rank.get(a.id) ?? 1e9) - (rank.get(b.id) ?? 1e9));
  const tasks: Task[] = [];
  const pourOf = new Map<string, string>();
  let poured: string | null = null;
  for (const { id, name, moldIds, blankIds, seconds, meltS } of pours) {
    const own = works.filter(({ blankId, toCast }) => toCast > 0 && blankId && blankIds.includes(blankId));
    const heads = own.reduce((sum, { toCast }) => sum + toCast, 0);
    const about = { works: own.map((work) => work.id), heads };
    const before = poured ? [{ task: poured, lagS: 0 }] : [];
    tasks.push({
      ...{ id: `pour ${id}`, name, station: 'pour', step: POUR_STEP, seconds, hands: true, leadS: meltS, ...about },
      ...{ holds: ['pot', ...moldIds.map((mold) => `mold ${mold}`)], after: before },
    });
    poured = `pour ${id}`;
    for (const blank of blankIds) pourOf.set(blank, poured);
  }
  const lots = works.flatMap((work) => lotsOf(work, Math.max(1, input.lotSize ?? oven.places)));
  const waiting = new Map(
    lots.map((lot): [Lot, { task: string; lagS: number }[]] => {
      const { toCast, blankId, name } = lot.work;
      if (toCast === 0) return [lot, []];
      const pour = blankId === null ? undefined : pourOf.get(blankId);
      if (!pour) throw new QuantityError(`pour of ${name}`, 'none', '', 'one that casts it');
      return [lot, [{ task: pour, lagS: 0 }]];
    }),
  );
  const at = new Map(lots.map((lot) => [lot, 0]));
  /** One lot as far as its next bake. */
  const goOn = (lot: Lot): LoadPart | null => {
    const { steps } = lot.work;
    for (;;) {
      const index = at.get(lot)!;
      const step = steps[index];
      if (!step) return null;
      const heads = headsAt(lot, index);
      at.set(lot, index + 1);
      if (heads <= 0) continue;
      const before = waiting.get(lot)!;
      if (step.bake) return { lot, step, heads, before };
      const seconds = heads * step.secondsPerHead;
      const shares = Math.max(1, Math.min(input.people ?? 1, Math.floor(seconds / WORTH_SHARING_S)));
      const ids = Array.from({ length: shares }, (_, share) => `${lot.work.id} ${lot.nth} ${step.key} ${share}`);
      for (const id of ids) {
        tasks.push({
          ...{ id, name: `${step.does}: ${nameOf(lot)}`, station: step.station, step: step.key },
          ...{ hands: true, after: before },
          ...{ seconds: seconds / shares, holds: step.station === 'paint' ? ['gun'] : [] },
          ...{ works: [lot.work.id], heads: Math.round(heads / shares) },
        });
      }
      waiting.set(
        lot,
        ids.map((task) => ({ task, lagS: step.waitS })),
      );
    }
  };
  // Bakes are met round by round: a lot that is baked twice is in the second round with others of its kind.
  let going: Lot[] = lots;
  for (let round = 0; going.length > 0; round++) {
    const parts = going.flatMap((lot) => goOn(lot) ?? []);
    const programs = new Map<string, LoadPart[]>();
    for (const part of parts) {
      const key = part.step.bake!.program;
      programs.set(key, [...(programs.get(key) ?? []), part]);
    }
    for (const [program, own] of programs) {
      loadsOf(own, oven).forEach((load, nth) => {
        const key = `${program} ${round} ${nth}`;
        const heads = load.reduce((sum, part) => sum + part.heads, 0);
        const handsS = load.reduce((sum, part) => sum + part.heads * part.step.secondsPerHead, 0);
        const about = { works: [...new Set(load.map(({ lot }) => lot.work.id))], heads: Math.round(heads) };
        const says = load.map(({ lot }) => nameOf(lot)).join('; ');
        const task = (id: string, name: string, more: Pick<Task, 'seconds' | 'hands' | 'holds' | 'after'>): Task => ({
          ...{ id: `${id} ${key}`, name: `${name}: ${says}`, station: 'bake', step: load[0]!.step.key },
          ...{ ...about, ...more },
        });
        tasks.push(
          task('hang', 'Hang up', {
            ...{ seconds: HANG_SHARE * handsS, hands: true, holds: [], after: load.flatMap(({ before }) => before) },
          }),
          task('bake', 'In the oven', {
            ...{ seconds: Math.max(...load.map(({ step }) => step.bake!.seconds)), hands: false, holds: ['oven'] },
            after: [{ task: `hang ${key}`, lagS: 0 }],
          }),
          task('take', 'Take down', {
            ...{ seconds: (1 - HANG_SHARE) * handsS, hands: true, holds: [] },
            after: [{ task: `bake ${key}`, lagS: 0 }],
          }),
        );
        for (const { lot, step } of load) waiting.set(lot, [{ task: `take ${key}`, lagS: step.waitS }]);
      });
    }
    going = [...new Set(parts.map(({ lot }) => lot))];
  }
  return tasks;
}
