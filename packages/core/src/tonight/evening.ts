import { ovenLoads as packLoads, roomOf, type OvenRack } from '../bake/rack.ts';
import { QuantityError } from '../quantity/check.ts';
import { samePin } from '../plan/pins.ts';
import { POUR_STEP } from '../job/bill.ts';
import type { HookSize } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import { mixPlan, MIXING_S } from '../finish/mix.ts';
import type { CupColour } from '../paint/colour-order.ts';
import type { Task } from './task.ts';

/** A glue of two parts: stiff a while after it is mixed, and set a longer while after that. */
export interface StepGlue {
  partId: string;
  name: string;
  mlPerHead: number;
  potLifeS: number;
}

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
  /** Its colours, by name: heads that want the same are dipped in one session. */
  colour: string | null;
  /** What must stand in the cups for it; none where nothing is dipped. */
  cups?: readonly CupColour[];
  /** What is mixed for it: heads that want the same share a mix. */
  glue?: StepGlue | null;
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
  /** The pin that its heads keep after the pour, and the step after which it is out. */
  pin?: { diameterM: number; outAfter: string } | null;
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
  /** How much of a blank's heads it gives, of those that are poured in rounds; all of them where none is said. */
  shares?: Readonly<Record<string, number>>;
  /** The pot is emptied first, for a metal that may not touch what was in it. */
  change?: { to: string; seconds: number };
  /** Diameters of the pins that must be back from the heads before it. */
  pins?: readonly number[];
}

export interface EveningInput {
  works: readonly Work[];
  pours: readonly PourOfEvening[];
  oven: { places: number; racks?: readonly OvenRack[] | null };
  /** Heads that go through the line together: more are split, so that the oven works while others are painted. */
  lotSize?: number;
  /** People who can share one step of a lot; left out: one. */
  people?: number;
  /** Guns there are: no more than so many dip at once; left out: one. */
  guns?: number;
  /** Whether what was poured apart is baked apart: more loads, and the first of them sooner. */
  apart?: boolean;
}

/** Part of a work that goes along the line together: from one pour, or of the heads that wait there already. */
interface Lot {
  work: Work;
  nth: number;
  of: number;
  heads: number;
  pourId: string | null;
  /** How often pins had to come back before it was poured. */
  round: number;
}

const nameOf = ({ work, nth, of }: Lot) => (of > 1 ? `${work.name}, ${nth + 1} of ${of}` : work.name);
const sum = (numbers: readonly number[]) => numbers.reduce((all, each) => all + each, 0);

/** So many as evenly as they go, in the given shares, whole. */
function shared(heads: number, shares: readonly number[]): number[] {
  const upTo = (at: number) => Math.round((heads * sum(shares.slice(0, at))) / sum(shares));
  return shares.map((_, at) => upTo(at + 1) - upTo(at));
}

/**
 * Even lots of a work, none larger than the oven takes.
 * @throws QuantityError where it waits for a pour that is not there
 */
function lotsOf(work: Work, pours: readonly PourOfEvening[], most: number): Lot[] {
  const { blankId, toCast, steps, name } = work;
  const own = pours.filter(({ blankIds }) => toCast > 0 && blankId !== null && blankIds.includes(blankId));
  if (toCast > 0 && own.length === 0) throw new QuantityError(`pour of ${name}`, 'none', '', 'one that casts it');
  const cast = shared(
    toCast,
    own.map(({ shares }) => shares?.[blankId!] ?? 1),
  );
  const roundOf = (pour: PourOfEvening) => pours.slice(0, pours.indexOf(pour) + 1).filter(waitsForPins).length;
  const parts = [
    { pourId: null, round: 0, heads: sum(steps.map(({ left }) => left)) },
    ...own.map((pour, at) => ({ pourId: pour.id, round: waitsForPins(pour) ? roundOf(pour) : 0, heads: cast[at]! })),
  ];
  const lots = parts.flatMap(({ heads, ...from }) => {
    const count = Math.max(1, Math.ceil(heads / most));
    return shared(heads, Array<number>(count).fill(1)).map((own) => ({ ...from, heads: own }));
  });
  return lots.filter(({ heads }) => heads > 0).map((lot, nth, { length: of }) => ({ ...lot, work, nth, of }));
}

const waitsForPins = ({ pins = [] }: PourOfEvening) => pins.length > 0;

/** Heads of a lot that a step still sees: of those that wait already, the ones behind it do not come back. */
function headsAt({ work, heads, pourId }: Lot, at: number): number {
  if (pourId !== null) return heads;
  const left = work.steps.map((step) => step.left);
  return (heads * sum(left.slice(0, at + 1))) / sum(left);
}

/** What one session is for: a colour in the cups, or a glue that is mixed. */
interface Wants {
  says: string;
  glue: StepGlue | null;
  /** Which of its lot's sessions since the last load, and whose share of it. */
  nth: string;
}
/** A task before sessions are formed: those of one session become one. */
interface Draft {
  task: Task;
  wants: Wants | null;
  /** Null: a task by itself. */
  session: string | null;
}

/** Mixes that a glue takes for so many heads at this pace, each within its pot life. */
function mixesFor(heads: number, secondsPerHead: number, { mlPerHead, potLifeS }: StepGlue): number {
  // Who needs longer for one head than a mix lives does them one by one.
  if (secondsPerHead > potLifeS - MIXING_S) return heads;
  return mixPlan({ heads, mlPerHead, potLifeS, secondsPerHead: Math.max(1, secondsPerHead) }).mixes.length;
}

/** Tasks of one session as one: its cup is filled or its glue mixed for all of them together. */
function asOne(drafts: readonly Draft[]): Task {
  const [{ task: first, wants }] = drafts as [Draft, ...Draft[]];
  const heads = sum(drafts.map(({ task }) => task.heads));
  const handsS = sum(drafts.map(({ task }) => task.seconds));
  const mixes = wants!.glue && heads > 0 ? mixesFor(heads, handsS / heads, wants!.glue) : 0;
  const names = [...new Set(drafts.map(({ task }) => task.name))].join('; ');
  const again = mixes > 1 ? `, ${mixes} mixes` : '';
  return {
    ...first,
    ...{
      name: `${wants!.says}: ${names}${again}`,
      heads,
      works: [...new Set(drafts.flatMap(({ task }) => task.works))],
    },
    seconds: handsS + mixes * MIXING_S,
    after: drafts.flatMap(({ task }) => task.after),
  };
}

/** Drafts of one session put together; what waited for one of them waits for all of it. */
function inSessions(drafts: readonly Draft[]): Task[] {
  const sessions = new Map<string, Draft[]>();
  for (const draft of drafts) {
    const key = draft.session ?? draft.task.id;
    sessions.set(key, [...(sessions.get(key) ?? []), draft]);
  }
  const together = new Map<string, string>();
  const tasks = [...sessions.values()].map((own) => {
    const task = own[0]!.wants ? asOne(own) : own[0]!.task;
    for (const draft of own) together.set(draft.task.id, task.id);
    return task;
  });
  return tasks.map((task) => {
    const after = new Map<string, number>();
    for (const { task: id, lagS } of task.after) {
      const now = together.get(id) ?? id;
      after.set(now, Math.max(after.get(now) ?? 0, lagS));
    }
    return { ...task, after: [...after].map(([id, lagS]) => ({ task: id, lagS })) };
  });
}

/** A lot that has come to a bake. */
interface LoadPart {
  on: OnItsWay;
  step: WorkStep;
  heads: number;
}

/** So much of one step is worth being shared by two, s. Common practice, no source. */
const WORTH_SHARING_S = 300;

/** Hanging up and taking down, of the seconds a head that a bake takes of the hands. */
const HANG_SHARE = 0.5;

/** Lots of one program, filled into loads in the order in which they come. */
function loadsOf(parts: readonly LoadPart[], { places, racks }: EveningInput['oven']): LoadPart[][] {
  const room = (some: readonly LoadPart[]) => {
    const heads = sum(some.map((part) => part.heads));
    if (!racks?.length) return heads <= places;
    const groups = some.map(({ on, heads: count }, at) => {
      return { id: String(at), program: 'one', heads: Math.ceil(count), ...roomOf(on.lot.work.head) };
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

/** A lot on its way: what it waits for, how far it is, and what it went through since it came off a load. */
interface OnItsWay {
  lot: Lot;
  next: number;
  before: { task: string; lagS: number }[];
  stretch: Draft[];
  sessions: number;
  /** The load or the pour that it came from. */
  from: string;
  /** After these its pin is free again. */
  pinOut: string[];
}

/**
 * Everything that is to be done as tasks with what must come before each: melting and pours, then every lot step by
 * step. Runs are formed on the way: bakes of one program together in loads, heads of one load that want the same colour
 * in one dip session, and heads that come off together and want the same glue in one mix.
 * @param order works by urgency, by id: loads are filled in it; those that are left out come last
 * @throws QuantityError where a work waits for a pour that is not there
 * @example eveningTasks({ works: [], pours: [], oven: planOven }) // []
 */
export function eveningTasks(input: EveningInput, order: readonly string[] = []): Task[] {
  const { pours, oven } = input;
  const rank = new Map(order.map((id, at) => [id, at]));
  const works = [...input.works].sort((a, b) => (rank.get(a.id) ?? 1e9) - (rank.get(b.id) ?? 1e9));
  const lots = works.flatMap((work) => lotsOf(work, pours, Math.max(1, input.lotSize ?? oven.places)));
  const underway = lots.map((lot): OnItsWay => ({
    ...{ lot, next: 0, stretch: [], sessions: 0, from: lot.pourId ?? 'here', pinOut: [] },
    before: lot.pourId === null ? [] : [{ task: `pour ${lot.pourId}`, lagS: 0 }],
  }));
  const drafts: Draft[] = [];
  const add = (task: Task, wants: Wants | null = null): Draft => {
    const draft = { task, wants, session: null };
    drafts.push(draft);
    return draft;
  };
  // Bakes are met round by round: a lot that is baked twice is in the second round with others of its kind.
  let going = underway;
  for (let round = 0; going.length > 0; round++) {
    const parts = going.flatMap((each) => toNextBake(each, input, add) ?? []);
    const programs = new Map<string, LoadPart[]>();
    for (const part of parts) {
      const { round, pourId } = part.on.lot;
      // A later round waits for these pins: where they come out behind the bake, its heads are not in the same load.
      const pins = part.on.lot.work.pin && part.on.pinOut.length === 0 ? ` ${round}` : '';
      const key = `${part.step.bake!.program}${pins}${input.apart ? ` ${pourId}` : ''}`;
      programs.set(key, [...(programs.get(key) ?? []), part]);
    }
    for (const [program, own] of programs) {
      loadsOf(own, oven).forEach((load, nth) => bakeTogether(load, `${program} ${round} ${nth}`, add));
    }
    const inLoads = new Set(parts.map(({ on }) => on));
    for (const each of going) if (!inLoads.has(each)) together(each, `after ${each.from}`);
    going = [...inLoads];
  }
  return inSessions([...poursOf(input, underway), ...drafts]);
}

/** Pours, one after another at the one pot; in a round that wants pins back, after the heads that have them. */
function poursOf({ works, pours }: EveningInput, underway: readonly OnItsWay[]): Draft[] {
  const placeOf = new Map(pours.map(({ id }, at) => [id, at]));
  return pours.flatMap(({ id, name, moldIds, blankIds, seconds, meltS, shares, change, pins = [] }, at) => {
    const own = works.filter(({ blankId, toCast }) => toCast > 0 && blankId && blankIds.includes(blankId));
    const heads = sum(own.map(({ toCast, blankId }) => toCast * (shares?.[blankId!] ?? 1)));
    const back = underway.filter(({ lot: { work, pourId } }) => {
      const earlier = pourId === null || placeOf.get(pourId)! < at;
      return earlier && work.pin && pins.some((diameterM) => samePin(diameterM, work.pin!.diameterM));
    });
    const waits = [...(at > 0 ? [`pour ${pours[at - 1]!.id}`] : []), ...back.flatMap(({ pinOut }) => pinOut)];
    const workIds = own.map((work) => work.id);
    const emptied: Task[] = change
      ? [
          {
            ...{ id: `change ${id}`, name: `Change the metal to ${change.to}`, station: 'pour', step: POUR_STEP },
            ...{ seconds: change.seconds, hands: true, works: workIds, heads: 0, holds: ['pot'] },
            after: at > 0 ? [{ task: `pour ${pours[at - 1]!.id}`, lagS: 0 }] : [],
          },
        ]
      : [];
    const task: Task = {
      ...{ id: `pour ${id}`, name, station: 'pour', step: POUR_STEP, seconds, hands: true, leadS: meltS },
      ...{ works: workIds, heads: Math.round(heads) },
      holds: ['pot', ...moldIds.map((mold) => `mold ${mold}`)],
      after: [...emptied.map(({ id: before }) => before), ...waits].map((before) => ({ task: before, lagS: 0 })),
    };
    return [...emptied, task].map((each) => ({ task: each, wants: null, session: null }));
  });
}

type Add = (task: Task, wants?: Wants | null) => Draft;

/** Step by step as far as the next bake; null where none follows. */
function toNextBake(on: OnItsWay, input: EveningInput, add: Add): LoadPart | null {
  const { lot } = on;
  for (;;) {
    const step = lot.work.steps[on.next];
    if (!step) return null;
    const heads = headsAt(lot, on.next);
    on.next += 1;
    if (heads <= 0) continue;
    if (step.bake) return { on, step, heads };
    const seconds = heads * step.secondsPerHead;
    const atOnce = Math.min(input.people ?? 1, step.station === 'paint' ? (input.guns ?? 1) : Infinity);
    const shares = Math.max(1, Math.min(atOnce, Math.floor(seconds / WORTH_SHARING_S)));
    const { colour, cups = [], glue = null } = step;
    const says = glue ? `${step.does}, ${glue.name}` : colour === null ? null : `${step.does} ${colour}`;
    const ids = Array.from({ length: shares }, (_, share) => `${lot.work.id} ${lot.nth} ${step.key} ${share}`);
    ids.forEach((id, share) => {
      const task: Task = {
        ...{ id, name: says ? nameOf(lot) : `${step.does}: ${nameOf(lot)}`, station: step.station, step: step.key },
        ...{ hands: true, after: on.before, seconds: seconds / shares },
        holds: step.station === 'paint' ? ['gun'] : [],
        ...{ works: [lot.work.id], heads: Math.round(heads / shares) },
        ...(cups.length > 0 ? { cups } : {}),
      };
      on.stretch.push(add(task, says === null ? null : { says, glue, nth: `${on.sessions} ${share}` }));
    });
    if (says !== null) on.sessions += 1;
    on.before = ids.map((task) => ({ task, lagS: step.waitS }));
    if (step.key === lot.work.pin?.outAfter) on.pinOut = ids;
  }
}

/** What a lot went through shares its sessions with the others of the same load or the same pour. */
function together(on: OnItsWay, where: string): void {
  for (const draft of on.stretch) {
    if (!draft.wants) continue;
    const { says, nth, glue } = draft.wants;
    // In the same place of their ways only: else one's first colour would wait for another's second, and that for it.
    draft.session = [where, on.lot.pourId, draft.task.station, says, glue?.partId, nth].join(' ');
  }
  on.sessions = 0;
  on.stretch = [];
}

/** Hung up, baked and taken down in one load. */
function bakeTogether(load: readonly LoadPart[], key: string, add: Add): void {
  const heads = Math.round(sum(load.map((part) => part.heads)));
  const handsS = sum(load.map((part) => part.heads * part.step.secondsPerHead));
  const works = [...new Set(load.map(({ on }) => on.lot.work.id))];
  const says = load.map(({ on }) => nameOf(on.lot)).join('; ');
  const task = (id: string, name: string, more: Pick<Task, 'seconds' | 'hands' | 'holds' | 'after'>) =>
    add({
      ...{ id: `${id} ${key}`, name: `${name}: ${says}`, station: 'bake', step: load[0]!.step.key, works, heads },
      ...more,
    });
  task('hang', 'Hang up', {
    ...{ seconds: HANG_SHARE * handsS, hands: true, holds: [], after: load.flatMap(({ on }) => on.before) },
  });
  task('bake', 'In the oven', {
    ...{ seconds: Math.max(...load.map(({ step }) => step.bake!.seconds)), hands: false, holds: ['oven'] },
    after: [{ task: `hang ${key}`, lagS: 0 }],
  });
  task('take', 'Take down', {
    ...{ seconds: (1 - HANG_SHARE) * handsS, hands: true, holds: [] },
    after: [{ task: `bake ${key}`, lagS: 0 }],
  });
  for (const { on, step } of load) {
    together(on, `for ${key}`);
    on.from = key;
    on.before = [{ task: `take ${key}`, lagS: step.waitS }];
    if (step.key === on.lot.work.pin?.outAfter) on.pinOut = [`take ${key}`];
  }
}
